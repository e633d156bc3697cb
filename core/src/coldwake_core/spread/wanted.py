"""The depths an opening spread should cover: where fish were marked, else the method's band."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ..advice.marks import lowest_m, mark_targets, marked_bands
from ..advice.method import Method, band_in
from ..constants import FOOT_M
from ..record.state import TripState

NEAR_M: Final = 3.0 * FOOT_M
"""A lure within 3 ft of a wanted depth runs at it (common practice: a change of 3 ft may do)."""
MOST_BANDS: Final = 3
_SEARCH_M: Final = (1.0, 4.0, 8.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class WantedDepth:
    """A depth where a lure is wanted.

    Parameters
    ----------
    depth_m : float
        The depth, m.
    worth : float
        How much, about 1.
    why : str
        In words.
    """

    depth_m: float
    worth: float
    why: str


def covers(wanted: WantedDepth, depth_m: float) -> bool:
    """Return whether a lure runs at a wanted depth.

    Parameters
    ----------
    wanted : WantedDepth
        The depth.
    depth_m : float
        Where the lure is, m.

    Returns
    -------
    bool
    """
    return abs(wanted.depth_m - depth_m) <= max(NEAR_M, 0.1 * wanted.depth_m)


def wanted_depths(
    state: TripState, method: Method | None, now_s: float
) -> tuple[WantedDepth, ...]:
    """Return the depths an opening spread should cover.

    Parameters
    ----------
    state : TripState
        Marks, bottom and the user's offset.
    method : Method or None
        Method of the hour.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    tuple of WantedDepth
        Marks first, the most fish first; then the top, middle and base of the method's band. Where
        neither speaks, a search from the top down.
    """
    deepest = max(lowest_m(state, state.bottom_m), 0.5)
    bands = marked_bands(state.marks, now_s)[:MOST_BANDS]
    fish = sum(band.count for band in bands)
    found = [
        WantedDepth(
            depth_m=min(target, deepest), worth=1.0 + band.count / fish,
            why=f"{band.count} fish marked: run a little above them",
        )
        for band, target in zip(bands, mark_targets(state, bands), strict=True)
    ]
    if method is not None:
        top, base = (min(depth, deepest) for depth in band_in(method, state.bottom_m))
        for depth, name in (
            (max(top, 0.6), "top"), (0.5 * (top + base), "middle"), (base, "base"),
        ):
            item = WantedDepth(
                depth_m=depth, worth=0.6,
                why=f"the {name} of the method's band",
            )
            if not any(covers(item, other.depth_m) for other in found):
                found.append(item)
    if not found:
        found = [
            WantedDepth(depth_m=min(depth, deepest), worth=0.6, why="a search from the top down")
            for depth in _SEARCH_M if depth <= deepest or depth == _SEARCH_M[0]
        ]
    return tuple(found)
