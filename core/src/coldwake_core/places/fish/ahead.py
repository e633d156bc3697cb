"""The bottom along the track ahead: which lure or ball meets it, when, and what to do."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final, Literal

from ...advice.method import is_by_the_bed
from ...errors import CoreError
from ...lines.doubt import DOUBT_QUANTILE
from ...record.state import TripState
from ...trip.now import Now
from ...trip.numbers import LineNumber, RodLine
from ...trip.track import Track, ground_speed_mps, track_at
from .view import AheadView, BottomCall, BottomPoint, RodView, Sure

FARTHEST_M: Final = 400.0
"""How far ahead of the boat is looked: at 2 mph, seven minutes."""
STEP_M: Final = 8.0
MEETS, LIKELY, MAY = 0.8, 0.5, 0.2
"""From these chances on a lure is said to meet the bottom, to be likely to, to perhaps touch it."""
OFF_BOTTOM_M: Final = 0.5
"""A ball meant to touch bottom is off it when this far above (judged)."""
PAST_LEDGE_M: Final = 1.0
"""A ledge is past where the bottom has fallen this far below its top: the top decides how far to
raise, or the call would come again and again on the way up."""
SOON_S, WORTH_S = 90.0, 300.0
"""What comes within a minute and a half is done at once; beyond five nobody acts yet (judged)."""
NEAR_S: Final = 120.0
"""A rod is set to nothing that it would have to be raised from within two minutes (judged)."""
RAISE_STEP_M: Final = 0.3
LEAST_SD_M: Final = 0.1
"""No depth is surer than this: waves and the boat's pitch (judged)."""
SLACK_M: Final = 0.15
"""The number called clears by this much more, or the next second would call again."""


def look_ahead(now: Now, rods: Sequence[RodView], now_s: float) -> AheadView | None:
    """Return the bottom along the track and who meets it.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    rods : sequence of RodView
        All rods.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    AheadView or None
        None where neither chart and place nor a sounding tell of the bottom.

    Notes
    -----
    The boat holds its course and speed and every lure follows in its track; the current is taken
    as it was noted. A chart is never surer than the last sounding: its difference from the chart at
    the place it was made is added to all charted depths.
    """
    ground = ground_speed_mps(now)
    track = track_at(now, now_s, ground)
    if track is None:
        return None
    if not track.known:
        return AheadView(
            source=track.source, age_s=max(track.age_s, 0.0), ground_mps=ground, level_m=0.0,
            profile=(), calls=(), known=False,
            place_doubt_m=None if track.doubt is None else track.doubt.radius_m,
        )
    out = [rod for rod in rods if rod.line is not None]
    trails = [_behind(rod, rod.line.trail_m) for rod in out if rod.line is not None]
    start = -STEP_M * math.ceil(max(trails, default=0.0) / STEP_M) - STEP_M
    profile = tuple(_profile(track, start))
    bed = _Bed(profile, tuple(_might_be(track, profile)))
    calls = [call for rod in out for call in _calls(now, rod, bed, ground)]
    return AheadView(
        source=track.source, age_s=max(track.age_s, 0.0), ground_mps=ground,
        level_m=track.level_m, profile=profile,
        calls=tuple(sorted(calls, key=lambda call: (call.in_s, call.rod_id))), known=True,
        place_doubt_m=None if track.doubt is None else track.doubt.radius_m,
    )


def over_the_track(
    rods: Sequence[RodView], ahead: AheadView | None, *, deepest_m: float
) -> tuple[RodView, ...]:
    """Return the rods with their clearance taken over the bottom that is under each of them.

    Parameters
    ----------
    rods : sequence of RodView
        All rods, their clearance by the last sounding.
    ahead : AheadView or None
        The bottom along the track.
    deepest_m : float
        Greatest depth known of the water, m.

    Returns
    -------
    tuple of RodView
        As they came where no chart tells more than the sounding; without a clearance where the
        place, or the sounding, is too old to tell.
    """
    if ahead is not None and not ahead.known:
        return tuple(_unknown(rod, deepest_m) for rod in rods)
    if ahead is None or ahead.source != "chart":
        return tuple(rods)
    return tuple(_over(rod, ahead.profile) for rod in rods)


def _unknown(rod: RodView, deepest_m: float) -> RodView:
    """Nothing is said of the bottom under a rod, unless there is no such depth in the water."""
    line = rod.line
    if line is None:
        return rod
    left = deepest_m - max(line.depth_m, line.ball_depth_m or 0.0)
    return replace(rod, line=replace(line, clearance_m=left if left < 0.0 else None))


def _over(rod: RodView, profile: Sequence[BottomPoint]) -> RodView:
    line = rod.line
    if line is None or not profile:
        return rod
    clear = [_under(profile, _behind(rod, line.trail_m)) - line.depth_m]
    if line.ball_depth_m is not None and line.ball_trail_m is not None:
        clear.append(_under(profile, _behind(rod, line.ball_trail_m)) - line.ball_depth_m)
    return replace(rod, line=replace(line, clearance_m=min(clear)))


def bottom_here_m(ahead: AheadView | None, state: TripState) -> float:
    """Return the depth of the bottom under the boat, as far as it is known.

    Parameters
    ----------
    ahead : AheadView or None
        The bottom along the track.
    state : TripState
        State of the trip.

    Returns
    -------
    float
        Depth, m; the deepest of the water where nothing nearer is known.
    """
    if ahead is None:
        return state.bottom_m
    if not ahead.known:
        return state.deepest_m
    return _under(ahead.profile, 0.0) if ahead.profile else state.bottom_m


def shallowest_m(ahead: AheadView | None, state: TripState) -> float:
    """Return the shallowest bottom under the lines and on the way of the next NEAR_S.

    Parameters
    ----------
    ahead : AheadView or None
        The bottom along the track.
    state : TripState
        State of the trip.

    Returns
    -------
    float
        Depth, m; what was sounded last where nothing nearer is known. A course held for longer
        runs into every shore: who comes near one turns. So does one reckoned on from an old place.
    """
    if ahead is None or not ahead.profile or ahead.age_s > NEAR_S:
        return state.bottom_m
    near = NEAR_S * ahead.ground_mps
    return min(
        (point.bottom_m for point in ahead.profile if point.ahead_m <= near),
        default=state.bottom_m,
    )


def _under(profile: Sequence[BottomPoint], behind_m: float) -> float:
    return min(profile, key=lambda point: abs(point.ahead_m + behind_m)).bottom_m


def _behind(rod: RodView, trail_m: float) -> float:
    return max(trail_m + rod.aft_m, 0.0)


def _profile(track: Track, start_m: float) -> Iterator[BottomPoint]:
    steps = int((FARTHEST_M - start_m) / STEP_M)
    for index in range(steps + 1):
        ahead = start_m + index * STEP_M
        bottom = track.at(ahead)
        if bottom is not None:
            yield BottomPoint(ahead_m=ahead, bottom_m=bottom)


@dataclass(frozen=True, slots=True)
class _Bed:
    """The bottom along the track as charted, and what it may as well be at each point."""

    profile: tuple[BottomPoint, ...]
    might_be: tuple[tuple[float, ...], ...]

    def chance(self, index: int, depth_m: float, sd_m: float) -> float:
        """Probability that something at a depth, with its standard error, meets the bottom."""
        bottoms, scale = self.might_be[index], sd_m * math.sqrt(2.0)
        return 0.5 * math.fsum(
            math.erfc((bottom - depth_m) / scale) for bottom in bottoms
        ) / len(bottoms)


# Middles of equal shares of a normal variable, in standard errors: a ledge is a step, and a rule
# for smooth functions would give it the weight of its farthest point or none.
_FIVE: Final = (-1.2816, -0.5244, 0.0, 0.5244, 1.2816)
_THREE: Final = (-0.9674, 0.0, 0.9674)


def _might_be(track: Track, profile: Sequence[BottomPoint]) -> Iterator[tuple[float, ...]]:
    """Depths that the bottom may as well have at each point, all equally likely."""
    if track.doubt is None:
        for point in profile:
            yield tuple(point.bottom_m + z * track.bottom_sd_m for z in _FIVE)
        return
    beside = [
        [point.bottom_m for point in profile] if z == 0.0 else [
            point.bottom_m if found is None else found
            for point in profile
            for found in (track.at(point.ahead_m, z * track.doubt.across_m),)
        ]
        for z in _FIVE
    ]
    last = len(profile) - 1
    steps = [round(z * track.doubt.along_m / STEP_M) for z in _THREE]
    for index in range(len(profile)):
        places = [min(max(index + step, 0), last) for step in steps]
        yield tuple(bottoms[place] for bottoms in beside for place in places)


def _calls(
    now: Now, rod: RodView, bed: _Bed, ground_mps: float
) -> Iterator[BottomCall]:
    line = rod.line
    assert line is not None
    parts: list[tuple[Literal["lure", "ball"], float, float]] = [
        ("lure", line.depth_m, _behind(rod, line.trail_m))
    ]
    if line.ball_depth_m is not None and line.ball_trail_m is not None:
        parts.append(("ball", line.ball_depth_m, _behind(rod, line.ball_trail_m)))
    if rod.bottom_tap:
        yield from _tap_call(now, rod, line, parts[-1], bed.profile)
        return
    # The deeper side of the band, which is the longer one: that is what meets the bottom.
    deeper = 0.0 if line.deep_m is None else line.deep_m - line.depth_m
    sd = max(deeper / DOUBT_QUANTILE, LEAST_SD_M)
    met = []
    for part, depth, behind in parts:
        # The ball on a cable belongs to the rod clipped lowest.
        if part == "ball" and line.number.above_ball_m > 0.0:
            continue
        call = _meeting(now, rod, part, depth, sd, behind, bed, ground_mps)
        if call is not None:
            met.append(call)
    if met:
        # The first to meet it says when; the one that needs most says how far.
        soonest = min(met, key=lambda call: (call.in_s, -call.by_m))
        by = max(call.by_m for call in met)
        number = _number(now, line, line.depth_m - by - SLACK_M)
        yield replace(
            soonest, by_m=by, number=number, act="bring_in" if number is None else "raise"
        )


def _meeting(
    now: Now, rod: RodView, part: Literal["lure", "ball"], depth_m: float, sd_m: float,
    behind_m: float, bed: _Bed, ground_mps: float,
) -> BottomCall | None:
    margin = now.state.clearance_m
    # A plug that is meant to tick along the bed may always touch it: that is no news.
    least = LIKELY if is_by_the_bed(now.trip.species) else MAY
    first = 0
    while first < len(bed.profile) and bed.profile[first].ahead_m < -behind_m:
        first += 1
    for index in range(first, len(bed.profile)):
        # By the chart it comes nearer than is wanted, or by all that is in doubt it may touch.
        if bed.profile[index].bottom_m < depth_m + margin:
            break
        if bed.chance(index, depth_m, sd_m) >= least:
            break
    else:
        return None
    point = bed.profile[index]
    bottoms = [p.bottom_m for p in bed.profile[index:]]
    shallowest = _top_of_ledge(bottoms)
    top = index + bottoms.index(shallowest)
    distance = max(point.ahead_m + behind_m, 0.0)
    # Nearest point already below the lure counts as now, not as a step ago.
    seconds = 0.0 if distance < STEP_M else distance / max(ground_mps, 0.05)
    over = range(index, top + 1)
    chance = max(bed.chance(i, depth_m, sd_m) for i in over)
    by = depth_m + margin - shallowest
    # Clear by the chart: then as much as makes a touch less likely than it is called at.
    while by <= 0.0 or max(bed.chance(i, depth_m - by, sd_m) for i in over) >= least:
        by = max(by, 0.0) + max(RAISE_STEP_M, 0.05 * depth_m)
    return BottomCall(
        rod_id=rod.id, part=part, act="raise", in_s=seconds,
        in_m=0.0 if seconds == 0.0 else distance, by_m=by, bottom_m=shallowest, number=None,
        chance=chance, sure=_sure(chance), urgency=_urgency(seconds),
    )


def _urgency(in_s: float) -> Literal["soon", "ahead", "later"]:
    if in_s < SOON_S:
        return "soon"
    return "ahead" if in_s < WORTH_S else "later"


def _sure(chance: float) -> Sure:
    if chance >= MEETS:
        return "meets"
    if chance >= LIKELY:
        return "likely"
    return "may" if chance >= MAY else "near"


def _top_of_ledge(bottoms_m: Sequence[float]) -> float:
    """The shallowest of a rise, m, until the bottom falls away again."""
    top = bottoms_m[0]
    for bottom in bottoms_m:
        if bottom > top + PAST_LEDGE_M:
            break
        top = min(top, bottom)
    return top


def _tap_call(
    now: Now, rod: RodView, line: RodLine,
    part: tuple[Literal["lure", "ball"], float, float], profile: Sequence[BottomPoint],
) -> Iterator[BottomCall]:
    """A ball meant to tap sand: say when it has lost the bottom, or is dragged in it."""
    name, depth, behind = part
    under = min(profile, key=lambda p: abs(p.ahead_m + behind), default=None)
    if under is None:
        return
    off = under.bottom_m - depth
    if -OFF_BOTTOM_M <= off <= OFF_BOTTOM_M:
        return
    yield BottomCall(
        rod_id=rod.id, part=name, act="let_down" if off > 0.0 else "raise", in_s=0.0, in_m=0.0,
        by_m=abs(off), bottom_m=under.bottom_m,
        number=_number(now, line, line.depth_m + off), chance=1.0, sure="meets",
        urgency="soon",
    )


def _number(now: Now, line: RodLine, depth_m: float) -> LineNumber | None:
    """The number that puts the lure there, or none where the tackle cannot."""
    if depth_m <= 0.3:
        return None
    try:
        return now.lines.reach(rod_id=line.rod_id, depth_m=depth_m)
    except CoreError:
        return None
