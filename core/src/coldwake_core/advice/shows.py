"""A rod of the boat as the day's model sees it, and a method as its rule of thumb."""

from __future__ import annotations

from typing import Final

from ..constants import FOOT_M
from ..evidence.recipe import Recipe, Thumb
from ..gear.ladder import mood_of
from ..gear.setup import RodSetup, rig_kind
from ..gear.tackle import Outfit
from ..trade import Species
from .method import Method, band_in, trolled_mps

CLIPPED = ("downrigger", "stacked", "slider")
CLEAR_SHARE: Final = 0.1
MOST_CLEAR_M: Final = 1.0
"""No rule of thumb sends a lure nearer to the bottom than a tenth of the water: a foot at least, a
metre at most (judged)."""
SPEED_AGREED: Final[tuple[Species, ...]] = ("striper",)
"""For whom no school contradicts the speed of the hour; for trout and kokanee schools say slow and
fast of the same cold morning (common practice)."""


def recipe_of(
    outfit: Outfit, setup: RodSetup, *, depth_m: float, setting_m: float, speed_mps: float,
    bed_m: float | None = None,
) -> Recipe:
    """Return what a rod shows.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod.
    depth_m, setting_m : float
        How deep its lure runs and the number set, m.
    speed_mps : float
        Speed through water, m/s.
    bed_m : float, optional
        Depth of the water there, m.

    Returns
    -------
    Recipe
    """
    lure, mood = outfit.lure(setup.lure_id), mood_of(outfit, setup)
    clipped = rig_kind(outfit, setup) in CLIPPED
    return Recipe(
        depth_m=max(depth_m, 0.0), speed_mps=speed_mps,
        setback_m=max(setup.setback_m if clipped else setting_m, 1.0),
        leader_m=setup.leader_m if setup.attractor_id and setup.leader_m > 0.0 else None,
        flash=mood.flash, thump=mood.thump, colour=lure.colour, lure=lure.name,
        bait="" if setup.bait_id is None else outfit.bait(setup.bait_id).name,
        scent="" if setup.scent_id is None else outfit.scent(setup.scent_id).name, bed_m=bed_m,
    )


def thumb_of(method: Method, species: Species, bottom_m: float) -> Thumb:
    """Return what the rule of thumb of an hour expects.

    Parameters
    ----------
    method : Method
        The method of the hour.
    species : {'trout', 'kokanee', 'striper'}
        What is fished for.
    bottom_m : float
        Depth of the bottom, m; of the deepest for fish that hold by the bed.

    Returns
    -------
    Thumb
    """
    # In shallow water lures work just off the bottom: none is to be called up from there.
    clear = min(max(CLEAR_SHARE * bottom_m, FOOT_M), MOST_CLEAR_M)
    deepest = max(bottom_m - clear, FOOT_M)
    top, base = band_in(method, bottom_m)
    if not method.off_bed_high_m:
        top, base = min(top, deepest), min(base, deepest)
    slowest, fastest = trolled_mps(species)
    return Thumb(
        speed_low_mps=method.speed_low_mps, speed_high_mps=method.speed_high_mps,
        depth_top_m=top, depth_base_m=base,
        setback_low_m=method.setback_low_m, setback_high_m=method.setback_high_m,
        slowest_mps=slowest, fastest_mps=fastest, by_the_bed=method.off_bed_high_m > 0.0,
        speed_agreed=species in SPEED_AGREED,
    )
