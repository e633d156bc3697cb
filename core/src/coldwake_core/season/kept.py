"""Fish kept over days against what the user read of the rules: counted, never judged by law."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final

from ..rig_rules.law import WaterRules
from ..trade import Species
from .digest import Caught

LAST_DAYS: Final = 14
"""Fish that were kept longer ago are mostly eaten: they are not summed (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class KeptDay:
    """A day on which fish were kept: how many, and whether that is over the noted bag."""

    day: str
    kept: int
    is_over: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class KeptOver:
    """Fish of a species kept on the last two weeks of a season.

    Parameters
    ----------
    species : Species
        Which.
    days : tuple of KeptDay
        In order of time.
    total : int
        All of them together: what has been eaten since is not known.
    bag_most, possession_most : int or None
        As noted; None where nothing was.
    is_over : bool
        Whether more were kept than may be had at once, as noted.
    noted : str
        Day and origin of the note; empty without one.
    """

    species: Species
    days: tuple[KeptDay, ...]
    total: int
    bag_most: int | None
    possession_most: int | None
    is_over: bool
    noted: str


def kept_over(
    days: Iterable[tuple[date, Sequence[Caught]]], rules: WaterRules | None, species: Species
) -> KeptOver | None:
    """Return what was kept of a species in the fourteen days up to the latest.

    Parameters
    ----------
    days : iterable of (date, sequence of Caught)
        Days by the calendar at the water, and what was landed; a day may come twice.
    rules : WaterRules or None
        As the user noted them.
    species : Species
        Which.

    Returns
    -------
    KeptOver or None
        None where none was kept.
    """
    counts: Counter[date] = Counter()
    for day, caught in days:
        counts[day] += sum(fish.kept and fish.species == species for fish in caught)
    counts = +counts
    if not counts:
        return None
    first = max(counts) - timedelta(days=LAST_DAYS - 1)
    told = sorted((day, count) for day, count in counts.items() if day >= first)
    noted = None if rules is None else rules.of(species)
    bag = None if noted is None else noted.bag_most
    possession = None if noted is None else noted.possession_most
    total = sum(count for _, count in told)
    return KeptOver(
        species=species, total=total, bag_most=bag, possession_most=possession,
        days=tuple(
            KeptDay(day=day.isoformat(), kept=count, is_over=bag is not None and count > bag)
            for day, count in told
        ),
        is_over=possession is not None and total > possession,
        noted="" if rules is None else f"{rules.entered_on}, {rules.origin}",
    )
