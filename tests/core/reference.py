"""Towed lines solved anew from the words of docs/physics.md, sharing no code with the program.

The line is a tension vector carried by scipy's DOP853; drag, strumming, bodies, weights and the
piece in the air are written out here again. Run as a script it prints the golden table.
"""

from __future__ import annotations

import csv
import math
import sys
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from pathlib import Path

from scipy.integrate import solve_ivp
from scipy.optimize import brentq

G = 9.80665
RHO, NU = 999.70, 1.3065e-6
"""Water at 10 degrees: Kell 1975; viscosity 1.306 mPa s (IAPWS)."""
LEAD, NYLON, FLUORO, BRAID, STEEL, BRASS = 11340.0, 1140.0, 1780.0, 970.0, 7850.0, 8500.0
FOOT, INCH, MPH, POUND, OUNCE, GRAIN = 0.3048, 0.0254, 0.44704, 0.45359237, 0.028349523, 6.479891e-5


@dataclass(frozen=True)
class Line:
    """Diameter m, weight in water and in air N/m, damping ratio, mass N/m over displaced."""

    d: float
    wet: float
    dry: float
    zeta: float

    @property
    def alpha(self) -> float:
        return self.zeta * (1.0 + self.dry / G / (math.pi / 4 * self.d**2 * RHO))


def plain(mm: float, density: float, *, solid: float = 1.0, zeta: float = 0.02) -> Line:
    area = math.pi / 4 * (mm / 1000) ** 2 * solid
    return Line(mm / 1000, area * (density - RHO) * G, area * density * G, zeta)


def lead_core(mm: float, strand_mm: float = 0.525) -> Line:
    strand = math.pi / 4 * (strand_mm / 1000) ** 2
    sheath = (math.pi / 4 * (mm / 1000) ** 2 - strand) * 0.7
    dry = strand * LEAD + sheath * NYLON
    return Line(mm / 1000, (dry - (strand + sheath) * RHO) * G, dry * G, 0.10)


MONO_8, MONO_10, MONO_12, MONO_15 = (plain(mm, NYLON) for mm in (0.26, 0.29, 0.33, 0.36))
FLUORO_12, BRAID_30 = plain(0.33, FLUORO), plain(0.28, BRAID, solid=0.8, zeta=0.10)
LEAD_18, LEAD_27 = lead_core(0.87), lead_core(0.97)
CABLE = plain(0.84, STEEL, solid=0.77, zeta=0.01)


def line_normal(line: Line, un: float) -> float:
    """Normal drag, N/m: Cn = 1 + 10 Re^(-2/3), and six tenths of Vandiver's amplification."""
    if un <= 0.0:
        return 0.0
    re = un * line.d / NU
    cn = (1 + 10 * re ** (-2 / 3)) * (1 + 0.6 * strum(re, line.alpha))
    return 0.5 * RHO * line.d * un**2 * cn


def strum(re: float, alpha: float) -> float:
    """1.043 (2 Yrms/D)^.65 with Govardhan & Williamson's amplitude; none below Re 47."""
    if re <= 47.0:
        return 0.0
    alpha = min(alpha, 1.0)
    amplitude = (1 - 1.12 * alpha + 0.30 * alpha**2) * math.log10(0.41 * re**0.36)
    u = min((re - 47) / 33, 1.0)
    return 1.043 * (math.sqrt(2) * amplitude) ** 0.65 * u * u * (3 - 2 * u)


Pull = Callable[[float], tuple[float, float]]
"""Back and down, N, at a speed."""


def plug(length: float, mass: float, lip: float, width: float | None = None) -> Pull:
    width = 0.2 * length if width is None else width
    volume = 0.70 * math.pi / 6 * length * width**2

    def at(v: float) -> tuple[float, float]:
        q = 0.5 * RHO * v * v
        force = q * 0.9 * lip * width**2
        return q * 0.45 * math.pi / 4 * width**2 + force, (mass - volume * RHO) * G + force

    return at


def plate(
    area: float, mass: float, drag: float, lever: float, cn: Callable[[float], float]
) -> Pull:
    weight = mass * (1 - RHO / BRASS) * G

    def at(v: float) -> tuple[float, float]:
        q = 0.5 * RHO * v * v
        if q == 0.0:
            return 0.0, weight

        def moment(a: float) -> float:
            return q * area * cn(a) - lever * weight * math.cos(a)

        angle = brentq(moment, 0.0, math.pi / 2, xtol=1e-14)
        return q * drag * area, weight * (1 - lever * math.cos(angle) ** 2)

    return at


def spoon(length: float, width: float, mass: float) -> Pull:
    return plate(0.78 * length * width, mass, 0.35, 0.8, lambda a: 2 * math.sin(a))


def blade(length: float, width: float, mass: float) -> Pull:
    area = 0.78 * length * width
    slope, sway = math.pi / 2 * width**2 / area, math.radians(45)

    def cn(a: float) -> float:
        return math.sin(a) * (slope * math.cos(a) + 1.2 * math.sin(a))

    turns = [sway * math.sin(math.pi / 2 * (i + 0.5) / 4000) for i in range(4000)]
    drag = 0.1 + sum(math.sin(a) * cn(a) for a in turns) / len(turns)
    return plate(area, mass, drag, math.sin(sway) / sway, cn)


def soft(width: float, mass: float) -> Pull:
    def at(v: float) -> tuple[float, float]:
        q = 0.5 * RHO * v * v
        return q * math.pi / 4 * width**2, mass * (1 - RHO / 2500.0) * G

    return at


def ball(mass: float) -> Pull:
    d = (6 * mass / (math.pi * LEAD)) ** (1 / 3)

    def at(v: float) -> tuple[float, float]:
        weight = mass * (1 - RHO / LEAD) * G
        if v == 0.0:
            return 0.0, weight
        re = v * d / NU
        cd = 24 / re * (1 + 0.15 * re**0.687) + 0.42 / (1 + 42500 * re**-1.16)
        return 0.5 * RHO * v * v * cd * math.pi / 4 * d**2, weight

    return at


def total(*pulls: Pull) -> Pull:
    return lambda v: (sum(p(v)[0] for p in pulls), sum(p(v)[1] for p in pulls))


@dataclass(frozen=True)
class Stretch:
    """Length, line, what pulls at its lower end, and how many times the plain drag it has."""

    length: float
    line: Line
    pull: tuple[float, float] = (0.0, 0.0)
    drag: float = 1.0


@dataclass
class Curve:
    """Arc, forward, up and the tension vector, densely enough to be searched."""

    stretches: list[tuple[float, Callable[[float], Sequence[float]], Line]] = field(
        default_factory=list
    )

    def at(self, arc: float) -> Sequence[float]:
        for end, values, _ in self.stretches:
            if arc <= end + 1e-12:
                return values(min(arc, end))
        return self.stretches[-1][1](self.stretches[-1][0])

    def line(self, arc: float) -> Line:
        return next((line for end, _, line in self.stretches if arc <= end + 1e-12), CABLE)


def follow(stretches: Sequence[Stretch], end: tuple[float, float], v: float) -> Curve:
    """The curve from the towed end up: forward, up, and the pull of the line on what is below."""
    curve, arc = Curve(), 0.0
    y = [0.0, 0.0, end[0], end[1]]
    for part in stretches:
        y[2] += part.pull[0]
        y[3] += part.pull[1]

        def slope(_: float, y: Sequence[float], part: Stretch = part) -> list[float]:
            pull = math.hypot(y[2], y[3])
            tx, tz = y[2] / pull, y[3] / pull
            # The water comes from ahead: its part along the line, and across it.
            along = -v * tx
            cx, cz = -v - along * tx, -along * tz
            un = math.hypot(cx, cz)
            normal = part.drag * line_normal(part.line, un) / un if un > 0 else 0.0
            rub = 0.5 * RHO * 0.015 * math.pi * part.line.d * abs(along) * along
            return [tx, tz, -normal * cx - rub * tx, part.line.wet - normal * cz - rub * tz]

        found = solve_ivp(
            slope, (arc, arc + part.length), y, method="DOP853", rtol=1e-10, atol=1e-13,
            dense_output=True,
        )
        arc += part.length
        curve.stretches.append((arc, found.sol, part.line))
        y = list(found.y[:, -1])
    return curve


def in_air(height: float, x: float, z: float, weight: float) -> tuple[float, float]:
    """Length and reach of the catenary from the water, pulled with (x, z), up to a height."""
    top = math.sqrt(max((math.hypot(x, z) + weight * height) ** 2 - x * x, 0.0))
    a = x / weight
    return (top - z) / weight, a * (math.asinh(top / x) - math.asinh(z / x))


def depth_for(curve: Curve, out: float, height: float) -> tuple[float, float]:
    """Depth and distance behind the tip with so much line out, the deepest answer; 0 afloat."""

    def beyond(arc: float) -> float:
        y = curve.at(arc)
        return arc + in_air(height, y[2], y[3], curve.line(arc).dry)[0] - out

    arcs = [out * i / 400 for i in range(1, 401)]
    for low, high in zip(reversed(arcs[:-1]), reversed(arcs[1:]), strict=True):
        if beyond(low) <= 0.0 <= beyond(high):
            arc = brentq(beyond, low, high, xtol=1e-12)
            y = curve.at(arc)
            if y[1] <= 0.0:
                break
            return y[1], y[0] + in_air(height, y[2], y[3], curve.line(arc).dry)[1]
    return 0.0, math.sqrt(out**2 - height**2)


FLY = soft(0.009, 0.0018)
HEAVY_SPOON = spoon(0.07, 0.025, 0.5 * OUNCE)
MINNOW = plug(0.09, 0.0088, 0.5)
STRIPER = plug(5 * INCH, 0.024, 0.5)
DODGER_5, DODGER_4 = blade(5 * INCH, 0.045, 0.020), blade(4 * INCH, 0.0356, 0.012)
HOOCHIE = soft(0.010, 0.002)
LEADER, COLOUR, TIP, BOOM = 20 * FOOT, 30 * FOOT, 1.2, 0.8


def flat(line: Line, out_ft: float, *bodies: Pull) -> Callable[[float], float]:
    def depth(v: float) -> float:
        out = out_ft * FOOT
        curve = follow([Stretch(out, line)], total(*bodies)(v), v)
        return depth_for(curve, out, TIP)[0]

    return depth


def leadcore(line: Line, colours: float) -> Callable[[float], float]:
    def depth(v: float) -> float:
        stretches = [Stretch(LEADER, FLUORO_12), Stretch(colours * COLOUR, line)]
        curve = follow(stretches, total(DODGER_5, HOOCHIE)(v), v)
        return depth_for(curve, LEADER + colours * COLOUR, TIP)[0]

    return depth


def weighted(line: Line, out_ft: float, mass: float, ahead: float, *bodies: Pull):
    def depth(v: float) -> float:
        out = out_ft * FOOT
        stretches = [Stretch(ahead, line), Stretch(out - ahead, line, ball(mass)(v))]
        return depth_for(follow(stretches, total(*bodies)(v), v), out, TIP)[0]

    return depth


def downrigger(mass: float, counter_ft: float, setback: float, *bodies: Pull, lure: bool = True):
    def depth(v: float) -> float:
        back = follow([Stretch(setback, MONO_12)], total(*bodies)(v), v).at(setback)
        cable = counter_ft * FOOT + BOOM
        stretches = [
            Stretch(0.3, CABLE),
            Stretch(cable - 0.3, CABLE, (back[2], back[3]), 1 + 0.5 * MONO_12.d / CABLE.d),
        ]
        curve = follow(stretches, ball(mass)(v), v)
        down = depth_for(curve, cable, BOOM)[0]
        return down - curve.at(0.3)[1] + back[1] if lure else down

    return depth


GOLDEN = {
    "fly, 190 ft of 8 lb": flat(MONO_8, 190, FLY),
    "half-ounce spoon, 185 ft of 10 lb": flat(MONO_10, 185, HEAVY_SPOON),
    "floating minnow, 100 ft of 12 lb": flat(MONO_12, 100, MINNOW),
    "striper plug, 85 ft of 15 lb": flat(MONO_15, 85, STRIPER),
    "striper plug, 85 ft of 30 lb braid": flat(BRAID_30, 85, STRIPER),
    "fat floating plug, 150 ft of 8 lb": flat(
        MONO_8, 150, plug(2 * INCH, 0.0075, 0.5, 0.85 * INCH)
    ),
    "2 colours, 18 lb, dodger and hoochie": leadcore(LEAD_18, 2),
    "3 colours, 18 lb, dodger and hoochie": leadcore(LEAD_18, 3),
    "5 colours, 27 lb, dodger and hoochie": leadcore(LEAD_27, 5),
    "3 oz in line, 120 ft of 12 lb, dodger and hoochie": weighted(
        MONO_12, 120, 3 * OUNCE, 1.5, DODGER_4, HOOCHIE
    ),
    "10 lb ball, 44 ft, hoochie 20 ft back": downrigger(10 * POUND, 44, 6.0, HOOCHIE),
    "10 lb ball, 44 ft, the ball": downrigger(10 * POUND, 44, 6.0, HOOCHIE, lure=False),
    "15 lb ball, 83 ft, the ball": downrigger(15 * POUND, 83, 6.0, HOOCHIE, lure=False),
    "10 lb ball, 40 ft, dodger 40 ft back": downrigger(
        10 * POUND, 40, 40 * FOOT, DODGER_4, HOOCHIE
    ),
}
SPEEDS_MPH = (1.0, 1.5, 2.4)


if __name__ == "__main__":
    with (Path(__file__).parent / "golden_depths_ft.csv").open("w", newline="") as file:
        table = csv.writer(file, lineterminator="\n")
        table.writerow(["rig", *(f"{mph} mph" for mph in SPEEDS_MPH)])
        for name, depth in GOLDEN.items():
            table.writerow([name, *(f"{depth(mph * MPH) / FOOT:.2f}" for mph in SPEEDS_MPH)])
    sys.stdout.write("golden_depths_ft.csv is written\n")
