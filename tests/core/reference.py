"""An independent solution of the towed-line equations: scipy's integrator, written anew."""

from __future__ import annotations

import math
from collections.abc import Sequence

from scipy.integrate import solve_ivp

from coldwake_core.lines.drag import LINE_DRAG
from coldwake_core.lines.towed import Segment
from coldwake_core.water.fresh import Water


def reference_end(
    segments: Sequence[Segment],
    *,
    tension_n: float,
    angle_rad: float,
    speed_mps: float,
    water: Water,
) -> tuple[float, float, float, float]:
    """Return forward, up, angle and tension at the upper end, to about 1e-10."""
    state = [0.0, 0.0, angle_rad, tension_n]
    q = 0.5 * water.density_kgpm3 * speed_mps**2
    for segment in segments:

        def slope(_: float, y: Sequence[float], segment: Segment = segment) -> list[float]:
            _, _, phi, tension = y
            normal_speed = speed_mps * abs(math.sin(phi))
            cn = 0.0
            if normal_speed > 0.0:
                reynolds = normal_speed * segment.diameter_m / water.viscosity_m2ps
                cn = LINE_DRAG.normal_coefficient(reynolds)
            normal = q * cn * segment.diameter_m * math.sin(phi) * abs(math.sin(phi))
            tangential = (
                q * LINE_DRAG.ct * math.pi * segment.diameter_m * math.cos(phi) * abs(math.cos(phi))
            )
            bend = segment.weight_npm * math.cos(phi) - normal * segment.drag_factor
            return [
                math.cos(phi),
                math.sin(phi),
                bend / tension,
                segment.weight_npm * math.sin(phi) + tangential,
            ]

        solution = solve_ivp(
            slope, (0.0, segment.length_m), state, method="DOP853", rtol=1e-11, atol=1e-13
        )
        state = list(solution.y[:, -1])
    return state[0], state[1], state[2], state[3]
