"""The client of a forecast service: time-outs, tries again, keeps the last answer and its age."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, date, datetime
from typing import Any, Final

import httpx
from django.conf import settings

from coldwake_core.decode import decode, encode
from coldwake_core.errors import CoreError
from coldwake_core.water.weather import DayWeather, WeatherHour
from waters.models import Water

from .models import KeptForecast

TIMEOUT: Final = httpx.Timeout(2.0, connect=0.5)
TRIES: Final = 2
MOST_BYTES: Final = 200_000


@dataclass(frozen=True, kw_only=True)
class WeatherAnswer:
    """What is known of a day's weather.

    Attributes: the hours, where they are from, how old they are in seconds, and what went wrong
    when the service was asked just now (empty when nothing did).
    """

    hours: tuple[WeatherHour, ...]
    words: str
    age_s: float | None
    trouble: str


def weather_of(water: Water, day: date, midnight: datetime) -> WeatherAnswer:
    """Return the forecast of a day at a water; the last one kept where the service fails."""
    kept = KeptForecast.objects.filter(water=water, day=day).first()
    try:
        hours, words = _fetch(water, day, midnight)
    except ForecastError as error:
        if kept is None:
            return WeatherAnswer(hours=(), words="", age_s=None, trouble=str(error))
        return WeatherAnswer(
            hours=decode(DayWeather, {"hours": kept.hours}).hours, words=kept.words,
            age_s=(datetime.now(UTC) - kept.fetched_at).total_seconds(), trouble=str(error),
        )
    KeptForecast.objects.update_or_create(
        water=water, day=day,
        defaults={"hours": encode(hours), "words": words, "fetched_at": datetime.now(UTC)},
    )
    return WeatherAnswer(hours=hours, words=words, age_s=0.0, trouble="")


class ForecastError(Exception):
    """The service is down, slow, or talks nonsense; the message says which."""


def _fetch(water: Water, day: date, midnight: datetime) -> tuple[tuple[WeatherHour, ...], str]:
    address = settings.FORECAST_URL
    if not address:
        raise ForecastError("No forecast service is set up: type the weather.")
    asked = {
        "date": day.isoformat(), "latitude": f"{water.latitude_deg:.3f}",
        "longitude": f"{water.longitude_deg:.3f}", "midnight_s": f"{midnight.timestamp():.0f}",
    }
    try:
        with httpx.Client(
            timeout=TIMEOUT, transport=httpx.HTTPTransport(retries=TRIES), trust_env=False
        ) as client, client.stream("GET", f"{address}/forecast", params=asked) as response:
            body = b""
            for piece in response.iter_bytes():
                body += piece
                if len(body) > MOST_BYTES:
                    raise ForecastError("The forecast service sends too much: not taken.")
            status = response.status_code
        if status != 200:
            raise ForecastError(f"The forecast service answers with status {status}.")
        data: Any = httpx.Response(200, content=body).json()
    except httpx.TimeoutException:
        raise ForecastError("The forecast service is too slow: not waited for.") from None
    except httpx.HTTPError:
        raise ForecastError("The forecast service does not answer.") from None
    except (ValueError, RecursionError):
        raise ForecastError("The forecast service sends what is no forecast.") from None
    try:
        hours = decode(DayWeather, {"hours": data["hours"]}).hours
        if not midnight.timestamp() <= hours[0].at_s < midnight.timestamp() + 86_400.0:
            raise ForecastError("The forecast service sends another day: not taken.")
        return hours, str(data["name"])[:200]
    except (CoreError, KeyError, TypeError) as error:
        raise ForecastError(f"The forecast service sends what cannot be: {error}") from None
