"""How deep the water was where the boat fished, by its soundings."""

from __future__ import annotations

import math
from bisect import bisect_left, bisect_right
from operator import itemgetter

from ..evidence.bed import FISHED_MIN, BedFished, bed_of
from ..evidence.day_model import STEP_MIN
from .now import Now
from .pieces import STEP_S


def bed_between(now: Now, since_s: float, until_s: float) -> float:
    """Return how deep the water was in a spell.

    Parameters
    ----------
    now : Now
        The trip.
    since_s, until_s : float
        The spell, seconds since 1970-01-01 UTC.

    Returns
    -------
    float
        Mean of the soundings in it, m; else the last before it, or what the trip began with.
    """
    soundings = now.state.soundings
    first = bisect_left(soundings, since_s, key=itemgetter(0))
    last = bisect_right(soundings, until_s, key=itemgetter(0))
    if last > first:
        return math.fsum(bottom_m for _, bottom_m, _ in soundings[first:last]) / (last - first)
    return soundings[first - 1][1] if first else now.trip.bottom_m


def bed_fished(now: Now, now_s: float) -> BedFished:
    """Return the bed of the last hour, as far as lures were in the water.

    Parameters
    ----------
    now : Now
        The trip.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    BedFished
    """
    # Not the shallows of the ramp, over which nothing was fished.
    begun_s = min((stint.start_s for stint in now.state.stints), default=now_s)
    spells = min(int(FISHED_MIN / STEP_MIN), max(math.ceil((now_s - begun_s) / STEP_S), 1))
    return bed_of([
        bed_between(now, now_s - STEP_S * (back + 1), now_s - STEP_S * back)
        for back in range(spells)
    ])
