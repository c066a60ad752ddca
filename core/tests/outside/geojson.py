"""What GDAL reads from a GeoJSON file: its reference, and every feature's kind, area and extent."""
import json, sys
from osgeo import ogr

source = ogr.Open(json.load(sys.stdin)["file"])
layer = source.GetLayer(0)
reference = layer.GetSpatialRef()
features = []
for f in layer:
    g = f.GetGeometryRef()
    features.append([f.GetField("what"), f.GetField("name") if f.GetFieldIndex("name") >= 0 else None, g.GetArea(), list(g.GetEnvelope()), g.IsValid()])
json.dump({"epsg": reference.GetAuthorityCode(None) if reference else None, "features": features}, sys.stdout)
