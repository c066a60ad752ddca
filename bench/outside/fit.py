"""SciPy's least_squares for scale and turn from the same lengths; least of runs, ms."""
import json, sys, time
import numpy as np
from scipy.optimize import least_squares

r = np.array(json.load(sys.stdin)["rows"])
d = np.hypot(r[:, 2] - r[:, 0], r[:, 3] - r[:, 1])


def residuals(x):
    return (np.exp(x[0]) * d - r[:, 4]) / 5.0


best = 1e9
for _ in range(10):
    start = time.perf_counter()
    least_squares(residuals, [1.0, 0.0], method="trf")
    best = min(best, (time.perf_counter() - start) * 1000)
json.dump({"ms": best}, sys.stdout)
