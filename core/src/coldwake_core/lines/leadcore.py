"""Leadcore as it is counted on the water: in colours."""

from __future__ import annotations

from dataclasses import dataclass

from ..constants import COLOUR_M


@dataclass(frozen=True, slots=True)
class LeadcoreNumber:
    """Leadcore out as it is counted on the water.

    Parameters
    ----------
    colours : int
        Whole colours out.
    rest_m : float
        Length beyond them, m.
    backing_m : float
        Backing out once the whole core is, m.
    """

    colours: int
    rest_m: float
    backing_m: float


def leadcore_number(setting_m: float, *, leader_m: float, core_m: float) -> LeadcoreNumber:
    """Return the colours that a length of line out shows.

    Parameters
    ----------
    setting_m : float
        Line out from the rod tip, leader included, m.
    leader_m : float
        Leader ahead of the lure, m.
    core_m : float
        Leadcore on the reel, m.

    Returns
    -------
    LeadcoreNumber

    Examples
    --------
    >>> leadcore_number(6.0 + 3 * 9.144, leader_m=6.0, core_m=91.44).colours
    3
    """
    core_out = min(max(setting_m - leader_m, 0.0), core_m)
    # A hand cannot set two inches of leadcore: just short of a colour is that colour.
    colours = int((core_out + 0.05) / COLOUR_M)
    return LeadcoreNumber(
        colours=colours,
        rest_m=max(core_out - colours * COLOUR_M, 0.0),
        backing_m=max(setting_m - leader_m - core_m, 0.0),
    )
