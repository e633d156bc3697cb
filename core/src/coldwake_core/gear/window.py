"""The common window: every lure shares the boat's speed, so all working ranges must overlap."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from .pieces import SpeedRange

Verdict = Literal["works", "too_slow", "too_fast"]


@dataclass(frozen=True, slots=True, kw_only=True)
class SpeedWindow:
    """Overlap of the working ranges of all that is out.

    Parameters
    ----------
    low_mps, high_mps : float
        Bounds of the overlap, m/s; low > high when there is none.
    is_open : bool
        Whether there is a speed that suits all.
    """

    low_mps: float
    high_mps: float
    is_open: bool


def shared_window(ranges: Sequence[SpeedRange]) -> SpeedWindow | None:
    """Return the overlap of working ranges.

    Parameters
    ----------
    ranges : sequence of SpeedRange
        One per rod that is out.

    Returns
    -------
    SpeedWindow or None
        None when nothing is out.

    Examples
    --------
    >>> window = shared_window([SpeedRange(low_mps=0.5, high_mps=0.8),
    ...                         SpeedRange(low_mps=0.6, high_mps=1.2)])
    >>> window.low_mps, window.high_mps, window.is_open
    (0.6, 0.8, True)
    """
    if not ranges:
        return None
    low, high = max(r.low_mps for r in ranges), min(r.high_mps for r in ranges)
    return SpeedWindow(low_mps=low, high_mps=high, is_open=low <= high)


def verdict(works: SpeedRange, speed_mps: float) -> Verdict:
    """Return whether something works at a speed.

    Parameters
    ----------
    works : SpeedRange
        Where it works.
    speed_mps : float
        Speed through water, m/s.

    Returns
    -------
    {'works', 'too_slow', 'too_fast'}

    Notes
    -----
    A thousandth of a m/s is allowed for figures converted from miles an hour.
    """
    if speed_mps < works.low_mps - 1e-3:
        return "too_slow"
    if speed_mps > works.high_mps + 1e-3:
        return "too_fast"
    return "works"
