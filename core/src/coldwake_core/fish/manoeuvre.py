"""An S-turn or U-turn from above, frame by frame, with the tangles on the way."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ..boat.manoeuvre import Towed, lagged, unfold
from ..boat.tangles import Tangle, likely_tangles, line_in_space
from ..boat.turns import PlanPoint
from ..gear.pieces import SLOWEST_MPS
from .plan import RodFromAbove, Where
from .track import Bed, clearance_over
from .view import RodView

_OUTLINE_POINTS: Final = 12
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
    rods : tuple of RodFromAbove
        Where each lure is.
    """

    at_s: float
    turned_deg: float
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
    where: Where, bed: Bed,
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
    where : callable
        Solves one line.
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
    tows = {
        rod.id: Towed(aft_m=rod.aft_m, side_m=rod.side_m, trail_m=rod.line.trail_m)
        for rod in out if rod.line is not None
    }
    shots = unfold(tows, kind=kind, toward=toward, radius_m=radius_m, speed_mps=speed_mps)
    step_s = shots[1].at_s - shots[0].at_s
    depths: dict[str, list[float]] = {}
    outlines: dict[str, list[tuple[float, float]]] = {}
    for rod in out:
        assert rod.line is not None
        line = rod.line
        solved = [
            where(rod.id, line.number.setting_m, max(share * speed_mps, SLOWEST_MPS))
            for share in _SPEED_SHARES
        ]
        targets = [
            _between([s.depth_m for s in solved], shot.speeds_mps[rod.id] / speed_mps)
            for shot in shots
        ]
        depths[rod.id] = lagged(
            [line.depth_m], targets, step_s=step_s, lag_s=line.trail_m / speed_mps
        )
        outlines[rod.id] = _thinned(sorted(p for part in line.paths for p in part))
    frames, nearest = [], dict[tuple[str, ...], TurnTangle]()
    grounded: set[str] = set()
    for index, shot in enumerate(shots):
        seen, spaces = [], {}
        for rod in out:
            assert rod.line is not None
            behind, side = shot.lures[rod.id]
            depth = depths[rod.id][index]
            change = depth - rod.line.depth_m
            scale = depth / rod.line.depth_m if rod.line.depth_m > 0.05 else 1.0
            path = [(b, d * scale if d > 0.0 else d) for b, d in outlines[rod.id]]
            spaces[rod.id] = line_in_space(
                path, tip_side_m=rod.side_m, tip_behind_m=rod.aft_m, end_behind_m=behind,
                end_side_m=side,
            )
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
            ))
        frames.append(Frame(at_s=shot.at_s, turned_deg=shot.turned_deg, rods=tuple(seen)))
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
