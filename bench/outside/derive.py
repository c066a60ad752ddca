"""GEOS on a whole furnished plan, as a general-purpose library would be used: lines noded and polygonized, each wall buffered, their
union; from each face what bodies and columns cover is taken, its name is found, a place for its label, and its width there; every
opening is cut out of its wall's line. Least of runs, ms."""
import json, sys, time, warnings
from shapely.geometry import LineString, Point, Polygon, box
from shapely.ops import polygonize, polylabel, substring, unary_union
from shapely.strtree import STRtree

told = json.load(sys.stdin)
warnings.simplefilter("ignore")  # the tree of one version says that the next will differ


def columns():
    for x, y, w, d, is_round in told["columns"]:
        yield Point(x, y).buffer(w / 2, 16) if is_round else box(x - w / 2, y - d / 2, x + w / 2, y + d / 2)


def derive():
    lines = [LineString([(x1, y1), (x2, y2)]) for x1, y1, x2, y2, _ in told["walls"]]
    faces = list(polygonize(unary_union(lines + [LineString([(x1, y1), (x2, y2)]) for x1, y1, x2, y2 in told["dividers"]])))
    bodies = [l.buffer(w[4] / 2, cap_style=2, join_style=2) for l, w in zip(lines, told["walls"])]
    body = unary_union(bodies)
    standing = list(columns())
    near, posts, names = STRtree(bodies), STRtree(standing), STRtree([Point(x, y) for x, y in told["rooms"]])
    rooms = []
    for face in faces:
        clear = face
        for other in near.query(face):
            clear = clear.difference(other)
        if clear.is_empty:
            continue
        inside = [n for n in names.query(clear) if clear.contains(n)]
        taken = sum(clear.intersection(c).area for c in posts.query(clear))
        largest = clear if isinstance(clear, Polygon) else max(clear.geoms, key=lambda g: g.area)
        label = inside[0] if inside else polylabel(largest, 50)
        x1, y1, x2, y2 = largest.bounds
        width = LineString([(x1, label.y), (x2, label.y)]).intersection(largest).length
        depth = LineString([(label.x, y1), (label.x, y2)]).intersection(largest).length
        rooms.append((clear.area - taken, width, depth, len(inside)))
    openings = [substring(lines[wall], start, start + width).buffer(told["walls"][wall][4] / 2, cap_style=2) for wall, start, width in told["openings"]]
    return rooms, body, openings


best = 1e9
for _ in range(3 if len(told["walls"]) < 2000 else 1):
    start = time.perf_counter()
    derive()
    best = min(best, (time.perf_counter() - start) * 1000)
json.dump({"ms": best}, sys.stdout)
