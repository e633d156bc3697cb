"""Changes of one dial on one rod, as far as the box, the rules and the common speed allow."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Final

from ..constants import FOOT_M, INCH_M
from ..errors import InvalidInputError
from ..gear.setup import RodSetup, build_rig, working_range
from ..record.payloads import MoveAnswered, MoveChange, MoveKind
from .situation import Move, RodNow, Situation

RESET_MIN: Final[dict[str, float]] = {
    "downrigger": 1.0, "dropper": 1.0, "flat": 2.0, "weighted": 2.0, "slider": 3.0, "stacked": 3.0,
    "leadcore": 4.0,
}
"""Minutes to put a line at another number; leadcore takes time to pay out (common practice)."""
TIE_MIN: Final = 3.0
"""Minutes to tie on something else, beside the reset (judged)."""
LEADERS_M: Final = tuple(length * INCH_M for length in (10.0, 18.0, 30.0, 54.0))
SETBACKS_M: Final = tuple(length * FOOT_M for length in (15.0, 40.0, 80.0, 140.0))
"""Lengths of the schools (common practice)."""
CLIPPED: Final = ("downrigger", "stacked", "slider")
JUDGE_MIN: Final = 45.0


def try_moves(now: Situation) -> Iterator[Move]:
    """Return every change of one dial that is possible.

    Parameters
    ----------
    now : Situation
        The trip now.

    Returns
    -------
    iterator of Move
        Each with its cost; why, is for who weighs them.
    """
    for rod in now.rods:
        for kind, setup, title in _setups(now, rod):
            if _is_possible(now, rod, setup):
                yield Move(
                    answer=MoveAnswered(
                        key=f"{kind}:{rod.rod_id}:{title}", kind=kind, title=title,
                        rod_id=rod.rod_id, change=MoveChange(rod_rigged=setup),
                    ),
                    reason="", basis="trial", source="",
                    cost_min=RESET_MIN[rod.kind] + TIE_MIN, judge_after_min=JUDGE_MIN,
                )


def _setups(now: Situation, rod: RodNow) -> Iterator[tuple[MoveKind, RodSetup, str]]:
    outfit, setup = now.outfit, rod.setup
    lure = outfit.lure(setup.lure_id)
    for other in outfit.lures:
        if other.name == lure.name and other.colour != lure.colour:
            yield "colour", replace(setup, lure_id=other.id), (
                f"Change {rod.name} to {other.colour}"
            )
        elif other.name != lure.name and other.colour == lure.colour:
            yield "lure", replace(setup, lure_id=other.id), (
                f"Put {other.name}, {other.colour}, on {rod.name}"
            )
    if setup.attractor_id is not None and setup.leader_m > 0.0:
        for leader in LEADERS_M:
            if abs(leader - setup.leader_m) > 0.25 * setup.leader_m:
                yield "leader", replace(setup, leader_m=leader, leader_id=None), (
                    f"{'Shorten' if leader < setup.leader_m else 'Lengthen'} the leader of "
                    f"{rod.name} to {leader / INCH_M:.0f} in"
                )
        for blade in outfit.attractors:
            if blade.id != setup.attractor_id:
                yield "attractor", replace(setup, attractor_id=blade.id, tow_point=""), (
                    f"Put {blade.name} on {rod.name}"
                )
    if rod.kind in CLIPPED:
        for back in SETBACKS_M:
            if abs(back - setup.setback_m) > 0.3 * max(setup.setback_m, 3.0):
                yield "setback", replace(setup, setback_m=back), (
                    f"Clip {rod.name} {back / FOOT_M:.0f} ft back"
                )


def _is_possible(now: Situation, rod: RodNow, setup: RodSetup) -> bool:
    if not is_free(now, setup):
        return False
    try:
        build_rig(now.outfit, setup).check()
        works = working_range(now.outfit, setup)
    except InvalidInputError:
        return False
    # It must swim at the speed that all share.
    return works.low_mps <= now.speed_mps <= works.high_mps


def is_free(now: Situation, setup: RodSetup) -> bool:
    """Return whether the box still holds what a rod would wear: never a third copy of two.

    Parameters
    ----------
    now : Situation
        The trip now.
    setup : RodSetup
        What it would wear.

    Returns
    -------
    bool
    """
    others = [
        rod.setup for rod in now.state.rods.values()
        if rod.setup is not None and rod.setup.rod_id != setup.rod_id
    ]
    worn = sum(other.lure_id == setup.lure_id for other in others)
    if worn >= now.outfit.lure(setup.lure_id).count:
        return False
    if setup.attractor_id is None:
        return True
    worn = sum(other.attractor_id == setup.attractor_id for other in others)
    return worn < now.outfit.attractor(setup.attractor_id).count
