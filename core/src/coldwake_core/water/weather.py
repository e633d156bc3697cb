"""The weather of a day, hour by hour: forecast, read from a file, or typed in six numbers."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError

STEP_S: Final = 600.0
"""Step of the column's model, s."""
COLDEST_H: Final = 6.0
WARMEST_H: Final = 15.0
"""Local hours of the coldest and the warmest air of a usual day (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class WeatherHour:
    """The weather of an hour.

    Parameters
    ----------
    at_s : float
        Seconds since 1970-01-01 UTC.
    air_degc : float
        Air, degrees Celsius.
    humidity, cloud : float
        Relative humidity and cloud cover, 0 to 1.
    wind_mps : float
        Wind at 10 m, m/s.
    wind_from_deg : float
        Where it comes from, degrees from north, clockwise.
    thunder : float
        Chance of thunder, 0 to 1; 0 where nobody says.
    """

    at_s: float
    air_degc: float
    humidity: float
    cloud: float
    wind_mps: float
    wind_from_deg: float
    thunder: float = 0.0

    def check(self) -> None:
        """Raise InvalidInputError unless there is such weather."""
        require_number("at_s", self.at_s, low=0.0)
        require_number("air_degc", self.air_degc, low=-40.0, high=50.0, unit="°C")
        require_number("humidity", self.humidity, low=0.0, high=1.0)
        require_number("cloud", self.cloud, low=0.0, high=1.0)
        require_number("wind_mps", self.wind_mps, low=0.0, high=50.0, unit="m/s")
        require_number("wind_from_deg", self.wind_from_deg, low=0.0, high=360.0, unit="degrees")
        require_number("thunder", self.thunder, low=0.0, high=1.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class DayWeather:
    """A day's weather: 2 to 49 hours that run on."""

    hours: tuple[WeatherHour, ...]

    def check(self) -> None:
        """Raise InvalidInputError unless the hours run on."""
        step_count(self.hours)


@dataclass(frozen=True, slots=True, kw_only=True)
class TypedDay:
    """A day's weather in a few numbers, where there is no forecast.

    Parameters
    ----------
    air_low_degc, air_high_degc : float
        Coldest and warmest air, degrees Celsius.
    humidity, cloud : float
        Relative humidity and cloud cover, 0 to 1.
    wind_mps, wind_from_deg : float
        Wind at 10 m, m/s, and where it comes from, degrees from north.
    """

    air_low_degc: float
    air_high_degc: float
    humidity: float
    cloud: float
    wind_mps: float
    wind_from_deg: float

    def check(self) -> None:
        """Raise InvalidInputError unless the warmest is no colder than the coldest."""
        require_number("air_low_degc", self.air_low_degc, low=-40.0, high=50.0, unit="°C")
        require_number(
            "air_high_degc", self.air_high_degc, low=self.air_low_degc, high=50.0, unit="°C"
        )


def typed_hours(typed: TypedDay, *, midnight_s: float, first_h: int, last_h: int
                ) -> tuple[WeatherHour, ...]:
    """Return the hours of a day that was typed.

    Parameters
    ----------
    typed : TypedDay
        The numbers.
    midnight_s : float
        Local midnight, seconds since 1970-01-01 UTC.
    first_h, last_h : int
        First and last local hour.

    Returns
    -------
    tuple of WeatherHour

    Notes
    -----
    The air swings as a half cosine from the coldest at 6 to the warmest at 15 and back; the vapour
    in it stays, so that its relative humidity falls as it warms (Magnus; the one typed is that of
    the mean). Wind and cloud are the same all day: they are for the user to draw.
    """
    typed.check()
    middle = 0.5 * (typed.air_low_degc + typed.air_high_degc)

    def saturation(degc: float) -> float:
        return math.exp(17.67 * degc / (degc + 243.5))

    vapour = typed.humidity * saturation(middle)
    found = []
    for hour in range(first_h, last_h + 1):
        rising = WARMEST_H - COLDEST_H
        if COLDEST_H <= hour <= WARMEST_H:
            share = 0.5 - 0.5 * math.cos(math.pi * (hour - COLDEST_H) / rising)
        else:
            past = (hour - WARMEST_H) % 24.0
            share = 0.5 + 0.5 * math.cos(math.pi * past / (24.0 - rising))
        air = typed.air_low_degc + (typed.air_high_degc - typed.air_low_degc) * share
        found.append(WeatherHour(
            at_s=midnight_s + 3600.0 * hour, air_degc=air,
            humidity=min(vapour / saturation(air), 1.0), cloud=typed.cloud,
            wind_mps=typed.wind_mps, wind_from_deg=typed.wind_from_deg,
        ))
    for item in found:
        item.check()
    return tuple(found)


def step_count(hours: Sequence[WeatherHour]) -> int:
    """Return how many steps of ten minutes the hours make.

    Parameters
    ----------
    hours : sequence of WeatherHour
        The weather, 2 to 49 hours.

    Returns
    -------
    int

    Raises
    ------
    InvalidInputError
        If they do not run on, or one cannot be.
    """
    if not 2 <= len(hours) <= 49:
        raise InvalidInputError("hours", len(hours), "2 to 49 hours of weather")
    for i, hour in enumerate(hours):
        hour.check()
        if i and not 0.0 < hour.at_s - hours[i - 1].at_s <= 6.0 * 3600.0:
            raise InvalidInputError(
                f"hours[{i}].at_s", hour.at_s, "after the hour before it, by 6 hours at most"
            )
    return round((hours[-1].at_s - hours[0].at_s) / STEP_S)
