import { ShapeUtils, Vector2 } from "three";
import type { Bodies } from "./bodies";

type Form = Bodies["forms"][number];

/** What is drawn of a form, by the numbers of its corners: its faces in triangles, and the lines where faces meet at an angle. */
export interface Drawn {
  triangles: Uint32Array;
  creases: Uint32Array;
}

/** Faces that lean on each other by less run on: the cosine of half a degree. */
const SMOOTH = 0.99996;

const known = new WeakMap<Form, Drawn>();

/** The same for the same form. */
export function drawnOf(form: Form): Drawn {
  const drawn = known.get(form) ?? drawnAnew(form);
  known.set(form, drawn);
  return drawn;
}

function drawnAnew({ vertices, faces, smooth = [] }: Form): Drawn {
  const triangles: number[] = [];
  const normals: number[] = [];
  const meet = new Map<number, number>();
  const creases: number[] = [];
  const count = vertices.length / 3;
  const round = new Set<number>();
  for (let i = 0; i + 1 < smooth.length; i += 2) {
    const [a = 0, b = 0] = [smooth[i], smooth[i + 1]];
    round.add(Math.min(a, b) * count + Math.max(a, b));
  }
  let face = 0;
  for (let i = 0; i < faces.length; face++) {
    const rings: number[][] = [];
    for (let left = faces[i++] ?? 0; left > 0; left--) {
      const n = faces[i++] ?? 0;
      rings.push(faces.slice(i, i + n));
      i += n;
    }
    const normal = normalOf(vertices, rings);
    const length = Math.hypot(...normal) || 1;
    normals.push(normal[0] / length, normal[1] / length, normal[2] / length);
    cut(vertices, rings, normal, triangles);
    for (const ring of rings) {
      let from = ring[ring.length - 1] ?? 0;
      for (const to of ring) {
        const key = Math.min(from, to) * count + Math.max(from, to);
        const other = meet.get(key);
        if (other === undefined) meet.set(key, face);
        else if (!round.has(key) && !runsOn(normals, other, face)) creases.push(from, to);
        from = to;
      }
    }
  }
  return { triangles: new Uint32Array(triangles), creases: new Uint32Array(creases) };
}

function runsOn(normals: readonly number[], a: number, b: number): boolean {
  let cosine = 0;
  for (let i = 0; i < 3; i++) cosine += (normals[3 * a + i] ?? 0) * (normals[3 * b + i] ?? 0);
  return cosine >= SMOOTH;
}

/** Twice as long as the face is large, outward (Newell). */
function normalOf(vertices: readonly number[], rings: readonly (readonly number[])[]): [number, number, number] {
  const sum: [number, number, number] = [0, 0, 0];
  const first = 3 * (rings[0]?.[0] ?? 0);
  const at = (v: number, i: number) => (vertices[3 * v + i] ?? 0) - (vertices[first + i] ?? 0);
  for (const ring of rings) {
    let a = ring[ring.length - 1] ?? 0;
    for (const b of ring) {
      sum[0] += at(a, 1) * at(b, 2) - at(a, 2) * at(b, 1);
      sum[1] += at(a, 2) * at(b, 0) - at(a, 0) * at(b, 2);
      sum[2] += at(a, 0) * at(b, 1) - at(a, 1) * at(b, 0);
      a = b;
    }
  }
  return sum;
}

/** Cuts a face into triangles that turn as it does. */
function cut(
  vertices: readonly number[],
  rings: readonly (readonly number[])[],
  normal: readonly [number, number, number],
  triangles: number[],
): void {
  const [nx, ny, nz] = normal.map(Math.abs) as [number, number, number];
  // Onto the plane of two axes that it faces most, the same way round.
  const [u, v, way] = nz >= nx && nz >= ny ? [0, 1, normal[2]] : ny >= nx ? [2, 0, normal[1]] : [1, 2, normal[0]];
  const x = (n: number) => vertices[3 * n + u] ?? 0;
  const y = (n: number) => vertices[3 * n + v] ?? 0;
  const turn = (a: number, b: number, c: number) =>
    Math.sign(way) * ((x(b) - x(a)) * (y(c) - y(a)) - (y(b) - y(a)) * (x(c) - x(a)));
  const [ring = []] = rings;
  const [a = 0, b = 0, c = 0, d = 0] = ring;
  if (rings.length === 1 && ring.length === 3) {
    triangles.push(a, b, c);
  } else if (rings.length === 1 && ring.length === 4 && turn(a, b, c) > 0 && turn(a, c, d) > 0) {
    triangles.push(a, b, c, a, c, d);
  } else if (rings.length === 1 && turnsLeft(ring, turn)) {
    // To and fro across it.
    for (let i = 0, k = ring.length - 1; k - i > 1; ) {
      triangles.push(ring[i] ?? 0, ring[i + 1] ?? 0, ring[k] ?? 0);
      i++;
      if (k - i > 1) triangles.push(ring[i] ?? 0, ring[k - 1] ?? 0, ring[k--] ?? 0);
    }
  } else {
    const all = rings.flat();
    const points = rings.map((r) => r.map((n) => new Vector2(x(n), y(n))));
    for (const [i = 0, j = 0, k = 0] of ShapeUtils.triangulateShape(points[0] ?? [], points.slice(1))) {
      const [p = 0, q = 0, r = 0] = [all[i], all[j], all[k]];
      if (turn(p, q, r) > 0) triangles.push(p, q, r);
      else triangles.push(p, r, q);
    }
  }
}

function turnsLeft(ring: readonly number[], turn: (a: number, b: number, c: number) => number): boolean {
  let [a = 0, b = 0] = [ring[ring.length - 2], ring[ring.length - 1]];
  for (const c of ring) {
    if (turn(a, b, c) <= 1e-6) return false;
    [a, b] = [b, c];
  }
  return true;
}
