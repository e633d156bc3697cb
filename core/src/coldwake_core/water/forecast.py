"""A day's temperature that was computed ahead, slid by what is read as the day goes on.

The heavy run is the server's (``column``); what slides it is the standard library alone, so that it
runs aboard too.
"""

from __future__ import annotations

import math
from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError

READING_SD_DEGC: Final = 0.4
"""How far an honest reading lies from the model: thermometer, its depth, the place (judged)."""
APART_S: Final = 1800.0
"""Readings nearer in time than this say the same thing once (judged)."""
LEAST_MEMBERS: Final = 5.0
"""The weights never rest on fewer members than this (judged): the ensemble is not the truth."""
CARRY_S: Final = 3.0 * 3600.0
"""What no member explains is carried on, a half of it after three hours (judged)."""
MOST_MEMBERS: Final = 200
MOST_TIMES: Final = 200


@dataclass(frozen=True, slots=True, kw_only=True)
class SurfaceReading:
    """A surface temperature that was read: when, s since 1970 UTC, and degrees Celsius."""

    at_s: float
    temperature_degc: float


@dataclass(frozen=True, slots=True, kw_only=True)
class DayForecast:
    """Temperature of a column through a day, for an ensemble of weathers.

    Parameters
    ----------
    at_s : tuple of float
        Moments, seconds since 1970-01-01 UTC, rising.
    depths_m : tuple of float
        Depths, m, from the one of a boat's thermometer down.
    members_degc : tuple of tuple of tuple of float
        Temperature by member, moment and depth, degrees Celsius.
    """

    at_s: tuple[float, ...]
    depths_m: tuple[float, ...]
    members_degc: tuple[tuple[tuple[float, ...], ...], ...]

    def check(self) -> None:
        """Raise InvalidInputError unless moments rise, depths deepen and no number is missing."""
        if not 2 <= len(self.at_s) <= MOST_TIMES:
            raise InvalidInputError("at_s", len(self.at_s), f"2 to {MOST_TIMES} moments")
        for name, values in (("at_s", self.at_s), ("depths_m", self.depths_m)):
            for i, value in enumerate(values):
                require_number(f"{name}[{i}]", value, low=0.0)
                if i and value <= values[i - 1]:
                    raise InvalidInputError(f"{name}[{i}]", value, "more than the one before it")
        if not 1 <= len(self.members_degc) <= MOST_MEMBERS:
            raise InvalidInputError(
                "members_degc", len(self.members_degc), f"1 to {MOST_MEMBERS} members"
            )
        for m, member in enumerate(self.members_degc):
            shape = {len(row) for row in member}
            if len(member) != len(self.at_s) or shape != {len(self.depths_m)}:
                raise InvalidInputError(
                    f"members_degc[{m}]", len(member),
                    "one row a moment, one temperature a depth in each",
                )
            for row in member:
                for value in row:
                    require_number(f"members_degc[{m}]", value, low=-2.0, high=45.0, unit="°C")


@dataclass(frozen=True, slots=True, kw_only=True)
class Band:
    """A number with its doubt: the middle, and what it lies between eight times in ten."""

    low: float
    middle: float
    high: float


class SlidDay:
    """A forecast as the day's own readings leave it.

    Parameters
    ----------
    forecast : DayForecast
        What was computed ahead.
    readings : sequence of SurfaceReading
        What was read since, in any order.

    Notes
    -----
    Members are weighed by how well they meet the readings (an importance-weighted ensemble; the
    likelihood is tempered until at least five members carry it). What their middle still misses
    of the latest reading is added and fades with a half-life of three hours, through the surface
    layer that it was read in.

    References
    ----------
    van Leeuwen, P.J. (2009). Particle filtering in geophysical systems. Mon. Weather Rev. 137,
    4089-4114.
    """

    def __init__(self, forecast: DayForecast, readings: Sequence[SurfaceReading] = ()) -> None:
        self.forecast = forecast
        self._readings = _thinned(forecast, readings)
        self.weights = self._weigh()
        self._latest: SurfaceReading | None = None
        if self._readings:
            latest = self._readings[-1]
            self._missed = latest.temperature_degc - self.surface(latest.at_s).middle
            self._latest = latest

    def _weigh(self) -> tuple[float, ...]:
        count = len(self.forecast.members_degc)
        misfit = [
            math.fsum(
                ((r.temperature_degc - self._member(m, r.at_s, 0)) / READING_SD_DEGC) ** 2
                for r in self._readings
            )
            for m in range(count)
        ]
        least = min(misfit)

        def weights(power: float) -> list[float]:
            raw = [math.exp(-0.5 * power * (value - least)) for value in misfit]
            total = math.fsum(raw)
            return [value / total for value in raw]

        power, wanted = 1.0, min(LEAST_MEMBERS, count)
        found = weights(power)
        while 1.0 / math.fsum(w * w for w in found) < wanted - 1e-9 and power > 1e-6:
            power *= 0.8
            found = weights(power)
        return tuple(found)

    def _member(self, member: int, at_s: float, depth: int) -> float:
        """Return a member's temperature at a moment, level before the first and after the last."""
        times = self.forecast.at_s
        rows = self.forecast.members_degc[member]
        after = bisect_right(times, at_s)
        if after == 0 or after == len(times):
            return rows[min(after, len(times) - 1)][depth]
        share = (at_s - times[after - 1]) / (times[after] - times[after - 1])
        return rows[after - 1][depth] * (1.0 - share) + rows[after][depth] * share

    def _mean(self, at_s: float, depth: int) -> float:
        return math.fsum(
            w * self._member(m, at_s, depth) for m, w in enumerate(self.weights)
        )

    def _carried(self, at_s: float) -> float:
        if self._latest is None:
            return 0.0
        return self._missed * float(0.5 ** (abs(at_s - self._latest.at_s) / CARRY_S))

    def surface(self, at_s: float) -> Band:
        """Return the surface temperature at a moment, with its doubt, degrees Celsius."""
        carried = self._carried(at_s)
        ranked = sorted(
            (self._member(m, at_s, 0) + carried, w) for m, w in enumerate(self.weights)
        )
        return Band(
            low=_quantile(ranked, 0.1), middle=_quantile(ranked, 0.5), high=_quantile(ranked, 0.9)
        )

    def profile(self, at_s: float) -> tuple[tuple[float, float], ...]:
        """Return depth, m, and the weighed mean temperature there, degrees Celsius."""
        carried, depths = self._carried(at_s), self.forecast.depths_m
        return tuple(
            (z, self._mean(at_s, i) + carried * math.exp(-z / SURFACE_LAYER_M))
            for i, z in enumerate(depths)
        )


SURFACE_LAYER_M: Final = 2.0
"""How deep a surprise of the surface reaches (judged: the warm layer of a calm day)."""


def _quantile(ranked: Sequence[tuple[float, float]], share: float) -> float:
    """Return the value under which a share of the weight lies, linear between the middles."""
    total = 0.0
    before: tuple[float, float] | None = None
    for value, weight in ranked:
        middle = total + 0.5 * weight
        if middle >= share:
            if before is None:
                return value
            part = (share - before[0]) / (middle - before[0])
            return before[1] + part * (value - before[1])
        before = (middle, value)
        total += weight
    return ranked[-1][0]


def _thinned(
    forecast: DayForecast, readings: Sequence[SurfaceReading]
) -> tuple[SurfaceReading, ...]:
    """Return the latest reading of each half hour, within the forecast's own time."""
    first, last = forecast.at_s[0], forecast.at_s[-1]
    latest: dict[int, SurfaceReading] = {}
    for reading in sorted(readings, key=lambda r: r.at_s):
        if first <= reading.at_s <= last:
            latest[int((reading.at_s - first) // APART_S)] = reading
    return tuple(latest[key] for key in sorted(latest))
