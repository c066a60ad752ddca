"""What ezdxf reads from drawings of plans: faults, layers, what is drawn on each as chains of points, arcs within 0.01 mm; and how far, by
shapely, the walls lie off other chains, and those off the walls."""
import json, sys
import ezdxf
from ezdxf import path as ezpath
from ezdxf.lldxf.encoding import decode_dxf_unicode

from shapely.geometry import MultiLineString, Point


def off(points, lines):
    against = MultiLineString(lines)
    return max((against.distance(Point(p)) for p in points), default=0.0)


question = json.load(sys.stdin)
answers = []
for i, file in enumerate(question["files"]):
    doc = ezdxf.readfile(file)
    audit = doc.audit()
    chains, texts, kinds, dimensions, hatches, bulges = {}, [], {}, [], [], {}
    for e in doc.modelspace():
        kind, layer = e.dxftype(), e.dxf.layer
        kinds.setdefault(layer, {}).setdefault(kind, 0)
        kinds[layer][kind] += 1
        if kind == "TEXT":
            texts.append([layer, decode_dxf_unicode(e.dxf.text)])
        elif kind == "DIMENSION":
            inside = [v.dxftype() for v in e.virtual_entities()]
            dimensions.append([layer, e.get_measurement(), decode_dxf_unicode(e.dxf.text), inside])
        elif kind == "HATCH":
            hatches.append([layer, e.dxf.solid_fill, len(e.paths), len(e.pattern.lines) if e.pattern else 0])
        else:
            if kind == "LWPOLYLINE":
                bulges[layer] = bulges.get(layer, 0) + sum(1 for v in e.get_points("b") if abs(v[0]) > 1e-9)
            chains.setdefault(layer, []).append([[v.x, v.y] for v in ezpath.make_path(e).flattening(0.01)])
    other, walls = question.get("against", {}).get(str(i)), chains.get("walls", [])
    apart = None
    if other and walls:
        apart = [off([p for c in walls for p in c], other), off([p for c in other for p in c], walls)]
    answers.append({
        "apart": apart,
        "errors": len(audit.errors), "fixes": len(audit.fixes), "layers": [l.dxf.name for l in doc.layers], "kinds": kinds, "chains": chains,
        "texts": texts, "dimensions": dimensions, "hatches": hatches, "bulges": bulges,
    })
json.dump({"answers": answers}, sys.stdout)
