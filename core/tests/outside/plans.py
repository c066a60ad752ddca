"""
Areas of wall plans by GEOS (through Shapely), independently of the project: the body is the union of each wall's
rectangle, less what pokes past the centre line of its neighbour at a node, and of a corner wedge between neighbouring walls at each node;
rooms are what the body encloses within the faces of the centre lines.

Wedge rule (docs/plan-format.md): where the two facing lines cross on the outer side within four half thicknesses of the
node, the wedge reaches to the crossing; otherwise a straight bevel joins the two square ends.
"""
import json, math, sys
from collections import defaultdict
from shapely.geometry import Polygon
from shapely.geometry import LineString
from shapely.ops import polygonize, unary_union

LIMIT = 4.0


def direction(w):
    """Along a wall from its start to its end; as it is told where a node that lies a little beside it does not turn its faces."""
    a, b = w["from"], w["to"]
    l = math.dist(a, b)
    return tuple(w.get("along") or ((b[0] - a[0]) / l, (b[1] - a[1]) / l))


def half(a, b, u, t, side):
    """The half of a wall's strip, as a ring, between its centre line and its left (1) or right (-1) face."""
    nx, ny = -u[1] * t / 2 * side, u[0] * t / 2 * side
    return [a, b, (b[0] + nx, b[1] + ny), (a[0] + nx, a[1] + ny)]


def beyond(ring, node, v, side):
    """A convex ring without what lies to the left (1) or right (-1) of a line through the node."""
    off = [((p[1] - node[1]) * v[0] - (p[0] - node[0]) * v[1]) * side for p in ring]
    kept = []
    for i, p in enumerate(ring):
        q, s, t = ring[(i + 1) % len(ring)], off[i], off[(i + 1) % len(ring)]
        if s <= 0:
            kept.append(p)
        if s * t < 0:
            kept.append((p[0] + s / (s - t) * (q[0] - p[0]), p[1] + s / (s - t) * (q[1] - p[1])))
    return kept


def held(ring, node, u, side, spokes):
    """
    A half of a strip without what lies beyond the centre line of its neighbour at the node, when that stands less than half a turn
    away; all of it where their faces cross only beyond the end of either.
    """
    angle = lambda a, b: (math.atan2(a[0] * b[1] - a[1] * b[0], a[0] * b[0] + a[1] * b[1]) * side) % (2 * math.pi)
    own = next(s for s in spokes if s[0] == u)
    others = [s for s in spokes if s is not own]
    if not others:
        return ring
    # Which comes next is told from node to node, how they stand by their faces.
    v, k, long, _ = min(others, key=lambda s: angle(own[3], s[3]))
    _, h, length, _ = own
    turn = angle(u, v)
    if turn >= math.pi - 1e-9:
        return ring
    if (k + h * math.cos(turn)) / math.sin(turn) > length or (h + k * math.cos(turn)) / math.sin(turn) > long:
        return ring
    return beyond(ring, node, v, side)


def crossing(p, u, q, v):
    d = u[0] * v[1] - u[1] * v[0]
    if abs(d) < 1e-9:
        return None
    s = ((q[0] - p[0]) * v[1] - (q[1] - p[1]) * v[0]) / d
    return (p[0] + s * u[0], p[1] + s * u[1])


def wedges(node, spokes):
    spokes = sorted(spokes, key=lambda s: math.atan2(s[3][1], s[3][0]))
    for i, (u, h, length, d) in enumerate(spokes):
        v, k, long, e = spokes[(i + 1) % len(spokes)]
        if len(spokes) < 2:
            return
        p = (node[0] - u[1] * h, node[1] + u[0] * h)
        q = (node[0] + v[1] * k, node[1] - v[0] * k)
        if u[0] * v[0] + u[1] * v[1] > 0.99 and u[0] * v[1] - u[1] * v[0] <= 0 < d[0] * e[1] - d[1] * e[0]:
            continue  # as good as on each other
        x = crossing(p, u, q, v)
        if x is None:
            continue
        on_u, on_v = (x[0] - p[0]) * u[0] + (x[1] - p[1]) * u[1], (x[0] - q[0]) * v[0] + (x[1] - q[1]) * v[1]
        if on_u >= 0 and on_v >= 0:
            continue  # the rectangles meet by themselves
        near = math.dist(node, x) <= LIMIT * max(h, k)
        cut, keeps = (q, p) if on_v > 0 else (p, q)
        inside = sum((keeps[i] - cut[i]) * (cut[i] - node[i]) for i in (0, 1)) <= 0
        if near and inside and (on_u > length or on_v > long):
            # The crossing would cut into the thicker wall further back than that reaches: the other goes on to its square end.
            e, f = crossing(p, u, node, (-v[1], v[0])), crossing(q, v, node, (-u[1], u[0]))
            yield Polygon([node, p, e] if on_v > 0 else [node, f, q]).buffer(0)
            continue
        for ring in ([node, p, x], [node, x, q]) if near else ([node, p, q],):
            yield Polygon(ring).buffer(0)


answers = []
for walls in json.load(sys.stdin)["plans"]:
    spokes = defaultdict(list)
    parts = []
    for w in walls:
        a, b, t = tuple(w["from"]), tuple(w["to"]), w["thickness"]
        l = math.dist(a, b)
        u = direction(w)
        spokes[a].append((u, t / 2, l, (b[0] - a[0], b[1] - a[1])))
        spokes[b].append(((-u[0], -u[1]), t / 2, l, (a[0] - b[0], a[1] - b[1])))
    for w in walls:
        a, b, t = tuple(w["from"]), tuple(w["to"]), w["thickness"]
        u = direction(w)
        for side in (1, -1):
            ring = held(half(a, b, u, t, side), a, u, side, spokes[a])
            ring = held(ring, b, (-u[0], -u[1]), -side, spokes[b])
            if len(ring) > 2:
                parts.append(Polygon(ring).buffer(0))
    for node, at in spokes.items():
        parts.extend(wedges(node, at))
    # A nanometre more on every side lets parts that touch along an edge overlap: without it the union
    # drops pieces. It changes areas by less than 1e-8.
    body = unary_union([part.buffer(1e-6, join_style=2) for part in parts])
    groups = [g for g in getattr(body, "geoms", [body]) if g.geom_type == "Polygon"]
    enclosed = unary_union([Polygon(g.exterior) for g in groups]).difference(body)
    # What lies outside all faces of the centre lines is a pocket between bodies, and no room.
    faces = unary_union([f.buffer(0) for f in polygonize([LineString([w["from"], w["to"]]) for w in walls])])
    pieces = [r.area for r in getattr(enclosed, "geoms", [enclosed]) if faces.contains(r.representative_point())]
    # Less than a hundredth of a square metre is a nick between faces, pinched off where they touch in one point.
    rooms = sorted(a for a in pieces if a > 10000.0)
    answers.append({"body": body.area, "rooms": rooms, "nicks": sum(a for a in pieces if a <= 10000.0)})
json.dump({"plans": answers}, sys.stdout)
