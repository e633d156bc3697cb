"""The day as it was planned: what goes along on a trip."""

from __future__ import annotations

from bisect import bisect_right
from dataclasses import dataclass

from ..checks import require_number, require_text
from ..errors import InvalidInputError
from ..water.forecast import DayForecast
from ..water.oxygen import check_oxygen


@dataclass(frozen=True, slots=True, kw_only=True)
class PlannedHour:
    """Weather and sun of an hour, as forecast.

    Parameters
    ----------
    at_s : float
        Seconds since 1970-01-01 UTC.
    air_degc : float
        Air, degrees Celsius.
    cloud : float
        Cloud cover, 0 to 1.
    wind_mps, wind_from_deg : float
        Wind at 10 m, m/s, and where it comes from, degrees from north.
    elevation_deg, azimuth_deg : float
        The sun: height and direction, degrees.
    thunder : float
        Chance of thunder, 0 to 1.
    """

    at_s: float
    air_degc: float
    cloud: float
    wind_mps: float
    wind_from_deg: float
    elevation_deg: float
    azimuth_deg: float
    thunder: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class DayPlan:
    """A day as it was planned.

    Parameters
    ----------
    forecast : DayForecast
        Temperature by hour and depth.
    hours : tuple of PlannedHour
        Weather and sun, rising in time.
    secchi_m : float
        Secchi depth, m.
    fetch_m : float
        Longest open water, m.
    start_words, weather_words : str
        Where the start of the column and the weather are from.
    colour_school : str
        Whose view on colours: see ``advice.colour``.
    oxygen : tuple of (float, float)
        Depth, m, and oxygen, mg/l, in order of depth; empty where nobody measured.
    """

    forecast: DayForecast
    hours: tuple[PlannedHour, ...]
    secchi_m: float
    fetch_m: float
    start_words: str
    weather_words: str
    colour_school: str
    oxygen: tuple[tuple[float, float], ...] = ()

    def check(self) -> None:
        """Raise InvalidInputError unless it is a day that can be shown."""
        require_number("secchi_m", self.secchi_m, low=0.1, high=40.0, unit="m")
        require_number("fetch_m", self.fetch_m, above=0.0, high=500_000.0, unit="m")
        require_text("start_words", self.start_words, longest=200)
        require_text("weather_words", self.weather_words, longest=200)
        if self.oxygen:
            check_oxygen(self.oxygen)
        if not 2 <= len(self.hours) <= 49:
            raise InvalidInputError("hours", len(self.hours), "2 to 49 hours")
        for i, hour in enumerate(self.hours):
            where = f"hours[{i}]"
            require_number(f"{where}.at_s", hour.at_s, low=0.0)
            require_number(f"{where}.air_degc", hour.air_degc, low=-60.0, high=60.0, unit="°C")
            require_number(f"{where}.cloud", hour.cloud, low=0.0, high=1.0)
            require_number(f"{where}.thunder", hour.thunder, low=0.0, high=1.0)
            require_number(f"{where}.wind_mps", hour.wind_mps, low=0.0, high=60.0, unit="m/s")
            require_number(f"{where}.elevation_deg", hour.elevation_deg, low=-90.0, high=90.0)
            for name in ("wind_from_deg", "azimuth_deg"):
                require_number(f"{where}.{name}", getattr(hour, name), low=0.0, high=360.0)
            if i and hour.at_s <= self.hours[i - 1].at_s:
                raise InvalidInputError(f"{where}.at_s", hour.at_s, "after the hour before it")

    def hour_at(self, at_s: float) -> PlannedHour:
        """Return the hour that holds at a moment: the latest begun, or the first."""
        begun = bisect_right([hour.at_s for hour in self.hours], at_s)
        return self.hours[max(begun - 1, 0)]
