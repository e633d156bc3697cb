"""Sonar marks: where the fish have been seen of late, and how to fish them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ..constants import FOOT_M
from ..record.state import TimedMark, TripState

RECENT_S: Final = 40.0 * 60.0
"""How long a mark says where fish are: judged, from fish moving with light and temperature."""
SCHOOL_M: Final = 6.0 * FOOT_M
"""Marks within this of each other in depth are fished as one: judged, twice the 3 ft step by
which depth is changed (common practice)."""
SHALLOWEST_M: Final = 0.3
NEAR_MARK_M: Final = 3.0 * FOOT_M
"""A change of no more than 3 ft may be all it takes (common practice)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class MarkedBand:
    """Where most of the recent fish were.

    Parameters
    ----------
    depth_m : float
        Mean depth, weighted by fish, m.
    count : int
        Fish counted.
    latest_s : float
        Time of the last of them, seconds since 1970-01-01 UTC.
    """

    depth_m: float
    count: int
    latest_s: float


def recent_marks(marks: Sequence[TimedMark], now_s: float) -> list[TimedMark]:
    """Return the marks still worth fishing.

    Parameters
    ----------
    marks : sequence of TimedMark
        All marks.
    now_s : float
        Seconds since 1970-01-01 UTC.

    Returns
    -------
    list of TimedMark
    """
    return [mark for mark in marks if 0.0 <= now_s - mark.at_s <= RECENT_S]


def marked_bands(marks: Sequence[TimedMark], now_s: float) -> list[MarkedBand]:
    """Return where the recent fish were, the band with most fish first.

    Parameters
    ----------
    marks : sequence of TimedMark
        All marks.
    now_s : float
        Seconds since 1970-01-01 UTC.

    Returns
    -------
    list of MarkedBand

    Notes
    -----
    Marks in order of depth are split wherever a band would grow wider than SCHOOL_M.
    """
    ordered = sorted(recent_marks(marks, now_s), key=lambda m: (m.mark.depth_m, m.event_id))
    groups: list[list[TimedMark]] = []
    for mark in ordered:
        if groups and mark.mark.depth_m - groups[-1][0].mark.depth_m <= SCHOOL_M:
            groups[-1].append(mark)
        else:
            groups.append([mark])
    bands = []
    for group in groups:
        count = sum(m.mark.count for m in group)
        bands.append(MarkedBand(
            depth_m=sum(m.mark.depth_m * m.mark.count for m in group) / count,
            count=count,
            latest_s=max(m.at_s for m in group),
        ))
    return sorted(bands, key=lambda band: (-band.count, -band.latest_s))


def depth_to_fish(
    mark_depth_m: float, *, above_mark_m: float, bottom_m: float, clear_m: float = 0.0
) -> float:
    """Return the depth at which to run a lure for a mark.

    Parameters
    ----------
    mark_depth_m : float
        Depth of the fish, m.
    above_mark_m : float
        How far above the fish the user runs lures, m.
    bottom_m : float
        Depth of the bottom, m.
    clear_m : float
        What lures are kept off the bottom, m: it holds for fish tight to it too.

    Returns
    -------
    float
        Depth, m: above is fine, below the fish is useless (common practice); never in the bottom,
        and just under the surface for a fish shallower than the offset.

    Examples
    --------
    >>> round(depth_to_fish(14.0, above_mark_m=0.6, bottom_m=40.0), 2)
    13.4
    """
    return min(
        max(mark_depth_m - above_mark_m, SHALLOWEST_M), _lowest_m(bottom_m, clear_m)
    )


def _lowest_m(bottom_m: float, clear_m: float) -> float:
    return max(bottom_m - clear_m, min(SHALLOWEST_M, bottom_m))


def lowest_m(state: TripState, bottom_m: float) -> float:
    """Return how deep this trip runs a lure at most, of lines that a number sets.

    Parameters
    ----------
    state : TripState
        The trip: species and clearance.
    bottom_m : float
        The shallowest bottom that it passes over, m.

    Returns
    -------
    float
        Depth, m.
    """
    return _lowest_m(bottom_m, state.clearance_m)


def run_at_m(state: TripState, mark_depth_m: float) -> float:
    """Return the depth at which this trip runs a lure for a mark.

    Parameters
    ----------
    state : TripState
        The trip: species, school, bottom.
    mark_depth_m : float
        Depth of the fish, m.

    Returns
    -------
    float
        Depth, m. Striped bass are fished near the bottom; for the others lures stay clear of it.
    """
    return depth_to_fish(
        mark_depth_m, above_mark_m=state.above_mark_m, bottom_m=state.bottom_m,
        clear_m=state.clearance_m,
    )


def mark_targets(state: TripState, bands: Sequence[MarkedBand]) -> list[float]:
    """Return the depths at which lures would be run for the marked bands.

    Parameters
    ----------
    state : TripState
        For the user's offset and the bottom.
    bands : sequence of MarkedBand
        Recent marks.

    Returns
    -------
    list of float
        Depths, m.
    """
    return [run_at_m(state, band.depth_m) for band in bands]
