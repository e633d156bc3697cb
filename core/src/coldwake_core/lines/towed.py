"""Statics of a towed line: one integration upward from the towed end.

The force at the towed end is known (a ball: weight and drag; a plug: drag, lip and buoyancy), so
integrating once from that end gives depth and trail for EVERY length of line. The forward problem,
the inverse and the picture are one computation.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError
from ..water.fresh import Water
from .curve import LinePoint, TowedLine
from .drag import LINE_DRAG, CylinderDrag, LineLaw


@dataclass(frozen=True, slots=True, kw_only=True)
class Segment:
    """A stretch of uniform line.

    Parameters
    ----------
    length_m : float
        Arc length, m, > 0.
    diameter_m : float
        Diameter, m, > 0.
    weight_npm : float
        Weight in water per length, N/m; negative floats.
    drag_factor : float
        Multiplies the normal drag: 1 for a line alone, more where another line rides along.
    weight_air_npm : float
        Weight in air per length, N/m.
    strum_factor : float
        Multiplies what strumming adds to the normal drag.
    mass_damping : float
        ``(m* + 1) zeta`` of the line: how hard it is to set strumming.
    hung_back_n, hung_down_n : float
        Pull of what is fixed at its lower end (a weight, a clip, a sliding sinker), N.
    """

    length_m: float
    diameter_m: float
    weight_npm: float
    drag_factor: float = 1.0
    weight_air_npm: float = 0.0
    hung_back_n: float = 0.0
    hung_down_n: float = 0.0
    strum_factor: float = 1.0
    mass_damping: float = 0.0

    def law(self, speed_mps: float, water: Water, drag: CylinderDrag = LINE_DRAG) -> LineLaw:
        """Return its drag at a speed.

        Parameters
        ----------
        speed_mps : float
            Speed through water, m/s, >= 0.
        water : Water
            Density and viscosity.
        drag : CylinderDrag
            Drag law.

        Returns
        -------
        LineLaw
        """
        return LineLaw(
            diameter_m=self.diameter_m, drag_factor=self.drag_factor,
            strum_factor=self.strum_factor, mass_damping=self.mass_damping,
            speed_mps=speed_mps, water=water, drag=drag,
        )


def critical_angle_rad(
    segment: Segment, *, speed_mps: float, water: Water, drag: CylinderDrag = LINE_DRAG
) -> float:
    """Return the angle at which weight and normal drag of a line balance: a straight line.

    Parameters
    ----------
    segment : Segment
        The line; its length does not matter.
    speed_mps : float
        Speed through water, m/s, >= 0.
    water : Water
        Density and viscosity.
    drag : CylinderDrag
        Drag law.

    Returns
    -------
    float
        Angle above the horizontal, rad, in [0, pi/2].

    Notes
    -----
    Solves ``w cos(phi) = n(phi)`` by bisection; with a constant Cn this is
    ``cos(phi)/sin(phi)**2 = 0.5 rho Cn d V**2 / w`` (Pode 1951).

    References
    ----------
    Pode, L. (1951). Tables for computing the equilibrium configuration of a flexible cable in a
    uniform stream. DTMB Report 687.
    """
    if segment.weight_npm <= 0.0:
        return 0.0
    law = segment.law(speed_mps, water, drag)
    low, high = 0.0, math.pi / 2
    for _ in range(60):
        mid = 0.5 * (low + high)
        if segment.weight_npm * math.cos(mid) > law.normal(math.sin(mid)):
            low = mid
        else:
            high = mid
    return 0.5 * (low + high)


# Dormand & Prince (1980), RK5(4)7M: nodes are not needed, the system is autonomous in arc length.
_A21 = 1 / 5
_A31, _A32 = 3 / 40, 9 / 40
_A41, _A42, _A43 = 44 / 45, -56 / 15, 32 / 9
_A51, _A52, _A53, _A54 = 19372 / 6561, -25360 / 2187, 64448 / 6561, -212 / 729
_A61, _A62, _A63, _A64, _A65 = 9017 / 3168, -355 / 33, 46732 / 5247, 49 / 176, -5103 / 18656
_B1, _B3, _B4, _B5, _B6 = 35 / 384, 500 / 1113, 125 / 192, -2187 / 6784, 11 / 84
_E1, _E3, _E4, _E5, _E6, _E7 = (
    71 / 57600, -71 / 16695, 71 / 1920, -17253 / 339200, 22 / 525, -1 / 40,
)

CURVE_TOLERANCE: Final = 1e-6
"""Error allowed per step, rad and m per m: keeps depths within 1e-5 of an exact solution."""
_MOST_STEPS = 4000
_SMALLEST_TENSION_N = 1e-9


def integrate_line(
    segments: Sequence[Segment],
    *,
    tension_n: float,
    angle_rad: float,
    speed_mps: float,
    water: Water,
    drag: CylinderDrag = LINE_DRAG,
    tolerance: float = CURVE_TOLERANCE,
) -> TowedLine:
    """Return the curve of a line towed steadily, from its towed end upward.

    Parameters
    ----------
    segments : sequence of Segment, length >= 1
        Stretches of line, the towed end first.
    tension_n, angle_rad : float
        Pull of the line on the towed body: tension, N, >= 0, and its angle above the horizontal,
        rad. With no tension at all the line starts at the critical angle.
    speed_mps : float
        Speed through water, m/s, >= 0.
    water : Water
        Density and viscosity.
    drag : CylinderDrag
        Drag law of the line.
    tolerance : float
        Error allowed per step, rad and m per m.

    Returns
    -------
    TowedLine

    Raises
    ------
    InvalidInputError
        If an input is not a usable number.

    Notes
    -----
    Steady, two-dimensional, inextensible, no bending stiffness, uniform flow:
    ``T dphi/ds = w cos(phi) - n(phi)``, ``dT/ds = w sin(phi) + t(phi)`` (Pode 1951; Berteaux 1976).

    References
    ----------
    Pode, L. (1951). DTMB Report 687. Berteaux, H.O. (1976). Buoy Engineering.
    Dormand, J.R., Prince, P.J. (1980). A family of embedded Runge-Kutta formulae.
    J. Comp. Appl. Math. 6, 19-26.
    """
    require_number("speed_mps", speed_mps, low=0.0, high=20.0, unit="m/s")
    require_number("tension_n", tension_n, low=0.0)
    require_number("angle_rad", angle_rad, low=-math.pi, high=math.pi)
    if not segments:
        raise InvalidInputError("segments", segments, "at least one stretch of line")
    phi, tension = angle_rad, tension_n
    if tension < _SMALLEST_TENSION_N:
        first = segments[0]
        tension = _SMALLEST_TENSION_N
        phi = critical_angle_rad(first, speed_mps=speed_mps, water=water, drag=drag)
    points: list[LinePoint] = []
    breaks: list[int] = []
    arc = forward = up = 0.0
    for segment in segments:
        require_number("length_m", segment.length_m, above=0.0, high=5000.0, unit="m")
        require_number("diameter_m", segment.diameter_m, above=0.0, high=0.05, unit="m")
        breaks.append(len(points))
        if segment.hung_back_n or segment.hung_down_n:
            # Balance of forces at the joint: the line above answers both pulls.
            back = tension * math.cos(phi) + segment.hung_back_n
            down = tension * math.sin(phi) + segment.hung_down_n
            tension = max(math.hypot(back, down), _SMALLEST_TENSION_N)
            phi = math.atan2(down, back)
        end = _integrate_segment(
            points, segment, (arc, forward, up, phi, tension),
            segment.law(speed_mps, water, drag), tolerance,
        )
        arc, forward, up, phi, tension = end
    return TowedLine(points=tuple(points), breaks=tuple(breaks))


def _integrate_segment(
    points: list[LinePoint],
    segment: Segment,
    start: tuple[float, float, float, float, float],
    law: LineLaw,
    tolerance: float,
) -> tuple[float, float, float, float, float]:
    """Append the points of one stretch and return the state at its upper end.

    Written out by hand and without helper calls in the stages: this is the innermost loop of the
    program and runs while a finger drags.
    """
    sin, cos = math.sin, math.cos
    inertial, viscous, tangential = law.inertial, law.viscous, law.tangential
    onset, excess = law.onset, law.excess
    w = segment.weight_npm

    def bend(phi: float, tension: float) -> float:
        s = sin(phi)
        a = s if s >= 0.0 else -s
        n = inertial * a * a + viscous * a ** 1.3333333333333333
        if a > onset:
            n *= 1.0 + excess(a)
        bent: float = (w * cos(phi) - (n if s >= 0.0 else -n)) / tension
        return bent

    arc0, x, z, phi, tension = start
    length = segment.length_m
    arc = 0.0
    s1, c1 = sin(phi), cos(phi)
    p1 = bend(phi, tension)
    t1 = w * s1 + tangential * c1 * (c1 if c1 >= 0.0 else -c1)
    points.append(LinePoint(arc0, x, z, phi, tension, p1))
    h = min(length, 0.05 * length + 1e-3)
    if p1 != 0.0:
        h = min(h, 0.2 / abs(p1))
    for _ in range(_MOST_STEPS):
        if arc + h > length or length - arc - h < 1e-9 * length:
            h = length - arc
        # The tension must stay positive within a trial step.
        pa = phi + h * _A21 * p1
        ta = tension + h * _A21 * t1
        if ta <= 0.0:
            h *= 0.25
            continue
        s2, c2 = sin(pa), cos(pa)
        p2 = bend(pa, ta)
        t2 = w * s2 + tangential * c2 * abs(c2)
        pa = phi + h * (_A31 * p1 + _A32 * p2)
        ta = tension + h * (_A31 * t1 + _A32 * t2)
        s3, c3 = sin(pa), cos(pa)
        p3 = bend(pa, ta)
        t3 = w * s3 + tangential * c3 * abs(c3)
        pa = phi + h * (_A41 * p1 + _A42 * p2 + _A43 * p3)
        ta = tension + h * (_A41 * t1 + _A42 * t2 + _A43 * t3)
        s4, c4 = sin(pa), cos(pa)
        p4 = bend(pa, ta)
        t4 = w * s4 + tangential * c4 * abs(c4)
        pa = phi + h * (_A51 * p1 + _A52 * p2 + _A53 * p3 + _A54 * p4)
        ta = tension + h * (_A51 * t1 + _A52 * t2 + _A53 * t3 + _A54 * t4)
        s5, c5 = sin(pa), cos(pa)
        p5 = bend(pa, ta)
        t5 = w * s5 + tangential * c5 * abs(c5)
        pa = phi + h * (_A61 * p1 + _A62 * p2 + _A63 * p3 + _A64 * p4 + _A65 * p5)
        ta = tension + h * (_A61 * t1 + _A62 * t2 + _A63 * t3 + _A64 * t4 + _A65 * t5)
        s6, c6 = sin(pa), cos(pa)
        p6 = bend(pa, ta)
        t6 = w * s6 + tangential * c6 * abs(c6)
        phi_next = phi + h * (_B1 * p1 + _B3 * p3 + _B4 * p4 + _B5 * p5 + _B6 * p6)
        tension_next = tension + h * (_B1 * t1 + _B3 * t3 + _B4 * t4 + _B5 * t5 + _B6 * t6)
        if tension_next <= 0.0:
            h *= 0.25
            continue
        s7, c7 = sin(phi_next), cos(phi_next)
        p7 = bend(phi_next, tension_next)
        t7 = w * s7 + tangential * c7 * abs(c7)
        # Errors of angle and height, the height's per metre of step: the curve is what is wanted.
        error = max(
            abs(h * (_E1 * p1 + _E3 * p3 + _E4 * p4 + _E5 * p5 + _E6 * p6 + _E7 * p7)),
            abs(_E1 * s1 + _E3 * s3 + _E4 * s4 + _E5 * s5 + _E6 * s6 + _E7 * s7),
            abs(h * (_E1 * t1 + _E3 * t3 + _E4 * t4 + _E5 * t5 + _E6 * t6 + _E7 * t7)) / tension,
        )
        if error > tolerance:
            h *= max(0.2, 0.9 * (tolerance / error) ** 0.2)
            continue
        x += h * (_B1 * c1 + _B3 * c3 + _B4 * c4 + _B5 * c5 + _B6 * c6)
        z += h * (_B1 * s1 + _B3 * s3 + _B4 * s4 + _B5 * s5 + _B6 * s6)
        arc += h
        phi, tension, p1, t1, s1, c1 = phi_next, tension_next, p7, t7, s7, c7
        points.append(LinePoint(arc0 + arc, x, z, phi, tension, p1))
        if arc >= length * (1.0 - 1e-12):
            return arc0 + length, x, z, phi, tension
        h *= min(5.0, 0.9 * (tolerance / error) ** 0.2) if error > 0.0 else 5.0
    raise InvalidInputError(
        "segments", f"{length:g} m at {tension:g} N", "a line whose curve can be followed"
    )
