"""An S-turn or U-turn from above, frame by frame, with the tangles on the way."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from ...gear.pieces import SLOWEST_MPS
from ...lines.turn import TurnedLine
from ...tow.manoeuvre import Snapshot, Towed, chain, lagged, unfold
from ...tow.tangles import Point, Tangle, likely_tangles
from ...tow.turns import PlanPoint, Side, TipInTurn
from ...trip.numbers import RodLine
from ...trip.track import Bed, clearance_over
from ..fish.view import RodView
from .spread import RodFromAbove, Solver

_OUTLINE_POINTS: Final = 12
_UNKNOWN_CUT: Final = 0.5
"""Taken where the turn is too tight for a steady place (judged)."""
_SPEED_SHARES: Final = (0.1, 0.4, 0.7, 1.0, 1.3, 1.6)
"""Own speeds, over the boat's, at which each line is solved; depths between are interpolated."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Frame:
    """A moment of the turn.

    Parameters
    ----------
    at_s : float
        Since it began, s.
    turned_deg : float
        How far the boat has turned, degrees, starboard positive.
    ahead_m, starboard_m : float
        Where the boat's transom is, from where the turn began: along the first course and to
        starboard of it, m.
    rods : tuple of RodFromAbove
        Where each lure is.
    """

    at_s: float
    turned_deg: float
    ahead_m: float
    starboard_m: float
    rods: tuple[RodFromAbove, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class TurnTangle:
    """A tangle with the moment it is nearest, seconds since the turn began."""

    at_s: float
    tangle: Tangle


@dataclass(frozen=True, slots=True, kw_only=True)
class ManoeuvreView:
    """A whole turn.

    Parameters
    ----------
    frames : tuple of Frame
        In order.
    tangles : tuple of TurnTangle
        Each pair once, at its nearest.
    grounded : tuple of str
        Rods whose lure or ball touches bottom on the way.
    radius_m : float
        Radius of the boat's circles, m.
    look_first : int
        Which frame to look at first: where lines come nearest, else the middle of the turn.
    """

    frames: tuple[Frame, ...]
    tangles: tuple[TurnTangle, ...]
    grounded: tuple[str, ...]
    radius_m: float
    look_first: int


def manoeuvre_view(
    rods: Sequence[RodView], *, kind: str, toward: str, radius_m: float, speed_mps: float,
    solver: Solver, bed: Bed,
) -> ManoeuvreView:
    """Return a turn as it unfolds.

    Parameters
    ----------
    rods : sequence of RodView
        All rods.
    kind : {'s_turn', 'u_turn'}
        Which.
    toward : {'port', 'starboard'}
        The side turned to first.
    radius_m : float
        Radius of the boat's circles, m.
    speed_mps : float
        Boat's speed through water, m/s.
    solver : Solver
        Solves lines.
    bed : Bed
        The bottom around the boat.

    Returns
    -------
    ManoeuvreView

    Raises
    ------
    InvalidInputError
        If kind, side or radius cannot be.
    """
    out = [rod for rod in rods if rod.line is not None]
    ways = {
        rod.id: _way(rod, kind=kind, toward=toward, radius_m=radius_m, speed_mps=speed_mps,
                     solver=solver)
        for rod in out
    }
    shots = unfold(
        {rod_id: way.tow for rod_id, way in ways.items()}, kind=kind, toward=toward,
        radius_m=radius_m, speed_mps=speed_mps,
    )
    step_s = shots[1].at_s - shots[0].at_s
    depths = {}
    for rod in out:
        way = ways[rod.id]
        depths[rod.id] = lagged(
            [way.straight_m], [way.depth_in(shot, rod.id) for shot in shots], step_s=step_s,
            lag_s=way.lag_s,
        )
    frames, nearest = [], dict[tuple[str, ...], TurnTangle]()
    grounded: set[str] = set()
    for index, shot in enumerate(shots):
        seen, spaces = [], {}
        for rod in out:
            assert rod.line is not None
            behind, side = shot.lure(rod.id)
            depth = depths[rod.id][index]
            change = depth - rod.line.depth_m
            spaces[rod.id] = _in_space(ways[rod.id].outline, shot.joints[rod.id], rod.line, depth)
            # The boat's own way is left out: the bottom is the one around it as the turn begins.
            clearance = clearance_over(
                bed, rod.line, tip_side_m=rod.side_m, behind_m=behind, side_m=side
            ) - change
            if clearance <= 0.0:
                grounded.add(rod.id)
            seen.append(RodFromAbove(
                rod_id=rod.id, tip_side_m=rod.side_m,
                place=PlanPoint(behind_m=behind, side_m=side),
                speed_mps=shot.speeds_mps[rod.id], depth_m=depth, depth_change_m=change,
                clearance_m=clearance, settle_s=0.0,
                path=tuple(
                    PlanPoint(behind_m=behind_m, side_m=side_m)
                    for behind_m, side_m in shot.joints[rod.id]
                ),
            ))
        frames.append(Frame(
            at_s=shot.at_s, turned_deg=shot.turned_deg, ahead_m=shot.ahead_m,
            starboard_m=shot.starboard_m, rods=tuple(seen),
        ))
        for tangle in likely_tangles(spaces):
            known = nearest.get(tangle.rod_ids)
            if known is None or tangle.distance_m < known.tangle.distance_m:
                nearest[tangle.rod_ids] = TurnTangle(at_s=shot.at_s, tangle=tangle)
    tangles = tuple(sorted(nearest.values(), key=lambda item: item.tangle.distance_m))
    middle = len(frames) // 2
    worst = next((i for i, f in enumerate(frames) if tangles and f.at_s >= tangles[0].at_s), middle)
    return ManoeuvreView(
        frames=tuple(frames), tangles=tangles, grounded=tuple(sorted(grounded)),
        radius_m=radius_m, look_first=worst,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class _Way:
    """How one rod's line goes round: its chain, and its depth by the speeds along it.

    Depth hangs on the speeds of the whole line and not of the lure alone: ``mix`` is how far from
    the lure's own speed toward the rod tip's the speed lies at which a straight tow runs as deep as
    the line does in the steady turn.
    """

    tow: Towed
    outline: list[tuple[float, float]]
    straight_m: float
    lag_s: float
    boat_mps: float
    depths_m: tuple[float, ...]
    mix: float

    def depth_in(self, shot: Snapshot, rod_id: str) -> float:
        """Depth, m, that the lure goes toward at a moment."""
        own, tip = shot.speeds_mps[rod_id], shot.tip_speeds_mps[rod_id]
        return _between(self.depths_m, (own + self.mix * (tip - own)) / self.boat_mps)


def _way(
    rod: RodView, *, kind: str, toward: str, radius_m: float, speed_mps: float, solver: Solver
) -> _Way:
    assert rod.line is not None
    line = rod.line
    setting = line.number.setting_m
    depths = tuple(
        solver.where(rod.id, setting, max(share * speed_mps, SLOWEST_MPS)).depth_m
        for share in _SPEED_SHARES
    )
    sides: tuple[Side, ...] = ("port", "starboard")
    if kind == "u_turn":
        sides = ("port",) if toward == "port" else ("starboard",)
    cuts, mixes = [], []
    for side in sides:
        tip = TipInTurn(radius_m=radius_m, toward=side, aft_m=rod.aft_m, side_m=rod.side_m)
        if tip.is_beyond_centre:
            continue
        turned = solver.turned(rod.id, setting, tip)
        if turned.is_slack or line.trail_m <= 0.0:
            continue
        cuts.append((tip.tip_radius_m**2 - turned.lure.radius_m**2) / line.trail_m**2)
        tip_mps = speed_mps * tip.tip_radius_m / radius_m
        mixes.append(_mix(depths, turned, tip_mps, speed_mps))
    return _Way(
        tow=Towed(
            aft_m=rod.aft_m, side_m=rod.side_m,
            links_m=chain(line.trail_m, _mean(cuts, _UNKNOWN_CUT)),
        ),
        outline=_thinned(sorted(p for part in line.paths for p in part)),
        straight_m=line.depth_m, lag_s=solver.lag_s(rod.id, setting), boat_mps=speed_mps,
        depths_m=depths, mix=_mean(mixes, 0.0),
    )


def _mean(values: Sequence[float], otherwise: float) -> float:
    return math.fsum(values) / len(values) if values else otherwise


def _mix(
    depths_m: Sequence[float], turned: TurnedLine, tip_mps: float, boat_mps: float
) -> float:
    """How far toward the tip's speed a straight tow is as deep as the turned line."""
    own = turned.speed_mps
    if abs(tip_mps - own) < 0.02 * boat_mps:
        return 0.0
    steps = 20
    return min(
        (step / steps for step in range(steps + 1)),
        key=lambda mix: abs(
            _between(depths_m, (own + mix * (tip_mps - own)) / boat_mps) - turned.lure.depth_m
        ),
    )


def _in_space(
    outline: Sequence[tuple[float, float]], joints: Sequence[tuple[float, float]], line: RodLine,
    depth_m: float,
) -> tuple[Point, ...]:
    """A line's side view laid along its chain, with its depths scaled to the lure's."""
    scale = depth_m / line.depth_m if line.depth_m > 0.05 else 1.0
    links = [math.dist(a, b) for a, b in pairwise(joints)]
    whole = math.fsum(links)
    points = []
    for behind, depth in outline:
        left = whole * behind / line.trail_m if line.trail_m > 0.0 else 0.0
        index = 0
        while index < len(links) - 1 and left > links[index]:
            left -= links[index]
            index += 1
        share = left / links[index] if links[index] > 0.0 else 0.0
        (x0, y0), (x1, y1) = joints[index], joints[index + 1]
        points.append((
            x0 + share * (x1 - x0), y0 + share * (y1 - y0), depth * scale if depth > 0.0 else depth
        ))
    return tuple(points)


def _thinned(path: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    """A dozen points of a path: enough for what is near what, a dozen times faster."""
    every = max(1, len(path) // _OUTLINE_POINTS)
    return [*path[:-1:every], path[-1]]


def _between(values: Sequence[float], share: float) -> float:
    """Value at a share of the boat's speed, straight between the solved ones."""
    if share <= _SPEED_SHARES[0]:
        return values[0]
    for index in range(len(_SPEED_SHARES) - 1):
        low, high = _SPEED_SHARES[index], _SPEED_SHARES[index + 1]
        if share <= high:
            part = (share - low) / (high - low)
            return values[index] + part * (values[index + 1] - values[index])
    return values[-1]
