"""Letters written by ezdxf in every way, and where ezdxf itself puts their baselines; words without their codes."""
import json, math, os, sys
import ezdxf
from ezdxf.addons import MTextExplode
from ezdxf.enums import TextEntityAlignment as Align
from ezdxf.tools.fonts import MonospaceFont
from ezdxf.tools.text import TextLine, plain_text

folder = json.load(sys.stdin)["folder"]
doc = ezdxf.new("R2010", units=4)
space = doc.modelspace()


def baseline(t):
    """From its begin to its end, with letters of one width."""
    height = t.dxf.height
    words = plain_text(t.dxf.text.replace("\\U+00E4", "ä"))
    line = TextLine(words, MonospaceFont(cap_height=height, width_factor=1.0))
    h, v = t.dxf.halign, t.dxf.valign
    # "Middle" of the reference is the middle both ways; the line of ezdxf knows it across alone.
    h, v = (1, 2) if h == 4 else (h, v)
    at = t.dxf.insert if t.dxf.halign == 0 and v == 0 else t.dxf.align_point
    begin, end = (t.ocs().to_wcs(p) for p in line.baseline_vertices(at, h, v, math.radians(t.dxf.rotation))[:2])
    return {"text": words, "height": height, "from": [begin.x, begin.y], "to": [end.x, end.y]}


texts = []
for i, align in enumerate([Align.LEFT, Align.CENTER, Align.RIGHT, Align.MIDDLE, Align.TOP_LEFT, Align.TOP_CENTER, Align.MIDDLE_RIGHT, Align.BOTTOM_CENTER]):
    for turn in (0, 30, 90, 200):
        t = space.add_text(f"ROOM {i} %%d %%p5 %%uW\\U+00E4sche", height=200 + 10 * i, rotation=turn)
        t.set_placement((1000 * i, 50 * turn), align=align)
        texts.append(baseline(t))
block = doc.blocks.new("NAME", base_point=(10, 20))
block.add_text("KITCHEN", height=100).set_placement((50, 60))
for turn, scale in [(0, 2), (90, 1), (0, -1)]:
    insert = space.add_blockref("NAME", (7000, -8000 - turn), dxfattribs={"rotation": turn, "xscale": scale, "yscale": abs(scale)})
    texts += [baseline(t) for t in insert.virtual_entities()]
attribute = insert.add_attrib("NO", "12", (100, -9500))
attribute.dxf.height = 90
texts.append(baseline(attribute))
hidden = insert.add_attrib("HIDDEN", "not seen", (100, -9700))
hidden.is_invisible = True

multi = []
for place in range(1, 10):
    where = {"char_height": 120, "attachment_point": place, "width": 0, "rotation": 15 * place}
    coded = space.add_mtext("{\\fArial|b1;BED ROOM}\\P\\H2.5x;12,5 m² \\S1/2; \\\\ \\{x\\}", dxfattribs=where)
    coded.set_location((20000, 3000 * place))
    same = space.add_mtext("FIRST\\PSECOND\\PTHIRD", dxfattribs=where)
    same.set_location((40000, 3000 * place))
    copy = space.add_mtext(same.text, dxfattribs=where)
    copy.set_location((40000, 3000 * place))
    before = {e.dxf.handle for e in space}
    with MTextExplode(space) as explode:
        explode.explode(copy)
    lines = [e for e in space if e.dxf.handle not in before and e.dxftype() == "TEXT"]
    multi.append({"plain": coded.plain_text(split=True), "lines": [baseline(e) for e in lines]})
    for e in lines:
        space.delete_entity(e)

path = os.path.join(folder, "texts.dxf")
doc.saveas(path)
json.dump({"file": path, "texts": texts, "lines": multi}, sys.stdout)
