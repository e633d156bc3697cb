"""How long a rod fished in earnest: minutes on a hook that has lost its bait count for less."""

from __future__ import annotations

import math
from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from itertools import pairwise
from typing import Final

from ..record.state import Stint

BAIT_HALF_MIN: Final = 70.0
"""Minutes of trolling after which half of all soft baits are gone (judged; common practice looks
at them every twenty to thirty)."""
BARE_SHARE: Final = 0.25
"""What a lure that wants bait earns without it (judged)."""


def baited_minutes(
    *, start_s: float, end_s: float, looks: Sequence[float], hits: Sequence[float]
) -> float:
    """Return how many minutes with its bait on a stretch on a baited lure is worth.

    Parameters
    ----------
    start_s, end_s : float
        The stretch, seconds of any clock.
    looks : sequence of float
        When bait was put on or looked at, rising, s.
    hits : sequence of float
        When the rod was hit, rising, s: half of all hits take the bait (judged).

    Returns
    -------
    float
        At most the minutes of the stretch.

    Notes
    -----
    The chance that it is still on is ``2^-(age / BAIT_HALF_MIN + hits since)``; the stretch is
    worth ``BARE_SHARE`` and that chance of the rest, integrated. Before the first look nothing is
    known and nothing is taken off.

    References
    ----------
    Kalbfleisch, J.D., Prentice, R.L. (2002). The Statistical Analysis of Failure Time Data, 2nd
    ed., ch. 2: a constant hazard. From memory.
    """
    cuts = [start_s, *(t for t in (*looks, *hits) if start_s < t < end_s), end_s]
    cuts.sort()
    worth = 0.0
    for first, last in pairwise(cuts):
        minutes = (last - first) / 60.0
        seen = bisect_right(looks, first)
        if not seen:
            worth += minutes
            continue
        look = looks[seen - 1]
        # A hit at the very moment is of the stretch that follows it.
        bites = bisect_right(hits, first) - bisect_left(hits, look)
        age = (first - look) / 60.0
        rate = math.log(2.0) / BAIT_HALF_MIN
        on = 0.5**bites * math.exp(-rate * age) * (1.0 - math.exp(-rate * minutes)) / rate
        worth += BARE_SHARE * minutes + (1.0 - BARE_SHARE) * on
    return worth


def stint_minutes(
    stint: Stint, start_s: float, end_s: float, *, looks: Sequence[float], hits: Sequence[float]
) -> float:
    """Return how many minutes a stint fished in earnest between two times.

    Parameters
    ----------
    stint : Stint
        A rod fishing one recipe.
    start_s, end_s : float
        The times, s.
    looks, hits : sequence of float
        When the rod's bait was looked at and when it was hit, rising, s.

    Returns
    -------
    float
        All of them where no bait was on.
    """
    first = max(stint.start_s, start_s)
    last = end_s if stint.end_s is None else min(stint.end_s, end_s)
    if last <= first:
        return 0.0
    if stint.setup.bait_id is None:
        return (last - first) / 60.0
    return baited_minutes(start_s=first, end_s=last, looks=looks, hits=hits)
