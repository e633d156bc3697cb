"""What was kept against what the user read of the rules: counted, never judged by law."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Final

from ..checks import require_number
from ..constants import INCH_M, POUND_KG
from ..record.state import LandedFish
from ..rig_rules.law import FishRules, WaterRules
from ..trade import Species

STANDARD_WEIGHT: Final[dict[str, tuple[float, float, str]]] = {
    "trout": (-5.023, 3.024, "rainbow trout, Simpkins & Hubert 1996"),
    "kokanee": (-5.062, 3.033, "Hyatt & Hubert 2000"),
    "striper": (-4.924, 3.007, "Brown & Murphy 1991"),
}
"""log10 of the standard weight, g, is the first plus the second times log10 of the length, mm: the
75th percentile of healthy fish. Constants from memory."""
LARGE_KG: Final = {"striper": 10.0 * POUND_KG}
"""Many let larger ones go, to spawn (common practice)."""
NEAR: Final = 2
"""So few from the limit it is said (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class LimitNow:
    """The day's fish against the user's own note of the rules.

    Parameters
    ----------
    species : {'trout', 'kokanee', 'striper'} or None
        The species that is nearest to a limit of its own; None for the limit of all fish.
    counted : int
        Fish that count against it.
    most : int or None
        How many may be kept; None where nothing was noted.
    near, reached : bool
        Whether it is close, and whether it is full.
    notes : tuple of str
        What does not agree with the note, each in a sentence.
    """

    species: Species | None
    counted: int
    most: int | None
    near: bool
    reached: bool
    notes: tuple[str, ...]


def standard_weight_kg(species: Species, length_m: float) -> float:
    """Return what a healthy fish of a length weighs.

    Parameters
    ----------
    species : {'trout', 'kokanee', 'striper'}
        The species.
    length_m : float
        Total length, 0.1 to 1.5 m.

    Returns
    -------
    float
        kg.

    References
    ----------
    .. [1] Simpkins, D.G. & Hubert, W.A. (1996). J. Freshwater Ecol. 11, 319-325 (rainbow trout).
    .. [2] Hyatt, M.W. & Hubert, W.A. (2000). J. Freshwater Ecol. 15 (kokanee).
    .. [3] Brown, M.L. & Murphy, B.R. (1991). N. Am. J. Fish. Manage. 11, 451-467 (striped bass).
    """
    require_number("length_m", length_m, low=0.1, high=1.5, unit="m")
    start, slope, _ = STANDARD_WEIGHT[species]
    return float(10.0**start * (1000.0 * length_m) ** slope / 1000.0)


def limit_now(
    rules: WaterRules | None, landed: Sequence[LandedFish], species: Species, day: date
) -> LimitNow | None:
    """Return the day's fish against what was noted.

    Parameters
    ----------
    rules : WaterRules or None
        What the user read.
    landed : sequence of LandedFish
        Fish of the day, in order.
    species : {'trout', 'kokanee', 'striper'}
        What is fished for; fish of another species are held against that one's note.
    day : date
        The day at the water.

    Returns
    -------
    LimitNow or None
        None where nothing was noted.

    Notes
    -----
    A fish that was kept counts; where the note says so, one caught on bait counts though it was let
    go. A length is held against the note only when it was measured.
    """
    if rules is None:
        return None
    # Fish of which nothing is said on their own count together; the trip's own stand first.
    groups: dict[Species | None, list[LandedFish]] = {_own(rules, species): []}
    for fish in landed:
        groups.setdefault(_own(rules, fish.species), []).append(fish)
    found = [
        _of_group(rules if own is None else rules.of(own), fish, own)
        for own, fish in groups.items()
    ]
    nearest = min(found, key=lambda one: math.inf if one.most is None else one.most - one.counted)
    kept = {fish.species for fish in landed if fish.kept}
    seasons = [
        note for kind in (species, *sorted(kept - {species}))
        for note in _out_of_season(rules.of(kind), kind, day)
    ]
    return dataclasses.replace(
        nearest, notes=(*seasons, *(note for one in found for note in one.notes))
    )


def _own(rules: WaterRules, species: Species) -> Species | None:
    """Return the species where something is said of it alone."""
    return None if rules.of(species) is rules else species


def noted_for(rules: WaterRules, species: Species, day: date) -> tuple[str, ...]:
    """Return what was noted that bears on a day after a species, in sentences.

    Parameters
    ----------
    rules : WaterRules
        What the user read.
    species : {'trout', 'kokanee', 'striper'}
        What is to be fished for.
    day : date
        The day at the water.

    Returns
    -------
    tuple of str
        The season first where the day lies out of it; last where and when it was read.
    """
    fish = rules.of(species)
    said = list(_out_of_season(fish, species, day))
    if rules.rods_most is not None:
        said.append(f"{rules.rods_most} rods at most on the boat.")
    if fish.bag_most is not None:
        counts = ", those let go from bait with them" if fish.bait_counts else ""
        said.append(f"{fish.bag_most} {_own(rules, species) or 'fish'} a day{counts}.")
    if fish.possession_most is not None:
        said.append(f"{fish.possession_most} in possession, at home and aboard together.")
    sizes = []
    if fish.least_m is not None:
        sizes.append(f"{_long(fish.least_m)} at least")
    if fish.longest_m is not None:
        sizes.append(f"{_long(fish.longest_m)} at most")
    if fish.slot_low_m is not None and fish.slot_high_m is not None:
        sizes.append(f"those of {_long(fish.slot_low_m)} to {_long(fish.slot_high_m)} go back")
    if sizes:
        said.append(f"To keep: {', '.join(sizes)}.")
    if rules.hooks != "any":
        said.append(f"Hooks: {rules.hooks.replace('_', ', ')}.")
    if not rules.bait:
        said.append("No bait.")
    said.append(f"As you read it on {rules.entered_on}: {rules.origin}. It is not the law.")
    return tuple(said)


def _out_of_season(rules: FishRules, species: Species, day: date) -> tuple[str, ...]:
    if rules.in_season(day):
        return ()
    return (
        f"{species.capitalize()}: out of the season that you noted "
        f"({rules.season_from} to {rules.season_to}).",
    )


def _of_group(
    rules: FishRules, landed: Sequence[LandedFish], species: Species | None
) -> LimitNow:
    counted = sum(f.kept or (rules.bait_counts and f.on_bait) for f in landed)
    # The newest first: it is the one that can still be put right.
    notes = [note for fish in reversed(landed) for note in _of_fish(rules, fish)]
    most = rules.bag_most
    if most is not None and counted > most:
        notes.append(f"{counted} {species or 'fish'} counted, {most} noted as the limit.")
    kept, held = sum(fish.kept for fish in landed), rules.possession_most
    if held is not None and kept > held:
        notes.append(f"{kept} kept aboard, {held} noted in possession, those at home with them.")
    return LimitNow(
        species=species, counted=counted, most=most,
        near=most is not None and most - counted <= NEAR,
        reached=most is not None and counted >= most, notes=tuple(notes),
    )


def _of_fish(rules: FishRules, fish: LandedFish) -> list[str]:
    length = fish.length_m
    if not fish.kept or length is None:
        return []
    notes = []
    kept = f"A {fish.species} of {length / INCH_M:.1f} in ({length * 100:.0f} cm) was kept"
    if rules.least_m is not None and length < rules.least_m:
        notes.append(f"{kept}: you noted {_long(rules.least_m)} at least.")
    if rules.longest_m is not None and length > rules.longest_m:
        notes.append(f"{kept}: you noted {_long(rules.longest_m)} at most.")
    if (
        rules.slot_low_m is not None and rules.slot_high_m is not None
        and rules.slot_low_m <= length <= rules.slot_high_m
    ):
        notes.append(
            f"{kept}: you noted that those between "
            f"{_long(rules.slot_low_m)} and {_long(rules.slot_high_m)} go back."
        )
    large = LARGE_KG.get(fish.species)
    if large is not None and standard_weight_kg(fish.species, length) >= large:
        notes.append("A spawner of that size is let go by many (common practice).")
    return notes


def _long(length_m: float) -> str:
    return f"{length_m / INCH_M:.1f} in"
