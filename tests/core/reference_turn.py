"""Lines in turns solved anew: steady in angles by scipy, and in time as a string of masses.

Neither shares code with the program. The steady one carries elevation, azimuth and tension where
the program carries a vector; the other knows nothing of steady turns at all.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

import numpy as np
import reference
from reference import NU, RHO, Line, Pull, in_air, line_normal
from scipy.integrate import solve_ivp
from scipy.optimize import brentq


def steady(
    stretches: Sequence[tuple[float, Line]], pull: Pull, *, out: float, height: float, v: float,
    radius: float, tip_radius: float,
) -> tuple[float, float, float]:
    """Depth, own speed over the boat's, and radius of a lure in a steady turn."""
    omega = v / radius

    def up_from(r0: float) -> tuple[float, float]:
        back, down = pull(omega * r0)
        # r, z, elevation, azimuth off the circle's tangent (outward positive), tension
        y = [r0, 0.0, math.atan2(down, back), 0.0, math.hypot(back, down)]
        arc = 0.0
        pieces = []
        for length, line in stretches:
            length = min(length, out - arc)
            if length <= 0.0:
                break

            def slope(_: float, y: Sequence[float], line: Line = line) -> list[float]:
                r, _z, phi, psi, t = y
                flow = omega * r
                across = math.sqrt((math.sin(phi) * math.cos(psi)) ** 2 + math.sin(psi) ** 2)
                n = line_normal(line, flow * across) / max(across, 1e-12)
                along = flow * math.cos(phi) * math.cos(psi)
                rub = 0.5 * RHO * 0.015 * math.pi * line.d * along * abs(along)
                turn = math.cos(phi) * math.cos(psi) / r
                return [
                    math.cos(phi) * math.sin(psi), math.sin(phi),
                    (line.wet * math.cos(phi) - n * math.sin(phi) * math.cos(psi)) / t,
                    turn - n * math.sin(psi) / (t * math.cos(phi)),
                    line.wet * math.sin(phi) + rub,
                ]  # fmt: skip

            found = solve_ivp(
                slope, (arc, arc + length), y, method="DOP853", rtol=1e-9, atol=1e-11,
                dense_output=True,
            )  # fmt: skip
            arc += length
            pieces.append((arc, found.sol, line))
            y = list(found.y[:, -1])

        def at(s: float) -> tuple[Sequence[float], Line]:
            for end, sol, line in pieces:
                if s <= end + 1e-12:
                    return sol(min(s, end)), line
            return pieces[-1][1](pieces[-1][0]), pieces[-1][2]

        def beyond(s: float) -> float:
            y, line = at(s)
            return s + in_air(
                height, y[4] * math.cos(y[2]), y[4] * math.sin(y[2]), line.dry
            )[0] - out  # fmt: skip

        s = brentq(beyond, 0.3 * out, out, xtol=1e-10) if beyond(0.3 * out) < 0 else 0.3 * out
        y, line = at(s)
        ahead = in_air(height, y[4] * math.cos(y[2]), y[4] * math.sin(y[2]), line.dry)[1]
        # On from the surface by that much, at the azimuth there.
        tip = math.hypot(y[0] + ahead * math.sin(y[3]), ahead * math.cos(y[3]))
        return tip, y[1]

    r0 = brentq(lambda r: up_from(r)[0] - tip_radius, 0.25 * tip_radius, tip_radius, xtol=1e-6)
    return up_from(r0)[1], r0 / radius, r0


def in_time(
    stretches: Sequence[tuple[float, Line]], pull: Pull, *, out: float, height: float,
    tip_at: Callable[[float], tuple[float, float]], until: float, times: Sequence[float],
    nodes: int = 20, stiffness: float = 60.0, mass_scale: float = 4.0,
) -> list[tuple[float, float, float]]:
    """Place (x, y, depth) of a lure at times, its line a string of masses pulled by a rod tip.

    Springs stretch by a few per cent and masses are a few times the line's own, which a slow tow
    does not feel; no steady state is assumed anywhere. Symplectic Euler.
    """
    rest = out / (nodes - 1)
    arcs = (np.arange(nodes - 1) + 0.5) * rest
    ends = np.cumsum([length for length, _ in stretches])
    kinds = [stretches[min(int(np.searchsorted(ends, a)), len(stretches) - 1)][1] for a in arcs]
    d = np.array([k.d for k in kinds])
    wet, dry = np.array([k.wet for k in kinds]), np.array([k.dry for k in kinds])
    own = dry / 9.80665 + RHO * np.pi / 4 * d**2
    mass = np.zeros(nodes)
    mass[:-1] += 0.5 * rest * own
    mass[1:] += 0.5 * rest * own
    mass = mass_scale * mass
    mass[0] += 0.02
    k = stiffness / rest
    step = 0.35 / math.sqrt(4.0 * k / mass[1:].min())
    x0, y0 = tip_at(0.0)
    x1, y1 = tip_at(step)
    course = np.array([x1 - x0, y1 - y0]) / math.hypot(x1 - x0, y1 - y0)
    # From the lure (node 0) to the tip: straight astern to begin with, a little down.
    p = np.zeros((nodes, 3))
    back = (nodes - 1 - np.arange(nodes)) * rest
    p[:, :2] = np.array([x0, y0]) - 0.97 * back[:, None] * course
    p[:, 2] = height - 0.24 * back
    u = np.zeros((nodes, 3))
    u[:, :2] = course * math.hypot(x1 - x0, y1 - y0) / step
    table = [strum_share(kind) for kind in set(kinds)]
    grid = np.array(table[0][0])
    curves = {kind: np.array(strum_share(kind)[1]) for kind in set(kinds)}
    seen, wanted = [], list(times)
    for count in range(int(until / step) + 2):
        t = count * step
        while wanted and t >= wanted[0]:
            seen.append((float(p[0, 0]), float(p[0, 1]), float(-p[0, 2])))
            wanted.pop(0)
        along = p[1:] - p[:-1]
        length = np.sqrt((along**2).sum(1))
        unit = along / length[:, None]
        # Each piece pulls its ends; a little damping along it keeps the springs quiet.
        stretch = ((u[1:] - u[:-1]) * unit).sum(1)
        tension = np.maximum(k * (length - rest) + 0.05 * math.sqrt(k * mass.min()) * stretch, 0.0)
        force = np.zeros((nodes, 3))
        pullv = tension[:, None] * unit
        force[:-1] += pullv
        force[1:] -= pullv
        wetted = (0.5 * (p[1:, 2] + p[:-1, 2]) < 0.0).astype(float)
        flow = -0.5 * (u[1:] + u[:-1])
        ut = (flow * unit).sum(1)
        cross = flow - ut[:, None] * unit
        un = np.sqrt((cross**2).sum(1))
        re = np.maximum(un * d / NU, 1e-9)
        more = np.zeros(len(re))
        for kind in curves:
            own_kind = np.array([other is kind for other in kinds])
            more[own_kind] = np.interp(re[own_kind], grid, curves[kind])
        cn = (1 + 10 * re ** (-2 / 3)) * (1 + more)
        drag = (0.5 * RHO * d * cn * un)[:, None] * cross
        drag += (0.5 * RHO * 0.015 * np.pi * d * np.abs(ut) * ut)[:, None] * unit
        load = wetted[:, None] * drag * rest
        load[:, 2] -= (wetted * wet + (1 - wetted) * dry) * rest
        force[:-1] += 0.5 * load
        force[1:] += 0.5 * load
        speed = float(np.sqrt((u[0] ** 2).sum()))
        pulled, down = pull(speed)
        if p[0, 2] < 0.0:
            force[0] -= pulled * u[0] / max(speed, 1e-9)
            force[0, 2] -= down
        else:
            force[0, 2] -= 0.05
        u = u + step * force / mass[:, None]
        x, y = tip_at(t + step)
        u[-1] = [(x - p[-1, 0]) / step, (y - p[-1, 1]) / step, 0.0]
        p = p + step * u
    return seen


def strum_share(line: Line) -> tuple[list[float], list[float]]:
    """What strumming adds, over Reynolds number, for a line: to be looked up."""
    grid = [float(re) for re in np.linspace(0.0, 900.0, 400)]
    return grid, [0.6 * reference.strum(re, line.alpha) for re in grid]
