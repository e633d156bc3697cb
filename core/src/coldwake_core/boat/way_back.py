"""The shortest way back over a place that a boat with lines out can go."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from itertools import accumulate, pairwise
from typing import Final, Literal

from ..checks import require_number

Side = Literal["port", "starboard"]
_STEP_RAD: Final = math.radians(6.0)
_SIDES: Final[tuple[Side, Side]] = ("port", "starboard")
_TRIES: Final = 200
_SETTLED_S: Final = 0.05


@dataclass(frozen=True, slots=True, kw_only=True)
class WayBack:
    """A way of two turns and what lies between.

    Parameters
    ----------
    first, second : {'port', 'starboard'}
        To which side each turns.
    first_radius_m, second_radius_m : float
        Their radii, m.
    first_m, straight_m, second_m : float
        Lengths of the three parts, m.
    heading_deg : float
        Heading of the straight between, degrees from north.
    points : tuple of (float, float)
        The way, east and north of where the boat is, m.
    """

    first: Side
    second: Side
    first_radius_m: float
    second_radius_m: float
    first_m: float
    straight_m: float
    second_m: float
    heading_deg: float
    points: tuple[tuple[float, float], ...]

    @property
    def length_m(self) -> float:
        """All of it, m."""
        return self.first_m + self.straight_m + self.second_m


def ways_back(
    *, east_m: float, north_m: float, heading_deg: float, arrive_deg: float,
    port_m: float | None, starboard_m: float | None,
) -> list[WayBack]:
    """Return the ways to a place and a heading there, the shortest first.

    Parameters
    ----------
    east_m, north_m : float
        The place, seen from the boat, m.
    heading_deg, arrive_deg : float
        Heading now and at the place, degrees from north.
    port_m, starboard_m : float or None
        The tightest turn to each side, m; None for a side that may not be turned to.

    Returns
    -------
    list of WayBack
        Empty where neither side may be turned to.

    Raises
    ------
    InvalidInputError
        If a number cannot be.

    Notes
    -----
    Dubins (1957): the shortest way of bounded curvature is a turn, a straight and a turn, or three
    turns; the latter are for places closer than four radii and leave no straight for lines to run
    on, so they are left out. Turns to two sides each have their own radius: the straight is the
    inner tangent of the two circles, or the outer, ``sin β = (r₁ ± r₂)/d`` off the line of centres.

    References
    ----------
    Dubins, L.E. (1957). On curves of minimal length with a constraint on average curvature.
    American Journal of Mathematics 79, 497-516.
    """
    for name, value in (("east_m", east_m), ("north_m", north_m), ("heading_deg", heading_deg),
                        ("arrive_deg", arrive_deg)):
        require_number(name, value)
    radii: dict[Side, float | None] = {"port": port_m, "starboard": starboard_m}
    found = []
    for first, r1 in radii.items():
        for second, r2 in radii.items():
            if r1 is None or r2 is None:
                continue
            way = _way(
                (east_m, north_m), math.radians(heading_deg), math.radians(arrive_deg),
                first, require_number("radius_m", r1, above=0.0), second,
                require_number("radius_m", r2, above=0.0),
            )
            if way is not None:
                found.append(way)
    return sorted(found, key=lambda way: way.length_m)


def ways_back_in_current(
    *, east_m: float, north_m: float, heading_deg: float, arrive_deg: float,
    port_m: float | None, starboard_m: float | None, speed_mps: float,
    flow_mps: tuple[float, float],
) -> list[WayBack]:
    """Return the ways to a place on the ground while the water carries the boat.

    Parameters
    ----------
    east_m, north_m : float
        The place, seen from the boat, m.
    heading_deg, arrive_deg : float
        Heading through the water now and at the place, degrees from north.
    port_m, starboard_m : float or None
        The tightest turn to each side through the water, m.
    speed_mps : float
        Speed through the water, m/s, > 0.
    flow_mps : (float, float)
        The current, to east and north, m/s.

    Returns
    -------
    list of WayBack
        The shortest first; lengths and headings are through the water, points over the ground.
        Without a current they are those of `ways_back`.

    Raises
    ------
    InvalidInputError
        If a number cannot be.

    Notes
    -----
    Seen from the water the place moves off against the current. Where it is when the boat gets
    there is found by trying again with the time that the last try took, for each pair of turns by
    itself: with a current slower than the boat each try is nearer. One that does not settle, for it
    goes round once more or not, is left out.
    """
    require_number("speed_mps", speed_mps, above=0.0, unit="m/s")
    flow_east, flow_north = flow_mps
    found = []
    for pair in ((a, b) for a in _SIDES for b in _SIDES):
        time_s, settled = 0.0, None
        for _ in range(_TRIES):
            ways = ways_back(
                east_m=east_m - flow_east * time_s, north_m=north_m - flow_north * time_s,
                heading_deg=heading_deg, arrive_deg=arrive_deg, port_m=port_m,
                starboard_m=starboard_m,
            )
            way = next((w for w in ways if (w.first, w.second) == pair), None)
            if way is None:
                break
            taken_s = way.length_m / speed_mps
            if abs(taken_s - time_s) < _SETTLED_S:
                settled = way
                break
            time_s = taken_s
        if settled is not None:
            found.append(_carried(settled, speed_mps, flow_mps))
    return sorted(found, key=lambda way: way.length_m)


def _carried(way: WayBack, speed_mps: float, flow_mps: tuple[float, float]) -> WayBack:
    """The same way with its points over the ground: each moved by the current until then."""
    chords = [math.hypot(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(way.points)]
    # Arcs are drawn in short chords: together they are as long as the way.
    scale = way.length_m / sum(chords) if sum(chords) > 0.0 else 1.0
    times = [0.0, *(scale * run / speed_mps for run in accumulate(chords))]
    return replace(way, points=tuple(
        (x + flow_mps[0] * t, y + flow_mps[1] * t)
        for (x, y), t in zip(way.points, times, strict=True)
    ))


def _centre(x: float, y: float, heading: float, side: Side, radius: float) -> tuple[float, float]:
    sign = 1.0 if side == "starboard" else -1.0
    return x + sign * radius * math.cos(heading), y - sign * radius * math.sin(heading)


def _way(
    place: tuple[float, float], start: float, arrive: float, first: Side, r1: float, second: Side,
    r2: float,
) -> WayBack | None:
    s1, s2 = (1.0 if side == "starboard" else -1.0 for side in (first, second))
    x1, y1 = _centre(0.0, 0.0, start, first, r1)
    x2, y2 = _centre(*place, arrive, second, r2)
    dx, dy = x2 - x1, y2 - y1
    # The centres stand s·r to starboard of the straight: it is turned from the line between them.
    apart = math.hypot(dx, dy)
    off = s1 * r1 - s2 * r2
    if apart <= abs(off):
        return None
    heading = math.atan2(dx, dy) + math.asin(off / apart)
    straight = math.sqrt(apart**2 - off**2)
    turn1 = (s1 * (heading - start)) % math.tau
    turn2 = (s2 * (arrive - heading)) % math.tau
    # A whole circle is none: rounding alone makes one of it.
    turn1, turn2 = (0.0 if math.tau - t < 1e-9 else t for t in (turn1, turn2))
    points = [(0.0, 0.0), *_arc(x1, y1, start, s1, r1, turn1)]
    last = points[-1]
    points.append((
        last[0] + straight * math.sin(heading), last[1] + straight * math.cos(heading)
    ))
    points += _arc(x2, y2, heading, s2, r2, turn2)
    return WayBack(
        first=first, second=second, first_radius_m=r1, second_radius_m=r2, first_m=r1 * turn1,
        straight_m=straight, second_m=r2 * turn2, heading_deg=math.degrees(heading) % 360.0,
        points=tuple(points),
    )


def _arc(
    x: float, y: float, heading: float, sign: float, radius: float, turn: float
) -> list[tuple[float, float]]:
    count = max(math.ceil(turn / _STEP_RAD), 1)
    points = []
    for k in range(1, count + 1):
        now = heading + sign * turn * k / count
        points.append((x - sign * radius * math.cos(now), y + sign * radius * math.sin(now)))
    return points
