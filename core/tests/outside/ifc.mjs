// What web-ifc reads in IFC files: every product with its class, name and volume, and what voids, fills, contains and decomposes what.
import { readFileSync } from 'node:fs';
import * as ifc from 'web-ifc';

const { files } = JSON.parse(readFileSync(0, 'utf8'));
const api = new ifc.IfcAPI();
await api.Init();
api.SetLogLevel(ifc.LogLevel.LOG_LEVEL_OFF);
const read = (file) => {
const model = api.OpenModel(new Uint8Array(readFileSync(file)), { COORDINATE_TO_ORIGIN: false });
const schema = api.GetModelSchema(model);

const volumeOf = (geometry) => {
  const points = api.GetVertexArray(geometry.GetVertexData(), geometry.GetVertexDataSize());
  const corners = api.GetIndexArray(geometry.GetIndexData(), geometry.GetIndexDataSize());
  let six = 0;
  const at = (k) => [points[6 * k] - points[0], points[6 * k + 1] - points[1], points[6 * k + 2] - points[2]];
  for (let i = 0; i < corners.length; i += 3) {
    const [a, b, c] = [at(corners[i]), at(corners[i + 1]), at(corners[i + 2])];
    six +=
      a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) + a[2] * (b[0] * c[1] - b[1] * c[0]);
  }
  return six / 6;
};

const volumes = {};
const facing = {};
const seen = (mesh) => {
  let sum = 0;
  for (let i = 0; i < mesh.geometries.size(); i++) {
    const placed = mesh.geometries.get(i);
    const m = placed.flatTransformation;
    // There y is up: what points along y of the plan points against z.
    facing[mesh.expressID] = [m[4], -m[6]].map((v) => Math.round(v * 1000) || 0);
    const det =
      m[0] * (m[5] * m[10] - m[6] * m[9]) - m[4] * (m[1] * m[10] - m[2] * m[9]) + m[8] * (m[1] * m[6] - m[2] * m[5]);
    sum += det * volumeOf(api.GetGeometry(model, placed.geometryExpressID));
  }
  volumes[mesh.expressID] = sum;
};
api.StreamAllMeshes(model, seen);
// Rooms are not among what is drawn by itself.
api.StreamAllMeshesWithTypes(model, [ifc.IFCSPACE], seen);

const all = (type) => [...api.GetLineIDsWithType(model, type)].map((id) => [id, api.GetLine(model, id)]);
const products = [];
for (const type of [
  'IFCPROJECT', 'IFCSITE', 'IFCBUILDING', 'IFCBUILDINGSTOREY', 'IFCSPACE', 'IFCWALL', 'IFCRAILING', 'IFCCOLUMN', 'IFCSLAB',
  'IFCCOVERING', 'IFCSTAIR', 'IFCROOF', 'IFCBUILDINGELEMENTPROXY', 'IFCCHIMNEY', 'IFCFURNITURE', 'IFCOPENINGELEMENT', 'IFCDOOR',
  'IFCWINDOW',
]) // biome-ignore format: one list
  for (const [id, line] of all(ifc[type]))
    products.push({
      id,
      type,
      guid: line.GlobalId.value,
      name: line.Name?.value ?? null,
      long: line.LongName?.value ?? null,
      volume: volumes[id] ?? null,
      operation: line.OperationType?.value ?? null,
      facing: facing[id] ?? null,
    });
const pairs = (type, one, other) =>
  all(ifc[type]).flatMap(([, line]) =>
    [line[other]].flat().map((of) => [line[one].value, of.value]),
  );
const quantities = all(ifc.IFCRELDEFINESBYPROPERTIES).flatMap(([, line]) => {
  const set = api.GetLine(model, line.RelatingPropertyDefinition.value);
  const values = Object.fromEntries(
    (set.Quantities ?? set.HasProperties ?? []).map(({ value }) => {
      const of = api.GetLine(model, value);
      return [of.Name.value, (of.LengthValue ?? of.AreaValue ?? of.VolumeValue ?? of.NominalValue).value];
    }),
  );
  return line.RelatedObjects.map((o) => [o.value, set.Name.value, values]);
});
const materials = all(ifc.IFCRELASSOCIATESMATERIAL).flatMap(([, line]) => {
  const used = api.GetLine(model, line.RelatingMaterial.value);
  const set = api.GetLine(model, used.ForLayerSet.value);
  const layer = api.GetLine(model, set.MaterialLayers[0].value);
  return line.RelatedObjects.map((o) => [o.value, set.LayerSetName.value, layer.LayerThickness.value]);
});
return {
    schema,
    products,
    voids: pairs('IFCRELVOIDSELEMENT', 'RelatingBuildingElement', 'RelatedOpeningElement'),
    fills: pairs('IFCRELFILLSELEMENT', 'RelatingOpeningElement', 'RelatedBuildingElement'),
    contains: pairs('IFCRELCONTAINEDINSPATIALSTRUCTURE', 'RelatingStructure', 'RelatedElements'),
    parts: pairs('IFCRELAGGREGATES', 'RelatingObject', 'RelatedObjects'),
    quantities,
    materials,
    conversions: all(ifc.IFCMAPCONVERSION).map(([, line]) => [line.Eastings.value, line.Northings.value, line.Scale.value]),
  };
};
console.log(JSON.stringify({ answers: files.map(read) }));
