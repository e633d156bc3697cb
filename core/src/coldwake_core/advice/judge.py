"""Afterwards: did the change help? Before against after, with "too early" as the usual answer."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ..evidence.rates import Exposure, RateComparison, compare_rates
from ..record.state import Answer, Stint


@dataclass(frozen=True, slots=True, kw_only=True)
class JudgedMove:
    """A move that was taken, and what can be said of it by now.

    Parameters
    ----------
    title : str
        What was done.
    at_s : float
        When, seconds since 1970-01-01 UTC.
    rod_id : str or None
        On which rod; None for the whole boat.
    before, after : Exposure
        Hits and rod-minutes in the hour before, and since.
    result : RateComparison
        P(rate after > rate before).
    """

    title: str
    at_s: float
    rod_id: str | None
    before: Exposure
    after: Exposure
    result: RateComparison


BEFORE_S: Final = 3600.0


def judge_moves(
    answers: Sequence[Answer], stints: Sequence[Stint], bites: Sequence[tuple[float, str, str]],
    now_s: float,
) -> list[JudgedMove]:
    """Return what can be said of the moves that were taken, the latest first.

    Parameters
    ----------
    answers : sequence of Answer
        Moves taken and refused.
    stints : sequence of Stint
        What fished when.
    bites : sequence of (float, str, str)
        Time, rod and kind of each bite.
    now_s : float
        Seconds since 1970-01-01 UTC.

    Returns
    -------
    list of JudgedMove

    Notes
    -----
    Before against after on the same rod: the clock is not taken out, so "better" means better
    times, not yet a better recipe.
    """
    judged = []
    for answer in reversed(answers):
        if not answer.taken:
            continue
        rod_id, at_s = answer.move.rod_id, answer.at_s
        before = _exposure(stints, bites, rod_id, at_s - BEFORE_S, at_s, now_s)
        after = _exposure(stints, bites, rod_id, at_s, now_s, now_s)
        judged.append(JudgedMove(
            title=answer.move.title, at_s=at_s, rod_id=rod_id, before=before, after=after,
            result=compare_rates(after, before),
        ))
    return judged


def _exposure(
    stints: Sequence[Stint], bites: Sequence[tuple[float, str, str]], rod_id: str | None,
    start_s: float, end_s: float, now_s: float,
) -> Exposure:
    """Hits and rod-minutes between two times, on one rod or on all."""
    minutes = 0.0
    for stint in stints:
        if rod_id in (None, stint.rod_id):
            last = now_s if stint.end_s is None else stint.end_s
            minutes += max(min(last, end_s) - max(stint.start_s, start_s), 0.0) / 60.0
    hits = sum(
        1 for at_s, rod, kind in bites
        if kind == "hit" and rod_id in (None, rod) and start_s <= at_s < end_s
    )
    return Exposure(hits=hits, minutes=minutes)
