"""What GDAL reads from a DXF: on each layer how many features there are, how long their lines are and how large their areas, and the texts."""
import json, sys
from osgeo import ogr

ogr.UseExceptions()
layers = {}
source = ogr.Open(json.load(sys.stdin)["file"])
for f in source.GetLayer(0):
    geometry = f.GetGeometryRef()
    told = layers.setdefault(f.GetField("Layer"), {"count": 0, "length": 0.0, "area": 0.0, "texts": []})
    told["count"] += 1
    if geometry.GetDimension() == 2:
        told["length"] += geometry.Boundary().Length()
        told["area"] += geometry.GetArea()
    elif geometry.GetDimension() == 1:
        told["length"] += geometry.Length()
    if f.GetField("Text"):
        told["texts"].append(f.GetField("Text"))
json.dump({"layers": layers}, sys.stdout)
