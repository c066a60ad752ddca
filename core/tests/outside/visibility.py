"""Shortest ways from places to the nearest exit among polygons with holes, by a visibility graph that GEOS is asked about line by line."""
import json, math, sys
import heapq
from shapely.geometry import LineString, Polygon
from shapely.geometry.polygon import orient
from shapely.ops import unary_union
from shapely.prepared import prep

answers = []
for plan in json.load(sys.stdin):
    cells = [Polygon(c["outer"], c["holes"]) for c in plan["cells"]]
    floor = prep(unary_union([c.buffer(3e-5, join_style=2) for c in cells]))
    corners = []
    # Of what the cells are together, every corner that stands into it; rounding makes none.
    whole = unary_union([c.buffer(1e-5, join_style=2) for c in cells])
    for part in getattr(whole, "geoms", [whole]):
        for ring, inner in [(part.exterior, False), *((r, True) for r in part.interiors)]:
            p = list(orient(Polygon(ring)).exterior.coords)[:-1]
            for i in range(len(p)):
                (ax, ay), (bx, by), (cx, cy) = p[i - 1], p[i], p[(i + 1) % len(p)]
                turn = (bx - ax) * (cy - by) - (by - ay) * (cx - bx)
                if (turn > 0) == inner and abs(turn) > 1e-9:
                    corners.append((bx, by))
    places = [tuple(p) for p in plan["places"]]
    exits = [tuple(p) for p in plan["exits"]]
    nodes = exits + corners + places
    pairs = [(i, j) for i in range(len(nodes)) for j in range(i) if math.dist(nodes[i], nodes[j]) > 0]
    near = [[] for _ in nodes]
    for i, j in pairs:
        if floor.covers(LineString([nodes[i], nodes[j]])):
            d = math.dist(nodes[i], nodes[j])
            near[i].append((j, d))
            near[j].append((i, d))
    far = [math.inf] * len(nodes)
    queue = []
    for i in range(len(exits)):
        far[i] = 0.0
        heapq.heappush(queue, (0.0, i))
    while queue:
        d, i = heapq.heappop(queue)
        if d > far[i]:
            continue
        for j, by in near[i]:
            if d + by < far[j]:
                far[j] = d + by
                heapq.heappush(queue, (far[j], j))
    last = far[len(exits) + len(corners):]
    answers.append({"corners": len(corners), "far": [None if math.isinf(f) else f for f in last]})
json.dump(answers, sys.stdout)
