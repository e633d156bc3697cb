"""The spread from above: straight and in a turn, with likely tangles."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from ..boat.tangles import Tangle, likely_tangles, line_in_space
from ..boat.turns import LineInTurn, PlanPoint, line_in_turn, lure_place_in_turn
from ..checks import require_choice, require_number
from ..gear.pieces import SLOWEST_MPS
from .numbers import RodLine
from .track import Bed, clearance_over
from .view import RodView

Course = Literal["straight", "port", "starboard"]
COURSES: Final = ("straight", "port", "starboard")

SKIN_SHARE: Final = 0.3
SKIN_DEPTH_M: Final = 1.0
_RADII_M: Final = (8.0, 10.0, 13.0, 16.0, 20.0, 25.0, 32.0, 40.0, 50.0, 65.0, 80.0, 100.0, 150.0)
"""Radii tried for the tightest turn, about a quarter apart."""


@dataclass(frozen=True, slots=True, kw_only=True)
class RodFromAbove:
    """A rod's line seen from above.

    Parameters
    ----------
    rod_id : str
        The rod.
    tip_side_m : float
        Lateral place of its tip, m, starboard positive.
    place : PlanPoint or None
        Where its lure is; None when the turn is too tight for it.
    speed_mps : float
        The lure's own speed through water, m/s.
    depth_m : float
        Its depth, m, once settled.
    depth_change_m : float
        Against straight ahead, m; positive is deeper.
    clearance_m : float
        Lowest part above the bottom, m.
    settle_s : float
        Time until it is there for two thirds, s; 0 when straight.
    """

    rod_id: str
    tip_side_m: float
    place: PlanPoint | None
    speed_mps: float
    depth_m: float
    depth_change_m: float
    clearance_m: float
    settle_s: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PlanView:
    """The spread from above.

    Parameters
    ----------
    course : Course
        Straight, or the side turned to.
    radius_m : float or None
        Radius of the turn, m; None when straight.
    leeway_deg : float
        How far the lines stream to starboard of straight astern, degrees.
    rods : tuple of RodFromAbove
        Rods that are out.
    tangles : tuple of Tangle
        Pairs that are likely to catch each other, nearest first.
    """

    course: Course
    radius_m: float | None
    rods: tuple[RodFromAbove, ...]
    tangles: tuple[Tangle, ...]
    leeway_deg: float = 0.0


Where = Callable[[str, float, float], RodLine]
"""Where a rod's lure is with a number set at a speed: (rod_id, setting_m, speed_mps)."""


def plan_view(
    rods: Sequence[RodView], *, course: str, radius_m: float | None, speed_mps: float, where: Where,
    bed: Bed, leeway_deg: float = 0.0,
) -> PlanView:
    """Return the spread from above.

    Parameters
    ----------
    rods : sequence of RodView
        All rods.
    course : {'straight', 'port', 'starboard'}
        Straight, or the side turned to.
    radius_m : float or None
        Radius of the boat's circle, m; needed in a turn.
    speed_mps : float
        Boat's speed through water, m/s.
    where : callable
        Solves one line.
    bed : Bed
        The bottom around the boat.
    leeway_deg : float
        How far the lines stream to starboard of straight astern in a side wind, degrees; only
        when straight.

    Returns
    -------
    PlanView

    Raises
    ------
    InvalidInputError
        If course or radius cannot be.
    """
    require_choice("course", course, COURSES)
    out = [rod for rod in rods if rod.line is not None]
    if course == "straight":
        require_number("leeway_deg", leeway_deg, low=-45.0, high=45.0, unit="degrees")
        seen, tangles = _seen(
            out, None, "port", speed_mps, where, bed, math.radians(leeway_deg)
        )
        return PlanView(
            course="straight", radius_m=None, rods=seen, tangles=tangles, leeway_deg=leeway_deg
        )
    radius = require_number("radius_m", radius_m, low=4.0, high=500.0, unit="m")
    side: Literal["port", "starboard"] = "port" if course == "port" else "starboard"
    seen, tangles = _seen(out, radius, side, speed_mps, where, bed)
    return PlanView(course=side, radius_m=radius, rods=seen, tangles=tangles)


def streaming_rad(leeway_rad: float, depth_m: float) -> float:
    """Return the angle at which a line streams from astern while the wind sets the boat aside.

    Parameters
    ----------
    leeway_rad : float
        Angle at which the deep lines stream, rad.
    depth_m : float
        Depth of the lure, m.

    Returns
    -------
    float
        rad.

    Notes
    -----
    A small open boat drifts with about a tenth of the wind (judged), the water's skin with 3 % of
    it (the classical figure, from memory), fading over the first metre: a shallow line sees three
    tenths less of the boat's leeway than a deep one, so the two cross.
    """
    return leeway_rad * (1.0 - SKIN_SHARE * math.exp(-depth_m / SKIN_DEPTH_M))


def _seen(
    rods: Sequence[RodView], radius_m: float | None, side: Literal["port", "starboard"],
    speed_mps: float, where: Where, bed: Bed, leeway_rad: float = 0.0,
) -> tuple[tuple[RodFromAbove, ...], tuple[Tangle, ...]]:
    seen, lines = [], {}
    for rod in rods:
        assert rod.line is not None
        straight = rod.line
        angle = streaming_rad(leeway_rad, straight.depth_m)
        line, place = straight, PlanPoint(
            behind_m=rod.aft_m + straight.trail_m * math.cos(angle),
            side_m=rod.side_m + straight.trail_m * math.sin(angle),
        )
        turn: LineInTurn | None = None
        found: PlanPoint | None = place
        if radius_m is not None:
            turn = line_in_turn(
                radius_m=radius_m, toward=side, tip_side_m=rod.side_m,
                trail_m=straight.trail_m, speed_mps=speed_mps,
            )
            own = max(speed_mps * turn.speed_factor, SLOWEST_MPS)
            line = where(rod.id, straight.number.setting_m, own)
            found = lure_place_in_turn(
                radius_m=radius_m, toward=side, tip_side_m=rod.side_m, trail_m=line.trail_m
            )
            if found is not None:
                found = PlanPoint(behind_m=found.behind_m + rod.aft_m, side_m=found.side_m)
        if found is not None:
            # Cable and setback are one line for this: ball and clip are between them.
            path = [point for part in line.paths for point in part]
            path = sorted(path) if len(line.paths) > 1 else path
            lines[rod.id] = line_in_space(
                path, tip_side_m=rod.side_m, tip_behind_m=rod.aft_m,
                end_behind_m=found.behind_m, end_side_m=found.side_m,
            )
        seen.append(RodFromAbove(
            rod_id=rod.id, tip_side_m=rod.side_m, place=found,
            speed_mps=speed_mps if turn is None else speed_mps * turn.speed_factor,
            depth_m=line.depth_m, depth_change_m=line.depth_m - straight.depth_m,
            clearance_m=clearance_over(
                bed, line, tip_side_m=rod.side_m,
                behind_m=line.trail_m + rod.aft_m if found is None else found.behind_m,
                side_m=rod.side_m if found is None else found.side_m,
            ),
            settle_s=0.0 if turn is None else turn.settle_s,
        ))
    return tuple(seen), likely_tangles(lines)


@dataclass(frozen=True, slots=True, kw_only=True)
class SafeTurn:
    """The turns to one side that are safe: no tangle, no lure or ball in the bottom, no slack line.

    Parameters
    ----------
    radius_m : float or None
        Smallest safe radius of those tried, m; None when none is.
    why : str
        What the next tighter one does; empty where every one that was tried is safe.
    wider_m : float or None
        A wider one that is not safe either, m: long lines may cross short ones there.
    wider_why : str
        What that does.
    """

    radius_m: float | None
    why: str = ""
    wider_m: float | None = None
    wider_why: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class TightestTurns:
    """The safe turns to either side."""

    port: SafeTurn
    starboard: SafeTurn


def tightest_turns(
    rods: Sequence[RodView], *, speed_mps: float, where: Where, bed: Bed
) -> TightestTurns:
    """Return the smallest safe circles to either side.

    Parameters
    ----------
    rods : sequence of RodView
        All rods.
    speed_mps : float
        Boat's speed through water, m/s.
    where : callable
        Solves one line.
    bed : Bed
        The bottom around the boat.

    Returns
    -------
    TightestTurns

    Notes
    -----
    Tries radii about a quarter apart, all of them: what is safe in a turn need not be so in a wider
    one. A rod that touches bottom straight ahead already, or is meant to, does not count: no turn
    is to blame for that.
    """
    out = [rod for rod in rods if rod.line is not None]
    straight, _ = _seen(out, None, "port", speed_mps, where, bed)
    down = {rod.rod_id for rod in straight if rod.clearance_m <= 0.0}
    down |= {rod.id for rod in out if rod.bottom_tap}
    names = {rod.id: rod.name for rod in out}

    def trouble(radius_m: float, side: Literal["port", "starboard"]) -> str:
        seen, tangles = _seen(out, radius_m, side, speed_mps, where, bed)
        slack = [names[rod.rod_id] for rod in seen if rod.place is None]
        if slack:
            return f"{' and '.join(slack)} would go slack"
        if tangles:
            return f"{' and '.join(names[rod_id] for rod_id in tangles[0].rod_ids)} would catch"
        deep = [
            names[rod.rod_id] for rod in seen if rod.clearance_m <= 0.0 and rod.rod_id not in down
        ]
        return f"{' and '.join(deep)} would touch bottom" if deep else ""

    def safe(side: Literal["port", "starboard"]) -> SafeTurn:
        why = ""
        for index, radius in enumerate(_RADII_M):
            found = trouble(radius, side)
            if found:
                why = found
                continue
            for wider in _RADII_M[index + 1:]:
                found = trouble(wider, side)
                if found:
                    return SafeTurn(
                        radius_m=radius, why=why, wider_m=wider, wider_why=found
                    )
            return SafeTurn(radius_m=radius, why=why)
        return SafeTurn(radius_m=None, why=why)

    return TightestTurns(port=safe("port"), starboard=safe("starboard"))
