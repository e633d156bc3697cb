"""The spread from above: straight and in a turn, with likely tangles."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from ...checks import require_choice, require_number
from ...lines.turn import TurnedLine
from ...tow.tangles import Tangle, likely_tangles, line_in_space
from ...tow.turns import PlanPoint, Side, TipInTurn
from ...trip.numbers import RodLine
from ...trip.track import Bed, clearance_over
from ..fish.view import RodView

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
    path : tuple of PlanPoint
        Its line from the rod tip to the lure, which curves in a turn.
    """

    rod_id: str
    tip_side_m: float
    place: PlanPoint | None
    speed_mps: float
    depth_m: float
    depth_change_m: float
    clearance_m: float
    settle_s: float
    path: tuple[PlanPoint, ...] = ()


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


Turned = Callable[[str, float, TipInTurn], TurnedLine]
"""How a rod's line fares in a steady turn: (rod_id, setting_m, tip)."""
Lagging = Callable[[str, float], float]
"""How long a rod's lure takes to follow a change of speed, s: (rod_id, setting_m)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Solver:
    """What solves lines for the view from above.

    Parameters
    ----------
    where : callable
        One line straight ahead.
    turned : callable
        One line in a steady turn.
    lag_s : callable
        How long one line takes to settle.
    """

    where: Where
    turned: Turned
    lag_s: Lagging


def plan_view(
    rods: Sequence[RodView], *, course: str, radius_m: float | None, speed_mps: float,
    solver: Solver, bed: Bed, leeway_deg: float = 0.0,
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
    solver : Solver
        Solves lines.
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
        seen, tangles = _straight(out, speed_mps, bed, math.radians(leeway_deg))
        return PlanView(
            course="straight", radius_m=None, rods=seen, tangles=tangles, leeway_deg=leeway_deg
        )
    radius = require_number("radius_m", radius_m, low=4.0, high=500.0, unit="m")
    side: Side = "port" if course == "port" else "starboard"
    seen, tangles = _turning(out, radius, side, solver, bed)
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


def _straight(
    rods: Sequence[RodView], speed_mps: float, bed: Bed, leeway_rad: float = 0.0
) -> tuple[tuple[RodFromAbove, ...], tuple[Tangle, ...]]:
    seen, lines = [], {}
    for rod in rods:
        assert rod.line is not None
        line = rod.line
        angle = streaming_rad(leeway_rad, line.depth_m)
        place = PlanPoint(
            behind_m=rod.aft_m + line.trail_m * math.cos(angle),
            side_m=rod.side_m + line.trail_m * math.sin(angle),
        )
        # Cable and setback are one line for this: ball and clip are between them.
        path = [point for part in line.paths for point in part]
        path = sorted(path) if len(line.paths) > 1 else path
        lines[rod.id] = line_in_space(
            path, tip_side_m=rod.side_m, tip_behind_m=rod.aft_m,
            end_behind_m=place.behind_m, end_side_m=place.side_m,
        )
        seen.append(RodFromAbove(
            rod_id=rod.id, tip_side_m=rod.side_m, place=place, speed_mps=speed_mps,
            depth_m=line.depth_m, depth_change_m=0.0,
            clearance_m=clearance_over(
                bed, line, tip_side_m=rod.side_m, behind_m=place.behind_m, side_m=place.side_m
            ),
            settle_s=0.0, path=(PlanPoint(behind_m=rod.aft_m, side_m=rod.side_m), place),
        ))
    return tuple(seen), likely_tangles(lines)


def _turning(
    rods: Sequence[RodView], radius_m: float, side: Side, solver: Solver, bed: Bed
) -> tuple[tuple[RodFromAbove, ...], tuple[Tangle, ...]]:
    seen, lines = [], {}
    for rod in rods:
        assert rod.line is not None
        tip = TipInTurn(radius_m=radius_m, toward=side, aft_m=rod.aft_m, side_m=rod.side_m)
        setting = rod.line.number.setting_m
        turned = None if tip.is_beyond_centre else solver.turned(rod.id, setting, tip)
        if turned is None or turned.is_slack:
            seen.append(_slack(rod, turned))
            continue
        places = [
            (tip.from_boat(radius_m=point.radius_m, behind_rad=point.behind_rad), point.depth_m)
            for point in turned.path
        ]
        lines[rod.id] = tuple((place.behind_m, place.side_m, depth) for place, depth in places)
        place, depth = places[-1]
        clearance = bed(place.behind_m, place.side_m) - depth
        if turned.ball is not None:
            under = tip.from_boat(
                radius_m=turned.ball.radius_m, behind_rad=turned.ball.behind_rad
            )
            clearance = min(
                clearance, bed(under.behind_m, under.side_m) - turned.ball.depth_m
            )
        seen.append(RodFromAbove(
            rod_id=rod.id, tip_side_m=rod.side_m, place=place, speed_mps=turned.speed_mps,
            depth_m=depth, depth_change_m=depth - rod.line.depth_m, clearance_m=clearance,
            settle_s=solver.lag_s(rod.id, setting), path=tuple(at for at, _ in places),
        ))
    return tuple(seen), likely_tangles(lines)


def _slack(rod: RodView, turned: TurnedLine | None) -> RodFromAbove:
    """A line that the turn is too tight for: no place, and no depth but the one it had."""
    assert rod.line is not None
    return RodFromAbove(
        rod_id=rod.id, tip_side_m=rod.side_m, place=None,
        speed_mps=0.0 if turned is None else turned.speed_mps, depth_m=rod.line.depth_m,
        depth_change_m=0.0, clearance_m=rod.line.clearance_m or 0.0, settle_s=0.0,
    )


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
    rods: Sequence[RodView], *, speed_mps: float, solver: Solver, bed: Bed
) -> TightestTurns:
    """Return the smallest safe circles to either side.

    Parameters
    ----------
    rods : sequence of RodView
        All rods.
    speed_mps : float
        Boat's speed through water, m/s.
    solver : Solver
        Solves lines.
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
    straight, _ = _straight(out, speed_mps, bed)
    down = {rod.rod_id for rod in straight if rod.clearance_m <= 0.0}
    down |= {rod.id for rod in out if rod.bottom_tap}
    names = {rod.id: rod.name for rod in out}

    def trouble(radius_m: float, side: Side) -> tuple[str, bool]:
        """What goes wrong in a turn, and whether a line goes slack in it."""
        seen, tangles = _turning(out, radius_m, side, solver, bed)
        slack = [names[rod.rod_id] for rod in seen if rod.place is None]
        if slack:
            return f"{' and '.join(slack)} would go slack", True
        if tangles:
            pair = " and ".join(names[rod_id] for rod_id in tangles[0].rod_ids)
            return f"{pair} would catch", False
        deep = [
            names[rod.rod_id] for rod in seen if rod.clearance_m <= 0.0 and rod.rod_id not in down
        ]
        return f"{' and '.join(deep)} would touch bottom" if deep else "", False

    def safe(side: Side) -> SafeTurn:
        # From the widest in; a line that hangs dead in a turn does so in every tighter one.
        troubles: list[tuple[float, str]] = []
        for radius in reversed(_RADII_M):
            found, slack = trouble(radius, side)
            troubles.append((radius, found))
            if slack:
                break
        best = next((i for i in range(len(troubles) - 1, -1, -1) if not troubles[i][1]), None)
        if best is None:
            return SafeTurn(radius_m=None, why=troubles[-1][1])
        why = troubles[best + 1][1] if best + 1 < len(troubles) else ""
        wider = next((item for item in reversed(troubles[:best]) if item[1]), None)
        if wider is None:
            return SafeTurn(radius_m=troubles[best][0], why=why)
        return SafeTurn(
            radius_m=troubles[best][0], why=why, wider_m=wider[0], wider_why=wider[1]
        )

    return TightestTurns(port=safe("port"), starboard=safe("starboard"))
