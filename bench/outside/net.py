"""A net of one hidden layer beside a weighed sum, by its likelihood with a ridge (L-BFGS); weights are told for values as they come."""
import json, sys
import numpy as np
from scipy.optimize import minimize

question = json.load(sys.stdin)
x, y, w = (np.array(question[k], float) for k in ("values", "true", "weight"))
hidden, ridge = question["hidden"], question["ridge"]
mean, spread = x.mean(0), x.std(0) + 1e-6
z, w = (x - mean) / spread, w / w.mean()
n, d = z.shape
cuts = np.cumsum([d * hidden, hidden, hidden, d])


def parts(v):
    first, first_bias, second, linear, bias = np.split(v, cuts)
    return first.reshape(d, hidden), first_bias, second, linear, bias


def loss(v):
    first, first_bias, second, linear, bias = parts(v)
    h = np.tanh(z @ first + first_bias)
    p = 1.0 / (1.0 + np.exp(-np.clip(h @ second + z @ linear + bias, -30, 30)))
    off = w * (p - y)
    back = np.outer(off, second) * (1.0 - h * h)
    value = -(w * (y * np.log(p + 1e-12) + (1.0 - y) * np.log(1.0 - p + 1e-12))).sum()
    value += ridge / 2.0 * ((first ** 2).sum() + (second ** 2).sum() + (linear ** 2).sum())
    return value, np.concatenate([(z.T @ back + ridge * first).ravel(), back.sum(0), h.T @ off + ridge * second, z.T @ off + ridge * linear, [off.sum()]])


chance = np.random.default_rng(question["seed"])
start = np.concatenate([chance.normal(0, d ** -0.5, d * hidden), np.zeros(hidden), chance.normal(0, 0.3, hidden), np.zeros(d + 1)])
first, first_bias, second, linear, bias = parts(minimize(loss, start, jac=True, method="L-BFGS-B", options={"maxiter": 500, "maxfun": 700}).x)
told = lambda a: np.round(a, 4).tolist()
json.dump({
    "first": told((first / spread[:, None]).T), "firstBias": told(first_bias - (mean / spread) @ first), "second": told(second),
    "linear": told(linear / spread), "bias": round(float(bias[0] - (mean / spread) @ linear), 4),
}, sys.stdout)
