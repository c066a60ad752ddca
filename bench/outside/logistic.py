"""Weights of evidence by logistic regression with a weak ridge (iteratively reweighted least squares), and how well it is calibrated."""
import json, sys
import numpy as np

question = json.load(sys.stdin)
names = list(question["learn"][0]["values"])


def table(rows):
    x = np.array([[1.0] + [row["values"][n] for n in names] for row in rows])
    return x, np.array([row["true"] for row in rows]), np.array([row["weight"] for row in rows])


def chance(x, b):
    return 1.0 / (1.0 + np.exp(-np.clip(x @ b, -30, 30)))


x, y, w = table(question["learn"])
b = np.zeros(x.shape[1])
ridge = np.eye(len(b))
ridge[0, 0] = 1e-6
for _ in range(60):
    p = chance(x, b)
    step = np.linalg.solve((x * (w * p * (1 - p))[:, None]).T @ x + ridge, x.T @ (w * (y - p)) - ridge @ b)
    b += step
    if np.abs(step).max() < 1e-8:
        break
brier = lambda p, y, w: float(np.average((p - y) ** 2, weights=w))
base = lambda y, w: brier(np.average(y, weights=w), y, w)
answer = {"weights": dict(zip([""] + names, map(float, b))), "brier": brier(chance(x, b), y, w), "base": base(y, w)}
if question["test"]:
    x, y, w = table(question["test"])
    p = chance(x, b)
    answer |= {"testBrier": brier(p, y, w), "testBase": base(y, w), "bins": []}
    for low in np.arange(0, 1, 0.1):
        m = (p >= low) & (p < low + 0.1 + (low > 0.85))
        if m.any():
            answer["bins"].append([float(low), int(m.sum()), float(np.average(p[m], weights=w[m])), float(np.average(y[m], weights=w[m]))])
json.dump(answer, sys.stdout)
