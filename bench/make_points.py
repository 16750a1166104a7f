"""Random points: make_points.py COUNT FILE"""
import random, sys

random.seed(1)
with open(sys.argv[2], "w") as f:
    f.write("id,e,n,h\n")
    for i in range(int(sys.argv[1])):
        f.write(f"{i},{random.uniform(0, 1000):.4f},{random.uniform(0, 1000):.4f},{random.uniform(100, 110):.3f}\n")
