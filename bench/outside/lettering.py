"""Trains the net that tells figures by their lettering: reads {"strips": [{"ways": [columns of 24 values, the same upside down], "text"}]} (strips of simulated
sheets, cut as the core cuts them, with what they say), draws some thousands of lines of figures itself with stroke and outline fonts,
answers the weights as the core reads them. Plain numpy: one hidden layer of rectified units, cross-entropy, Adam (Kingma and Ba 2015)."""
import base64, json, sys
import cv2, numpy as np

CHARS = "0123456789.,'\"-/ "
BLANK, OTHER, ANSWERS = 17, 18, 19
ROWS, WINDOW, STEP, CAP, FOOT = 24, 20, 2, 14, 19
HIDDEN, LINES, EPOCHS = 64, 12000, 12
DRAWN = 48  # px: height of a capital as it is drawn
UPSIDE = {"0": "0", "8": "8", "6": "9", "9": "6", "-": "-", "/": "/"}
STROKES = [cv2.FONT_HERSHEY_SIMPLEX, cv2.FONT_HERSHEY_DUPLEX, cv2.FONT_HERSHEY_COMPLEX, cv2.FONT_HERSHEY_TRIPLEX]
OUTLINES = ["dejavu/DejaVuSans", "dejavu/DejaVuSansMono", "dejavu/DejaVuSerif", "dejavu/DejaVuSans-Oblique", "dejavu/DejaVuSansCondensed",
            "lato/Lato-Regular", "lato/Lato-Light", "liberation/LiberationSans-Regular", "liberation/LiberationMono-Regular"]
rng = np.random.RandomState(7)


def outline_fonts():
    fonts = []
    for name in OUTLINES:
        try:
            f = cv2.freetype.createFreeType2()
            f.loadFontData("/usr/share/fonts/truetype/%s.ttf" % name, 0)
        except cv2.error:
            continue
        tile = np.zeros((300, 300, 3), np.uint8)
        f.putText(tile, "E", (50, 250), 200, (255, 255, 255), -1, cv2.LINE_AA, True)
        rows = np.where(tile[:, :, 0].max(1) > 128)[0]
        fonts.append((f, 200.0 / (rows[-1] - rows[0] + 1)))
    return fonts


FONTS = outline_fonts()


def a_figure():
    k = rng.randint(9)
    if k < 2:
        return str(rng.choice([rng.randint(60, 1000), rng.randint(1000, 10000), rng.randint(10000, 30000), 10 * rng.randint(20, 1500)]))
    if k < 3:
        v = rng.randint(1000, 30000)
        return "%d,%03d" % (v // 1000, v % 1000)
    if k < 5:
        return "%.2f" % (rng.randint(5, 2000) / 100.0)
    if k < 8:
        part = rng.choice(["", "", " 1/2", " 1/2", " 1/4", " 3/4", " 3/8", " 5/8", " 7/8", " 1/8"])
        return "%d'-%d%s\"" % (rng.randint(0, 50), rng.randint(0, 12), part)
    return "".join(rng.choice(list("0123456789.'\"-/"), rng.randint(3, 7)))


def drawn(text):
    """Ink 0 to 1, row that the text stands on, left and right of each character."""
    pad, foot = 60, int(DRAWN * 1.6)
    if rng.rand() < 0.5 or not FONTS:
        font, scale, pen = STROKES[rng.choice(4, p=[0.45, 0.3, 0.15, 0.1])], DRAWN / 21.0, max(1, int(round(DRAWN * rng.uniform(0.06, 0.16))))
        wide = lambda t: cv2.getTextSize(t, font, scale, 1)[0][0] if t else 0
        page = np.zeros((int(DRAWN * 2.4), wide(text) + 2 * pad), np.uint8)
        cv2.putText(page, text, (pad, foot), font, scale, 255, pen, cv2.LINE_AA)
    else:
        font, per = FONTS[rng.randint(len(FONTS))]
        size = int(round(DRAWN * per))
        wide = lambda t: font.getTextSize(t + "|", size, -1)[0][0] - font.getTextSize("|", size, -1)[0][0]
        page = np.zeros((int(DRAWN * 2.4), wide(text) + 2 * pad + 20, 3), np.uint8)
        font.putText(page, text, (pad, foot), size, (255, 255, 255), -1, cv2.LINE_AA, True)
        page = page[:, :, 0].copy()
    places = [(pad + wide(text[:i]), pad + wide(text[:i + 1])) for i in range(len(text))]
    if rng.rand() < 0.4:
        page = (cv2.dilate if rng.rand() < 0.7 else cv2.erode)(page, np.ones((3, 3)))
    page = page.astype(np.float32) / 255
    if rng.rand() < 0.45:
        # Lettered by hand: the page is bent, slanted, and each letter a little out of place.
        h, w = page.shape
        bend = [cv2.GaussianBlur(rng.randn(h, w).astype(np.float32), (0, 0), DRAWN * 0.35) * DRAWN * rng.uniform(0.3, 1.3) for _ in "xy"]
        slant = rng.uniform(0, 0.2)
        ys, xs = np.mgrid[0:h, 0:w].astype(np.float32)
        page = cv2.remap(page, xs + bend[0] + slant * (ys - foot + DRAWN / 2), ys + bend[1], cv2.INTER_LINEAR)
    return page, foot, places


def as_scanned(page, foot, places):
    """As a strip that the core would cut of a scan: reduced, blurred, with noise and neighbours; and where characters are in it."""
    cap = rng.choice([rng.uniform(8, 12), rng.uniform(10, 18), rng.uniform(14, 28)])
    s, h, w = cap / DRAWN, *page.shape
    if rng.rand() < 0.35:
        y = int(foot + DRAWN * rng.uniform(0.35, 0.8))
        cv2.line(page, (0, y), (w, y), 1.0, max(1, int(DRAWN * 0.07)))
    if rng.rand() < 0.12:
        x = int(rng.choice([rng.randint(5, 50), w - rng.randint(5, 50)]))
        cv2.line(page, (x, 0), (x + rng.randint(-20, 20), h), 1.0, max(1, int(DRAWN * 0.08)))
    page = cv2.GaussianBlur(page, (0, 0), max(0.5, rng.uniform(0.3, 1.0) / s * 0.8))
    m = cv2.getRotationMatrix2D((w / 2, foot - DRAWN / 2), rng.normal(0, 1.2), s)
    small = (int(w * s) + 8, int(h * s) + 8)
    m[:, 2] += (small[0] / 2 - w / 2, small[1] / 2 - (foot - DRAWN / 2))
    page = cv2.warpAffine(page, m, small, flags=cv2.INTER_AREA if s < 0.5 else cv2.INTER_LINEAR) * rng.uniform(0.7, 1.2)
    if rng.rand() < 0.3:
        grain = cv2.GaussianBlur(rng.rand(*page.shape).astype(np.float32), (0, 0), rng.uniform(0.8, 3))
        page = page * np.clip(1 - 0.4 * rng.rand() * np.abs((grain - grain.mean()) / grain.std()), 0.2, 1)
    page = page + rng.normal(0, rng.uniform(0, 0.08), page.shape)
    if rng.rand() < 0.22:
        page = page + rng.normal(0, rng.uniform(0, 0.1), page.shape) > rng.uniform(0.35, 0.6)
    at = lambda x, y: m[:, 0] * x + m[:, 1] * y + m[:, 2]
    k, left = CAP / cap * rng.normal(1, 0.06), at(places[0][0], foot)[0]
    base = at((places[0][0] + places[-1][1]) / 2, foot)[1]
    n = np.array([[k, 0, 20 - left * k], [0, k, FOOT + rng.normal(0, 0.7) - base * k]])
    strip = cv2.warpAffine(page.astype(np.float32), n, (int((places[-1][1] - places[0][0]) * s * k) + 40, ROWS), flags=cv2.INTER_LINEAR)
    middles = [at((a + b) / 2, foot - DRAWN / 2)[0] * k + n[0, 2] for a, b in places]
    return strip, middles


def evened(strip):
    return np.clip(strip / max(np.percentile(strip, 97), 0.25), 0, 1.15).astype(np.float32)


def windows(strip):
    padded = cv2.copyMakeBorder(strip, 0, 0, WINDOW // 2, WINDOW // 2, cv2.BORDER_CONSTANT, value=0)
    return np.stack([padded[:, i * STEP:i * STEP + WINDOW].reshape(-1) for i in range(strip.shape[1] // STEP)])


def answers(count, characters):
    """For each window what it shows: a character near its middle, nothing far from any, −1 in between, which is not learnt from."""
    y = np.full(count, BLANK)
    for number, middle in characters:
        off = np.abs(np.arange(count) * STEP - middle)
        y[off <= 1.75] = number
        y[(off > 1.75) & (off <= 3.4) & (y == BLANK)] = -1
    return y


def numbered(text, middles, upside=False):
    found = []
    for c, m in zip(text, middles):
        if c == " ":
            continue
        if c not in CHARS:
            found.append((OTHER, m))
        elif upside:
            found.append((CHARS.index(UPSIDE[c]) if c in UPSIDE else (-1 if c == "1" else OTHER), m))
        else:
            found.append((CHARS.index(c), m))
    return found


def synthetic(count):
    xs, ys = [], []
    for _ in range(count):
        kind = rng.rand()
        text = "".join(rng.choice(list("ABCDEFGHJKLMNPQRTUVWXY"), rng.randint(3, 8))) if 0.72 <= kind < 0.84 else a_figure()
        strip, middles = as_scanned(*drawn(text))
        upside = kind >= 0.84
        if upside:
            strip, middles = strip[::-1, ::-1].copy(), [strip.shape[1] - m for m in middles]
        strip = evened(strip)
        if rng.rand() < 0.3:
            x = int(rng.choice([rng.randint(0, 14), strip.shape[1] - rng.randint(1, 14)]))
            cv2.line(strip, (x, rng.randint(0, 24)), (x + rng.randint(-14, 14), rng.randint(0, 24)), 1.0, int(rng.randint(1, 3)))
        x = windows(strip)
        y = answers(len(x), numbered(text, middles, upside))
        keep = (y >= 0) & ((y != BLANK) | (rng.rand(len(y)) < 0.28))
        xs.append((x[keep] * 200).astype(np.uint8))
        ys.append(y[keep])
    return np.concatenate(xs), np.concatenate(ys)


def trained(x, y, epochs):
    r = np.random.RandomState(5)
    p = [r.randn(x.shape[1], HIDDEN).astype(np.float32) * np.sqrt(2 / x.shape[1]), np.zeros(HIDDEN, np.float32),
         r.randn(HIDDEN, ANSWERS).astype(np.float32) * np.sqrt(2 / HIDDEN), np.zeros(ANSWERS, np.float32)]
    m, v = [np.zeros_like(a) for a in p], [np.zeros_like(a) for a in p]
    steps, t = epochs * (len(y) // 512), 0
    for _ in range(epochs):
        order = r.permutation(len(y))
        for i in range(len(y) // 512):
            j = order[i * 512:(i + 1) * 512]
            b = x[j].astype(np.float32) / 200
            a, e = forward(p, b)
            d = e.copy()
            d[np.arange(len(j)), y[j]] -= 1
            d /= len(j)
            da = d @ p[2].T
            da[a <= 0] = 0
            t += 1
            rate = 1e-3 * (1 + np.cos(np.pi * t / steps))
            for k, g in enumerate((b.T @ da + 2e-5 * p[0], da.sum(0), a.T @ d + 2e-5 * p[2], d.sum(0))):
                m[k] = 0.9 * m[k] + 0.1 * g
                v[k] = 0.999 * v[k] + 0.001 * g * g
                p[k] -= rate * (m[k] / (1 - 0.9 ** t)) / (np.sqrt(v[k] / (1 - 0.999 ** t)) + 1e-8)
    return p


def forward(p, x):
    a = np.maximum(x @ p[0] + p[1], 0)
    z = a @ p[2] + p[3]
    e = np.exp(z - z.max(1, keepdims=True))
    return a, e / e.sum(1, keepdims=True)


def aligned(p, strip, text):
    """How well a strip fits that is known to say the text, and where its characters are: the best path through its answers, or None."""
    like = np.log(np.maximum(forward(p, windows(strip))[1], 1e-6))
    path = [BLANK] + [q for c in text for q in (CHARS.index(c), BLANK)]
    n, s = len(like), len(path)
    if n < s:
        return None
    best, back = np.full((n, s), -1e9), np.zeros((n, s), int)
    best[0, :2] = like[0, path[:2]]
    for i in range(1, n):
        for j in range(s):
            ways = [best[i - 1, j]] + ([best[i - 1, j - 1]] if j > 0 else []) + ([best[i - 1, j - 2] - 1.5] if j > 1 and path[j] != BLANK and path[j] != path[j - 2] else [])
            k = int(np.argmax(ways))
            best[i, j], back[i, j] = ways[k] + like[i, path[j]], k
    j = s - 1 if best[-1, s - 1] > best[-1, s - 2] else s - 2
    fits = best[-1, j] - like.max(1).sum()
    at = np.zeros(n, int)
    for i in range(n - 1, -1, -1):
        at[i] = j
        j -= back[i, j]
    middles = [np.mean(np.where(at == 2 * c + 1)[0]) * STEP for c in range(len(text))]
    return None if fits < -3 * len(text) or len(middles) > 1 and np.diff(middles).min() < 2.5 else (fits, middles)


def of_sheets(p, strips):
    xs, ys = [], []
    for one in strips:
        text = one["text"].replace(" ", "")
        # Either way up: the one that fits better is the one that it is read in.
        ways = [(way, strip) for strip in (np.array(c, np.float32).T for c in one["ways"]) for way in [aligned(p, strip, text)] if way]
        if not ways:
            continue
        (_, middles), strip = max(ways, key=lambda w: w[0][0])
        for _ in range(3):
            k, dx, shear = rng.normal(1, 0.05), rng.uniform(-1, 1), rng.normal(0, 0.04)
            m = np.array([[k, shear, dx - shear * 12], [0, k, 12 * (1 - k) + rng.normal(0, 0.7)]])
            s = cv2.warpAffine(strip, m, (int(strip.shape[1] * max(1, k)) + 2, ROWS), flags=cv2.INTER_LINEAR)
            s = np.clip(s * rng.uniform(0.8, 1.15) + rng.normal(0, 0.03, s.shape), 0, 1.15).astype(np.float32)
            places, upside = [k * x + dx for x in middles], rng.rand() < 0.25
            if upside:
                s, places = s[::-1, ::-1].copy(), [s.shape[1] - x for x in places]
            x = windows(s)
            y = answers(len(x), numbered(text, places, upside))
            keep = (y >= 0) & ((y != BLANK) | (rng.rand(len(y)) < 0.6))
            xs.append((x[keep] * 200).astype(np.uint8))
            ys.append(y[keep])
    return (np.concatenate(xs), np.concatenate(ys), len(xs) // 3) if xs else (np.zeros((0, ROWS * WINDOW), np.uint8), np.zeros(0, int), 0)


x, y = synthetic(LINES)
first = trained(x, y, max(3, EPOCHS // 3))
more, what, used = of_sheets(first, json.load(sys.stdin)["strips"])
p = trained(np.concatenate([x, more]), np.concatenate([y, what]), EPOCHS)
right = float((forward(p, more.astype(np.float32) / 200)[1].argmax(1) == what).mean()) if len(what) else None
scale = float(np.abs(p[0]).max()) / 127
whole = np.clip(np.round(p[0] / scale), -127, 127).astype(np.int8)
short = lambda a: [[round(float(v), 4) for v in r] for r in a] if a.ndim == 2 else [round(float(v), 4) for v in a]
json.dump({"net": {"hidden": HIDDEN, "first": {"scale": round(scale, 8), "bytes": base64.b64encode(whole.tobytes()).decode()},
                   "firstBias": short(p[1]), "second": short(p[2]), "secondBias": short(p[3])},
           "windows": len(y) + len(what), "strips": used, "rightOnStrips": right}, sys.stdout)
