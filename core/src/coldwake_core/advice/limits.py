"""What was kept against what the user read of the rules: counted, never judged by law."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ..checks import require_number
from ..constants import INCH_M, POUND_KG
from ..record.state import LandedFish
from ..record.trip import Species
from ..rig_rules.law import WaterRules

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
    counted : int
        Fish that count.
    most : int or None
        How many may be kept; None where nothing was noted.
    near, reached : bool
        Whether it is close, and whether it is full.
    notes : tuple of str
        What does not agree with the note, each in a sentence.
    """

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
    rules: WaterRules | None, landed: Sequence[LandedFish], species: Species
) -> LimitNow | None:
    """Return the day's fish against what was noted.

    Parameters
    ----------
    rules : WaterRules or None
        What the user read.
    landed : sequence of LandedFish
        Fish of the day, in order.
    species : {'trout', 'kokanee', 'striper'}
        What is fished for.

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
    counted = sum(f.kept or (rules.bait_counts and f.on_bait) for f in landed)
    notes = []
    for fish in landed:
        length = fish.length_m
        if not fish.kept or length is None:
            continue
        kept = f"A fish of {length / INCH_M:.1f} in ({length * 100:.0f} cm) was kept"
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
        large = LARGE_KG.get(species)
        if large is not None and standard_weight_kg(species, length) >= large:
            notes.append("A spawner of that size is let go by many (common practice).")
    most = rules.bag_most
    if most is not None and counted > most:
        notes.append(f"{counted} counted, {most} noted as the limit.")
    return LimitNow(
        counted=counted, most=most, near=most is not None and most - counted <= NEAR,
        reached=most is not None and counted >= most, notes=tuple(notes),
    )


def _long(length_m: float) -> str:
    return f"{length_m / INCH_M:.1f} in"
