"""Which colours to show, by whose view; and how much flash to begin with."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ..checks import require_choice

COLOUR_SCHOOLS: Final[dict[str, str]] = {
    "soft_then_flash": "Soft early, flash once the sun is up",
    "bright_metal": "Bright day metal, dull day paint or glow",
    "uv_in_silt": "UV under cloud or in silt",
    "match_bait": "Match the bait",
    "thump_first": "Thump matters more than colour",
}
"""Common practice: everyone differs, and says so."""
DULL: Final = 0.7
"""Cloud cover from which a day is dull (judged)."""
LOW_SUN_DEG: Final = 25.0
"""Under it the sun is low: about 10 on a morning in April (judged, from "10-11 am")."""
SILTY_M: Final = 1.5
"""Secchi depth under which water is silty (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Show:
    """What to show: in words, with the view that says so.

    Parameters
    ----------
    colours, why : str
        What, and for what reason.
    school : str
        Whose view, as a name.
    """

    colours: str
    why: str
    school: str


def colours_for(
    school: str, *, elevation_deg: float, cloud: float, secchi_m: float
) -> Show:
    """Return the colours that a school shows in a light.

    Parameters
    ----------
    school : str
        One of COLOUR_SCHOOLS.
    elevation_deg : float
        Height of the sun, degrees.
    cloud : float
        Cloud cover, 0 to 1.
    secchi_m : float
        Secchi depth, m.

    Returns
    -------
    Show

    Raises
    ------
    InvalidInputError
        If there is no such school.
    """
    require_choice("colour_school", school, tuple(COLOUR_SCHOOLS))
    low, dull, silty = elevation_deg < LOW_SUN_DEG, cloud >= DULL, secchi_m < SILTY_M
    name = COLOUR_SCHOOLS[school]
    if school == "soft_then_flash":
        if low:
            return Show(colours="soft, quiet colours", why="the sun is low", school=name)
        return Show(colours="flashier ones", why="the sun is up", school=name)
    if school == "bright_metal":
        if dull or low:
            return Show(colours="painted or glow", why="dull light", school=name)
        return Show(colours="metal", why="bright light", school=name)
    if school == "uv_in_silt":
        if dull or silty:
            why = "silty water" if silty else "cloud"
            return Show(colours="UV-bright", why=why, school=name)
        return Show(colours="any that shows", why="clear water under open sky", school=name)
    if school == "match_bait":
        return Show(colours="the colour of the bait", why="whatever the light", school=name)
    return Show(
        colours="whatever is tied on", why="change the thump before the colour", school=name
    )
