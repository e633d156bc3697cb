"""A day ahead, many times: cloud, wind and start as uncertain as they are."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ..checks import require_number
from ..errors import InvalidInputError
from ..water.forecast import DayForecast
from ..water.layers import Profile, check_profile, temperature_at
from ..water.weather import STEP_S, WeatherHour, step_count
from .heat import Array
from .run import Air, layers, run_column

MEMBERS: Final = 50
THERMOMETER_M: Final = 0.3
"""Depth of a boat's thermometer, by the transducer (judged)."""
DEPTHS_M: Final = (
    THERMOMETER_M, 1.0, 2.0, 3.0, 4.5, 6.0, 8.0, 10.0, 13.0, 16.0, 20.0, 25.0, 32.0, 40.0, 50.0,
    65.0, 80.0, 100.0, 150.0, 200.0, 300.0,
)
WIND_SPREAD: Final = 0.35
"""Sd of the logarithm of the wind against its forecast (judged)."""
CLOUD_SPREAD: Final = 0.2
"""Sd of cloud cover against its forecast (judged)."""
AIR_SD_DEGC: Final = 1.5
"""Sd of the air's temperature against its forecast, degrees Celsius (judged)."""

MONTH_SD_DEGC: Final = 3.0
"""How far a surface lies from what month and latitude say (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Start:
    """What is known of the column at the start.

    Parameters
    ----------
    profile : tuple of (float, float)
        Depth, m, and temperature, degrees Celsius.
    sd_degc : float
        How sure that is, degrees Celsius.
    layer_sd : float
        Sd of the logarithm of the depths of its layers: 0 for a profile that was read.
    words : str
        Where it is from.
    """

    profile: tuple[tuple[float, float], ...]
    sd_degc: float
    layer_sd: float
    words: str


def start_from_profile(profile: Profile) -> Start:
    """Return the start from a profile that was read.

    Parameters
    ----------
    profile : sequence of (float, float)
        Depth, m, and temperature, degrees Celsius, from the surface down.

    Returns
    -------
    Start

    Raises
    ------
    InvalidInputError
        If it runs backwards or a reading cannot be.
    """
    return Start(
        profile=check_profile(profile), sd_degc=0.2, layer_sd=0.0, words="from the profile read"
    )


def start_from_surface(
    surface_degc: float, *, month: int, latitude_deg: float, deepest_m: float, fetch_m: float,
    age_h: float = 0.0,
) -> Start:
    """Return the start from a surface temperature and the month.

    Parameters
    ----------
    surface_degc : float
        Surface, degrees Celsius.
    month : int
        1 to 12.
    latitude_deg, deepest_m, fetch_m : float
        Where, degrees; its depth and longest open water, m.
    age_h : float
        How long ago it was read, h.

    Returns
    -------
    Start

    Notes
    -----
    In the cold months, and wherever the surface is under 10 degrees, the lake is taken as mixed (it
    turned over at 4). Else an upper layer as deep as lakes of that fetch have (Patalas 1984, from
    memory: 4.6 F^0.41, F in km, at the height of summer, and shallower before), over deep water at
    6 degrees. All of it judged but the fetch's part, and its doubt is wide.

    References
    ----------
    Patalas, K. (1984). Mid-summer mixing depths of lakes of different latitudes. Verh. Int. Ver.
    Limnol. 22, 97-102.
    """
    require_number("surface_degc", surface_degc, low=-1.0, high=40.0, unit="°C")
    require_number("month", month, low=1, high=12)
    require_number("fetch_m", fetch_m, above=0.0, high=500_000.0, unit="m")
    warmth = month if latitude_deg >= 0.0 else (month + 5) % 12 + 1
    doubt = min(math.hypot(0.4, 0.08 * age_h), MONTH_SD_DEGC)
    if surface_degc < 10.0 or warmth in (11, 12, 1, 2, 3):
        return Start(
            profile=((0.0, surface_degc), (deepest_m, surface_degc)), sd_degc=doubt, layer_sd=0.0,
            words="taken as mixed from top to bottom, from the surface read",
        )
    ripe = {4: 0.4, 5: 0.5, 6: 0.7, 7: 0.9, 8: 1.0, 9: 1.3, 10: 1.7}[warmth]
    upper = min(4.6 * (fetch_m / 1000.0) ** 0.41 * ripe, 0.9 * deepest_m)
    deep = min(6.0, surface_degc)
    profile = [(0.0, surface_degc), (upper, surface_degc)]
    for times in (1.3, 1.7, 2.5, 4.0):
        if times * upper < deepest_m:
            fallen = math.exp(-(times - 1.0) / 0.6)
            profile.append((times * upper, deep + (surface_degc - deep) * fallen))
    if profile[-1][0] < deepest_m:
        profile.append((deepest_m, deep))
    return Start(
        profile=tuple(profile), sd_degc=doubt, layer_sd=0.35,
        words="layers guessed from the surface, the month and the lake's size",
    )


def start_from_month(
    *, month: int, latitude_deg: float, deepest_m: float, fetch_m: float
) -> Start:
    """Return the start where nobody has read anything: a guess by month and latitude, and wide.

    Parameters
    ----------
    month : int
        1 to 12.
    latitude_deg, deepest_m, fetch_m : float
        Where, degrees; its depth and longest open water, m.

    Returns
    -------
    Start

    Notes
    -----
    A year's round about the mean, warmest in August (south of the equator in February):
    28 - 0.36 lat, at least 6 degrees, and 0.22 lat to either side of it, at most 10; never under 2.
    All of it judged; the doubt is MONTH_SD_DEGC.
    """
    require_number("latitude_deg", latitude_deg, low=-90.0, high=90.0)
    north = abs(latitude_deg)
    warmest = 8 if latitude_deg >= 0.0 else 2
    mean, swing = max(28.0 - 0.36 * north, 6.0), min(0.22 * north, 10.0)
    surface = max(mean + swing * math.cos(math.tau * (month - warmest) / 12.0), 2.0)
    start = start_from_surface(
        surface, month=month, latitude_deg=latitude_deg, deepest_m=deepest_m, fetch_m=fetch_m
    )
    return replace(
        start, sd_degc=MONTH_SD_DEGC, words="guessed from the month alone: read the surface"
    )


def forecast_day(
    start: Start, hours: Sequence[WeatherHour], *, elevation_deg: Sequence[float],
    deepest_m: float, secchi_m: float, latitude_deg: float, members: int = MEMBERS,
    seed: int = 1,
) -> DayForecast:
    """Return the day's temperature by depth, for an ensemble of weathers.

    Parameters
    ----------
    start : Start
        The column at the first hour.
    hours : sequence of WeatherHour
        The weather, hour by hour, 2 to 49 of them.
    elevation_deg : sequence of float
        Height of the sun, degrees, in the middle of each ten minutes from the first hour to the
        last.
    deepest_m, secchi_m, latitude_deg : float
        Depth of the water, m; Secchi depth, m; degrees.
    members : int
        How many weathers; the first is the forecast itself.
    seed : int
        Of the draw: the same, the same day.

    Returns
    -------
    DayForecast
        Hour by hour; depths down to the bottom.

    Raises
    ------
    InvalidInputError
        If the hours do not run on or the sun does not match them.

    Notes
    -----
    Each member has one wind factor, one shift of cloud and air for the whole day (a forecast errs
    as a whole), and its own start. Wind is held within the hour's direction.
    """
    steps = step_count(hours)
    if len(elevation_deg) != steps:
        raise InvalidInputError("elevation_deg", len(elevation_deg), f"{steps} values")
    require_number("deepest_m", deepest_m, above=0.3, high=300.0, unit="m")
    require_number("secchi_m", secchi_m, low=0.1, high=40.0, unit="m")
    draw = np.random.default_rng(seed)
    noise = draw.standard_normal((members, 5))
    noise[0] = 0.0
    thickness = layers(deepest_m)
    middle = np.cumsum(thickness) - 0.5 * thickness
    stretch = np.exp(start.layer_sd * noise[:, 4])
    first = np.array([
        [temperature_at(start.profile, float(z / by)) for z in middle] for by in stretch
    ])
    first += start.sd_degc * noise[:, 3, None]
    found = run_column(
        np.maximum(first, 0.1), thickness, _air(hours, steps, elevation_deg, noise),
        secchi_m=secchi_m, latitude_deg=latitude_deg,
    )
    depths = [z for z in DEPTHS_M if z < deepest_m] or [0.5 * deepest_m]
    kept = found.temperature_degc[::6]
    levels = np.array([
        [np.interp(depths, middle, row) for row in moment] for moment in kept
    ]).transpose(1, 0, 2)
    return DayForecast(
        at_s=tuple(hours[0].at_s + 3600.0 * i for i in range(len(kept))),
        depths_m=tuple(depths),
        members_degc=tuple(
            tuple(tuple(round(float(t), 2) for t in row) for row in member) for member in levels
        ),
    )


def _air(
    hours: Sequence[WeatherHour], steps: int, elevation_deg: Sequence[float], noise: Array
) -> Air:
    known = np.array([hour.at_s for hour in hours])
    when = hours[0].at_s + STEP_S * (np.arange(steps) + 0.5)

    def over(values: Sequence[float]) -> Array:
        return np.asarray(np.interp(when, known, np.array(values)))

    heading = [math.radians(hour.wind_from_deg + 180.0) for hour in hours]
    factor = np.exp(WIND_SPREAD * noise[:, 0, None])
    east = over([h.wind_mps * math.sin(a) for h, a in zip(hours, heading, strict=True)])
    north = over([h.wind_mps * math.cos(a) for h, a in zip(hours, heading, strict=True)])
    return Air(
        elevation_deg=np.array(elevation_deg, float),
        air_degc=over([h.air_degc for h in hours]) + AIR_SD_DEGC * noise[:, 2, None],
        humidity=over([h.humidity for h in hours]),
        cloud=np.clip(
            over([h.cloud for h in hours]) + CLOUD_SPREAD * noise[:, 1, None], 0.0, 1.0
        ),
        wind_east_mps=factor * east, wind_north_mps=factor * north,
    )
