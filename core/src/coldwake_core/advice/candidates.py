"""Candidates for the next move: each one small step from what is out, in words of its own."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final

from ..constants import FOOT_M, MPH_MPS
from ..evidence.rates import Exposure, RateComparison, compare_rates
from ..gear.inspection import LOOK_ITEMS, inspection, rod_inspections
from ..gear.setup import RodSetup, recipe_words
from ..gear.window import SpeedWindow
from ..record.beside import Checked
from ..record.payloads import LineSet, MoveAnswered, MoveChange, SpeedChanged
from .marks import NEAR_MARK_M, SHALLOWEST_M, mark_targets
from .method import Method, band_in, trolled_mps
from .odd import mend_moves
from .put_off import NOT_NOW_S
from .situation import Basis, Move, RodNow, Situation
from .tries import RESET_MIN, is_possible, try_moves

SPEED_STEP_MPS: Final = 0.2 * MPH_MPS
LEAST_STEP_MPS: Final = 0.03 * MPH_MPS
"""A speed nearer than this to the one set is the one set."""
WORTH_MPS: Final = 0.04
"""A method's speed is worth a change from about a tenth of a mile an hour off."""
OFF_BED_M: Final = 0.5
"""A depth that a rule names and nobody has seen fish at stays so far above the lowest (judged)."""
JUDGE_MIN: Final = 30.0
DRY_MIN: Final = 20.0
"""A pass through marked fish without a bite (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Comparison:
    """The best rod so far against the one that lags, and how sure that is.

    Parameters
    ----------
    ahead_rod_id, behind_rod_id : str
        The rods.
    ahead, behind : Exposure
        What was counted on each.
    result : RateComparison
        P(rate ahead > rate behind) and its verdict.
    """

    ahead_rod_id: str
    behind_rod_id: str
    ahead: Exposure
    behind: Exposure
    result: RateComparison


def _settable(speed_mps: float, window: SpeedWindow) -> float:
    """Round a speed to a tenth of a mile an hour, which a hand can set, within the window.

    Where the window holds no whole tenth, the speed is left as it is.
    """
    inside = min(max(speed_mps, window.low_mps), window.high_mps)
    tenth = round(inside / MPH_MPS, 1)
    for tried in (tenth, tenth + 0.1, tenth - 0.1):
        if window.low_mps - 1e-3 <= tried * MPH_MPS <= window.high_mps + 1e-3:
            return tried * MPH_MPS
    return inside


def range_moves(now: Situation) -> Iterator[Move]:
    """Return what brings all lures back into their working ranges.

    At a speed that was chosen by advice, the odd rods are tied anew; else the speed is changed.

    Parameters
    ----------
    now : Situation
        The trip now.

    Returns
    -------
    iterator of Move
        None where there is nothing to change.
    """
    yield from mend_moves(now)
    window = now.window
    if window is None or not window.is_open:
        return
    if not window.low_mps - 1e-3 <= now.speed_mps <= window.high_mps + 1e-3:
        yield from _speed_move(
            now, _settable(now.speed_mps, window),
            "A lure outside its working range is worse than none: it drives fish off.",
            "working_range", "Working ranges of what is out",
        )


def speed_moves(now: Situation) -> Iterator[Move]:
    """Return changes of speed: toward the method's, and a small step either way.

    A step out of the window that all share is for who weighs them: a rod or two would have to wear
    something else (``odd.mends_at``).

    Parameters
    ----------
    now : Situation
        The trip now.

    Returns
    -------
    iterator of Move
        None where there is nothing to change.
    """
    window = now.window
    if window is None or not window.is_open:
        return
    if now.method is not None:
        yield from _method_speed(now, now.method, window)
    slowest, fastest = trolled_mps(now.species)
    for step in (SPEED_STEP_MPS, -SPEED_STEP_MPS):
        wanted = now.speed_mps + step
        if window.low_mps <= wanted <= window.high_mps:
            yield from _speed_move(now, _settable(wanted, window), "", "trial", "")
        elif slowest - 1e-3 <= wanted <= fastest + 1e-3:
            yield from _speed_move(now, round(wanted / MPH_MPS, 1) * MPH_MPS, "", "trial", "")


def _method_speed(now: Situation, method: Method, window: SpeedWindow) -> Iterator[Move]:
    low, high = method.speed_low_mps, method.speed_high_mps
    wanted = min(max(now.speed_mps, low), high)
    wanted = min(max(wanted, window.low_mps), window.high_mps)
    step = max(min(wanted - now.speed_mps, SPEED_STEP_MPS), -SPEED_STEP_MPS)
    if abs(step) >= WORTH_MPS:
        yield from _speed_move(
            now, _settable(now.speed_mps + step, window), method.reason, "school", method.school
        )


def _speed_move(
    now: Situation, target_mps: float, reason: str, basis: Basis, source: str
) -> Iterator[Move]:
    """A change of speed, if it is one that a hand can make."""
    if abs(target_mps - now.speed_mps) < LEAST_STEP_MPS:
        return
    word = "Slow down" if target_mps < now.speed_mps else "Speed up"
    yield Move(
        answer=MoveAnswered(
            key="speed", kind="speed", title=word,
            change=MoveChange(speed_changed=SpeedChanged(speed_mps=target_mps)),
        ),
        reason=reason, basis=basis, source=source, cost_min=0.0, judge_after_min=15.0,
    )


def _depth_move(
    now: Situation, depth_m: float, *, key: str, reason: str, basis: Basis, source: str
) -> Move | None:
    """Set the rod that gets there with least trouble; precise gear first, then the nearest.

    Fish that are found are not left for fish that are hoped for: a rod that runs at marks, or has
    hits on what it does, stays where it is.
    """
    targets = mark_targets(now.state, now.bands)
    able = [
        rod for rod in now.rods
        if depth_m in rod.reachable and not rod.exposure.hits
        and not any(abs(rod.depth_m - target) <= NEAR_MARK_M for target in targets)
    ]
    if not able:
        return None
    rod = min(able, key=lambda r: (RESET_MIN[r.kind], abs(r.depth_m - depth_m), r.rod_id))
    return Move(
        answer=MoveAnswered(
            key=key, kind="depth", title=f"Set {rod.name} to {depth_m / FOOT_M:.0f} ft",
            rod_id=rod.rod_id,
            change=MoveChange(line_set=LineSet(
                rod_id=rod.rod_id, setting_m=rod.reachable[depth_m], wanted_depth_m=depth_m,
            )),
        ),
        reason=reason, basis=basis, source=source, cost_min=RESET_MIN[rod.kind],
        judge_after_min=JUDGE_MIN,
    )


def mark_moves(now: Situation) -> Iterator[Move]:
    """Return changes of depth to recent marks that no lure runs near.

    Parameters
    ----------
    now : Situation
        The trip now.

    Returns
    -------
    iterator of Move
        None where there is nothing to change.
    """
    for band, target in zip(now.bands, mark_targets(now.state, now.bands), strict=True):
        if any(abs(rod.depth_m - target) <= NEAR_MARK_M for rod in now.rods):
            continue
        fish = "A fish was" if band.count == 1 else f"{band.count} fish were"
        move = _depth_move(
            now, target, key=f"marks:{round(target / FOOT_M)}", basis="marks",
            reason=f"{fish} marked and no lure runs near: set a little above, "
                   "for above is fine and below the fish is useless.",
            source="Marks of the last 40 minutes",
        )
        if move is not None:
            yield move


def method_depth_m(method: Method, lowest_m: float, bed_m: float) -> float | None:
    """Return the depth to try when no lure runs in the method's band.

    Parameters
    ----------
    method : Method
        Method of the hour.
    lowest_m : float
        The lowest that a lure may run over the bottom here and ahead, m.
    bed_m : float
        How deep the water usually is, m.

    Returns
    -------
    float or None
        Depth, m: the middle of the band, as far as the bottom lets it; None where the bottom is
        above the band.
    """
    top, base = band_in(method, bed_m)
    wanted = min(0.5 * (top + base), lowest_m - OFF_BED_M)
    return wanted if wanted >= max(top, SHALLOWEST_M) else None


def method_depth_moves(now: Situation) -> Iterator[Move]:
    """Return the change of depth into the method's band, where nothing was marked.

    Parameters
    ----------
    now : Situation
        The trip now.

    Returns
    -------
    iterator of Move
        None where there is nothing to change.
    """
    method = now.method
    # Marks say where fish are; the rule of thumb is for when nothing has been seen.
    if method is None or now.bands:
        return
    top, base = band_in(method, now.bed_m)
    if any(top <= rod.depth_m <= base for rod in now.rods):
        return
    wanted = method_depth_m(method, now.lowest_m, now.bed_m)
    move = None if wanted is None else _depth_move(
        now, wanted, key=f"band:{method.id}", basis="school", reason=method.reason,
        source=method.school,
    )
    if move is not None:
        yield move


def compare_rods(rods: Sequence[RodNow]) -> Comparison | None:
    """Return the rod that is ahead against the one that lags most.

    Parameters
    ----------
    rods : sequence of RodNow
        Rods fishing.

    Returns
    -------
    Comparison or None
        None until there are two rods and a hit.
    """
    if len(rods) < 2 or not any(rod.exposure.hits for rod in rods):
        return None
    pairs = [
        # The best-looking pair is picked out of all that could have looked best.
        (compare_rates(a.exposure, b.exposure, picked_from=len(rods) * (len(rods) - 1)), a, b)
        for a in rods for b in rods if a is not b and a.exposure.hits > 0
    ]
    result, ahead, behind = max(
        pairs, key=lambda pair: (pair[0].probability, pair[1].rod_id, pair[2].rod_id)
    )
    return Comparison(
        ahead_rod_id=ahead.rod_id, behind_rod_id=behind.rod_id, ahead=ahead.exposure,
        behind=behind.exposure, result=result,
    )


def tuning_moves(now: Situation) -> Iterator[Move]:
    """Return the look at the rod that lags, before its lure is blamed (common practice).

    Parameters
    ----------
    now : Situation
        The trip now.

    Returns
    -------
    iterator of Move
        None where there is nothing to look at, or it was.
    """
    pair = _lagging(now)
    if pair is None:
        return
    _, behind, chance = pair
    look = tune_first(
        now, behind, f"{behind.name} lags: {behind.exposure.hits} hits in "
        f"{behind.exposure.minutes:.0f} rod-minutes."
    )
    if look is not None:
        yield replace(look, probability=chance)


def copy_moves(now: Situation) -> Iterator[Move]:
    """Return the change of the rod that lags to what the best one wears.

    Parameters
    ----------
    now : Situation
        The trip now.

    Returns
    -------
    iterator of Move
        None where there is nothing to change.
    """
    pair = _lagging(now)
    if pair is None:
        return
    ahead, behind, chance = pair
    words = recipe_words(now.outfit, ahead.setup)
    copied = copy_onto(
        now, ahead, behind, f"{ahead.name} ({words}): {ahead.exposure.hits} hits in "
        f"{ahead.exposure.minutes:.0f} rod-minutes; {behind.name}: {behind.exposure.hits} in "
        f"{behind.exposure.minutes:.0f}. Check the tuning of {behind.name} before its lure is "
        "blamed."
    )
    if copied is not None:
        yield replace(copied, probability=chance)


def _lagging(now: Situation) -> tuple[RodNow, RodNow, float] | None:
    """The rod that is ahead, the one that lags, and how sure that is; None where it is not."""
    comparison = compare_rods(now.rods)
    if comparison is None or comparison.result.verdict not in ("better", "leaning_better"):
        return None
    by_id = {rod.rod_id: rod for rod in now.rods}
    return (
        by_id[comparison.ahead_rod_id], by_id[comparison.behind_rod_id],
        comparison.result.probability,
    )


def tune_first(now: Situation, behind: RodNow, reason: str) -> Move | None:
    """Return the look at a rod beside the boat, if it has not been looked at since it was let out.

    Parameters
    ----------
    now : Situation
        The trip now.
    behind : RodNow
        The rod.
    reason : str
        Why it is looked at.

    Returns
    -------
    Move or None
        None where it was looked at, or wears nothing that could be out of tune.
    """
    items = [
        due.item for due in rod_inspections(now.outfit, behind.setup) if due.item in LOOK_ITEMS
    ]
    since_s = now.state.rods[behind.rod_id].soak_since_s or 0.0
    done = [now.state.checks.get((behind.rod_id, item)) for item in items]
    if not items or any(check is not None and check.at_s >= since_s for check in done):
        return None
    return Move(
        answer=MoveAnswered(
            key=f"tuning:{behind.rod_id}:{since_s:.0f}", kind="tuning",
            title=f"Look at {behind.name} beside the boat", rod_id=behind.rod_id,
            change=MoveChange(checked=Checked(item=items[0], outcome="ok", rod_id=behind.rod_id)),
        ),
        reason=f"{reason} Its tuning is checked before its lure is blamed. "
               f"{inspection(items[0]).text}",
        basis="evidence", source="Hits and rod-minutes of this trip", cost_min=3.0,
        judge_after_min=JUDGE_MIN,
    )


def copy_onto(now: Situation, ahead: RodNow, behind: RodNow, reason: str) -> Move | None:
    """Return the change of one rod to what another wears.

    Parameters
    ----------
    now : Situation
        The trip now.
    ahead, behind : RodNow
        The rod that is copied, and the one that changes.
    reason : str
        Why.

    Returns
    -------
    Move or None
        None where it wears that already, the box holds no more of it, or it does not suit.
    """
    spare = _same_look(now, ahead, behind)
    if spare is None:
        return None
    return Move(
        answer=MoveAnswered(
            key=f"copy:{ahead.rod_id}:{behind.rod_id}:{spare.lure_id}", kind="copy",
            title=f"Put what {ahead.name} wears on {behind.name}", rod_id=behind.rod_id,
            change=MoveChange(rod_rigged=spare),
        ),
        reason=reason, basis="evidence", source="Hits and rod-minutes of this trip", cost_min=3.0,
        judge_after_min=45.0,
    )


def _same_look(now: Situation, ahead: RodNow, behind: RodNow) -> RodSetup | None:
    """The lagging rod with the lure that earns, if it does not wear it already and it suits."""
    worn = ahead.setup
    changed = replace(
        behind.setup, lure_id=worn.lure_id, attractor_id=worn.attractor_id,
        bait_id=worn.bait_id, scent_id=worn.scent_id,
    )
    if changed == behind.setup:
        return None
    changed = replace(
        changed, leader_m=worn.leader_m, leader_id=worn.leader_id, tow_point=worn.tow_point
    )
    return changed if is_possible(now, changed, behind.setup) else None


def _passed_dry(now: Situation, rod: RodNow) -> bool:
    """Whether a rod fished through all of the latest pass through marked fish."""
    last = next((p for p in reversed(now.state.passes) if p.end_s is not None), None)
    if last is None or last.end_s is None or now.now_s - last.end_s > NOT_NOW_S:
        return False
    soak_s = now.state.rods[rod.rod_id].soak_since_s
    return soak_s is not None and soak_s <= last.start_s and any(
        last.start_s <= mark.at_s <= last.end_s for mark in now.state.marks
    )


def dry_moves(now: Situation) -> Iterator[Move]:
    """Return changes of colour on rods that were dry where fish are marked (all schools).

    Parameters
    ----------
    now : Situation
        The trip now.

    Returns
    -------
    iterator of Move
        None where there is nothing to change.
    """
    if not now.bands or any(rod.exposure.hits for rod in now.rods):
        return
    dry = {
        rod.rod_id: rod for rod in now.rods
        if rod.exposure.minutes >= DRY_MIN or _passed_dry(now, rod)
    }
    for move in try_moves(now):
        rod = dry.get(move.answer.rod_id or "")
        if move.answer.kind == "colour" and rod is not None:
            yield replace(
                move, basis="school", judge_after_min=JUDGE_MIN,
                source="All schools: no bite through marked fish, change colour",
                reason=f"Fish are marked, the speed is right and {rod.name} has been dry for "
                       f"{rod.exposure.minutes:.0f} minutes.",
            )
