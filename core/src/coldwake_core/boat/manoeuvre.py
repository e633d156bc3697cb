"""S-turns and U-turns as they unfold: every line pulled along behind its own tip.

Each lure follows its tip as the end of a taut line of constant trail (a tractrix, stepped along the
boat's path), so lines lag behind the boat's heading and swing across each other as they do on the
water. Its speed is that of its own path; its depth goes toward that of a straight tow at that speed
with a lag of the time it needs to travel its own trail (the same lag as in a steady turn).
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
    trail_m : float
        Lure behind the tip, m.
    """

    aft_m: float
    side_m: float
    trail_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Snapshot:
    """The tow at a moment, seen from the boat.

    Parameters
    ----------
    at_s : float
        Time since the turn began, s.
    turned_deg : float
        How far the boat has turned, degrees, starboard positive.
    lures : dict of str to (float, float)
        Behind the transom and to starboard of the boat, m.
    speeds_mps : dict of str to float
        Each lure's own speed, m/s.
    """

    at_s: float
    turned_deg: float
    lures: dict[str, tuple[float, float]]
    speeds_mps: dict[str, float]


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
    ends = {key: (tow.side_m, -tow.aft_m - tow.trail_m) for key, tow in tows.items()}
    speeds = dict.fromkeys(tows, speed_mps)
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
            new = _follow(ends[key], _tip(tow, x, y, turned), tow.trail_m)
            if index > 0:
                speeds[key] = math.dist(new, ends[key]) / step * speed_mps
            ends[key] = new
        if index in wanted:
            snapshots.append(Snapshot(
                at_s=index * step / speed_mps, turned_deg=math.degrees(turned),
                lures={key: _from_boat(end, x, y, turned) for key, end in ends.items()},
                speeds_mps=dict(speeds),
            ))
    return tuple(snapshots)


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
    """
    share = 1.0 if lag_s <= 0.0 else 1.0 - math.exp(-step_s / lag_s)
    value, found = values[0], []
    for target in targets:
        value += share * (target - value)
        found.append(value)
    return found
