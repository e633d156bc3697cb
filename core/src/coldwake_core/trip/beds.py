"""How deep the water was where the boat fished: by its soundings, else by chart and place."""

from __future__ import annotations

import math
from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from operator import itemgetter
from typing import Final

from ..chart.grid import GeoPoint
from ..evidence.bed import FISHED_MIN, BedFished, bed_of
from ..evidence.day_model import STEP_MIN
from .now import Now
from .pieces import STEP_S
from .track import LEVEL_WITHIN_S

PLACES: Final = 5
"""On so many places of a spell the chart is asked: one a minute."""


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
        Mean of the soundings in it, m; else what the chart says of its places, as much higher or
        lower as the last sounding before was; else that sounding, or what the trip began with.
    """
    soundings = now.state.soundings
    first = bisect_left(soundings, since_s, key=itemgetter(0))
    last = bisect_right(soundings, until_s, key=itemgetter(0))
    if last > first:
        return _mean([bottom_m for _, bottom_m, _ in soundings[first:last]])
    charted = _charted(now, since_s, until_s)
    if not charted:
        return soundings[first - 1][1] if first else now.trip.bottom_m
    level_m = _level_m(now, *soundings[first - 1][:2]) if first else 0.0
    return _mean([max(depth_m + level_m, 0.0) for depth_m in charted])


def _mean(depths_m: Sequence[float]) -> float:
    return math.fsum(depths_m) / len(depths_m)


def _charted(now: Now, since_s: float, until_s: float) -> list[float]:
    """What the chart says of places of a spell, m, the last first; none off it, or without one."""
    chart, fixes = now.trip.chart, now.state.fixes
    if chart is None:
        return []
    first = bisect_left(fixes, since_s, key=itemgetter(0))
    last = bisect_right(fixes, until_s, key=itemgetter(0))
    # From the last back: all day's spells are asked for again and again, and a few places do.
    apart = max((last - first) // PLACES, 1)
    found = (
        chart.depth_m(GeoPoint(latitude_deg=fix.latitude_deg, longitude_deg=fix.longitude_deg))
        for _, fix in fixes[first:last][::-apart]
    )
    return [depth_m for depth_m in found if depth_m is not None]


def _level_m(now: Now, sounded_s: float, bottom_m: float) -> float:
    """What a sounding adds to the chart, m: 0 where the place was not known then."""
    there = _charted(now, sounded_s - LEVEL_WITHIN_S, sounded_s)
    return bottom_m - there[0] if there else 0.0


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
