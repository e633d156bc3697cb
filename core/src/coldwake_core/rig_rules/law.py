"""Rules of a water as its user entered them. The program never claims to be the law."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Literal

from ..checks import require_number, require_text
from ..errors import InvalidInputError
from ..trade import Species

HookRule = Literal["any", "single", "single_barbless"]


@dataclass(frozen=True, slots=True, kw_only=True)
class FishRules:
    """What a user read of how many fish may be kept, how long, and when.

    Parameters
    ----------
    bag_most : int or None
        Most fish that may be kept in a day; None where nothing is said.
    possession_most : int or None
        Most fish that may be had at home and aboard together.
    bait_counts : bool
        Whether a fish caught on bait counts though it is let go.
    least_m, longest_m : float or None
        Shortest and longest fish that may be kept, m.
    slot_low_m, slot_high_m : float or None
        Fish between these go back, m.
    season_from, season_to : str
        First and last day of the season as MM-DD; empty where nothing is said.
    """

    bag_most: int | None = None
    possession_most: int | None = None
    bait_counts: bool = False
    least_m: float | None = None
    longest_m: float | None = None
    slot_low_m: float | None = None
    slot_high_m: float | None = None
    season_from: str = ""
    season_to: str = ""

    def check(self) -> None:
        """Raise InvalidInputError unless numbers, lengths and days can be."""
        if self.bag_most is not None:
            require_number("bag_most", self.bag_most, low=0, high=200)
        if self.possession_most is not None:
            require_number(
                "possession_most", self.possession_most, low=self.bag_most or 0, high=1000
            )
        for name in ("least_m", "longest_m", "slot_low_m", "slot_high_m"):
            if getattr(self, name) is not None:
                require_number(name, getattr(self, name), low=0.05, high=2.0, unit="m")
        for low, high in (("least_m", "longest_m"), ("slot_low_m", "slot_high_m")):
            first, last = getattr(self, low), getattr(self, high)
            if first is not None and last is not None and last < first:
                raise InvalidInputError(high, last, f"no shorter than {low} ({first:g} m)")
        if (self.slot_low_m is None) != (self.slot_high_m is None):
            raise InvalidInputError(
                "slot_high_m", self.slot_high_m, "both ends of the slot, or none"
            )
        if bool(self.season_from) != bool(self.season_to):
            raise InvalidInputError(
                "season_to", self.season_to, "both ends of the season, or none"
            )
        for name in ("season_from", "season_to"):
            if getattr(self, name):
                try:
                    # A leap year, so that the 29th of February is a day.
                    date.fromisoformat(f"2024-{getattr(self, name)}")
                except ValueError:
                    raise InvalidInputError(
                        name, getattr(self, name), "a day of the year such as 04-15"
                    ) from None

    def in_season(self, day: date) -> bool:
        """Return whether a day lies in the season that was noted.

        Parameters
        ----------
        day : date
            The day at the water.

        Returns
        -------
        bool
            True where no season was noted; one may run over the end of the year.
        """
        if not self.season_from:
            return True
        today = f"{day.month:02d}-{day.day:02d}"
        if self.season_from <= self.season_to:
            return self.season_from <= today <= self.season_to
        return today >= self.season_from or today <= self.season_to


@dataclass(frozen=True, slots=True, kw_only=True)
class SpeciesRules(FishRules):
    """What a user read of one species alone: it stands in the place of what is said of all fish."""

    species: Species


@dataclass(frozen=True, slots=True, kw_only=True)
class WaterRules(FishRules):
    """What a user read of a water's rules, with the day and where; the fish's are of all fish.

    Parameters
    ----------
    entered_on : str
        The day it was entered, as YYYY-MM-DD.
    origin : str
        Where the user read it.
    hooks : {'any', 'single', 'single_barbless'}
        Hooks that may be used.
    bait : bool
        Whether bait may be used.
    rods_most : int or None
        Most rods that may be out on this boat; None where nothing is said.
    by_species : tuple of SpeciesRules
        Species of which something else is said.
    """

    entered_on: str
    origin: str
    hooks: HookRule = "any"
    bait: bool = True
    rods_most: int | None = None
    by_species: tuple[SpeciesRules, ...] = ()

    def check(self) -> None:
        """Raise InvalidInputError unless day and origin are given and no species stands twice."""
        FishRules.check(self)
        require_text("origin", self.origin, longest=200)
        try:
            date.fromisoformat(self.entered_on)
        except ValueError:
            raise InvalidInputError(
                "entered_on", self.entered_on, "a day such as 2026-04-14"
            ) from None
        if self.rods_most is not None:
            require_number("rods_most", self.rods_most, low=1, high=30)
        named = [rules.species for rules in self.by_species]
        for species in named:
            if named.count(species) > 1:
                raise InvalidInputError("by_species", species, "a species that stands there once")

    def of(self, species: Species) -> FishRules:
        """Return what holds for a species: its own note, or what is said of all fish.

        Parameters
        ----------
        species : {'trout', 'kokanee', 'striper'}
            The species.

        Returns
        -------
        FishRules
        """
        return next((rules for rules in self.by_species if rules.species == species), self)
