"""The odd rods of a speed: what would have to be tied on them for the boat to go so fast.

One boat, one speed: what a single blade or lure cannot bear must not hold back all the others.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Final

from ..constants import MPH_MPS
from ..errors import InvalidInputError
from ..gear.common import small_changes
from ..gear.pieces import SpeedRange
from ..gear.setup import RodSetup, working_range
from ..record.payloads import MoveAnswered, MoveChange, MoveKind
from .choice import MOST_ODD
from .put_off import put_off_now, stays_away
from .shows import recipe_of
from .situation import Move, RodNow, Situation
from .tries import JUDGE_MIN, RESET_MIN, TIE_MIN, is_possible, leads_now

CHOSEN_WITHIN_MPS: Final = 0.2 * MPH_MPS
"""A boat wobbles so much about the speed that was chosen (judged): by more, it was left."""


def mends_at(now: Situation, speed_mps: float) -> dict[str, MoveAnswered] | None:
    """Return what rods would have to wear to swim right at a speed.

    Parameters
    ----------
    now : Situation
        The trip now.
    speed_mps : float
        Through the water, m/s.

    Returns
    -------
    dict of str to MoveAnswered, or None
        By rod, the likeliest to be hit by what the day has taught; empty where all swim. None where
        more than ``choice.MOST_ODD`` do not, where the rod that leads does not, or where nothing
        aboard would do.
    """
    odd = [rod for rod in now.rods if not _swims_at(rod.works, speed_mps)]
    if len(odd) > MOST_ODD or leads_now(now) in {rod.rod_id for rod in odd}:
        return None
    put_off = put_off_now(now.state.answers, now.now_s)
    lacking = [one for one in put_off if one.answer.why == "lacking"]
    found: dict[str, MoveAnswered] = {}
    there = replace(now, speed_mps=speed_mps)
    depths = now.depths_at(speed_mps) if odd else {}
    wears = {
        rod_id: rod.setup for rod_id, rod in now.state.rods.items() if rod.setup is not None
    }
    for rod in odd:
        others = [setup for rod_id, setup in wears.items() if rod_id != rod.rod_id]
        able = {
            setup: answer for _, setup in small_changes(now.outfit, rod.setup, others)
            if _is_able(there, rod, setup)
            and not stays_away(answer := _told(now, rod, setup), lacking)
        }
        if not able:
            return None
        depth_m = depths.get(rod.rod_id, rod.depth_m)
        best = max(able, key=lambda setup: _log_rate(there, rod, setup, depth_m))
        # What goes on one rod is not there for the next.
        wears[rod.rod_id] = best
        found[rod.rod_id] = able[best]
    return found


def cost_of(rod: RodNow) -> float:
    """Return how long a rod is out of the water to be tied anew.

    Parameters
    ----------
    rod : RodNow
        The rod.

    Returns
    -------
    float
        Minutes.
    """
    return RESET_MIN[rod.kind] + TIE_MIN


def mend_moves(now: Situation) -> Iterator[Move]:
    """Return what is to be tied on at the speed that was chosen, where something does not swim.

    Parameters
    ----------
    now : Situation
        The trip now.

    Returns
    -------
    iterator of Move
        None where nobody chose this speed from what was advised: then it is the speed that is off.
    """
    chosen = _chosen_mps(now)
    if chosen is None:
        return
    rods = {rod.rod_id: rod for rod in now.rods}
    # By what was chosen, not by the gust of the moment.
    for rod_id, answer in (mends_at(now, chosen) or {}).items():
        yield Move(
            answer=answer, basis="working_range", source="Working ranges of what is out",
            reason=f"What {rods[rod_id].name} wears does not swim right at the speed that was "
                   "chosen: a lure outside its working range is worse than none.",
            cost_min=cost_of(rods[rod_id]), judge_after_min=JUDGE_MIN,
        )


def _chosen_mps(now: Situation) -> float | None:
    speeds = [
        answer.move.change.speed_changed.speed_mps for answer in now.state.answers
        if answer.taken and answer.at_s <= now.now_s
        and answer.move.change.speed_changed is not None
    ]
    if not speeds or abs(speeds[-1] - now.speed_mps) > CHOSEN_WITHIN_MPS:
        return None
    return speeds[-1]


def _told(now: Situation, rod: RodNow, setup: RodSetup) -> MoveAnswered:
    kind, title = _words(now, rod, setup)
    return MoveAnswered(
        key=f"{kind}:{rod.rod_id}:{title}", kind=kind, title=title, rod_id=rod.rod_id,
        change=MoveChange(rod_rigged=setup),
    )


def _words(now: Situation, rod: RodNow, setup: RodSetup) -> tuple[MoveKind, str]:
    """Which dial a change is of, and what to do."""
    worn, outfit = rod.setup, now.outfit
    if setup.lure_id != worn.lure_id:
        lure = outfit.lure(setup.lure_id)
        return "lure", f"Put {lure.name}, {lure.colour}, on {rod.name}"
    if setup.attractor_id is None:
        assert worn.attractor_id is not None
        return "attractor", f"Take {outfit.attractor(worn.attractor_id).name} off {rod.name}"
    blade = outfit.attractor(setup.attractor_id).name
    if setup.attractor_id == worn.attractor_id:
        return "attractor", f"Tow {blade} of {rod.name} by its {setup.tow_point}"
    return "attractor", f"Put {blade} on {rod.name}"


def _swims_at(works: SpeedRange, speed_mps: float) -> bool:
    # A whole tenth that a hand sets may lie a hair's breadth outside.
    return works.low_mps - 1e-3 <= speed_mps <= works.high_mps + 1e-3


def _is_able(there: Situation, rod: RodNow, setup: RodSetup) -> bool:
    # The range is asked first: it is all that most lures fail by, and quickly told.
    try:
        works = working_range(there.outfit, setup)
    except InvalidInputError:
        return False
    return _swims_at(works, there.speed_mps) and is_possible(there, setup, rod.setup)


def _log_rate(there: Situation, rod: RodNow, setup: RodSetup, depth_m: float) -> float:
    recipe = recipe_of(
        there.outfit, setup, depth_m=depth_m, setting_m=rod.setting_m, speed_mps=there.speed_mps,
        bed_m=there.bed_m,
    )
    return there.model.log_rate(there.model.terms(recipe))[0]
