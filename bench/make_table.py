"""Random positions: make_table.py COUNT FILE, latitudes and longitudes in the area of use of EPSG:25830."""
import random, sys

random.seed(1)
with open(sys.argv[2], "w") as f:
    f.write("id,lat,lon,h\n")
    for i in range(int(sys.argv[1])):
        f.write(f"{i},{random.uniform(36, 60):.9f},{random.uniform(-6, 0):.9f},{random.uniform(0, 900):.4f}\n")
