"""The bottom along the boat's track: by the chart and the place, or level by the last sounding."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final, Literal

from ..boat.current import ground_speed_on_course
from ..boat.reckoning import PlaceDoubt, place_doubt
from ..chart.grid import DepthGrid, GeoPoint, moved
from ..record.payloads import PositionFixed
from ..record.state import TripState
from .now import Now
from .numbers import RodLine

LEVEL_WITHIN_S: Final = 120.0
"""A sounding tells today's water level against the chart if the place was known then."""
SOUNDING_KNOWN_S: Final = 600.0
"""A sounding says what is under a boat under way for ten minutes at most (judged)."""
SLOPE: Final = 0.02
"""How fast the bottom may leave the depth sounded, metre for metre of way (judged: gentle beds)."""

Bed = Callable[[float, float], float]
"""Depth of the bottom, m, under a point (behind the transom, to starboard), m."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Track:
    """The bottom along the track: by the chart, or level by the last sounding.

    Parameters
    ----------
    source : {'chart', 'sounding'}
        Where it is known from.
    age_s : float
        Age of the fix or the sounding, s.
    level_m, bottom_m : float
        What soundings add to the chart today, and the last of them, m.
    known : bool
        Whether fix or sounding are fresh enough to tell.
    doubt : PlaceDoubt or None
        How far off the place may be; None by a sounding.
    bottom_sd_m : float
        Standard error of a bottom taken as level, m.
    chart, place, course_deg : DepthGrid, GeoPoint and float
        The chart, where the boat is reckoned to be, and its course, degrees from north.
    """

    source: Literal["chart", "sounding"]
    age_s: float
    level_m: float
    bottom_m: float
    known: bool
    doubt: PlaceDoubt | None = None
    bottom_sd_m: float = 0.0
    chart: DepthGrid | None = None
    place: GeoPoint | None = None
    course_deg: float = 0.0

    def at(self, ahead_m: float, side_m: float = 0.0) -> float | None:
        """Return the bottom at a point of the track.

        Parameters
        ----------
        ahead_m, side_m : float
            Distance ahead of the boat and to starboard of the track, m.

        Returns
        -------
        float or None
            Depth, m; None off the chart.
        """
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
    if state.fix is None or not _doubt_of(state.fix, at_s, ground_mps).is_known:
        return None
    return _reckoned(state.fix, at_s, ground_mps)


def _doubt_of(fix: tuple[float, PositionFixed], at_s: float, ground_mps: float) -> PlaceDoubt:
    return place_doubt(age_s=at_s - fix[0], ground_mps=ground_mps)


def track_at(now: Now, now_s: float, ground_mps: float) -> Track | None:
    """Return what is known of the bottom along the track at a moment.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    now_s : float
        Seconds since 1970-01-01 UTC.
    ground_mps : float
        Speed over ground, m/s.

    Returns
    -------
    Track or None
        None where neither chart and place nor a sounding ever told.
    """
    state, chart = now.state, now.trip.chart
    if chart is not None and state.fix is not None:
        place = _reckoned(state.fix, now_s, ground_mps)
        doubt = _doubt_of(state.fix, now_s, ground_mps)
        # A place that has been lost is told as lost; an older sounding knows no better.
        if chart.depth_m(place) is not None or not doubt.is_known:
            return Track(
                source="chart", age_s=now_s - state.fix[0], known=doubt.is_known, doubt=doubt,
                level_m=_level_m(state, chart, ground_mps), bottom_m=state.bottom_m, chart=chart,
                place=place, course_deg=state.fix[1].course_deg,
            )
    if state.sounded_at_s is None:
        return None
    age = now_s - state.sounded_at_s
    return Track(
        source="sounding", age_s=age, known=abs(age) <= SOUNDING_KNOWN_S, level_m=0.0,
        bottom_m=state.bottom_m, bottom_sd_m=SLOPE * ground_mps * abs(age),
    )


def _level_m(state: TripState, chart: DepthGrid, ground_mps: float) -> float:
    """What the last sounding adds to the chart: reservoirs are drawn down, rivers rise."""
    if state.sounded_at_s is None or state.sounded_fix is None:
        return 0.0
    if abs(state.sounded_at_s - state.sounded_fix[0]) > LEVEL_WITHIN_S:
        return 0.0
    charted = chart.depth_m(_reckoned(state.sounded_fix, state.sounded_at_s, ground_mps))
    return 0.0 if charted is None else state.bottom_m - charted


def bed_around(now: Now, now_s: float | None) -> Bed:
    """Return the bottom around the boat: by the chart where it tells, else by the last sounding.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    now_s : float or None
        The moment, seconds since 1970-01-01 UTC; None leaves the chart out.

    Returns
    -------
    Bed
        The deepest of the water where the last place or sounding is too old to tell.
    """
    track = None if now_s is None else track_at(now, now_s, ground_speed_mps(now))
    state = now.state
    # Where nothing is known of the bottom here, only the deepest of the water is sure.
    lost = track is not None and not track.known
    otherwise = state.deepest_m if lost else state.bottom_m

    def under(behind_m: float, side_m: float) -> float:
        depth = None if track is None or lost else track.at(-behind_m, side_m)
        return otherwise if depth is None else depth

    return under


def ground_speed_mps(now: Now) -> float:
    """Return the speed over ground on the course that was told last.

    Parameters
    ----------
    now : Now
        The trip as it stands.

    Returns
    -------
    float
        m/s.
    """
    course = now.state.fix[1].course_deg if now.state.fix is not None else 0.0
    return ground_speed_on_course(
        through_water_mps=now.speed_mps, course_deg=course, current=now.state.current
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
