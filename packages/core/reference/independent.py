"""Independent answers for scipy.test.ts: reads one task as JSON from standard input, prints the answer as JSON."""
import json
import sys

import numpy as np
from scipy.optimize import minimize
from scipy.sparse import csc_matrix
from scipy.sparse.linalg import spsolve


def solve(size, columnStart, row, values, b):
    """x with A x = b, A given by its lower triangle."""
    lower = csc_matrix((values, row, columnStart), shape=(size, size))
    full = lower + lower.T - csc_matrix((lower.diagonal(), (range(size), range(size))))
    return {"x": spsolve(full.tocsc(), np.array(b)).tolist()}


def local_coordinates(positions, triangles):
    """Each triangle in its own plane: x of the second corner, x and y of the third; and twice its area."""
    p = np.array(positions).reshape(-1, 3)
    a, b, c = (p[np.array(triangles).reshape(-1, 3)[:, k]] for k in range(3))
    x2 = np.linalg.norm(b - a, axis=1)
    x3 = np.einsum("ij,ij->i", b - a, c - a) / x2
    y3 = np.linalg.norm(np.cross(b - a, c - a), axis=1) / x2
    return x2, x3, y3, x2 * y3


def lscm(positions, triangles, pins, uv):
    """Levy et al. 2002, section 3: min |A x - b| over the free vertices, two real rows a triangle, by QR."""
    x2, x3, y3, d = local_coordinates(positions, triangles)
    t = np.array(triangles).reshape(-1, 3)
    n = len(positions) // 3
    W = np.stack([(x3 - x2) + 1j * y3, -x3 - 1j * y3, x2 + 0j], axis=1) / np.sqrt(d)[:, None]
    M = np.zeros((len(t), n), dtype=complex)
    for k in range(3):
        np.add.at(M, (np.arange(len(t)), t[:, k]), W[:, k])
    places = np.array(uv).reshape(-1, 2)
    fixed = places[:, 0] + 1j * places[:, 1]
    free = [v for v in range(n) if v not in pins]
    Mf, Mp = M[:, free], M[:, pins]
    A = np.block([[Mf.real, -Mf.imag], [Mf.imag, Mf.real]])
    r = -Mp @ fixed
    x = np.linalg.lstsq(A, np.concatenate([r.real, r.imag]), rcond=None)[0]
    U = np.zeros(n, dtype=complex)
    U[pins] = fixed
    U[free] = x[: len(free)] + 1j * x[len(free):]
    return {"uv": np.stack([U.real, U.imag], axis=1).ravel().tolist()}


def relax(positions, triangles, start):
    """The least mean symmetric Dirichlet energy (Smith and Schaefer 2015) near a start, by BFGS."""
    x2, x3, y3, d = local_coordinates(positions, triangles)
    t = np.array(triangles).reshape(-1, 3)
    weight = d / d.sum()
    # Gradients of the three hat functions in each triangle's plane.
    g = np.zeros((len(t), 3, 2))
    g[:, 1, 0] = 1 / x2
    g[:, 1, 1] = -x3 / (x2 * y3)
    g[:, 2, 1] = 1 / y3
    g[:, 0] = -g[:, 1] - g[:, 2]

    def energy(flat):
        uv = flat.reshape(-1, 2)
        J = np.einsum("tkc,tkx->tcx", uv[t], g)
        det = J[:, 0, 0] * J[:, 1, 1] - J[:, 0, 1] * J[:, 1, 0]
        if np.any(det <= 0):
            return 1e30, np.zeros_like(flat)
        square = np.einsum("tcx,tcx->t", J, J)
        cofactor = np.stack([J[:, 1, 1], -J[:, 1, 0], -J[:, 0, 1], J[:, 0, 0]], axis=1).reshape(-1, 2, 2)
        P = 2 * J * (1 + det**-2)[:, None, None] - (2 * square * det**-3)[:, None, None] * cofactor
        forces = np.einsum("t,tcx,tkx->tkc", weight, P, g)
        gradient = np.zeros_like(uv)
        np.add.at(gradient, t, forces)
        return float(np.sum(weight * square * (1 + det**-2))), gradient.ravel()

    best = minimize(energy, np.array(start), jac=True, method="BFGS", options={"gtol": 1e-9, "maxiter": 20000})
    return {"energy": best.fun, "gradient": float(np.linalg.norm(best.jac))}


task = json.load(sys.stdin)
work = {"solve": solve, "lscm": lscm, "relax": relax}[task.pop("work")]
json.dump(work(**task), sys.stdout)
