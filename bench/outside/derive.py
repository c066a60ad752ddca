"""GEOS on a whole plan: noding and polygonizing the centre lines, buffering each wall, and their union; least of runs, ms."""
import json, sys, time
from shapely.geometry import LineString
from shapely.ops import polygonize, unary_union

walls = json.load(sys.stdin)["walls"]


def derive():
    lines = [LineString([(x1, y1), (x2, y2)]) for x1, y1, x2, y2, _ in walls]
    rooms = list(polygonize(unary_union(lines)))
    body = unary_union([l.buffer(w[4] / 2, cap_style=2, join_style=2) for l, w in zip(lines, walls)])
    return rooms, body


best = 1e9
for _ in range(3 if len(walls) < 2000 else 1):
    start = time.perf_counter()
    derive()
    best = min(best, (time.perf_counter() - start) * 1000)
json.dump({"ms": best}, sys.stdout)
