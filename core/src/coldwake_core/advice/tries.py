"""Changes of one dial on one rod, as far as the box, the rules and the common speed allow."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Final

from ..constants import FOOT_M, INCH_M
from ..errors import InvalidInputError
from ..gear.common import with_lure
from ..gear.setup import RodSetup, build_rig, working_range
from ..record.payloads import LineSet, MoveAnswered, MoveChange, MoveKind
from ..rig_rules.engine import check_rod
from ..rig_rules.facts import RodFacts
from ..rig_rules.rule import Finding
from ..trade import Species
from .choice import LEADS_MIN, leading
from .marks import NEAR_MARK_M, mark_targets
from .shows import CLIPPED
from .situation import Move, RodNow, Situation

RESET_MIN: Final[dict[str, float]] = {
    "downrigger": 1.0, "dropper": 1.0, "flat": 2.0, "weighted": 2.0, "slider": 3.0, "stacked": 3.0,
    "leadcore": 4.0,
}
"""Minutes to put a line at another number; leadcore takes time to pay out (common practice)."""
TIE_MIN: Final = 3.0
"""Minutes to tie on something else, beside the reset (judged)."""
BAIT_MIN: Final = 1.0
"""Minutes to bait or scent a hook anew, beside the reset (judged)."""
BAITED: Final = ("bait", "scent")
LEADERS_M: Final = tuple(length * INCH_M for length in (10.0, 18.0, 30.0, 54.0))
SETBACKS_M: Final = tuple(length * FOOT_M for length in (15.0, 40.0, 80.0, 140.0))
"""Lengths of the schools (common practice)."""
DEPTHS_M: Final = (
    0.6, 1.5, 3.0, 4.5, 6.0, 7.5, 9.0, 10.5, 12.0, 14.0, 16.0, 18.0, 20.0, 22.0, 24.0,
)
"""Depths that are tried where a number sets the depth."""
LINES_OUT_M: Final[dict[Species, tuple[float, ...]]] = {
    "trout": (20.0, 35.0, 50.0, 65.0), "kokanee": (20.0, 35.0, 50.0, 65.0),
    "striper": (15.0, 20.0, 26.0, 32.0),
}
"""How far back lines are tried that run as deep as they will: 65 to 215 ft on a lake; about 85 ft
with a plug in a river (common practice)."""
FREE_LINES: Final = ("flat", "weighted")
"""Lines whose depth no number sets."""
PLUG_CLEAR_M: Final = FOOT_M
"""Lines of their own depth are let no nearer to the bottom: river plugs work just off it."""
JUDGE_MIN: Final = 45.0
LEAST_SOAK_MIN: Final = 20.0
"""A line has had its time where it runs before another depth is tried with it (judged)."""


def try_moves(now: Situation, *, depths: bool = True) -> Iterator[Move]:
    """Return every change of one dial that is possible, but on the rod that leads.

    Parameters
    ----------
    now : Situation
        The trip now.
    depths : bool
        Whether depths are tried as well: not while marked fish wait for a lure.

    Returns
    -------
    iterator of Move
        Each with its cost; why, is for who weighs them.
    """
    found = mark_targets(now.state, now.bands)
    leads = leads_now(now)
    for rod in now.rods:
        if rod.rod_id == leads:
            continue
        # Fish that are found are not left for fish that are hoped for.
        near = any(abs(rod.depth_m - target) <= NEAR_MARK_M for target in found)
        # A stint begins anew with each number: what was moved a minute ago begins there.
        set_at_s = max(
            (s.start_s for s in now.state.stints if s.rod_id == rod.rod_id), default=now.now_s
        )
        soaked = now.now_s - set_at_s >= 60.0 * LEAST_SOAK_MIN
        if depths and soaked and not near and not rod.exposure.hits:
            yield from _lines(rod)
        for kind, setup, title in _setups(now, rod):
            if is_possible(now, setup, rod.setup):
                yield Move(
                    answer=MoveAnswered(
                        key=f"{kind}:{rod.rod_id}:{title}", kind=kind, title=title,
                        rod_id=rod.rod_id, change=MoveChange(rod_rigged=setup),
                    ),
                    reason="", basis="trial", source="",
                    cost_min=RESET_MIN[rod.kind] + (BAIT_MIN if kind in BAITED else TIE_MIN),
                    judge_after_min=JUDGE_MIN,
                )


def leads_now(now: Situation) -> str | None:
    """Return the rod that leads by what it wears, if any does.

    Parameters
    ----------
    now : Situation
        The trip now.

    Returns
    -------
    str or None
    """
    return leading({rod.rod_id: _hits_of_late(now, rod) for rod in now.rods})


def _hits_of_late(now: Situation, rod: RodNow) -> int:
    """Hits on what a rod wears, of the last hour and a half."""
    worn = [
        stint for stint in now.state.stints
        if stint.rod_id == rod.rod_id and stint.setup == rod.setup
    ]
    since_s = now.now_s - 60.0 * LEADS_MIN
    return sum(
        kind == "hit" and rod_id == rod.rod_id and at_s >= since_s
        and any(s.start_s <= at_s and (s.end_s is None or at_s <= s.end_s) for s in worn)
        for at_s, rod_id, kind in now.state.bites
    )


def depths_to_try(depth_m: float, lowest_m: float) -> tuple[float, ...]:
    """Return the depths at which a lure could be tried.

    Parameters
    ----------
    depth_m : float
        Where it runs, m.
    lowest_m : float
        The lowest that it may run, m.

    Returns
    -------
    tuple of float
        A small step up and down, and a ladder over all of the water, in whole feet, m; none where
        it runs already.
    """
    asked = (depth_m - NEAR_MARK_M, depth_m + NEAR_MARK_M, *DEPTHS_M)
    feet = sorted({round(depth / FOOT_M) for depth in asked if depth > 0.0})
    return tuple(
        foot * FOOT_M for foot in feet
        if foot > 0 and foot * FOOT_M <= lowest_m and abs(foot * FOOT_M - depth_m) >= FOOT_M
    )


def _lines(rod: RodNow) -> Iterator[Move]:
    """The rod as it is, at another depth or with more or less line out."""
    settings = [
        (rod.reachable[depth], depth, f"Set {rod.name} to {depth / FOOT_M:.0f} ft")
        for depth in rod.trial_depths if depth in rod.reachable
    ]
    out = [
        (length, None, f"Let {rod.name} out to {length / FOOT_M:.0f} ft") for length in rod.lengths
    ]
    for setting_m, wanted_m, title in (*settings, *out):
        kind: MoveKind = "setback" if wanted_m is None else "depth"
        yield Move(
            answer=MoveAnswered(
                key=f"{kind}:{rod.rod_id}:{title}", kind=kind, title=title, rod_id=rod.rod_id,
                change=MoveChange(line_set=LineSet(
                    rod_id=rod.rod_id, setting_m=setting_m, wanted_depth_m=wanted_m,
                )),
            ),
            reason="", basis="trial", source="", cost_min=RESET_MIN[rod.kind],
            judge_after_min=JUDGE_MIN,
        )


def _setups(now: Situation, rod: RodNow) -> Iterator[tuple[MoveKind, RodSetup, str]]:
    outfit, setup = now.outfit, rod.setup
    lure = outfit.lure(setup.lure_id)
    for other in outfit.lures:
        if other.name == lure.name and other.colour != lure.colour:
            yield "colour", with_lure(setup, other), (
                f"Change {rod.name} to {other.colour}"
            )
        elif other.name != lure.name and other.colour == lure.colour:
            yield "lure", with_lure(setup, other), (
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
    for bait in outfit.baits:
        if bait.id != setup.bait_id:
            yield "bait", replace(setup, bait_id=bait.id), f"Bait {rod.name} with {bait.name}"
    for scent in outfit.scents:
        if scent.id != setup.scent_id:
            yield "scent", replace(setup, scent_id=scent.id), f"Scent {rod.name} with {scent.name}"
    if rod.kind in CLIPPED:
        for back in SETBACKS_M:
            if abs(back - setup.setback_m) > 0.3 * max(setup.setback_m, 3.0):
                yield "setback", replace(setup, setback_m=back), (
                    f"Clip {rod.name} {back / FOOT_M:.0f} ft back"
                )


def is_possible(now: Situation, setup: RodSetup, worn: RodSetup) -> bool:
    """Return whether a rod may wear something: it is there, swims, and breaks no rule anew.

    Parameters
    ----------
    now : Situation
        The trip now.
    setup : RodSetup
        What it would wear.
    worn : RodSetup
        What it wears: what is only better mended, and is so already, speaks against no change.

    Returns
    -------
    bool
    """
    if not is_free(now, setup):
        return False
    try:
        build_rig(now.outfit, setup).check()
        works = working_range(now.outfit, setup)
    except InvalidInputError:
        return False
    # It must swim at the speed that all share.
    if not works.low_mps <= now.speed_mps <= works.high_mps:
        return False
    found = findings(now, setup)
    if any(finding.severity == "stop" for finding in found):
        return False
    mends = {finding.rule_id for finding in found if finding.severity == "mend"}
    return not mends or mends <= {finding.rule_id for finding in findings(now, worn)}


def findings(now: Situation, setup: RodSetup) -> tuple[Finding, ...]:
    """Return what the rules of the rig, and the user's note of the law, say of something.

    Parameters
    ----------
    now : Situation
        The trip now.
    setup : RodSetup
        What a rod would wear.

    Returns
    -------
    tuple of Finding
    """
    return check_rod(RodFacts(
        outfit=now.outfit, setup=setup, speed_mps=now.speed_mps, schools=now.state.schools,
        species=now.species, water_rules=now.water_rules,
    ))


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
