"""When to turn back, and what somebody ashore should know."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ..checks import require_number, require_text
from ..errors import InvalidInputError

DARK_RESERVE_S: Final = 1800.0
"""At the ramp half an hour before dark (judged)."""
WIND_RESERVE_S: Final = 900.0
"""At the ramp a quarter of an hour before the wind (judged: a forecast is not a clock)."""
THUNDER_RESERVE_S: Final = 1800.0
"""Half an hour ashore before thunder, and after the last of it (common practice)."""
KEPT: Final = 1.0 / 3.0
"""A third of fuel or battery is kept (common practice: a third out, a third back, a third kept)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class WayHome:
    """What the way home takes, as its user knows the boat.

    Parameters
    ----------
    way_m : float
        How far the ramp is from the far end of the day, m.
    home_mps : float
        Speed on the way home, m/s.
    endurance_h : float or None
        How many hours fuel or battery last at trolling; None where nobody said.
    """

    way_m: float = 1609.344
    home_mps: float = 2.5
    endurance_h: float | None = None

    def check(self) -> None:
        """Raise InvalidInputError unless it can be gone."""
        require_number("way_m", self.way_m, low=0.0, high=200_000.0, unit="m")
        require_number("home_mps", self.home_mps, above=0.1, high=30.0, unit="m/s")
        if self.endurance_h is not None:
            require_number("endurance_h", self.endurance_h, above=0.0, high=100.0, unit="h")


@dataclass(frozen=True, slots=True, kw_only=True)
class TurnBack:
    """When to turn for the ramp at the latest, why, and when that is home: seconds since 1970."""

    at_s: float
    home_s: float
    why: str


def turn_back(
    *, started_s: float, dark_s: float, wind_s: float | None, home: WayHome,
    thunder_s: float | None = None,
) -> TurnBack:
    """Return when to turn back at the latest.

    Parameters
    ----------
    started_s : float
        When the motor was started, seconds since 1970-01-01 UTC.
    dark_s : float
        When it is dark, seconds.
    wind_s : float or None
        When the wind becomes too much for the boat, seconds; None where it does not.
    home : WayHome
        How far the ramp is, how fast one gets there, how long fuel or battery last.
    thunder_s : float or None
        When thunder may come, seconds; None where none is forecast.

    Returns
    -------
    TurnBack

    Raises
    ------
    InvalidInputError
        If it would be dark before the start, or a number cannot be.

    Notes
    -----
    The earliest of four: half an hour before dark, half an hour before thunder, a quarter before
    the wind, and with a third of fuel or battery left, each less the way home.
    """
    home.check()
    if dark_s <= started_s:
        raise InvalidInputError("dark_s", dark_s, "after the start")
    ends = [(dark_s - DARK_RESERVE_S, "dark")]
    if wind_s is not None:
        ends.append((wind_s - WIND_RESERVE_S, "wind"))
    if thunder_s is not None:
        ends.append((thunder_s - THUNDER_RESERVE_S, "thunder"))
    if home.endurance_h is not None:
        ends.append((started_s + (1.0 - KEPT) * home.endurance_h * 3600.0, "fuel or battery"))
    home_s, why = min(ends)
    return TurnBack(
        at_s=max(home_s - home.way_m / home.home_mps, started_s), home_s=home_s, why=why
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class FloatPlan:
    """What somebody ashore should know.

    Parameters
    ----------
    who, boat, water, launch : str
        Who is aboard, in what, where, from where.
    out_s, back_s : float
        From when to when, seconds since 1970-01-01 UTC.
    call : str
        Whom to call, and from when, if nobody is back.
    note : str
        Anything else.
    """

    who: str
    boat: str
    water: str
    launch: str
    out_s: float
    back_s: float
    call: str
    note: str = ""

    def check(self) -> None:
        """Raise InvalidInputError unless it says who, where, and whom to call."""
        for name in ("who", "water", "call"):
            require_text(name, getattr(self, name), longest=200)
        for name in ("boat", "launch"):
            require_text(name, getattr(self, name), longest=200, empty=True)
        require_text("note", self.note, longest=1000, empty=True)
        require_number("out_s", self.out_s, low=0.0)
        require_number("back_s", self.back_s, low=0.0)
        if not 0.0 < self.back_s - self.out_s <= 7 * 86_400.0:
            raise InvalidInputError("back_s", self.back_s, "after it begins, within a week")
