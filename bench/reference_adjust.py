"""The same adjustment with scipy: sparse normal equations, sparse LU, the same statistics by solving for every observation's row."""
import json, math, sys
import numpy as np
from scipy.sparse import coo_matrix
from scipy.sparse.linalg import splu

doc = json.load(open(sys.argv[1]))
stations = {s["id"]: k for k, s in enumerate(doc["stations"])}
x = np.array([[s["e"], s["n"], s["h"]] for s in doc["stations"]], float)
number = np.full((len(stations), 3), -1)
count = 0
for k, s in enumerate(doc["stations"]):
    for c, name in enumerate("enh"):
        if name not in s.get("fixed", []):
            number[k, c] = count
            count += 1
sets = {}
for o in doc["observations"]:
    if o["type"] == "direction":
        sets.setdefault((o["from"], o["set"]), len(sets))
turn = np.full(len(sets), np.nan)
unknowns = count + len(sets)
for iteration in range(8):
    rows, cols, vals, l, w = [], [], [], [], []
    for r, o in enumerate(doc["observations"]):
        i, j = stations[o["from"]], stations[o["to"]]
        d = x[j] - x[i]
        h2 = d[0] ** 2 + d[1] ** 2
        h = math.sqrt(h2)
        s = math.sqrt(h2 + d[2] ** 2)
        sd = o["sd"]
        if o["type"] == "direction":
            q = sets[o["from"], o["set"]]
            az = math.atan2(d[0], d[1])
            if math.isnan(turn[q]):
                turn[q] = az - math.radians(o["value"])
            g = (d[1] / h2, -d[0] / h2, 0.0)
            miss = math.radians(o["value"]) - az + turn[q]
            miss -= 2 * math.pi * round(miss / 2 / math.pi)
            sd = math.radians(sd)
            rows.append(r); cols.append(count + q); vals.append(-1.0)
        elif o["type"] == "slope-distance":
            g = d / s
            miss = o["value"] - s
        else:
            g = (d[0] * d[2] / h / s / s, d[1] * d[2] / h / s / s, -h / s / s)
            miss = math.radians(o["value"]) - math.atan2(h, d[2])
            sd = math.radians(sd)
        for c in range(3):
            if number[j, c] >= 0 and g[c]:
                rows.append(r); cols.append(number[j, c]); vals.append(g[c])
            if number[i, c] >= 0 and g[c]:
                rows.append(r); cols.append(number[i, c]); vals.append(-g[c])
        l.append(miss)
        w.append(1 / sd**2)
    a = coo_matrix((vals, (rows, cols)), shape=(len(l), unknowns)).tocsr()
    l, w = np.array(l), np.array(w)
    aw = a.multiply(w[:, None]).tocsr()
    lu = splu((a.T @ aw).tocsc())
    dx = lu.solve(aw.T @ l)
    for k in range(len(stations)):
        for c in range(3):
            if number[k, c] >= 0:
                x[k, c] += dx[number[k, c]]
    turn += dx[count:]
    if np.abs(dx[:count]).max() < 1e-6:
        break
v = a @ dx - l
# Covariances of adjusted observations and of stations, a thousand right-hand sides at a time.
q = np.empty(len(l))
for start in range(0, len(l), 1000):
    block = a[start : start + 1000]
    q[start : start + 1000] = np.asarray(block.multiply(lu.solve(block.T.toarray()).T).sum(axis=1)).ravel()
variances = np.empty(unknowns)
for start in range(0, unknowns, 1000):
    n = min(1000, unknowns - start)
    unit = np.zeros((unknowns, n))
    unit[start + np.arange(n), np.arange(n)] = 1
    variances[start : start + n] = lu.solve(unit)[start + np.arange(n), np.arange(n)]
qvv = 1 / w - q
print(len(l) - unknowns, float(v @ (w * v)) / (len(l) - unknowns), np.abs(v / np.sqrt(np.maximum(qvv, 1e-30))).max())
