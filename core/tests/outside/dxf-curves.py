"""Drawings made by ezdxf with one thing each, and the lines that ezdxf itself takes them apart into."""
import json, math, os, sys
import ezdxf
from ezdxf.disassemble import recursive_decompose, to_primitives

folder = json.load(sys.stdin)["folder"]


def fresh():
    doc = ezdxf.new("R2010", units=4)
    return doc, doc.modelspace()


def column(doc):
    b = doc.blocks.new("COLUMN", base_point=(50, 20))
    b.add_lwpolyline([(0, 0), (300, 0), (300, 200), (0, 200)], close=True)
    b.add_circle((150, 100), 60)
    return b


cases = {}


def case(name):
    def add(make):
        doc, space = fresh()
        make(doc, space)
        path = os.path.join(folder, name + ".dxf")
        doc.saveas(path)
        chains = []
        drawn = (e for e in recursive_decompose(space) if e.dxftype() not in ("TEXT", "MTEXT", "POINT"))
        for p in to_primitives(drawn, max_flattening_distance=0.01):
            chain = [[v.x, v.y] for v in p.vertices()]
            if len(chain) > 1:
                chains.append(chain)
        cases[name] = {"file": path, "chains": chains}
    return add


case("line")(lambda d, s: s.add_line((1, 2), (3001, 402)))
case("arc")(lambda d, s: s.add_arc((100, 50), 900, 300, 45))
case("circle")(lambda d, s: s.add_circle((-40, 70), 1200))
case("mirrored-arc")(lambda d, s: s.add_arc((100, 50), 900, 10, 95, dxfattribs={"extrusion": (0, 0, -1)}))
case("tilted-circle")(lambda d, s: s.add_circle((100, 50), 900, dxfattribs={"extrusion": (0.4, -0.3, 0.8)}))
case("bulges")(lambda d, s: s.add_lwpolyline([(0, 0, 0.5), (1000, 0, -1.2), (1500, 800, 0), (0, 900, 0.1)], format="xyb", close=True))
case("mirrored-bulges")(lambda d, s: s.add_lwpolyline([(0, 0, 0.5), (1000, 0, 0), (1500, 800, -0.3)], format="xyb", dxfattribs={"extrusion": (0, 0, -1)}))
case("polyline-of-old")(lambda d, s: s.add_polyline2d([(0, 0, 0.0), (1000, 0, 0.7), (1500, 800, 0.0)], format="xyb", close=True))
case("polyline-in-space")(lambda d, s: s.add_polyline3d([(0, 0, 0), (1000, 0, 500), (1500, 800, 20)]))
case("ellipse")(lambda d, s: s.add_ellipse((10, 20), major_axis=(800, 300), ratio=0.4))
case("part-of-an-ellipse")(lambda d, s: s.add_ellipse((10, 20), major_axis=(800, 300), ratio=0.4, start_param=1.0, end_param=5.0))
case("spline")(lambda d, s: s.add_open_spline([(0, 0), (300, 900), (1200, -400), (1500, 600), (2200, 100)], degree=3))
case("rational-spline")(lambda d, s: s.add_rational_spline([(0, 0), (500, 900), (1500, 900), (2000, 0)], [1, 3, 2, 1], degree=3))
case("solid")(lambda d, s: s.add_solid([(0, 0), (400, 0), (0, 300), (400, 350)]))
case("face")(lambda d, s: s.add_3dface([(0, 0), (400, 0), (400, 350), (0, 300)]))


@case("insert")
def _(doc, space):
    column(doc)
    space.add_blockref("COLUMN", (1000, 2000), dxfattribs={"rotation": 30, "xscale": 2, "yscale": 0.5})


@case("mirrored-insert")
def _(doc, space):
    column(doc)
    space.add_blockref("COLUMN", (1000, 2000), dxfattribs={"rotation": 30, "xscale": -1, "yscale": 1})
    space.add_blockref("COLUMN", (-4000, 100), dxfattribs={"extrusion": (0, 0, -1)})


@case("rows-and-columns")
def _(doc, space):
    column(doc)
    space.add_blockref("COLUMN", (0, 0), dxfattribs={"rotation": 15, "column_count": 4, "row_count": 3, "column_spacing": 900, "row_spacing": 700})


@case("insert-in-insert")
def _(doc, space):
    column(doc)
    bay = doc.blocks.new("BAY")
    bay.add_blockref("COLUMN", (0, 0), dxfattribs={"rotation": 45})
    bay.add_blockref("COLUMN", (3000, 0))
    space.add_blockref("BAY", (500, 600), dxfattribs={"rotation": 90, "xscale": 0.5, "yscale": 0.5})


@case("dimension")
def _(doc, space):
    space.add_linear_dim(base=(0, 500), p1=(0, 0), p2=(3600, 0)).render()


json.dump({"version": ezdxf.__version__, "cases": cases}, sys.stdout)
