"""What ezdxf and GDAL read from a DXF: errors, units, lengths of lines and polylines by layer."""
import json, sys
import ezdxf
from ezdxf.lldxf.encoding import decode_dxf_unicode
from osgeo import ogr

path = json.load(sys.stdin)["file"]
doc = ezdxf.readfile(path)
audit = doc.audit()
lines, texts, arcs = [], [], []
for e in doc.modelspace():
    if e.dxftype() == "LINE":
        lines.append([e.dxf.layer, (e.dxf.end - e.dxf.start).magnitude])
    elif e.dxftype() == "LWPOLYLINE":
        p = [v[:2] for v in e.get_points()]
        lines.append([e.dxf.layer, sum(((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2) ** 0.5 for a, b in zip(p, p[1:] + p[:1]))])
    elif e.dxftype() == "TEXT":
        texts.append(decode_dxf_unicode(e.dxf.text))
    elif e.dxftype() == "ARC":
        arcs.append([e.dxf.radius, (e.dxf.end_angle - e.dxf.start_angle) % 360])
gdal = []
source = ogr.Open(path)
layer = source.GetLayer(0)
for f in layer:
    g = f.GetGeometryRef()
    if g.GetGeometryName() == "LINESTRING" and "Arc" not in (f.GetField("SubClasses") or ""):
        gdal.append([f.GetField("Layer"), g.Length()])
json.dump({"errors": len(audit.errors), "fixes": len(audit.fixes), "units": doc.units, "lines": sorted(lines), "gdal": sorted(gdal), "texts": texts, "arcs": arcs}, sys.stdout)
