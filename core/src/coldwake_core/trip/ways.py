"""What lies ahead of the boat and behind it, by what the record met along the track."""

from __future__ import annotations

from bisect import bisect_right
from collections import Counter
from itertools import pairwise
from typing import Final

from ..advice.situation import Ways
from ..advice.turning import AHEAD_MIN
from ..chart.grid import GeoPoint, moved, offset_m
from ..evidence.ground import Ground
from .now import Now
from .spots import LONGEST_GAP_S, MINUTE_S, Passed, spots
from .track import boat_place, ground_speed_mps

LEAST_BACK_MIN: Final = 6
"""A shorter way behind is no way to go back."""
MOST_MIN: Final = 600
"""Ten hours of track; what was before is forgotten by then."""


def ways(now: Now, now_s: float) -> Ways | None:
    """Return what the way on and the way back hold.

    Parameters
    ----------
    now : Now
        The trip.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    Ways or None
        None where the boat's place or its way of the last minutes is not known.

    Notes
    -----
    The way on is the course held; the way back is the track. Marks and hits of each minute lie
    where the boat was then: a lure trails it by less than Ground.REACH_M.
    """
    speed = ground_speed_mps(now)
    here = boat_place(now.state, now_s, speed)
    if here is None or now.state.fix is None:
        return None
    track = _track(now, now_s)
    count = len(track)
    # Newest first, as one goes back; it ends where a gap begins.
    back = list(range(count - 1, -1, -1))[:AHEAD_MIN]
    gap = next(
        (i for i, (a, b) in enumerate(pairwise(back), start=1)
         if track[a][0] - track[b][0] > LONGEST_GAP_S), len(back)
    )
    back = back[:gap]
    if len(back) < LEAST_BACK_MIN or now_s - track[-1][0] > LONGEST_GAP_S:
        return None
    marks: Counter[int] = Counter()
    for timed in now.state.marks:
        marks[int(timed.at_s // MINUTE_S)] += timed.mark.count
    hits = Counter(
        int(at_s // MINUTE_S) for at_s, _, kind in now.state.bites if kind == "hit"
    )
    ground = Ground()
    passed = [
        Passed(
            at_s=at_s, place=place, flat=offset_m(here, place), marks=marks[int(at_s // MINUTE_S)],
            hits=hits[int(at_s // MINUTE_S)],
        )
        for at_s, place in track
    ]
    for one in passed:
        ground.pass_by(
            at_min=one.at_s / MINUTE_S, east_m=one.flat[0], north_m=one.flat[1], minutes=1.0,
            marks=one.marks, hits=one.hits,
        )
    course = now.state.fix[1].course_deg
    on = [
        offset_m(here, moved(here, course_deg=course, distance_m=speed * MINUTE_S * i))
        for i in range(1, AHEAD_MIN + 1)
    ]
    held = ground.holds(at_min=now_s / MINUTE_S, places=[*on, *(passed[i].flat for i in back)])
    # Of a track that ends sooner nothing is known beyond.
    behind = (*held[AHEAD_MIN:], *[1.0] * (AHEAD_MIN - len(back)))
    return Ways(
        ahead=tuple(held[:AHEAD_MIN]), back=behind, back_deg=(course + 180.0) % 360.0,
        spots=spots(now, here, passed, ground, now_s),
    )


def _track(now: Now, now_s: float) -> list[tuple[float, GeoPoint]]:
    """A place a minute, where one was noted within it."""
    fixes = now.state.fixes
    found = []
    last = bisect_right(fixes, now_s, key=lambda fix: fix[0])
    first = bisect_right(fixes, now_s - MOST_MIN * MINUTE_S, key=lambda fix: fix[0])
    minute = -1
    for at_s, fix in fixes[first:last]:
        if int(at_s // MINUTE_S) != minute:
            minute = int(at_s // MINUTE_S)
            found.append((at_s, GeoPoint(
                latitude_deg=fix.latitude_deg, longitude_deg=fix.longitude_deg
            )))
    return found
