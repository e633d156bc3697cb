"""The bottom along the track ahead: which lure or ball meets it, when, and what to do."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final, Literal

from ..boat.current import ground_speed_on_course
from ..chart.grid import DepthGrid, GeoPoint, moved
from ..errors import CoreError
from ..record.payloads import PositionFixed
from ..record.state import TripState
from .lines import TripLines
from .numbers import LineNumber, RodLine
from .view import AheadView, BottomCall, BottomPoint, RodView

FARTHEST_M: Final = 400.0
"""How far ahead of the boat is looked: at 2 mph, seven minutes."""
STEP_M: Final = 8.0
OLDEST_FIX_S: Final = 900.0
"""A boat's place is reckoned on from a fix for a quarter of an hour at most (judged)."""
LEVEL_WITHIN_S: Final = 120.0
"""A sounding tells today's water level against the chart if the place was known then."""
OFF_BOTTOM_M: Final = 0.5
"""A ball meant to touch bottom is off it when this far above (judged)."""
PAST_LEDGE_M: Final = 1.0
"""A ledge is past where the bottom has fallen this far below its top: the top decides how far to
raise, or the call would come again and again on the way up."""
SLACK_M: Final = 0.15
"""The number called clears by this much more, or the next second would call again."""


Bed = Callable[[float, float], float]
"""Depth of the bottom, m, under a point (behind the transom, to starboard), m."""


@dataclass(frozen=True, slots=True, kw_only=True)
class _Track:
    """The bottom along the track: by the chart, or level by the last sounding."""

    source: Literal["chart", "sounding"]
    age_s: float
    level_m: float
    bottom_m: float
    chart: DepthGrid | None = None
    place: GeoPoint | None = None
    course_deg: float = 0.0

    def at(self, ahead_m: float, side_m: float = 0.0) -> float | None:
        if self.chart is None or self.place is None:
            return self.bottom_m
        there = moved(self.place, course_deg=self.course_deg, distance_m=ahead_m)
        if side_m != 0.0:
            there = moved(there, course_deg=self.course_deg + 90.0, distance_m=side_m)
        depth = self.chart.depth_m(there)
        return None if depth is None else max(depth + self.level_m, 0.0)


def _reckoned(fix: tuple[float, PositionFixed], at_s: float, ground_mps: float) -> GeoPoint:
    fixed_at, place = fix
    return moved(
        GeoPoint(latitude_deg=place.latitude_deg, longitude_deg=place.longitude_deg),
        course_deg=place.course_deg, distance_m=ground_mps * (at_s - fixed_at),
    )


def boat_place(state: TripState, at_s: float, ground_mps: float) -> GeoPoint | None:
    """Return where the boat is, reckoned on from its last fix.

    Parameters
    ----------
    state : TripState
        State of the trip.
    at_s : float
        The moment, seconds since 1970-01-01 UTC.
    ground_mps : float
        Speed over ground, m/s.

    Returns
    -------
    GeoPoint or None
        None without a fix, or with one too old to reckon on from.
    """
    if state.fix is None or abs(at_s - state.fix[0]) > OLDEST_FIX_S:
        return None
    return _reckoned(state.fix, at_s, ground_mps)


def _track(lines: TripLines, now_s: float, ground_mps: float) -> _Track | None:
    state, chart = lines.state, lines.trip.chart
    place = boat_place(state, now_s, ground_mps)
    charted = chart is not None and place is not None and chart.depth_m(place) is not None
    if charted and chart is not None and state.fix is not None:
        return _Track(
            source="chart", age_s=now_s - state.fix[0],
            level_m=_level_m(state, chart, ground_mps), bottom_m=state.bottom_m, chart=chart,
            place=place, course_deg=state.fix[1].course_deg,
        )
    if state.sounded_at_s is None:
        return None
    return _Track(
        source="sounding", age_s=now_s - state.sounded_at_s, level_m=0.0, bottom_m=state.bottom_m
    )


def _level_m(state: TripState, chart: DepthGrid, ground_mps: float) -> float:
    """What the last sounding adds to the chart: reservoirs are drawn down, rivers rise."""
    if state.sounded_at_s is None or state.sounded_fix is None:
        return 0.0
    if abs(state.sounded_at_s - state.sounded_fix[0]) > LEVEL_WITHIN_S:
        return 0.0
    charted = chart.depth_m(_reckoned(state.sounded_fix, state.sounded_at_s, ground_mps))
    return 0.0 if charted is None else state.bottom_m - charted


def bed_around(lines: TripLines, now_s: float | None) -> Bed:
    """Return the bottom around the boat: by the chart where it tells, else by the last sounding.

    Parameters
    ----------
    lines : TripLines
        The trip's lines.
    now_s : float or None
        The moment, seconds since 1970-01-01 UTC; None leaves the chart out.

    Returns
    -------
    Bed
    """
    track = None if now_s is None else _track(lines, now_s, _ground_mps(lines))

    def under(behind_m: float, side_m: float) -> float:
        depth = None if track is None else track.at(-behind_m, side_m)
        return lines.state.bottom_m if depth is None else depth

    return under


def _ground_mps(lines: TripLines) -> float:
    course = lines.state.fix[1].course_deg if lines.state.fix is not None else 0.0
    return ground_speed_on_course(
        through_water_mps=lines.speed_mps, course_deg=course, current=lines.state.current
    )


def clearance_over(
    bed: Bed, line: RodLine, *, tip_side_m: float, behind_m: float, side_m: float
) -> float:
    """Return what lies between a lure, or its ball, and the bottom under each of them.

    Parameters
    ----------
    bed : Bed
        The bottom.
    line : RodLine
        Where lure and ball are.
    tip_side_m : float
        Lateral place of rod tip or boom, m.
    behind_m, side_m : float
        Place of the lure seen from the transom, m.

    Returns
    -------
    float
        The smaller clearance, m.
    """
    clear = bed(behind_m, side_m) - line.depth_m
    if line.ball_depth_m is None or line.ball_trail_m is None:
        return clear
    share = line.ball_trail_m / line.trail_m if line.trail_m > 0.0 else 1.0
    under = bed(share * behind_m, tip_side_m + share * (side_m - tip_side_m))
    return min(clear, under - line.ball_depth_m)


def look_ahead(lines: TripLines, rods: Sequence[RodView], now_s: float) -> AheadView | None:
    """Return the bottom along the track and who meets it.

    Parameters
    ----------
    lines : TripLines
        The trip's lines.
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
    ground = _ground_mps(lines)
    track = _track(lines, now_s, ground)
    if track is None:
        return None
    out = [rod for rod in rods if rod.line is not None]
    trails = [_behind(rod, rod.line.trail_m) for rod in out if rod.line is not None]
    start = -STEP_M * math.ceil(max(trails, default=0.0) / STEP_M) - STEP_M
    profile = tuple(_profile(track, start))
    calls = [call for rod in out for call in _calls(lines, rod, profile, ground)]
    return AheadView(
        source=track.source, age_s=max(track.age_s, 0.0), ground_mps=ground,
        level_m=track.level_m, profile=profile,
        calls=tuple(sorted(calls, key=lambda call: (call.in_s, call.rod_id))),
    )


def over_the_track(rods: Sequence[RodView], ahead: AheadView | None) -> tuple[RodView, ...]:
    """Return the rods with their clearance taken over the bottom that is under each of them.

    Parameters
    ----------
    rods : sequence of RodView
        All rods, their clearance by the last sounding.
    ahead : AheadView or None
        The bottom along the track.

    Returns
    -------
    tuple of RodView
        As they came where no chart tells more than the sounding.
    """
    if ahead is None or ahead.source != "chart":
        return tuple(rods)
    return tuple(_over(rod, ahead.profile) for rod in rods)


def _over(rod: RodView, profile: Sequence[BottomPoint]) -> RodView:
    line = rod.line
    if line is None or not profile:
        return rod
    clear = [_under(profile, _behind(rod, line.trail_m)) - line.depth_m]
    if line.ball_depth_m is not None and line.ball_trail_m is not None:
        clear.append(_under(profile, _behind(rod, line.ball_trail_m)) - line.ball_depth_m)
    return replace(rod, line=replace(line, clearance_m=min(clear)))


def _under(profile: Sequence[BottomPoint], behind_m: float) -> float:
    return min(profile, key=lambda point: abs(point.ahead_m + behind_m)).bottom_m


def _behind(rod: RodView, trail_m: float) -> float:
    return max(trail_m + rod.aft_m, 0.0)


def _profile(track: _Track, start_m: float) -> Iterator[BottomPoint]:
    steps = int((FARTHEST_M - start_m) / STEP_M)
    for index in range(steps + 1):
        ahead = start_m + index * STEP_M
        bottom = track.at(ahead)
        if bottom is not None:
            yield BottomPoint(ahead_m=ahead, bottom_m=bottom)


def _calls(
    lines: TripLines, rod: RodView, profile: Sequence[BottomPoint], ground_mps: float
) -> Iterator[BottomCall]:
    line = rod.line
    assert line is not None
    parts: list[tuple[Literal["lure", "ball"], float, float]] = [
        ("lure", line.depth_m, _behind(rod, line.trail_m))
    ]
    if line.ball_depth_m is not None and line.ball_trail_m is not None:
        parts.append(("ball", line.ball_depth_m, _behind(rod, line.ball_trail_m)))
    if rod.bottom_tap:
        yield from _tap_call(lines, rod, line, parts[-1], profile)
        return
    met = []
    for part, depth, behind in parts:
        # The ball on a cable belongs to the rod clipped lowest.
        if part == "ball" and line.number.above_ball_m > 0.0:
            continue
        call = _meeting(lines, rod, part, depth, behind, profile, ground_mps)
        if call is not None:
            met.append(call)
    if met:
        # The first to meet it says when; the one that needs most says how far.
        soonest = min(met, key=lambda call: (call.in_s, -call.by_m))
        by = max(call.by_m for call in met)
        number = _number(lines, line, line.depth_m - by - SLACK_M)
        yield replace(
            soonest, by_m=by, number=number, act="bring_in" if number is None else "raise"
        )


def _meeting(
    lines: TripLines, rod: RodView, part: Literal["lure", "ball"], depth_m: float, behind_m: float,
    profile: Sequence[BottomPoint], ground_mps: float,
) -> BottomCall | None:
    margin = lines.state.clearance_m
    ahead = [p for p in profile if p.ahead_m >= -behind_m]
    first = next((p for p in ahead if p.bottom_m < depth_m + margin), None)
    if first is None:
        return None
    shallowest = _top_of_ledge([p.bottom_m for p in ahead if p.ahead_m >= first.ahead_m])
    by = depth_m + margin - shallowest
    distance = max(first.ahead_m + behind_m, 0.0)
    # Nearest point already below the lure counts as now, not as a step ago.
    seconds = 0.0 if distance < STEP_M else distance / max(ground_mps, 0.05)
    return BottomCall(
        rod_id=rod.id, part=part, act="raise", in_s=seconds,
        in_m=0.0 if seconds == 0.0 else distance, by_m=by, bottom_m=shallowest, number=None,
    )


def _top_of_ledge(bottoms_m: Sequence[float]) -> float:
    """The shallowest of a rise, m, until the bottom falls away again."""
    top = bottoms_m[0]
    for bottom in bottoms_m:
        if bottom > top + PAST_LEDGE_M:
            break
        top = min(top, bottom)
    return top


def _tap_call(
    lines: TripLines, rod: RodView, line: RodLine,
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
        number=_number(lines, line, line.depth_m + off),
    )


def _number(lines: TripLines, line: RodLine, depth_m: float) -> LineNumber | None:
    """The number that puts the lure there, or none where the tackle cannot."""
    if depth_m <= 0.3:
        return None
    try:
        return lines.reach(rod_id=line.rod_id, depth_m=depth_m)
    except CoreError:
        return None
