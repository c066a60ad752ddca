# Draws simulated scans of invented plans from a seed, with their exact truth: draw.py SEED COUNT FOLDER
# Walls solid or as two lines, turned, some stretched, blurred, with grain, as PNG or JPEG; columns on some.
import json, os, sys
import cv2
import numpy as np

SS = 8  # drawn so many times as large, then averaged down


def plan(rng):
    nx, ny = rng.integers(2, 5), rng.integers(2, 4)
    xs = np.concatenate([[0], np.cumsum(rng.integers(24, 52, nx) * 100)]).astype(float)
    ys = np.concatenate([[0], np.cumsum(rng.integers(24, 48, ny) * 100)]).astype(float)
    outer, inner = float(rng.choice([240, 300, 365])), float(rng.choice([100, 115, 150]))
    return xs, ys, outer, inner


def drawing(seed):
    rng = np.random.default_rng(seed)
    xs, ys, outer, inner = plan(rng)
    style = rng.choice(["poche", "double"])
    mm = float(rng.uniform(5, 11))
    skew = float(rng.uniform(-3, 3))
    stretch = float(rng.choice([1.0, 1.0, 1.0 + rng.uniform(0.008, 0.03)]))
    axis = rng.choice(["x", "y"])
    sx, sy = (stretch, 1.0) if axis == "x" else (1.0, stretch)
    margin = 2400.0
    w, h = int((xs[-1] + 2 * margin) * sx / mm), int((ys[-1] + 2 * margin) * sy / mm)
    c, s = np.cos(np.radians(skew)), np.sin(np.radians(skew))
    # model → pixels: stretched, scaled, turned counter-clockwise as seen, y down, about the middle
    lin = np.array([[c * sx, -s * sy], [-s * sx, -c * sy]]) / mm
    mid = np.array([xs[-1] / 2, ys[-1] / 2])
    off = np.array([w / 2, h / 2]) - lin @ mid
    fwd = np.vstack([np.column_stack([lin, off]), [0, 0, 1]])
    page = np.full((h * SS, w * SS), 255, np.uint8)

    def px(points):
        # pixel centres of the drawing library lie at whole numbers
        return (np.asarray(points, float) @ lin.T + off) * SS - 0.5

    def fill(points, grey=25):
        cv2.fillPoly(page, [np.round(px(points) * 16).astype(np.int32)], grey, cv2.LINE_8, 4)

    def line(a, b, pen=25.0, grey=35):
        d = np.subtract(b, a) / np.hypot(*np.subtract(b, a))
        n = np.array([-d[1], d[0]]) * pen / 2
        fill([a + n - d * pen / 2, b + n + d * pen / 2, b - n + d * pen / 2, a - n - d * pen / 2], grey)

    walls, rooms = [], []
    o = outer
    faces = lambda i, last, t: (0.0, o) if i == 0 else ((-o, 0.0) if i == last else (-t / 2, t / 2))
    X = [(x + faces(i, len(xs) - 1, inner)[0], x + faces(i, len(xs) - 1, inner)[1]) for i, x in enumerate(xs)]
    Y = [(y + faces(i, len(ys) - 1, inner)[0], y + faces(i, len(ys) - 1, inner)[1]) for i, y in enumerate(ys)]
    for i in range(len(xs) - 1):
        for k in range(len(ys) - 1):
            x1, x2, y1, y2 = X[i][1], X[i + 1][0], Y[k][1], Y[k + 1][0]
            rooms.append({"name": f"R{i}{k}", "polygon": [[x1, y1], [x2, y1], [x2, y2], [x1, y2]]})
    outline = [[0, 0], [xs[-1], 0], [xs[-1], ys[-1]], [0, ys[-1]]]
    if style == "poche":
        fill(outline)
        for r in rooms:
            fill(r["polygon"], 255)
    else:
        for ring in [outline] + [r["polygon"] for r in rooms]:
            for a, b in zip(ring, ring[1:] + ring[:1]):
                line(np.array(a), np.array(b))
    columns = []
    if rng.random() < 0.6:
        size = float(rng.choice([300, 350, 400]))
        r = rooms[int(rng.integers(len(rooms)))]["polygon"]
        for t in (0.35, 0.7):
            at = [r[0][0] + t * (r[2][0] - r[0][0]), r[0][1] + 0.5 * (r[2][1] - r[0][1])]
            columns.append({"id": f"C{len(columns)}", "centre": at, "size": [size, size]})
            ring = [[at[0] + dx * size / 2, at[1] + dy * size / 2] for dx, dy in ((-1, -1), (1, -1), (1, 1), (-1, 1))]
            if rng.random() < 0.5:
                fill(ring)
            else:
                for a, b in zip(ring, ring[1:] + ring[:1]):
                    line(np.array(a), np.array(b))
    for i, x in enumerate(xs):
        walls.append({"id": f"V{i}", "from": [sum(X[i]) / 2, 0], "to": [sum(X[i]) / 2, ys[-1]], "thickness": X[i][1] - X[i][0], "external": i in (0, len(xs) - 1)})
    for k, y in enumerate(ys):
        walls.append({"id": f"H{k}", "from": [0, sum(Y[k]) / 2], "to": [xs[-1], sum(Y[k]) / 2], "thickness": Y[k][1] - Y[k][0], "external": k in (0, len(ys) - 1)})
    dims = [{"from": [0, 0], "to": [xs[-1], 0]}, {"from": [0, ys[-1]], "to": [xs[-1], ys[-1]]}, {"from": [0, 0], "to": [0, ys[-1]]}, {"from": [xs[-1], 0], "to": [xs[-1], ys[-1]]}]
    for r in rooms:
        dims += [{"from": r["polygon"][0], "to": r["polygon"][1]}, {"from": r["polygon"][1], "to": r["polygon"][2]}]
    step = float(rng.choice([1, 5, 10]))
    for d in dims:
        d["measured"] = float(np.hypot(d["to"][0] - d["from"][0], d["to"][1] - d["from"][1]))
        d["value"] = round(d["measured"] / step) * step
        d["step"] = step
    small = cv2.resize(page, (w, h), interpolation=cv2.INTER_AREA).astype(float)
    small = cv2.GaussianBlur(small, (0, 0), float(rng.uniform(0.4, 1.0)))
    light = 1 - rng.uniform(0, 0.18) * np.linspace(0, 1, w)[None, :]
    small = small * light * rng.uniform(0.9, 0.98) + rng.normal(0, rng.uniform(1, 7), small.shape)
    grey = np.clip(small, 0, 255).astype(np.uint8)
    inverse = np.linalg.inv(fwd)
    truth = {"units": "mm", "kind": "plan", "size": [w, h], "pixelToMm": inverse.tolist(), "mmPerPixel": mm / np.sqrt(sx * sy), "skewDegrees": skew, "quarterTurns": 0, "perspective": False,
             "stretch": {"x": sx, "y": sy}, "stretchAxes": "drawing", "extent": [0, 0, xs[-1], ys[-1]], "scale": 100, "style": {"walls": str(style), "wobbleMm": 0.0}, "walls": walls, "openings": [], "rooms": rooms, "columns": columns, "dimensions": dims, "encoding": "png", "seed": int(seed)}
    return grey, truth, rng


seed, count, folder = int(sys.argv[1]), int(sys.argv[2]), sys.argv[3]
os.makedirs(folder, exist_ok=True)
for k in range(count):
    grey, truth, rng = drawing(seed + k)
    ext = "jpg" if rng.random() < 0.5 else "png"
    name = f"fresh-{seed + k}"
    truth["image"] = f"{name}.{ext}"
    cv2.imwrite(f"{folder}/{name}.{ext}", grey, [cv2.IMWRITE_JPEG_QUALITY, int(rng.integers(70, 95))] if ext == "jpg" else [])
    with open(f"{folder}/{name}.truth.json", "w") as f:
        json.dump(truth, f)
