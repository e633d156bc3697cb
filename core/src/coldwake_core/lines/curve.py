"""The curve of a towed line, and any point of it."""

from __future__ import annotations

import math
from bisect import bisect_right
from dataclasses import dataclass
from typing import NamedTuple

from ..checks import require_number


class LinePoint(NamedTuple):
    """A point of a towed line, seen from its towed end.

    Parameters
    ----------
    arc_m : float
        Arc length from the towed end, m.
    forward_m, up_m : float
        Horizontal distance ahead of the towed end and height above it, m.
    angle_rad : float
        Angle of the line above the horizontal, rad.
    tension_n : float
        Tension, N.
    bend_radpm : float
        Curvature d(angle)/d(arc), rad/m.
    """

    arc_m: float
    forward_m: float
    up_m: float
    angle_rad: float
    tension_n: float
    bend_radpm: float


@dataclass(frozen=True, slots=True)
class TowedLine:
    """Curve of a towed line, from its towed end upward.

    Parameters
    ----------
    points : tuple of LinePoint
        Points in order of arc length.
    breaks : tuple of int
        Index of the first point of each stretch.
    """

    points: tuple[LinePoint, ...]
    breaks: tuple[int, ...]

    @property
    def length_m(self) -> float:
        """Arc length of the whole curve, m."""
        return self.points[-1].arc_m

    def at(self, arc_m: float) -> LinePoint:
        """Return the point at an arc length from the towed end.

        Parameters
        ----------
        arc_m : float
            Arc length, m, within the line.

        Returns
        -------
        LinePoint

        Raises
        ------
        InvalidInputError
            If the length is outside the line.

        Notes
        -----
        Quintic Hermite interpolation of place between steps (value, slope and curvature are known
        at both ends, so it is as good as the integration), cubic of angle.
        """
        require_number("arc_m", arc_m, low=0.0, high=self.length_m * (1 + 1e-9), unit="m")
        index = bisect_right(self.points, arc_m, key=_arc) - 1
        index = min(max(index, 0), len(self.points) - 2)
        # A break holds two points at the same arc length: step over the empty interval.
        while self.points[index + 1].arc_m - self.points[index].arc_m <= 0.0:
            index += 1 if index < len(self.points) - 2 else -1
        return interpolate(self.points[index], self.points[index + 1], arc_m)


def _arc(point: LinePoint) -> float:
    return point.arc_m


def interpolate(a: LinePoint, b: LinePoint, arc_m: float) -> LinePoint:
    """Return the point between two neighbouring points of one stretch.

    Parameters
    ----------
    a, b : LinePoint
        Neighbours, ``a`` nearer the towed end.
    arc_m : float
        Arc length from the towed end, m, between the two.

    Returns
    -------
    LinePoint

    References
    ----------
    Hairer, E., Norsett, S.P., Wanner, G. (1993). Solving Ordinary Differential Equations I, II.6:
    dense output by Hermite's cubic. From memory.
    """
    h = b.arc_m - a.arc_m
    u = (arc_m - a.arc_m) / h
    sa, ca, sb, cb = (
        math.sin(a.angle_rad), math.cos(a.angle_rad), math.sin(b.angle_rad), math.cos(b.angle_rad),
    )
    up = _quintic(u, h, a.up_m, b.up_m, sa, sb, ca * a.bend_radpm, cb * b.bend_radpm)
    forward = _quintic(
        u, h, a.forward_m, b.forward_m, ca, cb, -sa * a.bend_radpm, -sb * b.bend_radpm
    )
    v = 1.0 - u
    angle = (
        a.angle_rad * v * v * (1 + 2 * u) + b.angle_rad * u * u * (3 - 2 * u)
        + h * (a.bend_radpm * u * v * v - b.bend_radpm * u * u * v)
    )
    return LinePoint(
        arc_m, forward, up, angle, a.tension_n * v + b.tension_n * u,
        a.bend_radpm * v + b.bend_radpm * u,
    )


def _quintic(
    u: float, h: float, y0: float, y1: float, d0: float, d1: float, c0: float, c1: float
) -> float:
    """Quintic Hermite: values, slopes and second derivatives at both ends of a step ``h``."""
    u2 = u * u
    u3 = u2 * u
    u4 = u3 * u
    u5 = u4 * u
    return (
        y0 * (1 - 10 * u3 + 15 * u4 - 6 * u5) + y1 * (10 * u3 - 15 * u4 + 6 * u5)
        + h * d0 * (u - 6 * u3 + 8 * u4 - 3 * u5) + h * d1 * (-4 * u3 + 7 * u4 - 3 * u5)
        + h * h * c0 * (0.5 * u2 - 1.5 * u3 + 1.5 * u4 - 0.5 * u5)
        + h * h * c1 * (0.5 * u3 - u4 + 0.5 * u5)
    )
