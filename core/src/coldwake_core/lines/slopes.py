"""What hangs on what: the slopes of a depth in every input, by one pass back down the line.

A depth is the end of an integration up the line. Its slope in each input follows from the adjoint
of the linearised equations, carried once from the surface down over the points that the solution
kept: one pass whatever the number of inputs, where moving each input by itself takes a solution
each.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Final

from .catenary import air_span
from .curve import LinePoint, TowedLine, interpolate
from .drag import LineLaw
from .towed import Segment

_PIECE: Final = 1.0
"""An interval is cut so that the line's own forgetting over a piece stays under this."""
_MOST_PIECES: Final = 12


@dataclass(frozen=True, slots=True)
class Goal:
    """What the slopes are of.

    Parameters
    ----------
    up, forward : float
        Weights of height above, and distance ahead of, the towed end.
    above_m : float
        Arc length from the towed end below which height and distance do not count: a joint of two
        stretches.
    """

    up: float = 1.0
    forward: float = 0.0
    above_m: float = 0.0


Drift = Callable[[float, float], float]

DEPTH: Final = Goal()
_NOTHING: Final = Goal(0.0)


@dataclass(slots=True)
class LineSlopes:
    """Slopes of a goal, each in the logarithm of a factor unless said.

    Parameters
    ----------
    line_drag, strumming, weight, speed : float
        In the line's normal drag, what strumming adds to it, its weight in water, and the speed as
        the line feels it, m.
    drift : float
        What the given motion of the line through the water does to the goal, m.
    pulls : list of (float, float)
        For each stretch: in a pull back and a pull down added at its lower end, m/N; the first is
        the towed end.
    """

    line_drag: float = 0.0
    strumming: float = 0.0
    weight: float = 0.0
    speed: float = 0.0
    drift: float = 0.0
    pulls: list[tuple[float, float]] = field(default_factory=list)


def surface_slopes(
    top: LinePoint, *, tip_height_m: float, air_weight_npm: float, stretch: Segment, law: LineLaw,
    goal: Goal,
) -> tuple[float, float, float]:
    """Return what angle and tension at the surface, and line out, do to a goal.

    Parameters
    ----------
    top : LinePoint
        Where the surface cuts the line.
    tip_height_m : float
        Height of the tip, m.
    air_weight_npm : float
        Weight of the line in air, N/m.
    stretch, law : Segment, LineLaw
        The line there and its drag.
    goal : Goal
        What is asked for.

    Returns
    -------
    (float, float, float)
        Slopes in angle, m/rad, in tension, m/N, and in line out, m/m.

    Notes
    -----
    Line out is fixed: a steeper or tauter line leaves less in the air, so the surface stands
    farther up the line.

    References
    ----------
    Giles, M.B., Pierce, N.A. (2000). An introduction to the adjoint approach to design. Flow,
    Turbulence and Combustion 65, 393-415. From memory.
    """
    phi, tension = top.angle_rad, top.tension_n
    s, c = math.sin(phi), math.cos(phi)

    def air(angle: float, pull: float) -> tuple[float, float]:
        span = air_span(
            height_m=tip_height_m, tension_n=pull, angle_rad=angle, weight_npm=air_weight_npm
        )
        return (0.0, 0.0) if span is None else (span.length_m, span.forward_m)

    length, ahead = air(phi, tension)
    step_angle, step_pull = 1e-4, 1e-4 * tension
    by_angle, by_pull = air(phi + step_angle, tension), air(phi, tension + step_pull)
    length_phi, ahead_phi = (by_angle[0] - length) / step_angle, (by_angle[1] - ahead) / step_angle
    length_t, ahead_t = (by_pull[0] - length) / step_pull, (by_pull[1] - ahead) / step_pull
    tension_s = stretch.weight_npm * s + law.tangential * c * abs(c)
    stretch_out = 1.0 + length_phi * top.bend_radpm + length_t * tension_s
    by_arc = goal.up * s + goal.forward * (
        c + ahead_phi * top.bend_radpm + ahead_t * tension_s
    )
    out = by_arc / stretch_out
    return (
        goal.forward * ahead_phi - out * length_phi, goal.forward * ahead_t - out * length_t, out
    )


def line_slopes(
    line: TowedLine, segments: Sequence[Segment], laws: Sequence[LineLaw], *, top: LinePoint,
    by_angle: float, by_tension: float, goal: Goal = DEPTH, drift: Drift | None = None,
) -> LineSlopes:
    """Return the slopes of a goal by one pass from a point of a line down to its towed end.

    Parameters
    ----------
    line : TowedLine
        The solved curve.
    segments, laws : sequence of Segment and of LineLaw
        Its stretches and their drag, as it was solved with.
    top : LinePoint
        Where the line ends for this purpose: at the surface, or its upper end.
    by_angle, by_tension : float
        What angle and tension there do to the goal (`surface_slopes`); 0 for a goal that is only
        the height of that point.
    goal : Goal
        What is asked for.
    drift : callable, optional
        How fast each point of the line moves along its upper normal, from its arc length and angle,
        m/s.

    Returns
    -------
    LineSlopes

    Notes
    -----
    With ``phi' = F(phi, T)`` and ``T' = G(phi)`` the adjoint is ``p' = -(F_phi p + G_phi q) -
    (up cos phi - forward sin phi)``, ``q' = -F_T p``; the slope in an input is the integral of
    ``p F_input + q G_input``. Implicit trapezoidal rule, which is stable however fast the line
    forgets; within a few per cent of finite differences.

    References
    ----------
    Giles, M.B., Pierce, N.A. (2000). An introduction to the adjoint approach to design. Flow,
    Turbulence and Combustion 65, 393-415. From memory.
    """
    p, q = by_angle, by_tension
    found = LineSlopes(pulls=[(0.0, 0.0)] * len(segments))
    points = line.points
    upper = top
    stretch = len(segments) - 1
    while stretch > 0 and points[line.breaks[stretch]].arc_m >= top.arc_m:
        stretch -= 1
    for number in range(stretch, -1, -1):
        first = line.breaks[number]
        last = line.breaks[number + 1] if number + 1 < len(line.breaks) else len(points)
        counts = points[first].arc_m >= goal.above_m - 1e-9
        node = _Node(segments[number], laws[number], goal if counts else _NOTHING, drift)
        at = node.at(upper)
        for index in range(last - 1, first - 1, -1):
            lower = points[index]
            if lower.arc_m >= upper.arc_m:
                continue
            step = upper.arc_m - lower.arc_m
            pieces = min(1 + int(step * abs(at[0]) / _PIECE), _MOST_PIECES)
            high = upper
            for piece in range(pieces - 1, -1, -1):
                low = lower if piece == 0 else interpolate(
                    lower, upper, lower.arc_m + step * piece / pieces
                )
                below = node.at(low)
                p, q = _step(found, at, below, high.arc_m - low.arc_m, p, q)
                high, at = low, below
            upper = lower
        # What the angle and the pull at the lower end of this stretch mean for pulls there.
        foot = points[first]
        s, c = math.sin(foot.angle_rad), math.cos(foot.angle_rad)
        back = q * c - p * s / foot.tension_n
        down = q * s + p * c / foot.tension_n
        found.pulls[number] = (back, down)
        if number > 0:
            end = points[first - 1]
            s, c = math.sin(end.angle_rad), math.cos(end.angle_rad)
            p, q = end.tension_n * (down * c - back * s), back * c + down * s
            upper = end
    return found


_Linear = tuple[float, float, float, float, float, float, float, float, float, float, float]
"""The linearised equations at a point: F_phi, G_phi, F_T (negated), the source, and what drag,
drift, strumming, weight (in F and in G) and speed (in F and in G) add."""


class _Node:
    """Makes the linearised equations at points of one stretch."""

    __slots__ = ("drift", "forward", "law", "speed", "up", "weight")

    def __init__(
        self, segment: Segment, law: LineLaw, goal: Goal, drift: Drift | None
    ) -> None:
        self.weight, self.law, self.drift = segment.weight_npm, law, drift
        self.up, self.forward, self.speed = goal.up, goal.forward, law.speed_mps

    def at(self, point: LinePoint) -> _Linear:
        arc, _, _, angle, pull, bend = point
        s, c = math.sin(angle), math.cos(angle)
        w, rub = self.weight, self.law.tangential * (c if c >= 0.0 else -c)
        a = s if s >= 0.0 else -s
        normal = strum = rising = steep = drifting = 0.0
        if a > 1e-9:
            normal, strum, rising = self.law.slopes(a)
            steep = rising / a * c
            if self.drift is not None:
                # Normal drag over a small normal motion: its slope in the normal velocity.
                drifting = rising / (a * self.speed) * self.drift(arc, angle) / pull
        inverse = 1.0 / pull if s >= 0.0 else -1.0 / pull
        return (
            (-w * s - steep) / pull, w * c - 2.0 * rub * s, bend / pull,
            self.up * c - self.forward * s, -normal * inverse, drifting, -strum * inverse,
            w * c / pull, w * s, -rising * inverse, 2.0 * rub * c,
        )


def _step(
    found: LineSlopes, high: _Linear, low: _Linear, step: float, p: float, q: float
) -> tuple[float, float]:
    """Carry the adjoint down one piece and add what its inputs do."""
    a1, b1, c1, source1, drag1, drift1, strum1, wet_p1, wet_q1, speed_p1, speed_q1 = high
    a0, b0, c0, source0, drag0, drift0, strum0, wet_p0, wet_q0, speed_p0, speed_q0 = low
    h = 0.5 * step
    right_p = p + h * (a1 * p + b1 * q + source1 + source0)
    right_q = q - h * c1 * p
    # (1 - h a) p - h b q = right_p and h c p + q = right_q, at the lower end.
    new_p = (right_p + h * b0 * right_q) / (1.0 - h * a0 + h * h * b0 * c0)
    new_q = right_q - h * c0 * new_p
    found.line_drag += h * (drag1 * p + drag0 * new_p)
    found.drift += h * (drift1 * p + drift0 * new_p)
    found.strumming += h * (strum1 * p + strum0 * new_p)
    found.weight += h * (wet_p1 * p + wet_q1 * q + wet_p0 * new_p + wet_q0 * new_q)
    found.speed += h * (speed_p1 * p + speed_q1 * q + speed_p0 * new_p + speed_q0 * new_q)
    return new_p, new_q
