"""Days to plan: made by hand, so that what should come out can be said beforehand."""

from __future__ import annotations

from trip_cases import START_S

from coldwake_core.constants import degc_from_degf
from coldwake_core.record.planned import DayPlan, PlannedHour
from coldwake_core.record.trip import Sun
from coldwake_core.water.forecast import DayForecast

MIDNIGHT_S = START_S - 6.0 * 3600.0
"""Local midnight of the trips in hand."""
SUN = Sun(
    first_light_s=MIDNIGHT_S + 6.0 * 3600, sunrise_s=MIDNIGHT_S + 6.5 * 3600,
    sunset_s=MIDNIGHT_S + 20.0 * 3600, dark_s=MIDNIGHT_S + 20.5 * 3600,
)


def clock(hours: float) -> float:
    """A local hour of the day, seconds since 1970."""
    return MIDNIGHT_S + 3600.0 * hours


def rising(
    *, start_degf: float = 48.0, rise_degf: float = 5.0, deep_degf: float = 46.0,
    spread_degf: float = 0.0, members: int = 1, fall: bool = False,
) -> DayForecast:
    """A surface that rises evenly from 6 to 16 o'clock, over water that stays."""
    hours = range(3, 24)

    def surface(hour: int, shift: float) -> float:
        share = min(max((hour - 6) / 10.0, 0.0), 1.0)
        if fall and hour > 16:
            share -= 0.06 * (hour - 16)
        return degc_from_degf(start_degf + shift + rise_degf * share)

    shifts = [
        spread_degf * (2.0 * m / (members - 1) - 1.0) if members > 1 else 0.0
        for m in range(members)
    ]
    deep = degc_from_degf(deep_degf)
    return DayForecast(
        at_s=tuple(clock(h) for h in hours), depths_m=(0.3, 5.0, 10.0, 30.0),
        members_degc=tuple(
            tuple((surface(h, s), 0.5 * (surface(h, s) + deep), deep, deep) for h in hours)
            for s in shifts
        ),
    )


def planned(forecast: DayForecast | None = None, **changes: object) -> DayPlan:
    """A plan with the sun up from 6:30 to 20, no cloud and a light wind."""
    values: dict[str, object] = {
        "forecast": forecast or rising(), "secchi_m": 4.0, "fetch_m": 3000.0,
        "start_words": "by hand", "weather_words": "by hand", "colour_school": "soft_then_flash",
        "hours": tuple(
            PlannedHour(
                at_s=clock(h), air_degc=10.0, cloud=0.1, wind_mps=1.0, wind_from_deg=200.0,
                elevation_deg=55.0 - 8.0 * abs(h - 13.25), azimuth_deg=(15.0 * h) % 360.0,
            )
            for h in range(3, 24)
        ),
    }
    return DayPlan(**{**values, **changes})  # type: ignore[arg-type]
