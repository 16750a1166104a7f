"""scipy's Delaunay triangulation of a points file, reading included."""
import sys
import numpy as np
from scipy.spatial import Delaunay

p = np.loadtxt(sys.argv[1], delimiter=",", skiprows=1, usecols=(1, 2, 3))
t = Delaunay(p[:, :2]).simplices
a, b, c = p[t[:, 0]], p[t[:, 1]], p[t[:, 2]]
cross = np.cross(b - a, c - a)
print(len(t), 0.5 * np.abs(cross[:, 2]).sum(), 0.5 * np.linalg.norm(cross, axis=1).sum())
