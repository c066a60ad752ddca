"""
Of rings whose edges may be arcs, given as centre, radius and angles or as their straight ends: area, length, bounds, whether the ring
is simple, and how near each edge comes to a building, by GEOS (through Shapely), independently of the project. An arc is laid out here
by its angles in 4000 chords.
"""
import json, math, sys
from shapely.geometry import LinearRing, LineString, MultiLineString, Polygon

answers = []
for case in json.load(sys.stdin)["cases"]:
    lines = []
    for edge in case["edges"]:
        if "centre" in edge:
            (x, y), r, start, sweep = edge["centre"], edge["radius"], edge["start"], edge["sweep"]
            lines.append([(x + r * math.cos(start + sweep * i / 4000), y + r * math.sin(start + sweep * i / 4000)) for i in range(4001)])
        else:
            lines.append([tuple(edge["from"]), tuple(edge["to"])])
    ring = [p for line in lines for p in line[:-1]]
    building = MultiLineString([r + [r[0]] for r in case["building"]])
    answers.append({
        "area": Polygon(ring).area,
        "length": LinearRing(ring).length,
        "bounds": list(Polygon(ring).bounds),
        "simple": LinearRing([p for line in lines for p in (line[:-1] if len(line) < 3 else line[:-1:20])]).is_simple,
        "near": [LineString(line).distance(building) for line in lines],
    })
json.dump({"cases": answers}, sys.stdout)
