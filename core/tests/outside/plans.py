"""
Areas of wall plans by GEOS (through Shapely), independently of the project: the body is the union of each wall's
rectangle, less what pokes past the centre line of its neighbour at a node, and of a corner wedge between neighbouring walls at each node;
rooms are what the body encloses.

Wedge rule (docs/plan-format.md): where the two facing lines cross on the outer side within four half thicknesses of the
node, the wedge reaches to the crossing; otherwise a straight bevel joins the two square ends.
"""
import json, math, sys
from collections import defaultdict
from shapely.geometry import Polygon
from shapely.ops import unary_union

LIMIT = 4.0


FAR = 1e5


def half(a, b, t, side):
    """The half of a wall's rectangle between its centre line and its left (1) or right (-1) face."""
    l = math.dist(a, b)
    nx, ny = -(b[1] - a[1]) / l * t / 2 * side, (b[0] - a[0]) / l * t / 2 * side
    return Polygon([a, b, (b[0] + nx, b[1] + ny), (a[0] + nx, a[1] + ny)])


def beside(node, v, side):
    """The half plane to the left (1) or right (-1) of a line through the node."""
    nx, ny = -v[1] * side * FAR, v[0] * side * FAR
    p = (node[0] - v[0] * FAR, node[1] - v[1] * FAR)
    q = (node[0] + v[0] * FAR, node[1] + v[1] * FAR)
    return Polygon([p, q, (q[0] + nx, q[1] + ny), (p[0] + nx, p[1] + ny)])


def poke(shape, node, u, side, spokes):
    """What of a half lies beyond the centre line of its neighbour at the node, when that stands less than half a turn away."""
    angle = lambda v: (math.atan2(u[0] * v[1] - u[1] * v[0], u[0] * v[0] + u[1] * v[1]) * side) % (2 * math.pi)
    others = [v for v, _ in spokes if v != u]
    if not others:
        return None
    v = min(others, key=angle)
    return shape.intersection(beside(node, v, side)) if angle(v) < math.pi - 1e-9 else None


def crossing(p, u, q, v):
    d = u[0] * v[1] - u[1] * v[0]
    if abs(d) < 1e-9:
        return None
    s = ((q[0] - p[0]) * v[1] - (q[1] - p[1]) * v[0]) / d
    return (p[0] + s * u[0], p[1] + s * u[1])


def wedges(node, spokes):
    spokes = sorted(spokes, key=lambda s: math.atan2(s[0][1], s[0][0]))
    for i, (u, h) in enumerate(spokes):
        v, k = spokes[(i + 1) % len(spokes)]
        if len(spokes) < 2:
            return
        p = (node[0] - u[1] * h, node[1] + u[0] * h)
        q = (node[0] + v[1] * k, node[1] - v[0] * k)
        x = crossing(p, u, q, v)
        if x is None:
            continue
        inner = (x[0] - p[0]) * u[0] + (x[1] - p[1]) * u[1] >= 0 and (x[0] - q[0]) * v[0] + (x[1] - q[1]) * v[1] >= 0
        if inner:
            continue  # the rectangles meet by themselves
        near = math.dist(node, x) <= LIMIT * max(h, k)
        for ring in ([node, p, x], [node, x, q]) if near else ([node, p, q],):
            yield Polygon(ring).buffer(0)


answers = []
for walls in json.load(sys.stdin)["plans"]:
    spokes = defaultdict(list)
    parts = []
    for w in walls:
        a, b, t = tuple(w["from"]), tuple(w["to"]), w["thickness"]
        l = math.dist(a, b)
        u = ((b[0] - a[0]) / l, (b[1] - a[1]) / l)
        spokes[a].append((u, t / 2))
        spokes[b].append(((-u[0], -u[1]), t / 2))
    for w in walls:
        a, b, t = tuple(w["from"]), tuple(w["to"]), w["thickness"]
        l = math.dist(a, b)
        u = ((b[0] - a[0]) / l, (b[1] - a[1]) / l)
        whole = Polygon([*half(a, b, t, 1).exterior.coords[2:4], *half(a, b, t, -1).exterior.coords[3:1:-1]])
        for side in (1, -1):
            piece = half(a, b, t, side)
            for gone in (poke(piece, a, u, side, spokes[a]), poke(piece, b, (-u[0], -u[1]), -side, spokes[b])):
                if gone is not None and gone.area > 1e-3:
                    whole = whole.difference(gone)
        parts.append(whole.buffer(0))
    for node, at in spokes.items():
        parts.extend(wedges(node, at))
    # A nanometre more on every side lets parts that touch along an edge overlap: without it the union
    # drops pieces. It changes areas by less than 1e-8.
    body = unary_union([part.buffer(1e-6, join_style=2) for part in parts])
    groups = [g for g in getattr(body, "geoms", [body]) if g.geom_type == "Polygon"]
    enclosed = unary_union([Polygon(g.exterior) for g in groups]).difference(body)
    pieces = [r.area for r in getattr(enclosed, "geoms", [enclosed])]
    # Less than a hundredth of a square metre is a nick between faces, pinched off where they touch in one point.
    rooms = sorted(a for a in pieces if a > 10000.0)
    answers.append({"body": body.area, "rooms": rooms, "nicks": sum(a for a in pieces if a <= 10000.0)})
json.dump({"plans": answers}, sys.stdout)
