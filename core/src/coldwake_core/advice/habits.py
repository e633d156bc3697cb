"""What many do, by habit and each by its name: to be chosen in the place of the weighing.

Common practice all: the habits, their order from what is seen to what is hoped for, and the half
hour. They look at hits and marks alone, and cannot tell a change from the clock.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace
from typing import Final

from .candidates import (
    JUDGE_MIN,
    copy_onto,
    dry_moves,
    mark_moves,
    method_depth_moves,
    speed_moves,
    tune_first,
)
from .situation import Move, RodNow, Situation
from .tries import try_moves
from .turning import back_by_habit

AHEAD_HITS: Final = 2
"""One hit is luck, one more is a pattern (common practice)."""
DRY_SPELL_MIN: Final = 30.0
"""A long dry spell before something changes (common practice)."""


def habit_moves(now: Situation) -> Iterator[Move]:
    """Return what the schools' habits would do, the first of them first.

    Parameters
    ----------
    now : Situation
        The trip now.

    Returns
    -------
    iterator of Move
        Each with the habit that speaks.
    """
    back = back_by_habit(now)
    if back is not None:
        yield back
    yield from _one_more_hit(now)
    yield from (_spoken(move, "Habit: set just above the marks") for move in mark_moves(now))
    yield from (
        _spoken(move, "Habit: no bite through marked fish, change at once")
        for move in dry_moves(now)
    )
    yield from _long_dry(now)
    yield from (move for move in speed_moves(now) if move.basis == "school")
    yield from method_depth_moves(now)


def _spoken(move: Move, source: str) -> Move:
    return replace(move, basis="school", source=source)


def _one_more_hit(now: Situation) -> Iterator[Move]:
    """One more hit on that colour, and the other rod changes to it; it is looked at first."""
    ahead = max(now.rods, key=lambda rod: (rod.exposure.hits, rod.rod_id))
    for behind in sorted(now.rods, key=lambda rod: (rod.exposure.hits, -rod.exposure.minutes)):
        if ahead.exposure.hits - behind.exposure.hits < AHEAD_HITS:
            return
        source = "Habit: one more hit on it, and the other rod changes to it"
        reason = (
            f"{ahead.name} has {ahead.exposure.hits} hits, {behind.name} "
            f"{behind.exposure.hits or 'none'}."
        )
        look = tune_first(now, behind, reason)
        if look is not None:
            yield _spoken(look, "Habit: the rod that lags gets its tuning checked first")
        copied = copy_onto(now, ahead, behind, reason)
        if copied is not None:
            yield _spoken(copied, source)


def _long_dry(now: Situation) -> Iterator[Move]:
    """A long dry spell, and the rod that fished longest without a hit changes colour."""
    dry = {rod.rod_id: _dry_min(now, rod) for rod in now.rods}
    # A rod that was just changed is given its half hour before the next one is.
    if min(dry.values()) < DRY_SPELL_MIN:
        return
    longest = max(now.rods, key=lambda rod: (dry[rod.rod_id], rod.rod_id))
    for move in try_moves(now):
        if move.answer.kind == "colour" and move.answer.rod_id == longest.rod_id:
            yield replace(
                move, basis="school", judge_after_min=JUDGE_MIN,
                source="Habit: half an hour without a bite, and something changes",
                reason=f"{longest.name} has been dry for {dry[longest.rod_id]:.0f} minutes, and "
                       "all the others for half an hour.",
            )


def _dry_min(now: Situation, rod: RodNow) -> float:
    """Minutes that a rod has fished what it wears since its last hit."""
    last_s = max(
        (at_s for at_s, rod_id, what in now.state.bites
         if rod_id == rod.rod_id and what in ("hit", "hooked")), default=-math.inf,
    )
    return min(rod.exposure.minutes, (now.now_s - last_s) / 60.0)
