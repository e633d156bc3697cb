"""The odd one out: which rod keeps the spread from sharing a speed, and the smallest change."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final

from ..constants import MPH_MPS
from .pieces import Lure
from .setup import RodSetup, recipe_words, working_range
from .tackle import Outfit
from .window import SpeedWindow, shared_window

GUST_MPS: Final = 0.1 * MPH_MPS
"""What a gust does to a small boat's pace before the hand answers (judged)."""
ENOUGH_MPS: Final = 2.0 * GUST_MPS
_ANOTHER_LURE: Final = 1.0
"""A change of lure counts as more than any change of blade."""


@dataclass(frozen=True, slots=True, kw_only=True)
class OddOne:
    """The rod that keeps the spread from sharing a speed.

    Parameters
    ----------
    rod_id : str
        The rod.
    others : SpeedWindow
        What the rest would share without it.
    setup : RodSetup or None
        The smallest change that brings it in; None when nothing aboard does.
    words : str
        Its recipe after the change.
    """

    rod_id: str
    others: SpeedWindow
    setup: RodSetup | None
    words: str


@dataclass(frozen=True, slots=True, kw_only=True)
class CommonSpeed:
    """The speed a spread shares.

    Parameters
    ----------
    window : SpeedWindow or None
        Overlap of all working ranges; None when nothing is rigged.
    proposal_mps : float or None
        The speed to run, m/s; None where there is no overlap.
    gusts_fit : bool
        Whether the overlap leaves room for gusts on both sides.
    odd : OddOne or None
        Who stands apart; None where all share a speed.
    """

    window: SpeedWindow | None
    proposal_mps: float | None
    gusts_fit: bool
    odd: OddOne | None


def common_speed(outfit: Outfit, setups: Sequence[RodSetup]) -> CommonSpeed:
    """Return the speed a spread shares, or who keeps it from one.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setups : sequence of RodSetup
        What is on the rods.

    Returns
    -------
    CommonSpeed

    Notes
    -----
    The proposal is the middle of the overlap. The odd one is a rod without which the others share
    a speed: one that a change brings in before one that none does, then the widest overlap.
    """
    window = shared_window([working_range(outfit, setup) for setup in setups])
    if window is None:
        return CommonSpeed(window=None, proposal_mps=None, gusts_fit=False, odd=None)
    if window.is_open:
        return CommonSpeed(
            window=window, proposal_mps=0.5 * (window.low_mps + window.high_mps),
            gusts_fit=window.high_mps - window.low_mps >= 2.0 * GUST_MPS, odd=None,
        )
    return CommonSpeed(
        window=window, proposal_mps=None, gusts_fit=False, odd=_odd_one(outfit, setups)
    )


def _odd_one(outfit: Outfit, setups: Sequence[RodSetup]) -> OddOne | None:
    """Of the rods whose absence lets the others share a speed: one that a change brings in."""
    found: list[tuple[bool, float, OddOne]] = []
    for index, setup in enumerate(setups):
        rest = shared_window([
            working_range(outfit, other) for i, other in enumerate(setups) if i != index
        ])
        if rest is None or not rest.is_open:
            continue
        others = [other for i, other in enumerate(setups) if i != index]
        change = _smallest_change(outfit, setup, rest, others)
        found.append((change is not None, rest.high_mps - rest.low_mps, OddOne(
            rod_id=setup.rod_id, others=rest, setup=change,
            words="" if change is None else recipe_words(outfit, change),
        )))
    return max(found, key=lambda item: item[:2])[2] if found else None


def _smallest_change(
    outfit: Outfit, setup: RodSetup, shared: SpeedWindow, others: Sequence[RodSetup]
) -> RodSetup | None:
    suited = []
    for cost, changed in small_changes(outfit, setup, others):
        works = working_range(outfit, changed)
        width = min(works.high_mps, shared.high_mps) - max(works.low_mps, shared.low_mps)
        if width >= min(ENOUGH_MPS, 0.5 * (shared.high_mps - shared.low_mps)):
            key = (cost, changed.lure_id, changed.attractor_id or "", changed.tow_point)
            suited.append((key, changed))
    return min(suited, key=lambda item: item[0])[1] if suited else None


def with_lure(setup: RodSetup, lure: Lure) -> RodSetup:
    """Return what a rod wears with another lure.

    Parameters
    ----------
    setup : RodSetup
        What it wears.
    lure : Lure
        The other lure.

    Returns
    -------
    RodSetup
        Bait goes from one lure to the next only where that one takes bait as well.
    """
    return replace(setup, lure_id=lure.id, bait_id=setup.bait_id if lure.takes_bait else None)


def small_changes(
    outfit: Outfit, setup: RodSetup, others: Sequence[RodSetup]
) -> Iterator[tuple[float, RodSetup]]:
    """Return what a rod could wear instead, and how far each is from what it wears.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What it wears.
    others : sequence of RodSetup
        What the other rods wear: nobody is told to use a third of two.

    Returns
    -------
    iterator of (float, RodSetup)
        Another tow point, other blades by how much their length differs, then other lures.
    """
    lure = outfit.lure(setup.lure_id)
    now = 0.0
    if setup.attractor_id is not None:
        blade_now = outfit.attractor(setup.attractor_id)
        now = blade_now.length_m
        for point in blade_now.tow_points:
            if point.name != setup.tow_point:
                yield -1.0, replace(setup, tow_point=point.name)
        if lure.own_action:
            yield 0.5, replace(setup, attractor_id=None, leader_m=0.0, tow_point="")
    for blade in outfit.attractors:
        moves = lure.own_action or blade.gives_action
        free = sum(other.attractor_id == blade.id for other in others) < blade.count
        if free and blade.id != setup.attractor_id and moves and setup.attractor_id is not None:
            yield (
                abs(blade.length_m - now),
                replace(setup, attractor_id=blade.id, tow_point=""),
            )
    for other in outfit.lures:
        free = sum(item.lure_id == other.id for item in others) < other.count
        if free and other.id != lure.id and other.own_action == lure.own_action:
            yield (
                _ANOTHER_LURE + abs(other.length_m - lure.length_m),
                with_lure(setup, other),
            )
