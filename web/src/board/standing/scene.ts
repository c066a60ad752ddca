import {
  BackSide,
  BufferAttribute,
  BufferGeometry,
  Color,
  DirectionalLight,
  DoubleSide,
  FrontSide,
  Group,
  HemisphereLight,
  LineBasicMaterial,
  LineDashedMaterial,
  LineSegments,
  type Material,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  PerspectiveCamera,
  Plane,
  Points,
  PointsMaterial,
  Raycaster,
  Scene,
  type Texture,
  Vector2,
  Vector3,
  WebGLRenderer,
} from "three";
import type { Bodies, BodyKind } from "./bodies";
import { type Eye, eyeOf, FIELD_INSIDE, FIELD_OF_VIEW, ahead as lookOf, type Place3 } from "./camera";
import { drawnOf } from "./forms";
import { Laid, type Look } from "./laid";
import { type Taken, taken } from "./taking";

/** Limestone and timber, quiet beside the drawing; panes let through what is behind them. */
const COLOURS: Record<BodyKind, number> = {
  wall: 0xece7dc,
  railing: 0xd8d0bf,
  column: 0xd6d0c2,
  floor: 0xd9d1bf,
  finish: 0xcbb894,
  ceiling: 0xf4f1ea,
  stair: 0xb9a98c,
  roof: 0xa9a08f,
  dormer: 0xd5cdbd,
  chimney: 0xb7a48f,
  swept: 0xf1ede3,
  frame: 0xfdfcfa,
  leaf: 0xbfa985,
  pane: 0x9dbdbb,
  object: 0xc8bfae,
};
const KINDS = Object.keys(COLOURS) as BodyKind[];
const INK = 0x1c2a26;
const TEAL = 0x1f7a72;
const PLUM = 0x6d2a63;
const M = 1000;
/** A picture that takes longer than this is drawn coarser while it moves, ms; and by how much, pixels for one. */
const SMOOTH_MS = 14;
const COARSE = 0.5;
const LEAST_PART = 0.02;

/** Which body each triangle of a mesh is of. */
interface Owned {
  storey: string;
  part: string;
  bodies: readonly { kind: BodyKind; id: string }[];
  owners: Uint32Array;
}

/** Something that was hit. */
export interface Hit {
  storey: string;
  /** of what is told of it */
  part: string;
  kind: BodyKind;
  id: string;
  at: Place3;
}

/** A picture that lies or stands in the model, metres. */
export interface Standing {
  /** lower left, lower right, upper right, upper left as it is looked at */
  corners: readonly [Place3, Place3, Place3, Place3];
  texture: Texture;
  alpha: number;
}

/** What is drawn of the building: all bodies of a kind on a storey are one mesh, so that the number of walls costs nothing. */
export class StandingScene {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new PerspectiveCamera(FIELD_OF_VIEW, 1, 0.05, 4e4);
  /** by storey and part */
  private readonly parts = new Map<string, { storey: string; version: string; group: Group }>();
  private readonly chosen = new Group();
  private readonly pictures = new Group();
  private readonly wear = new Group();
  private readonly measured = new Group();
  private readonly cuts: Plane[] = [];
  private readonly laid = new Laid(this.cuts);
  private readonly materials = new Map<BodyKind, Material>();
  private readonly lines = new LineBasicMaterial({ color: INK, transparent: true, opacity: 0.55 });
  private readonly cutFace = new MeshBasicMaterial({ color: 0x33433d, side: BackSide });
  private readonly selected = new MeshBasicMaterial({
    color: TEAL,
    transparent: true,
    opacity: 0.45,
    depthWrite: false,
    polygonOffset: true,
    polygonOffsetFactor: -1,
    side: DoubleSide,
  });
  private readonly restsOnFigure = new LineBasicMaterial({ color: INK });
  private readonly restsOnHand = new LineDashedMaterial({ color: INK, dashSize: 0.06, gapSize: 0.09 });
  private readonly between = new LineBasicMaterial({ color: PLUM, depthTest: false });
  private readonly ends = new PointsMaterial({ color: PLUM, size: 8, sizeAttenuation: false, depthTest: false });
  /** mm that the scene counts from */
  private origin: readonly [number, number] | null = null;
  private told = new Map<string, Bodies>();
  /** how long the last fine picture took, ms; of the first nothing is known, and something is to be seen soon */
  private tookMs = SMOOTH_MS + 1;
  private isCoarse = false;
  private part = 1;
  private readonly pixel = new Uint8Array(4);

  constructor(readonly canvas: HTMLCanvasElement) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, preserveDrawingBuffer: true });
    this.renderer.setClearColor(new Color(0xfdfcfa));
    this.renderer.localClippingEnabled = true;
    this.camera.up.set(0, 0, 1);
    const sun = new DirectionalLight(0xffffff, 1.7);
    // From the south-east, so that no two slopes or walls that meet are as bright.
    sun.position.set(0.4, -0.85, 0.8);
    this.scene.add(
      new HemisphereLight(0xffffff, 0xd5cfc1, 1.9),
      sun,
      this.pictures,
      this.chosen,
      this.wear,
      this.measured,
    );
    this.measured.renderOrder = 1;
    for (const kind of KINDS) {
      const colour = { color: COLOURS[kind], flatShading: true, clippingPlanes: this.cuts };
      this.materials.set(
        kind,
        kind === "pane"
          ? new MeshLambertMaterial({ ...colour, transparent: true, opacity: 0.4, depthWrite: false })
          : new MeshLambertMaterial({ ...colour, polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 }),
      );
    }
    const cut = [this.lines, this.cutFace, this.selected, this.restsOnFigure, this.restsOnHand];
    for (const material of cut) material.clippingPlanes = this.cuts;
  }

  dispose(): void {
    for (const part of [...this.parts.keys()]) this.remove(part);
    for (const group of [this.chosen, this.wear, this.measured]) empty(group);
    this.takeDown();
    this.laid.dispose();
    this.renderer.dispose();
  }

  resize(width: number, height: number): void {
    this.isCoarse = false;
    this.lines.visible = true;
    this.renderer.setPixelRatio(window.devicePixelRatio);
    this.renderer.setSize(width, height, false);
    this.camera.aspect = width / Math.max(1, height);
    this.camera.updateProjectionMatrix();
  }

  /** Takes over what has changed; whether anything has. */
  put(bodies: ReadonlyMap<string, Bodies>): boolean {
    let isNew = false;
    for (const part of [...this.parts.keys()]) {
      if (!bodies.has(part)) {
        this.remove(part);
        isNew = true;
      }
    }
    for (const [part, told] of bodies) {
      if (this.parts.get(part)?.version === told.version) continue;
      this.remove(part);
      this.origin ??= [told.origin[0] ?? 0, told.origin[1] ?? 0];
      const group = this.built(part, told);
      this.parts.set(part, { storey: told.storey, version: told.version, group });
      this.scene.add(group);
      isNew = true;
    }
    this.told = new Map(bodies);
    return isNew;
  }

  /** What is seen: storeys, and kinds that are left out. */
  show(storeys: ReadonlySet<string>, without: ReadonlySet<BodyKind | "finishes">): void {
    for (const { storey, group } of this.parts.values()) {
      group.visible = storeys.has(storey);
      for (const child of group.children) child.visible = !without.has(child.userData.kind as BodyKind | "finishes");
    }
  }

  /** How finishes look; whether anything looks otherwise now. */
  look(looks: ReadonlyMap<string, Look>): boolean {
    return this.laid.look(looks);
  }

  /** Lines that tell on what walls rest: ends of segments, mm. */
  tell({ figure, hand }: { figure: readonly Place3[]; hand: readonly Place3[] }): void {
    empty(this.wear);
    const add = (ends: readonly Place3[], material: LineBasicMaterial | LineDashedMaterial) => {
      if (ends.length === 0) return;
      const lines = new LineSegments(this.through(ends), material);
      lines.computeLineDistances();
      this.wear.add(lines);
    };
    add(figure, this.restsOnFigure);
    add(hand, this.restsOnHand);
  }

  /** What is measured, from place to place, mm. */
  measure(places: readonly Place3[]): void {
    empty(this.measured);
    const [a, b] = places;
    if (a && b) this.measured.add(new LineSegments(this.through([a, b]), this.between));
    if (a) this.measured.add(new Points(this.through(places), this.ends));
  }

  private through(places: readonly Place3[]): BufferGeometry {
    const at = new Float32Array(places.flatMap((p) => this.inScene(p)));
    return new BufferGeometry().setAttribute("position", new BufferAttribute(at, 3));
  }

  /** Only what lies on the side of a plane that its normal points away from; all of it without one. */
  cut(plane: { normal: Place3; at: number } | null): void {
    this.cuts.length = 0;
    if (plane) this.cuts.push(new Plane(new Vector3(...plane.normal).negate(), plane.at));
    for (const { group } of this.parts.values()) {
      for (const child of group.children) {
        if (child.userData.isCutFace) child.visible = plane !== null && child.visible;
      }
    }
    this.scene.traverse((o) => {
      if (o instanceof Mesh && !Array.isArray(o.material)) (o.material as Material).needsUpdate = true;
    });
  }

  /** Marks what is selected. */
  choose(ids: ReadonlySet<string>): void {
    empty(this.chosen);
    if (ids.size === 0) return;
    for (const told of this.told.values()) {
      const of = told.bodies.filter((b) => ids.has(b.id));
      if (of.length === 0) continue;
      this.chosen.add(new Mesh(this.placed(told, of).faces, this.selected));
    }
  }

  stand(pictures: readonly Standing[]): void {
    this.takeDown();
    for (const { corners, texture, alpha } of pictures) {
      const [a, b, c, d] = corners.map((p) => this.inScene(p)) as [Place3, Place3, Place3, Place3];
      const geometry = new BufferGeometry();
      geometry.setAttribute("position", new BufferAttribute(new Float32Array([...a, ...b, ...c, ...a, ...c, ...d]), 3));
      geometry.setAttribute("uv", new BufferAttribute(new Float32Array([0, 0, 1, 0, 1, 1, 0, 0, 1, 1, 0, 1]), 2));
      const material = new MeshBasicMaterial({
        map: texture,
        transparent: true,
        opacity: alpha,
        // Who comes from behind sees the building, not the back of its picture.
        side: FrontSide,
        depthWrite: false,
        polygonOffset: true,
        polygonOffsetFactor: -2,
      });
      this.pictures.add(new Mesh(geometry, material));
    }
  }

  /** What pictures were painted on is large: it goes with them. */
  private takeDown(): void {
    for (const child of this.pictures.children) {
      if (child instanceof Mesh && child.material instanceof MeshBasicMaterial) {
        child.material.map?.dispose();
        child.material.dispose();
      }
    }
    empty(this.pictures);
  }

  /** The corners of the box round all that is seen, metres. */
  bounds(): { least: Place3; most: Place3 } | null {
    const [least, most] = [
      [Infinity, Infinity, Infinity],
      [-Infinity, -Infinity, -Infinity],
    ] as [number[], number[]];
    for (const { group } of this.parts.values()) {
      for (const child of group.visible ? group.children : []) {
        if (!(child instanceof Mesh) || !child.visible) continue;
        child.geometry.computeBoundingBox();
        const box = child.geometry.boundingBox;
        for (const i of [0, 1, 2] as const) {
          least[i] = Math.min(least[i] ?? 0, box?.min.getComponent(i) ?? Infinity);
          most[i] = Math.max(most[i] ?? 0, box?.max.getComponent(i) ?? -Infinity);
        }
      }
    }
    return Number.isFinite(least[0]) ? { least: least as unknown as Place3, most: most as unknown as Place3 } : null;
  }

  /**
   * @param isMoving whether it is one of many on the way: what takes long to draw is then drawn coarser, without its edges and, of very
   *   much, the largest alone; once it rests, all of it
   */
  render(eye: Eye, isMoving = false): void {
    const isCoarse = isMoving && this.tookMs > SMOOTH_MS;
    this.setCoarse(isCoarse);
    const began = performance.now();
    this.draw(eye);
    // What the driver still has to do is waited for, or it would be counted with the next picture.
    const gl = this.renderer.getContext();
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, this.pixel);
    const took = performance.now() - began;
    if (!isCoarse) this.tookMs = took;
    else this.setPart(this.part * Math.max(0.3, Math.min(1.1, SMOOTH_MS / took)));
  }

  private setCoarse(isCoarse: boolean): void {
    if (isCoarse === this.isCoarse) return;
    this.isCoarse = isCoarse;
    this.lines.visible = !isCoarse;
    this.renderer.setPixelRatio(isCoarse ? COARSE : window.devicePixelRatio);
    this.setPart(isCoarse ? Math.min(this.part, (2 * SMOOTH_MS) / this.tookMs) : 1, isCoarse);
  }

  /** How much of all triangles is drawn while it moves: bodies lie in them from the largest to the smallest. */
  private setPart(part: number, isKept = true): void {
    if (isKept) this.part = Math.max(LEAST_PART, Math.min(1, part));
    for (const { group } of this.parts.values()) {
      for (const child of group.children) {
        if (!(child instanceof Mesh) || child.userData.isCutFace) continue;
        const { count } = (child.geometry as BufferGeometry).getIndex() ?? { count: 0 };
        child.geometry.setDrawRange(0, isKept ? 3 * Math.ceil((count / 3) * this.part) : Number.POSITIVE_INFINITY);
      }
    }
  }

  private draw(eye: Eye): void {
    const [x, y, z] = eyeOf(eye);
    const [dx, dy, dz] = lookOf(eye);
    const field = eye.distance === 0 ? FIELD_INSIDE : FIELD_OF_VIEW;
    if (this.camera.fov !== field) {
      this.camera.fov = field;
      this.camera.updateProjectionMatrix();
    }
    this.camera.position.set(x, y, z);
    // From straight above the top of the picture is what one looks towards.
    this.camera.up.set(
      -Math.sin(eye.turn) * Math.sin(eye.tilt),
      Math.cos(eye.turn) * Math.sin(eye.tilt),
      Math.cos(eye.tilt),
    );
    this.camera.lookAt(x + dx, y + dy, z + dz);
    this.renderer.render(this.scene, this.camera);
  }

  /** What is under a place of the canvas, −1 … 1 across and up. */
  hit(x: number, y: number): Hit | null {
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2(x, y), this.camera);
    return this.first(ray, () => true);
  }

  /** The corner, the place on an edge or on a face that is pointed at; −1 … 1 across and up. */
  take(x: number, y: number): Taken | null {
    const hit = this.hit(x, y);
    const told = this.told.get(hit?.part ?? "");
    if (!hit || !told) return this.takeLaid(x, y);
    const { edges } = this.placed(
      told,
      told.bodies.filter((b) => b.id === hit.id && b.kind === hit.kind),
    );
    const [at, ends] = [edges.getAttribute("position"), edges.getIndex()];
    const place = (n: number): Place3 => [at.getX(n), at.getY(n), at.getZ(n)];
    const lines: (readonly [Place3, Place3])[] = [];
    for (let i = 0; ends && i < ends.count; i += 2) lines.push([place(ends.getX(i)), place(ends.getX(i + 1))]);
    const { clientWidth, clientHeight } = this.canvas;
    return taken(hit.at, lines, (p) => {
      const v = new Vector3(...p).project(this.camera);
      return [(v.x * clientWidth) / 2, (-v.y * clientHeight) / 2];
    });
  }

  /** A finish lies there although no body does: a floor that was never drawn. */
  private takeLaid(x: number, y: number): Taken | null {
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2(x, y), this.camera);
    const seen = [...this.parts.values()].flatMap(({ group }) =>
      group.visible ? group.children.filter((c) => c.visible && c.userData.kind === "finishes") : [],
    );
    const [found] = ray.intersectObjects(seen);
    return found ? { at: [found.point.x, found.point.y, found.point.z], on: "face" } : null;
  }

  /** How far one can go from a place before something stands in the way, metres. */
  clear(from: Place3, way: Place3): number {
    const ray = new Raycaster(new Vector3(...from), new Vector3(...way).normalize());
    // Doors are walked through.
    const found = this.first(ray, (kind) => kind !== "leaf" && kind !== "pane");
    return found ? Math.hypot(found.at[0] - from[0], found.at[1] - from[1], found.at[2] - from[2]) : Infinity;
  }

  /** Where a ray through a place of the canvas meets a level, metres. */
  onLevel(x: number, y: number, level: number): Place3 | null {
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2(x, y), this.camera);
    const at = ray.ray.intersectPlane(new Plane(new Vector3(0, 0, 1), -level), new Vector3());
    return at ? [at.x, at.y, at.z] : null;
  }

  /** Model millimetres of a place in the scene, and the other way round. */
  inModel([x, y, z]: Place3): Place3 {
    return [x * M + (this.origin?.[0] ?? 0), y * M + (this.origin?.[1] ?? 0), z * M];
  }

  inScene([x, y, z]: Place3): Place3 {
    return [(x - (this.origin?.[0] ?? 0)) / M, (y - (this.origin?.[1] ?? 0)) / M, z / M];
  }

  private first(ray: Raycaster, isWanted: (kind: BodyKind) => boolean): Hit | null {
    // What is left out of a coarse picture stands in the way all the same.
    if (this.isCoarse) this.setPart(1, false);
    const found = this.struck(ray, isWanted);
    if (this.isCoarse) this.setPart(this.part);
    return found;
  }

  private struck(ray: Raycaster, isWanted: (kind: BodyKind) => boolean): Hit | null {
    const meshes = [...this.parts.values()].flatMap(({ group }) =>
      group.visible ? group.children.filter((c) => c.visible && c.userData.owned) : [],
    );
    for (const { object, faceIndex, point } of ray.intersectObjects(meshes, false)) {
      const { storey, part, bodies, owners } = object.userData.owned as Owned;
      const body = bodies[owners[faceIndex ?? 0] ?? 0];
      // What is cut away is not there.
      if (body && isWanted(body.kind) && this.cuts.every((p) => p.distanceToPoint(point) >= 0)) {
        return { storey, part, ...body, at: [point.x, point.y, point.z] };
      }
    }
    return null;
  }

  private built(part: string, told: Bodies): Group {
    const group = new Group();
    for (const kind of KINDS) {
      const of = told.bodies
        .filter((b) => b.kind === kind)
        .map((b) => [reach(told.forms[b.form]), b] as const)
        .sort((a, b) => b[0] - a[0])
        .map(([, b]) => b);
      const material = this.materials.get(kind);
      if (of.length === 0 || !material) continue;
      const { faces, edges, owners } = this.placed(told, of);
      const mesh = new Mesh(faces, material);
      mesh.userData = { kind, owned: { storey: told.storey, part, bodies: of, owners } satisfies Owned };
      group.add(mesh);
      const drawn = new LineSegments(edges, this.lines);
      drawn.userData = { kind };
      group.add(drawn);
      if (kind !== "pane") {
        // Where a body is cut one looks at its inside, which is as dark as poché.
        const inside = new Mesh(faces, this.cutFace);
        inside.userData = { kind, isCutFace: true };
        group.add(inside);
      }
    }
    if (told.surfaces.length > 0) {
      const [ox, oy] = this.origin ?? [0, 0];
      const laid = this.laid.group(told, [(told.origin[0] ?? 0) - ox, (told.origin[1] ?? 0) - oy]);
      laid.userData = { kind: "finishes" };
      group.add(laid);
    }
    return group;
  }

  /** Places of bodies, metres about the scene's own, each once; triangles and lines between them. */
  private placed(told: Bodies, of: readonly Bodies["bodies"][number][]) {
    const [ox, oy] = this.origin ?? [0, 0];
    const [sx, sy] = [(told.origin[0] ?? 0) - ox, (told.origin[1] ?? 0) - oy];
    const forms = of.flatMap((b) => told.forms[b.form] ?? []);
    const drawn = forms.map(drawnOf);
    const places = new Float32Array(forms.reduce((n, f) => n + f.vertices.length, 0));
    const triangles = new Uint32Array(drawn.reduce((n, d) => n + d.triangles.length, 0));
    const creases = new Uint32Array(drawn.reduce((n, d) => n + d.creases.length, 0));
    const owners = new Uint32Array(triangles.length / 3);
    let [p, t, c] = [0, 0, 0];
    of.forEach((body, owner) => {
      const [form, lines] = [forms[owner], drawn[owner]];
      if (!form || !lines) return;
      const [x = 0, y = 0, z = 0, cos = 1, sin = 0] = body.at ?? [];
      const first = p / 3;
      for (let v = 0; v < form.vertices.length; v += 3) {
        const [u = 0, w = 0, h = 0] = [form.vertices[v], form.vertices[v + 1], form.vertices[v + 2]];
        places[p++] = (sx + x + cos * u - sin * w) / M;
        places[p++] = (sy + y + sin * u + cos * w) / M;
        places[p++] = (z + h) / M;
      }
      owners.fill(owner, t / 3, (t + lines.triangles.length) / 3);
      for (const v of lines.triangles) triangles[t++] = first + v;
      for (const v of lines.creases) creases[c++] = first + v;
    });
    const at = new BufferAttribute(places, 3);
    const made = (index: Uint32Array) => {
      const geometry = new BufferGeometry();
      geometry.setAttribute("position", at);
      geometry.setIndex(new BufferAttribute(index, 1));
      return geometry;
    };
    return { faces: made(triangles), edges: made(creases), owners };
  }

  private remove(part: string): void {
    const known = this.parts.get(part);
    if (!known) return;
    empty(known.group);
    this.scene.remove(known.group);
    this.parts.delete(part);
  }
}

/** How large a form is: the longest side of the box round it, mm. */
function reach(form: Bodies["forms"][number] | undefined): number {
  const [least, most] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  form?.vertices.forEach((v, i) => {
    least[i % 3] = Math.min(least[i % 3] ?? v, v);
    most[i % 3] = Math.max(most[i % 3] ?? v, v);
  });
  return Math.max(0, ...most.map((m, i) => m - (least[i] ?? m)));
}

function empty(group: Group): void {
  for (const child of [...group.children]) {
    if (child instanceof Group) empty(child);
    if (child instanceof Mesh || child instanceof LineSegments || child instanceof Points) child.geometry.dispose();
    group.remove(child);
  }
}
