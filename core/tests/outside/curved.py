"""
Net areas of rooms between straight and curved walls by GEOS (through Shapely), independently of the project: what the
centre lines enclose less what lies within half a thickness of them, with square ends. It holds where no corner between
two walls of a room is more than half a turn, so that bodies cover each other there; other rooms are answered with null.
Arcs come as chords.
"""
import json, math, sys
from shapely.geometry import LineString
from shapely.geometry.polygon import orient
from shapely.ops import polygonize, unary_union



def bulges_in(face, ends):
    ring = list(orient(face).exterior.coords)[:-1]
    for i, p in enumerate(ring):
        if any(math.dist(p, e) < 1e-6 for e in ends):
            a, b = ring[i - 1], ring[(i + 1) % len(ring)]
            if (p[0] - a[0]) * (b[1] - p[1]) - (p[1] - a[1]) * (b[0] - p[0]) < 0:
                return True
    return False


answers = []
for walls in json.load(sys.stdin)["plans"]:
    lines = [LineString(w["chain"]) for w in walls]
    body = unary_union([l.buffer(w["thickness"] / 2, cap_style=2, join_style=2) for l, w in zip(lines, walls)])
    rooms = []
    for face in polygonize(unary_union(lines)):
        inside = face.difference(body)
        area = max(g.area for g in getattr(inside, "geoms", [inside]))
        rooms.append((area, not bulges_in(face, [c for w in walls for c in (w["chain"][0], w["chain"][-1])])))
    answers.append([area if comparable else None for area, comparable in sorted(rooms)])
json.dump({"plans": answers}, sys.stdout)
