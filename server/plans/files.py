"""Weather and profiles from files: each column says its unit in its name."""

from __future__ import annotations

import re
from bisect import bisect_right
from datetime import datetime
from typing import Final

from coldwake_core.checks import require_number
from coldwake_core.constants import FOOT_M, KNOT_MPS, MPH_MPS, degc_from_degf
from coldwake_core.errors import InvalidInputError
from coldwake_core.water.layers import check_profile
from coldwake_core.water.oxygen import check_oxygen
from coldwake_core.water.weather import WeatherHour
from common.csv import number_in, table_of

LENGTH: Final = {"_m": 1.0, "_ft": FOOT_M}
WIND: Final = {"_mps": 1.0, "_mph": MPH_MPS, "_kn": KNOT_MPS, "_kmh": 1.0 / 3.6}
USUAL_HUMIDITY: Final = 0.6
USUAL_CLOUD: Final = 0.3
_CLOCK: Final = re.compile(r"(\d{1,2})(?::([0-5]\d))?")

Pairs = tuple[tuple[float, float], ...]


def _column(head: list[str], name: str, suffixes: tuple[str, ...]) -> tuple[int, str]:
    """Where a column stands and which of the suffixes its name has."""
    for suffix in suffixes:
        if name + suffix in head:
            return head.index(name + suffix), suffix
    wanted = " or ".join(name + suffix for suffix in suffixes)
    raise InvalidInputError(
        "text", ", ".join(head)[:120] or "empty", f"a first row with a column {wanted}"
    )


def _degc(value: float, suffix: str) -> float:
    return degc_from_degf(value) if suffix == "_f" else value


def read_profile(text: str) -> tuple[Pairs, Pairs]:
    """Return temperature, degrees Celsius, and oxygen, mg/l, by depth, m.

    Columns depth_m or depth_ft, temperature_c or temperature_f, and oxygen_mgl where it was
    measured. Raises InvalidInputError naming column or row.
    """
    head, rows = table_of(text)
    depth, by = _column(head, "depth", tuple(LENGTH))
    temperature, unit = _column(head, "temperature", ("_c", "_f"))
    oxygen = head.index("oxygen_mgl") if "oxygen_mgl" in head else None
    profile, airy = [], []
    for row in rows:
        at_m = number_in(row, depth, "depth") * LENGTH[by]
        profile.append((at_m, _degc(number_in(row, temperature, "temperature"), unit)))
        if oxygen is not None and oxygen < len(row[1]) and row[1][oxygen]:
            airy.append((at_m, number_in(row, oxygen, "oxygen")))
    return check_profile(profile), check_oxygen(airy) if airy else ()


def read_weather(
    text: str, midnight: datetime, *, first_h: int, last_h: int
) -> tuple[WeatherHour, ...]:
    """Return the hours of a day from a file, one for each from the first to the last.

    Columns hour (6 or 06:30, by the local clock), air_c or air_f, wind_mph, wind_kn, wind_kmh or
    wind_mps; and where they are known humidity, cloud and thunder in percent and wind_from in
    degrees. Between rows air, wind, cloud, humidity and thunder run evenly; before the first and
    after the last they stand. Raises InvalidInputError naming column or row.
    """
    head, rows = table_of(text)
    at = _column(head, "hour", ("",))[0]
    air, unit = _column(head, "air", ("_c", "_f"))
    wind, by = _column(head, "wind", tuple(WIND))
    known: list[tuple[float, WeatherHour]] = []
    for row in rows:
        hour = _hour(row, at)
        if known and hour <= known[-1][0]:
            raise InvalidInputError(f"row {row[0]}.hour", row[1][at], "later than the row before")

        def percent(name: str, usual: float, row: tuple[int, list[str]] = row) -> float:
            if name not in head:
                return usual
            value = number_in(row, head.index(name), name)
            return require_number(f"row {row[0]}.{name}", value, low=0.0, high=100.0) / 100.0

        came = head.index("wind_from") if "wind_from" in head else None
        item = WeatherHour(
            at_s=midnight.timestamp() + 3600.0 * hour,
            air_degc=_degc(number_in(row, air, "air"), unit),
            humidity=percent("humidity", USUAL_HUMIDITY), cloud=percent("cloud", USUAL_CLOUD),
            thunder=percent("thunder", 0.0),
            wind_mps=number_in(row, wind, "wind") * WIND[by],
            wind_from_deg=0.0 if came is None else number_in(row, came, "wind_from"),
        )
        try:
            item.check()
        except InvalidInputError as error:
            raise InvalidInputError(
                f"row {row[0]}.{error.field}", error.value, error.requirement
            ) from None
        known.append((hour, item))
    if len(known) < 2:
        raise InvalidInputError("text", len(known), "two hours at least")
    return tuple(
        _between(known, float(hour), midnight.timestamp() + 3600.0 * hour)
        for hour in range(first_h, last_h + 1)
    )


def _hour(row: tuple[int, list[str]], index: int) -> float:
    cell = row[1][index] if index < len(row[1]) else ""
    found = _CLOCK.fullmatch(cell)
    if found is None or int(found[1]) > 24:
        raise InvalidInputError(f"row {row[0]}.hour", cell[:40], "an hour such as 6 or 06:30")
    return int(found[1]) + int(found[2] or 0) / 60.0


def _between(known: list[tuple[float, WeatherHour]], hour: float, at_s: float) -> WeatherHour:
    after = bisect_right([h for h, _ in known], hour)
    low, high = known[max(after - 1, 0)], known[min(after, len(known) - 1)]
    share = (hour - low[0]) / (high[0] - low[0]) if high[0] > low[0] else 0.0
    share = min(max(share, 0.0), 1.0)

    def mix(name: str) -> float:
        first, last = getattr(low[1], name), getattr(high[1], name)
        return float(first + (last - first) * share)

    return WeatherHour(
        at_s=at_s, air_degc=mix("air_degc"), humidity=mix("humidity"), cloud=mix("cloud"),
        wind_mps=mix("wind_mps"), wind_from_deg=low[1].wind_from_deg, thunder=mix("thunder"),
    )
