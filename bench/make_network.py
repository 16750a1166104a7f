"""A strip-like total-station network, four stations wide: make_network.py STATIONS FILE"""
import json, math, random, sys

n, width = int(sys.argv[1]), 4
random.seed(4)
place, stations, observations = [], [], []
for i in range(n):
    row, column = divmod(i, width)
    p = (column * 120 + random.uniform(-30, 30), row * 120 + random.uniform(-30, 30), 100 + random.uniform(-10, 10))
    place.append(p)
    s = {"id": f"S{i}", **{k: round(v + random.gauss(0, 0.02), 3) for k, v in zip("enh", p)}}
    if i in (0, width - 1, n - 1):
        s.update(zip("enh", p), fixed=["e", "n", "h"])
    stations.append(s)
for i in range(n):
    row, column = divmod(i, width)
    near = [i - 1 if column else -1, i + 1 if column < width - 1 else -1, i - width, i + width, i + width + 1 if column < width - 1 else -1]
    turn = random.uniform(0, 360)
    for j in near if (i + row) % 2 else []:
        if not 0 <= j < n:
            continue
        d = [b - a for a, b in zip(place[i], place[j])]
        s = math.hypot(*d)
        base = {"from": f"S{i}", "to": f"S{j}"}
        observations.append({"type": "direction", "set": "1", **base, "value": (math.degrees(math.atan2(d[0], d[1])) - turn + random.gauss(0, 0.0004)) % 360, "sd": 0.0004})
        observations.append({"type": "slope-distance", **base, "value": s + random.gauss(0, 0.002), "sd": 0.002})
        observations.append({"type": "zenith", **base, "value": math.degrees(math.acos(d[2] / s)) + random.gauss(0, 0.0006), "sd": 0.0006})
json.dump({"format": "mensura-network/1", "frame": {"type": "plane"}, "settings": {}, "stations": stations, "observations": observations}, open(sys.argv[2], "w"))
print(f"{n} stations, {len(observations)} observations")
