// Volumes of bodies, and what pairs of them have in common, by manifold-3d; and what the glTF validator says about a file.
import { readFileSync } from 'node:fs';
import validator from 'gltf-validator';
import Module from 'manifold-3d';

const { bodies = [], glb = null } = JSON.parse(readFileSync(0, 'utf8'));
const wasm = await Module();
wasm.setup();
const { Manifold, Mesh } = wasm;

// Single precision inside: about a place of their own, in metres.
const origin = bodies[0]?.vertices[0] ?? [0, 0, 0];
const solids = bodies.map(({ vertices, triangles }) => {
  const mesh = new Mesh({
    numProp: 3,
    vertProperties: new Float32Array(vertices.flatMap((v) => v.map((at, k) => (at - origin[k]) / 1000))),
    triVerts: new Uint32Array(triangles.flat()),
  });
  mesh.merge();
  return new Manifold(mesh);
});
const boxes = solids.map((s) => s.boundingBox());
const apart = (a, b) => [0, 1, 2].some((k) => a.max[k] <= b.min[k] || b.max[k] <= a.min[k]);
const common = [];
for (let i = 0; i < solids.length; i++)
  for (let j = 0; j < i; j++)
    if (!apart(boxes[i], boxes[j])) {
      const volume = Manifold.intersection(solids[i], solids[j]).volume();
      if (volume > 0) common.push([j, i, volume]);
    }
const report = glb === null ? null : await validator.validateBytes(new Uint8Array(Buffer.from(glb, 'base64')));
console.log(
  JSON.stringify({
    volumes: solids.map((s) => s.volume()),
    status: solids.map((s) => s.status()),
    common,
    messages: report?.issues.messages ?? [],
  }),
);
