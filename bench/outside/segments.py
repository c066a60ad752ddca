"""Walls from OpenCV's line segments, paired: two that run beside each other 60 to 650 mm apart. Usage: segments.py PGM SCALE → JSON on standard output, pixels."""
import json
import math
import sys

import cv2
import numpy as np

image = cv2.imread(sys.argv[1], cv2.IMREAD_GRAYSCALE)
scale = float(sys.argv[2])
lines = cv2.createLineSegmentDetector().detect(image)[0]
segments = [] if lines is None else [tuple(map(float, line[0])) for line in lines]
segments = [s for s in segments if math.hypot(s[2] - s[0], s[3] - s[1]) * scale > 300]
segments.sort(key=lambda s: -math.hypot(s[2] - s[0], s[3] - s[1]))
used = set()
walls = []
for i, a in enumerate(segments):
    if i in used:
        continue
    la = math.hypot(a[2] - a[0], a[3] - a[1])
    u = np.array([(a[2] - a[0]) / la, (a[3] - a[1]) / la])
    n = np.array([-u[1], u[0]])
    best = None
    for k, b in enumerate(segments):
        if k == i or k in used:
            continue
        lb = math.hypot(b[2] - b[0], b[3] - b[1])
        if abs(u[0] * (b[3] - b[1]) - u[1] * (b[2] - b[0])) > 0.04 * lb:
            continue
        off = float(np.dot(n, [(b[0] + b[2]) / 2 - a[0], (b[1] + b[3]) / 2 - a[1]]))
        if not 60 <= abs(off) * scale <= 650:
            continue
        t = sorted(float(np.dot(u, [b[j] - a[0], b[j + 1] - a[1]])) for j in (0, 2))
        lo, hi = max(0.0, t[0]), min(la, t[1])
        if (hi - lo) * scale > 250 and (best is None or abs(off) < abs(best[0])):
            best = (off, lo, hi, k)
    if best is None:
        continue
    off, lo, hi, k = best
    used.update((i, k))
    p = np.array(a[:2]) + n * off / 2
    walls.append({"from": list(p + u * lo), "to": list(p + u * hi), "thickness": abs(off)})
json.dump({"units": "px", "walls": walls}, sys.stdout)
