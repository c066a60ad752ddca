import {
  BufferAttribute,
  BufferGeometry,
  CanvasTexture,
  Group,
  Mesh,
  MeshLambertMaterial,
  type Plane,
  RepeatWrapping,
  SRGBColorSpace,
} from "three";
import { JOINT, type Repeat } from "../patterns";
import type { Bodies } from "./bodies";

/** How a finish looks: its colour, and what repeats of its pattern. */
export interface Look {
  colour: string;
  repeat: Repeat | null;
}

const SIDE_PX = 256;
const M = 1000;

/** Finishes as they lie on the bodies: one mesh for each finish of a storey. */
export class Laid {
  private readonly materials = new Map<string, { key: string; material: MeshLambertMaterial }>();

  constructor(private readonly cuts: Plane[]) {}

  /** Takes over how finishes look; whether any looks otherwise now. */
  look(looks: ReadonlyMap<string, Look>): boolean {
    let isNew = false;
    for (const [id, look] of looks) {
      const key = JSON.stringify(look);
      const known = this.of(id);
      if (known.key === key) continue;
      known.key = key;
      known.material.map?.dispose();
      known.material.map = look.repeat ? painted(look.colour, look.repeat) : null;
      known.material.color.set(look.repeat ? "#ffffff" : look.colour);
      known.material.needsUpdate = true;
      isNew = true;
    }
    return isNew;
  }

  /** @param from what the places of a storey count from, mm about the scene's own zero */
  group(told: Bodies, from: readonly [number, number]): Group {
    const group = new Group();
    for (const finish of new Set(told.surfaces.map((s) => s.finish))) {
      const of = told.surfaces.filter((s) => s.finish === finish);
      const places = of.flatMap((s) => s.places).map((mm, i) => (mm + (from[i % 3] ?? 0)) / M);
      const geometry = new BufferGeometry();
      geometry.setAttribute("position", new BufferAttribute(new Float32Array(places), 3));
      geometry.setAttribute("uv", new BufferAttribute(new Float32Array(of.flatMap((s) => s.pattern)), 2));
      geometry.computeVertexNormals();
      group.add(new Mesh(geometry, this.of(finish).material));
    }
    return group;
  }

  dispose(): void {
    for (const { material } of this.materials.values()) {
      material.map?.dispose();
      material.dispose();
    }
  }

  private of(finish: string) {
    const known = this.materials.get(finish) ?? {
      key: "",
      // Before the body that it lies on.
      material: new MeshLambertMaterial({
        clippingPlanes: this.cuts,
        polygonOffset: true,
        polygonOffsetFactor: -1,
        polygonOffsetUnits: -1,
      }),
    };
    this.materials.set(finish, known);
    return known;
  }
}

/** What repeats, painted once; where it lies is told in mm of the pattern. */
function painted(colour: string, { size, pieces }: Repeat): CanvasTexture {
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [SIDE_PX, SIDE_PX];
  const ctx = canvas.getContext("2d");
  if (ctx) {
    const [u, v] = [SIDE_PX / size[0], SIDE_PX / size[1]];
    ctx.fillStyle = colour;
    ctx.fillRect(0, 0, SIDE_PX, SIDE_PX);
    ctx.globalAlpha = JOINT.alpha;
    ctx.fillStyle = JOINT.colour;
    ctx.fillRect(0, 0, SIDE_PX, SIDE_PX);
    ctx.globalAlpha = 1;
    ctx.fillStyle = colour;
    for (const [x1 = 0, y1 = 0, x2 = 0, y2 = 0] of pieces) {
      ctx.fillRect(x1 * u, SIDE_PX - y2 * v, (x2 - x1) * u, (y2 - y1) * v);
    }
  }
  const texture = new CanvasTexture(canvas);
  [texture.wrapS, texture.wrapT] = [RepeatWrapping, RepeatWrapping];
  texture.repeat.set(1 / size[0], 1 / size[1]);
  texture.colorSpace = SRGBColorSpace;
  texture.anisotropy = 4;
  return texture;
}
