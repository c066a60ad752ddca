# Draws simulated photographs of brick walls and sketches of sites from a seed, with their exact truth: draw_outside.py SEED COUNT FOLDER
import json, os, sys
import cv2
import numpy as np


def wall(rng):
    gauge, brick = [(75.0, 225.0), (86.0, 240.0), (67.7, 203.2), (83.3, 250.0)][rng.integers(4)]
    joint = 10.0
    w, n = float(rng.integers(60, 110) * 100), int(rng.integers(34, 58))
    h = n * gauge
    mm = float(rng.uniform(3.5, 5.5))
    flat_mm, m = 2.5, 2500.0
    page = np.full((int((h + 2 * m) / flat_mm), int((w + 2 * m) / flat_mm), 3), (206, 205, 196), np.uint8)
    S = 16

    def box(x1, y1, x2, y2, colour):
        p = np.array([[x1 + m, h + m - y2], [x2 + m, h + m - y2], [x2 + m, h + m - y1], [x1 + m, h + m - y1]]) / flat_mm - 0.5
        cv2.fillPoly(page, [np.round(p * S).astype(np.int32)], [float(v) for v in colour], cv2.LINE_AA, 4)

    box(-m, -m, w + m, 0, (96, 120, 118))
    box(0, 0, w, h, (172, 184, 190))
    base = rng.integers(70, 110)
    for i in range(n):
        x = 0.0 if i % 2 == 0 else -brick / 2
        while x < w:
            t = int(rng.integers(-12, 12))
            box(max(0, x), i * gauge + joint, min(w, x + brick - joint), (i + 1) * gauge, (base - 10 + t, base + t, base + 70 + t))
            x += brick
    sill, head = float(10 * gauge), float(26 * gauge)
    for k in range(2):
        x1 = w * (0.2 + 0.4 * k)
        box(x1, sill, x1 + 1200, head, (240, 240, 236))
        box(x1 + 60, sill + 60, x1 + 1140, head - 60, (90, 80, 70))
    # A camera before the wall: it looks up by the tilt, aside by the pan, and leans by the roll.
    tilt, pan, roll = np.radians(rng.uniform(-9, 9)), np.radians(rng.uniform(-12, 12)), np.radians(rng.uniform(-1.5, 1.5))
    dist = 1.25 * w
    f = dist / mm
    rx = np.array([[1, 0, 0], [0, np.cos(tilt), -np.sin(tilt)], [0, np.sin(tilt), np.cos(tilt)]])
    ry = np.array([[np.cos(pan), 0, np.sin(pan)], [0, 1, 0], [-np.sin(pan), 0, np.cos(pan)]])
    rz = np.array([[np.cos(roll), -np.sin(roll), 0], [np.sin(roll), np.cos(roll), 0], [0, 0, 1]])
    R = rz @ rx @ ry
    W, H = int((w + 2800) / mm), int((h + 3000) / mm)
    K = np.array([[f, 0, W / 2], [0, f, H / 2], [0, 0, 1]])
    # model (x right, y up) in the camera's frame: x right, y down, z away
    P = K @ R @ np.array([[1, 0, -w / 2], [0, -1, h / 2], [0, 0, dist]])
    c = P @ [w / 2, h / 2, 1]
    P = np.array([[1, 0, W / 2 - c[0] / c[2]], [0, 1, H / 2 - c[1] / c[2]], [0, 0, 1]]) @ P
    flat = np.array([[flat_mm, 0, -m + flat_mm / 2], [0, -flat_mm, h + m - flat_mm / 2], [0, 0, 1]])
    half = np.array([[1, 0, -0.5], [0, 1, -0.5], [0, 0, 1]])
    seen = cv2.warpPerspective(page, half @ P @ flat, (W, H), flags=cv2.INTER_AREA, borderMode=cv2.BORDER_REPLICATE).astype(float)
    seen = cv2.GaussianBlur(seen, (0, 0), float(rng.uniform(0.5, 0.9))) + rng.normal(0, rng.uniform(1, 4), seen.shape)
    inverse = np.linalg.inv(P)
    return np.clip(seen, 0, 255).astype(np.uint8), {
        "kind": "elevation", "size": [W, H], "pixelToMm": (inverse / inverse[2, 2]).tolist(), "perspective": True, "extent": [0, 0, w, h], "mmPerPixel": mm,
        "courses": {"gauge": gauge, "brickLength": brick - joint, "joint": joint, "firstBed": 0.0, "count": n}, "levels": [{"name": "ground", "y": 0.0}, {"name": "eaves", "y": h}],
        "openings": [{"kind": "window", "rect": [w * (0.2 + 0.4 * k), sill, w * (0.2 + 0.4 * k) + 1200, head]} for k in range(2)],
    }


def lot(rng):
    n = int(rng.integers(4, 8))
    turns = np.sort(rng.uniform(0, 2 * np.pi, n) * 0.25 + np.arange(n) * 2 * np.pi / n)
    ring = [[float(rng.uniform(15000, 22000) * np.cos(t)), float(rng.uniform(15000, 22000) * np.sin(t))] for t in turns]
    mm, skew = float(rng.uniform(18, 28)), float(np.radians(rng.uniform(-40, 40)))
    W = H = int(62000 / mm)
    c, s = np.cos(skew) / mm, np.sin(skew) / mm
    P = np.array([[c, -s, W / 2], [-s, -c, H / 2], [0, 0, 1]])
    SS = 4
    page = np.full((H * SS, W * SS), 255, np.uint8)
    px = lambda pts: (np.array([(P @ [x, y, 1])[:2] for x, y in pts]) * SS - 0.5)

    def line(a, b, pen):
        d = np.subtract(b, a) / np.hypot(*np.subtract(b, a))
        q = np.array([-d[1], d[0]]) * pen * mm / 2
        cv2.fillPoly(page, [np.round(px([a + q, b + q, b - q, a - q]) * 16).astype(np.int32)], 40, cv2.LINE_8, 4)

    building = [[-4000.0, -3000.0], [6000.0, -3000.0], [6000.0, 3500.0], [-4000.0, 3500.0]]
    for shape, pen in ((ring, 3.2), (building, 2.6)):
        for a, b in zip(shape, shape[1:] + shape[:1]):
            line(np.array(a), np.array(b), pen)
    small = cv2.resize(page, (W, H), interpolation=cv2.INTER_AREA).astype(float)
    small = cv2.GaussianBlur(small, (0, 0), 0.6) * 0.94 + rng.normal(0, rng.uniform(1, 4), small.shape)
    legs = []
    for a, b in zip(ring, ring[1:] + ring[:1]):
        length = np.hypot(b[0] - a[0], b[1] - a[1])
        legs.append({"from": a, "to": b, "lengthM": round(length / 1000, 2), "exactBearingDegrees": float(np.degrees(np.arctan2(b[0] - a[0], b[1] - a[1])) % 360)})
    area = abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, ring[1:] + ring[:1]))) / 2e6
    return np.clip(small, 0, 255).astype(np.uint8), {
        "kind": "site", "size": [W, H], "pixelToMm": np.linalg.inv(P).tolist(), "perspective": False, "mmPerPixel": mm, "boundary": ring, "legs": legs, "lotAreaM2": area,
        "building": {"polygon": building, "knownWall": {"from": building[0], "to": building[1], "length": 10000.0}},
    }


seed, count, folder = int(sys.argv[1]), int(sys.argv[2]), sys.argv[3]
os.makedirs(folder, exist_ok=True)
for k in range(count):
    rng = np.random.default_rng(seed + k)
    picture, truth = (wall if k % 2 == 0 else lot)(rng)
    name = f"{truth['kind']}-{seed + k}"
    truth["image"] = f"{name}.jpg"
    cv2.imwrite(f"{folder}/{name}.jpg", picture, [cv2.IMWRITE_JPEG_QUALITY, int(rng.integers(75, 93))])
    with open(f"{folder}/{name}.truth.json", "w") as file:
        json.dump(truth, file)
