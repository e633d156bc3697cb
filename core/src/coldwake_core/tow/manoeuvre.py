"""S-turns and U-turns as they unfold: every line pulled along behind its own tip.

A line follows its tip as a short chain of taut links (each a tractrix, stepped along the boat's
path), so lines lag behind the boat's heading and swing across each other as they do on the water.
How many links, and how long, comes from the steady turn of the same line: a chain of links ``l``
settles on the circle ``r**2 = Rt**2 - sum(l**2)``, so the links are cut until that is the circle of
the three-dimensional solution. A line without side resistance is one link; one that the water
holds all along follows its tip's path on many.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from ..checks import require_choice, require_number

Kind = Literal["s_turn", "u_turn"]
KINDS: Final = ("s_turn", "u_turn")
STEP_M: Final = 0.5
S_TURN_DEG: Final = 60.0
"""Each bend of the weave turns this far from the old course (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Towed:
    """A line for this purpose.

    Parameters
    ----------
    aft_m, side_m : float
        Place of its tip: behind the transom and to starboard, m.
    links_m : tuple of float
        Its links from the tip to the lure, m (`chain`).
    """

    aft_m: float
    side_m: float
    links_m: tuple[float, ...]

    @property
    def trail_m(self) -> float:
        """Lure behind the tip straight ahead, m."""
        return math.fsum(self.links_m)


_MOST_LINKS: Final = 8


def chain(trail_m: float, cut_share: float) -> tuple[float, ...]:
    """Return the links that cut a corner as a line does.

    Parameters
    ----------
    trail_m : float
        Lure behind the tip, m, >= 0.
    cut_share : float
        The tip's radius squared less the lure's, over the square of the trail.

    Returns
    -------
    tuple of float
        Lengths, m, from the tip to the lure: as few as do, equal ones and a shorter last.

    Examples
    --------
    >>> chain(10.0, 1.0)
    (10.0,)
    >>> chain(10.0, 0.5)
    (5.0, 5.0)
    """
    share = min(max(cut_share, 1.0 / _MOST_LINKS), 1.0)
    others = math.ceil(1.0 / share - 1e-9) - 1
    if others <= 0:
        return (trail_m,)
    root = math.sqrt(max(others * others - others * (others + 1) * (1.0 - share), 0.0))
    link = trail_m * (others + root) / (others * (others + 1))
    return (*(link,) * others, trail_m - others * link)


@dataclass(frozen=True, slots=True, kw_only=True)
class Snapshot:
    """The tow at a moment, seen from the boat.

    Parameters
    ----------
    at_s : float
        Time since the turn began, s.
    turned_deg : float
        How far the boat has turned, degrees, starboard positive.
    ahead_m, starboard_m : float
        Where the boat's transom is, from where the turn began: along the first course and to
        starboard of it, m.
    joints : dict of str to tuple of (float, float)
        Each line's tip, joints and lure: behind the transom and to starboard of the boat, m.
    speeds_mps, tip_speeds_mps : dict of str to float
        Each lure's own speed, and its rod tip's, m/s.
    """

    at_s: float
    turned_deg: float
    ahead_m: float
    starboard_m: float
    joints: dict[str, tuple[tuple[float, float], ...]]
    speeds_mps: dict[str, float]
    tip_speeds_mps: dict[str, float]

    def lure(self, key: str) -> tuple[float, float]:
        """Return where a lure is: behind the transom and to starboard, m."""
        return self.joints[key][-1]


def heading_along(kind: str, *, toward: str, radius_m: float, run_m: float) -> float:
    """Return how far the boat has turned after some way through a turn.

    Parameters
    ----------
    kind : {'s_turn', 'u_turn'}
        Weave, or turn back.
    toward : {'port', 'starboard'}
        The side turned to first.
    radius_m : float
        Radius of the circles, m.
    run_m : float
        Way made since the turn began, m.

    Returns
    -------
    float
        rad, starboard positive.

    Examples
    --------
    >>> round(heading_along("u_turn", toward="port", radius_m=10.0, run_m=1000.0), 6)
    -3.141593
    """
    sign = 1.0 if toward == "starboard" else -1.0
    turned = run_m / radius_m
    if kind == "u_turn":
        return sign * min(turned, math.pi)
    bend = math.radians(S_TURN_DEG)
    if turned <= bend:
        return sign * turned
    if turned <= 3.0 * bend:
        return sign * (2.0 * bend - turned)
    return sign * min(turned - 4.0 * bend, 0.0)


def unfold(
    tows: Mapping[str, Towed], *, kind: str, toward: str, radius_m: float, speed_mps: float,
    frames: int = 25,
) -> tuple[Snapshot, ...]:
    """Return snapshots of the tow through a turn and out of it.

    Parameters
    ----------
    tows : mapping of str to Towed
        The lines.
    kind : {'s_turn', 'u_turn'}
        Weave, or turn back.
    toward : {'port', 'starboard'}
        The side turned to first.
    radius_m : float
        Radius of the boat's circles, m.
    speed_mps : float
        Boat's speed through water, m/s.
    frames : int
        How many snapshots.

    Returns
    -------
    tuple of Snapshot, length ``frames``

    Raises
    ------
    InvalidInputError
        If kind, side, radius or speed cannot be.
    """
    require_choice("kind", kind, KINDS)
    require_choice("toward", toward, ("port", "starboard"))
    require_number("radius_m", radius_m, low=4.0, high=500.0, unit="m")
    require_number("speed_mps", speed_mps, above=0.0, high=20.0, unit="m/s")
    bends = math.pi if kind == "u_turn" else 4.0 * math.radians(S_TURN_DEG)
    longest = max((tow.trail_m for tow in tows.values()), default=0.0)
    total = bends * radius_m + 0.7 * longest
    steps = max(frames, math.ceil(total / STEP_M))
    step = total / steps
    # The ground: x to starboard of the first course, y along it.
    x = y = 0.0
    places = {key: _straight(tow) for key, tow in tows.items()}
    speeds = dict.fromkeys(tows, speed_mps)
    tip_speeds = dict.fromkeys(tows, speed_mps)
    wanted = {round(steps * frame / (frames - 1)) for frame in range(frames)}
    snapshots = []
    for index in range(steps + 1):
        turned = heading_along(kind, toward=toward, radius_m=radius_m, run_m=index * step)
        if index > 0:
            middle = heading_along(
                kind, toward=toward, radius_m=radius_m, run_m=(index - 0.5) * step
            )
            x += step * math.sin(middle)
            y += step * math.cos(middle)
        for key, tow in tows.items():
            old = places[key]
            new = [_tip(tow, x, y, turned)]
            for end, link in zip(old[1:], tow.links_m, strict=True):
                new.append(_follow(end, new[-1], link))
            if index > 0:
                speeds[key] = math.dist(new[-1], old[-1]) / step * speed_mps
                tip_speeds[key] = math.dist(new[0], old[0]) / step * speed_mps
            places[key] = new
        if index in wanted:
            snapshots.append(Snapshot(
                at_s=index * step / speed_mps, turned_deg=math.degrees(turned),
                ahead_m=y, starboard_m=x,
                joints={
                    key: tuple(_from_boat(place, x, y, turned) for place in line)
                    for key, line in places.items()
                },
                speeds_mps=dict(speeds), tip_speeds_mps=dict(tip_speeds),
            ))
    return tuple(snapshots)


def _straight(tow: Towed) -> list[tuple[float, float]]:
    places = [(tow.side_m, -tow.aft_m)]
    for link in tow.links_m:
        places.append((tow.side_m, places[-1][1] - link))
    return places


def _tip(tow: Towed, x: float, y: float, turned: float) -> tuple[float, float]:
    sin, cos = math.sin(turned), math.cos(turned)
    return x + tow.side_m * cos - tow.aft_m * sin, y - tow.side_m * sin - tow.aft_m * cos


def _follow(
    end: tuple[float, float], tip: tuple[float, float], trail_m: float
) -> tuple[float, float]:
    """The end of a line after its tip has moved: drawn straight toward it, never pushed."""
    distance = math.dist(end, tip)
    if distance <= trail_m or distance == 0.0:
        return end
    share = trail_m / distance
    return tip[0] + share * (end[0] - tip[0]), tip[1] + share * (end[1] - tip[1])


def _from_boat(
    point: tuple[float, float], x: float, y: float, turned: float
) -> tuple[float, float]:
    dx, dy = point[0] - x, point[1] - y
    sin, cos = math.sin(turned), math.cos(turned)
    return -(dx * sin + dy * cos), dx * cos - dy * sin


def lagged(
    values: Sequence[float], targets: Sequence[float], *, step_s: float, lag_s: float
) -> list[float]:
    """Return values that follow targets with a first-order lag.

    Parameters
    ----------
    values : sequence of float, length 1
        The value at the start.
    targets : sequence of float
        Where it would settle, at equal steps of time.
    step_s : float
        The step, seconds.
    lag_s : float
        Time to be there for two thirds, seconds; 0 follows at once.

    Returns
    -------
    list of float, as long as ``targets``

    References
    ----------
    Ogata, K. (2010). Modern Control Engineering, 5.2: a first-order system's answer to a step.
    From memory.
    """
    share = 1.0 if lag_s <= 0.0 else 1.0 - math.exp(-step_s / lag_s)
    value, found = values[0], []
    for target in targets:
        value += share * (target - value)
        found.append(value)
    return found
