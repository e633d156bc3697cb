"""Afterwards: did the change help? Only rods that were not changed can tell it from the clock."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from ..gear.setup import RodSetup
from ..record.payloads import MoveAnswered
from ..record.state import Answer, Stint
from .bait import stint_minutes
from .control import TOO_EARLY, ChangeComparison, Sides, compare_with_control, minutes_to_tell
from .rates import Exposure

BEFORE_S: Final = 3600.0
"""How long before a change speaks for what was before."""
TOGETHER_S: Final = 600.0
"""Rods changed so close together are one change (judged: a crew does one after the other)."""
MOST_JUDGED: Final = 12
"""The latest moves are judged; older ones are Review's."""

UNJUDGED: Final = ("tuning", "turn", "s_turn", "place")
"""Moves that change nothing on any rod: a look, and a way back through fish."""

Lack = Literal["no_control", "minutes", ""]


@dataclass(frozen=True, slots=True, kw_only=True)
class JudgedMove:
    """A move that was taken, and what can be said of it by now.

    Parameters
    ----------
    moves : tuple of MoveAnswered
        What was done: of moves with one title the first.
    at_s : float
        When, seconds since 1970-01-01 UTC.
    rod_id : str or None
        On which rod, the first of them where it was done on several; None for the whole boat.
    rods : int
        How many rods were changed within TOGETHER_S: they are judged together. 0 for the boat.
    before, after : Exposure
        Hits and rod-minutes of what was changed, in the hour before and since.
    control_before, control : Exposure
        The same of the rods beside it that were not changed: what the clock did.
    result : ChangeComparison
        P(it helped), the clock taken out.
    more_min : float or None
        Of the latest: how many more minutes it takes to tell at the rate of late; None where it is
        told, where it is over, or where four hours would not tell.
    lack : {'no_control', 'minutes', ''}
        What is lacking where nothing can be said: rods that were not changed, or rod-minutes.
    ended : bool
        Whether the rod has been changed again since: what is said of it is final.
    """

    moves: tuple[MoveAnswered, ...]
    at_s: float
    rod_id: str | None
    rods: int
    before: Exposure
    after: Exposure
    control_before: Exposure
    control: Exposure
    result: ChangeComparison
    more_min: float | None
    lack: Lack
    ended: bool


def judge_moves(
    answers: Sequence[Answer], stints: Sequence[Stint], bites: Sequence[tuple[float, str, str]],
    now_s: float, looks: Mapping[str, Sequence[float]] | None = None,
) -> list[JudgedMove]:
    """Return what can be said of the latest moves that were taken, the latest first.

    Parameters
    ----------
    answers : sequence of Answer
        Moves taken and refused; those taken back are not among them.
    stints : sequence of Stint
        What fished when.
    bites : sequence of (float, str, str)
        Time, rod and kind of each bite.
    now_s : float
        Seconds since 1970-01-01 UTC.
    looks : mapping of str to sequence of float, optional
        When the bait of each rod was looked at, s: what it fished without is taken off.

    Returns
    -------
    list of JudgedMove

    Notes
    -----
    What was changed on several rods within TOGETHER_S is judged together, whatever dials it were.
    A change on all rods at once has no control: then, and where a side has too few rod-minutes,
    it is too early, whatever was counted. A change ends when the rod is changed again.
    """
    taken = [a for a in answers if a.taken and a.move.kind not in UNJUDGED]
    count = _Counter(stints, bites, looks or {})
    groups = _together(taken)[-MOST_JUDGED:]
    # How long it takes to tell is asked of the latest, which still fishes.
    return [_judge(group, count, now_s, asks=group is groups[-1]) for group in reversed(groups)]


def _together(taken: Sequence[Answer]) -> list[list[Answer]]:
    """Moves on several rods that were made one after the other, as one change."""
    groups: list[list[Answer]] = []
    for answer in taken:
        last = groups[-1] if groups else []
        rods = {one.move.rod_id for one in last}
        if (
            last and None not in rods and answer.move.rod_id is not None
            and answer.move.rod_id not in rods and answer.at_s - last[0].at_s <= TOGETHER_S
        ):
            last.append(answer)
        else:
            groups.append([answer])
    return groups


@dataclass(frozen=True, slots=True)
class _Counter:
    """What is counted from."""

    stints: Sequence[Stint]
    bites: Sequence[tuple[float, str, str]]
    looks: Mapping[str, Sequence[float]]

    def exposure(self, rod_ids: set[str], start_s: float, end_s: float) -> Exposure:
        """Hits and rod-minutes of some rods between two times, while they fished, bait on."""
        hits = {
            rod_id: [at_s for at_s, rod, kind in self.bites if rod == rod_id and kind == "hit"]
            for rod_id in rod_ids
        }
        minutes = math.fsum(
            stint_minutes(
                stint, start_s, end_s, looks=self.looks.get(stint.rod_id, ()),
                hits=hits[stint.rod_id],
            )
            for stint in self.stints if stint.rod_id in rod_ids
        )
        counted = sum(1 for times in hits.values() for at_s in times if start_s <= at_s < end_s)
        return Exposure(hits=counted, minutes=minutes)


def _judge(
    answers: Sequence[Answer], count: _Counter, now_s: float, *, asks: bool
) -> JudgedMove:
    answer, stints = answers[0], count.stints
    at_s, done_s = answer.at_s, answers[-1].at_s
    changed = {one.move.rod_id: one.at_s for one in answers if one.move.rod_id is not None}
    if not changed:
        everyone = {stint.rod_id for stint in stints}
        nobody = Exposure(hits=0, minutes=0.0)
        return JudgedMove(
            moves=(answer.move,), at_s=at_s, rod_id=None, rods=0,
            before=count.exposure(everyone, at_s - BEFORE_S, at_s),
            after=count.exposure(everyone, at_s, now_s), control_before=nobody, control=nobody,
            result=TOO_EARLY, more_min=None, lack="no_control", ended=False,
        )
    begin_s = max(
        at_s - BEFORE_S, *(_changed_before_s(stints, rod, when) for rod, when in changed.items())
    )
    end_s = min(_changed_again_s(stints, rod, when, now_s) for rod, when in changed.items())
    beside = {
        stint.rod_id for stint in stints
        if stint.rod_id not in changed and _steady(stints, stint.rod_id, begin_s, end_s)
    }
    # While it was being done the rods were half one thing and half the other.
    sides = [
        Sides(
            changed=count.exposure(set(changed), first_s, last_s),
            control=count.exposure(beside, first_s, last_s),
        )
        for first_s, last_s in ((begin_s, at_s), (done_s, max(end_s, done_s)))
    ]
    before, after = sides
    lack: Lack = ""
    if not beside:
        lack = "no_control"
    elif not (before.is_enough() and after.is_enough()):
        lack = "minutes"
    rods = len(changed), max(len(beside), 1)
    result = compare_with_control(
        before=before, after=after, changed_rods=rods[0], control_rods=rods[1]
    )
    more = None
    if asks and result.verdict == "too_early" and beside and end_s >= now_s:
        more = minutes_to_tell(
            before=before, after=after, changed_rods=rods[0], control_rods=rods[1]
        )
    moves: dict[str, MoveAnswered] = {}
    for one in answers:
        moves.setdefault(one.move.title, one.move)
    return JudgedMove(
        moves=tuple(moves.values()), at_s=at_s, rod_id=answer.move.rod_id, rods=rods[0],
        before=before.changed, after=after.changed, control_before=before.control,
        control=after.control, result=result, more_min=more, lack=lack, ended=end_s < now_s,
    )


def _what(stint: Stint) -> tuple[RodSetup, float]:
    return stint.setup, stint.setting_m


def _changed_again_s(
    stints: Sequence[Stint], rod_id: str, at_s: float, now_s: float
) -> float:
    """When the rod stopped fishing what the move put on it, seconds; now while it still does."""
    since = [s for s in stints if s.rod_id == rod_id and s.start_s >= at_s]
    return next((s.start_s for s in since if _what(s) != _what(since[0])), now_s)


def _changed_before_s(stints: Sequence[Stint], rod_id: str, at_s: float) -> float:
    """When the rod began to fish what it fished until the move, seconds."""
    earlier = [s for s in stints if s.rod_id == rod_id and s.start_s < at_s]
    begin_s = at_s
    for stint in reversed(earlier):
        if _what(stint) != _what(earlier[-1]):
            break
        begin_s = stint.start_s
    return begin_s


def _steady(stints: Sequence[Stint], rod_id: str, begin_s: float, end_s: float) -> bool:
    """Whether a rod fished one thing at one number all through, reset after fish or not."""
    during = [
        s for s in stints
        if s.rod_id == rod_id and s.start_s < end_s and (s.end_s is None or s.end_s > begin_s)
    ]
    return len({_what(s) for s in during}) == 1
