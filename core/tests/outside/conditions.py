"""Least squares under conditions by NumPy: the whole system with its multipliers, solved densely by its pseudo-inverse."""
import json
import sys

import numpy as np

told = []
for case in json.load(sys.stdin)["cases"]:
    variances, rows, misfits = np.array(case["variances"]), case["rows"], case["misfits"]
    c = np.zeros((len(rows), len(variances)))
    for k, row in enumerate(rows):
        for variable, factor in row:
            c[k, variable] = factor
    # With x = S y, S = diag(sigma), conditions become C S y = d: the least y by the pseudo-inverse, what they leave free by its null space.
    scale = np.sqrt(variances)
    scaled = c * scale
    inverse = np.linalg.pinv(scaled, rcond=1e-10)
    told.append({
        "rank": int(np.linalg.matrix_rank(scaled, tol=1e-9)),
        "corrections": (scale * (inverse @ np.array(misfits))).tolist(),
        "covariance": (scale[:, None] * (np.eye(len(scale)) - inverse @ scaled) * scale).tolist(),
    })
json.dump({"cases": told}, sys.stdout)
