"""Lines that come too near each other: straight, and in turns."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

Point = tuple[float, float, float]

TOO_NEAR_M: Final = 0.5
"""Lines this near catch each other: about the swing of a dodger and its leader (judged)."""
CLEAR_OF_TIPS_M: Final = 2.0
"""What is this near a line's own rod tip is under the angler's eyes."""
_STEP_M: Final = 4.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Tangle:
    """Two lines that are likely to catch each other.

    Parameters
    ----------
    rod_ids : tuple of str
        The two rods.
    distance_m : float
        How near they come, m.
    behind_m : float
        Where, behind the stern, m.
    """

    rod_ids: tuple[str, ...]
    distance_m: float
    behind_m: float


def line_in_space(
    path: Sequence[tuple[float, float]], *, tip_side_m: float, end_behind_m: float,
    end_side_m: float, tip_behind_m: float = 0.0,
) -> tuple[Point, ...]:
    """Return a line's path in space, from its side view and the place of its end from above.

    Parameters
    ----------
    path : sequence of (float, float)
        Behind the tip and below the surface, m, from tip to towed end.
    tip_side_m : float
        Lateral place of the tip, m.
    end_behind_m, end_side_m : float
        Where its end is seen from above, m.
    tip_behind_m : float
        Tip behind the stern, m; negative ahead of it.

    Returns
    -------
    tuple of (float, float, float)
        Behind the stern, to starboard and below the surface, m, at most four metres apart.
    """
    trail = max(path[-1][0], 1e-6)
    points: list[Point] = []
    for (b0, d0), (b1, d1) in pairwise(path):
        pieces = max(1, math.ceil(math.hypot(b1 - b0, d1 - d0) / _STEP_M))
        for piece in range(pieces):
            share = piece / pieces
            along = (b0 + share * (b1 - b0)) / trail
            points.append((
                tip_behind_m + along * (end_behind_m - tip_behind_m),
                tip_side_m + along * (end_side_m - tip_side_m),
                d0 + share * (d1 - d0),
            ))
    points.append((end_behind_m, end_side_m, path[-1][1]))
    return tuple(points)


def likely_tangles(lines: Mapping[str, Sequence[Point]]) -> tuple[Tangle, ...]:
    """Return the pairs of lines that come too near each other.

    Parameters
    ----------
    lines : mapping of str to sequence of (float, float, float)
        Each rod's line in space from its tip on, m.

    Returns
    -------
    tuple of Tangle
        Nearest first.

    References
    ----------
    Ericson, C. (2005). Real-Time Collision Detection, 5.1.9: closest points of two segments.
    From memory.
    """
    ids = sorted(lines)
    found = []
    for index, first in enumerate(ids):
        for second in ids[index + 1 :]:
            near = _nearest(lines[first], lines[second])
            if near is not None and near[0] < TOO_NEAR_M:
                found.append(Tangle(
                    rod_ids=(first, second), distance_m=near[0], behind_m=near[1]
                ))
    return tuple(sorted(found, key=lambda tangle: tangle.distance_m))


def _nearest(a: Sequence[Point], b: Sequence[Point]) -> tuple[float, float] | None:
    """Least distance between two lines and where it is; None where they are not near."""
    best: tuple[float, float] | None = None
    far_a, far_b = _clear_of_tip(a), _clear_of_tip(b)
    if not far_a or not far_b or _boxes_apart(far_a, far_b):
        return best
    boxes = [(q0, q1, _box(q0, q1)) for q0, q1 in pairwise(far_b)]
    for p0, p1 in pairwise(far_a):
        x0, x1, y0, y1, z0, z1 = _box(p0, p1)
        x0, y0, z0 = x0 - TOO_NEAR_M, y0 - TOO_NEAR_M, z0 - TOO_NEAR_M
        x1, y1, z1 = x1 + TOO_NEAR_M, y1 + TOO_NEAR_M, z1 + TOO_NEAR_M
        for q0, q1, (a0, a1, b0, b1, c0, c1) in boxes:
            # Most pieces are nowhere near each other, and this is cheaper than saying how far.
            if a0 > x1 or a1 < x0 or b0 > y1 or b1 < y0 or c0 > z1 or c1 < z0:
                continue
            distance, share = _between(p0, p1, q0, q1)
            if best is None or distance < best[0]:
                best = (distance, p0[0] + share * (p1[0] - p0[0]))
    return best


def _clear_of_tip(line: Sequence[Point]) -> list[Point]:
    """A line from where it is in the water and well clear of its own rod tip."""

    def is_clear(point: Point) -> bool:
        return math.dist(point, line[0]) > CLEAR_OF_TIPS_M and point[2] >= 0.0

    clear: list[Point] = []
    for p, q in pairwise(line):
        if not is_clear(q):
            continue
        if not is_clear(p):
            low, high = 0.0, 1.0
            for _ in range(20):
                middle = 0.5 * (low + high)
                low, high = (low, middle) if is_clear(_along(p, q, middle)) else (middle, high)
            clear.append(_along(p, q, high))
        clear.append(q)
    return clear


def _along(p: Point, q: Point, share: float) -> Point:
    return (
        p[0] + share * (q[0] - p[0]), p[1] + share * (q[1] - p[1]), p[2] + share * (q[2] - p[2])
    )


def _box(p: Point, q: Point) -> tuple[float, float, float, float, float, float]:
    (x0, y0, z0), (x1, y1, z1) = p, q
    return (
        min(x0, x1), max(x0, x1), min(y0, y1), max(y0, y1), min(z0, z1), max(z0, z1)
    )


def _boxes_apart(a: Sequence[Point], b: Sequence[Point]) -> bool:
    """Whether two lines keep apart by their extents alone, which most do."""
    return any(
        min(p[axis] for p in a) - max(q[axis] for q in b) > TOO_NEAR_M
        or min(q[axis] for q in b) - max(p[axis] for p in a) > TOO_NEAR_M
        for axis in range(3)
    )


def _between(p0: Point, p1: Point, q0: Point, q1: Point) -> tuple[float, float]:
    """Least distance between two segments, and how far along the first it is (0 to 1).

    The usual clamped solution of the two-parameter least-squares problem (Ericson 2005,
    Real-Time Collision Detection, 5.1.9; from memory).
    """
    ux, uy, uz = p1[0] - p0[0], p1[1] - p0[1], p1[2] - p0[2]
    vx, vy, vz = q1[0] - q0[0], q1[1] - q0[1], q1[2] - q0[2]
    wx, wy, wz = p0[0] - q0[0], p0[1] - q0[1], p0[2] - q0[2]
    a, e = ux * ux + uy * uy + uz * uz, vx * vx + vy * vy + vz * vz
    b, c = ux * vx + uy * vy + uz * vz, ux * wx + uy * wy + uz * wz
    f = vx * wx + vy * wy + vz * wz
    denominator = a * e - b * b
    s = 0.0
    if denominator > 1e-12 * a * e:
        s = min(max((b * f - c * e) / denominator, 0.0), 1.0)
    t = (b * s + f) / e if e > 0.0 else 0.0
    if t < 0.0 or t > 1.0:
        t = min(max(t, 0.0), 1.0)
        s = min(max((b * t - c) / a, 0.0), 1.0) if a > 0.0 else 0.0
    dx, dy, dz = wx + s * ux - t * vx, wy + s * uy - t * vy, wz + s * uz - t * vz
    return math.sqrt(dx * dx + dy * dy + dz * dz), s
