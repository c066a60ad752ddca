"""Draws dimension lines with their figures by OpenCV's strokes and lettering, and a scale bar: reads {"size", "ink", "paper",
"lines": [{"a", "b", "text"}], "bar": null or {"at", "band", "labels"}}, answers {"width", "height", "bytes"} (grey values, compressed, base64)."""
import base64, json, math, sys, zlib
import cv2, numpy as np

ask = json.load(sys.stdin)
w, h = ask["size"]
page = np.full((h, w), ask["paper"], np.uint8)
ink = ask["ink"]
FONT, SCALE, PEN = cv2.FONT_HERSHEY_SIMPLEX, 0.85, 2


def line(p, q, pen=1):
    cv2.line(page, *(tuple(int(round(v * 16)) for v in e) for e in (p, q)), ink, pen, cv2.LINE_AA, 4)


def letters(text, x, y, level):
    (tw, th), base = cv2.getTextSize(text, FONT, SCALE, PEN)
    tile = np.zeros((th + 2 * base, tw + 4), np.uint8)
    cv2.putText(tile, text, (2, th + base // 2), FONT, SCALE, 255, PEN, cv2.LINE_AA)
    if not level:
        tile = np.rot90(tile)
    left, top = int(round(x - tile.shape[1] / 2)), int(round(y - tile.shape[0] / 2))
    part = page[top:top + tile.shape[0], left:left + tile.shape[1]]
    part[:] = (part + (ink - part.astype(float)) * (tile / 255.0)).astype(np.uint8)


for d in ask["lines"]:
    a, b = d["a"], d["b"]
    level = abs(a[1] - b[1]) < abs(a[0] - b[0])
    u = (1, 0) if level else (0, -1)
    n = (0, 1) if level else (1, 0)  # toward the foot of the lettering
    line((a[0] - 6 * u[0], a[1] - 6 * u[1]), (b[0] + 6 * u[0], b[1] + 6 * u[1]))
    for e in (a, b):
        line((e[0] - 14 * n[0], e[1] - 14 * n[1]), (e[0] + 14 * n[0], e[1] + 14 * n[1]))
        line((e[0] - 7 * u[0] + 7 * n[0], e[1] - 7 * u[1] + 7 * n[1]), (e[0] + 7 * u[0] - 7 * n[0], e[1] + 7 * u[1] - 7 * n[1]), 2)
    letters(d["text"], (a[0] + b[0]) / 2 - n[0] * 22, (a[1] + b[1]) / 2 - n[1] * 22, level)
bar = ask.get("bar")
if bar:
    (x, y), band, high = bar["at"], bar["band"], 14
    for k, label in enumerate(bar["labels"]):
        if label:
            # The first word stands over its tick, what follows beside it.
            (wide, _), _ = cv2.getTextSize(label.split(" ")[0], FONT, SCALE, PEN)
            (all_of_it, _), _ = cv2.getTextSize(label, FONT, SCALE, PEN)
            letters(label, x + k * band + (all_of_it - wide) / 2, y - 20, True)
        if k + 1 < len(bar["labels"]):
            cv2.rectangle(page, (x + k * band, y), (x + (k + 1) * band, y + high), ink, cv2.FILLED if k % 2 == 0 else 1)
page = cv2.GaussianBlur(page, (0, 0), 0.7)
json.dump({"width": w, "height": h, "bytes": base64.b64encode(zlib.compress(page.tobytes())).decode()}, sys.stdout)
