"""What earlier days have taught: recipes that fished, for how long, and what they earned."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ..checks import require_number, require_text
from ..errors import InvalidInputError

MOST_SHOWN: Final = 60
MOST_DAYS: Final = 20


@dataclass(frozen=True, slots=True, kw_only=True)
class ShownEarlier:
    """A recipe that fished on an earlier day, with what it earned.

    Parameters
    ----------
    depth_m, speed_mps, setback_m : float
        How it fished, m and m/s.
    leader_m : float or None
        Leader behind an attractor, m.
    flash, thump : float
        Where it stood on the mood ladder, 0 to 1.
    colour, lure, bait, scent : str
        Names; the last two empty for none.
    hits : int
        Hits.
    minutes : float
        Rod-minutes.
    """

    depth_m: float
    speed_mps: float
    setback_m: float
    leader_m: float | None
    flash: float
    thump: float
    colour: str
    lure: str
    hits: int
    minutes: float
    bait: str = ""
    scent: str = ""
    expected: float = 0.0
    """Of older records; nothing is learnt from it."""

    def check(self) -> None:
        """Raise InvalidInputError unless it can have fished."""
        require_number("depth_m", self.depth_m, low=0.0, high=300.0, unit="m")
        require_number("speed_mps", self.speed_mps, low=0.0, high=5.0, unit="m/s")
        require_number("setback_m", self.setback_m, low=0.0, high=500.0, unit="m")
        if self.leader_m is not None:
            require_number("leader_m", self.leader_m, low=0.0, high=30.0, unit="m")
        require_number("flash", self.flash, low=0.0, high=1.0)
        require_number("thump", self.thump, low=0.0, high=1.0)
        require_text("colour", self.colour, longest=120, empty=True)
        require_text("lure", self.lure, longest=120, empty=True)
        require_text("bait", self.bait, longest=120, empty=True)
        require_text("scent", self.scent, longest=120, empty=True)
        require_number("expected", self.expected, low=-10.0, high=0.0)
        require_number("hits", self.hits, low=0, high=10_000)
        require_number("minutes", self.minutes, above=0.0, high=100_000.0, unit="min")


@dataclass(frozen=True, slots=True, kw_only=True)
class EarlierDay:
    """An earlier day of the same fish.

    Parameters
    ----------
    name : str
        What the trip was called.
    at_s : float
        When it began, seconds since 1970-01-01 UTC.
    like : float
        How like the day of this trip, 0 to 1.
    shown : tuple of ShownEarlier
        What fished.
    """

    name: str
    at_s: float
    like: float
    shown: tuple[ShownEarlier, ...]

    def check(self) -> None:
        """Raise InvalidInputError unless it is a day."""
        require_text("name", self.name, longest=120)
        require_number("at_s", self.at_s, low=0.0)
        require_number("like", self.like, low=0.0, high=1.0)
        if len(self.shown) > MOST_SHOWN:
            raise InvalidInputError("shown", len(self.shown), f"at most {MOST_SHOWN} recipes")
