"""Hits an hour by what was shown and when, over many days, each with how sure it is."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final, Literal

from scipy.special import gammaincinv

from ..checks import require_choice, require_number
from ..constants import FOOT_M, MPH_MPS
from ..evidence.rates import Exposure, compare_rates
from .digest import Spell

Axis = Literal[
    "temperature", "depth", "hour", "colour", "lure", "leader", "attractor", "setback", "kind",
    "speed",
]
AXES: Final[tuple[Axis, ...]] = (
    "temperature", "depth", "hour", "colour", "lure", "leader", "attractor", "setback", "kind",
    "speed",
)
Units = Literal["us", "metric"]
STEPS: Final[dict[Units, dict[str, tuple[float, float]]]] = {
    "us": {
        "temperature": (2.0 / 1.8, -32.0 / 1.8), "depth": (5.0 * FOOT_M, 0.0),
        "leader": (0.5 * FOOT_M, 0.0), "setback": (25.0 * FOOT_M, 0.0),
        "speed": (0.2 * MPH_MPS, 0.0), "hour": (1.0, 0.0),
    },
    "metric": {
        "temperature": (1.0, 0.0), "depth": (2.0, 0.0), "leader": (0.15, 0.0),
        "setback": (10.0, 0.0), "speed": (0.1, 0.0), "hour": (1.0, 0.0),
    },
}
"""Width of a bar and where bars are counted from, in SI, by the scale that is read: 2 degrees
Fahrenheit, 5 ft, half a foot of leader, 25 ft, 0.2 mph (judged: as finely as anglers speak)."""
SURE: Final = 0.8
"""The interval that is drawn holds the true rate with at least this probability."""
THIN_MIN: Final = 300.0
"""Fewer rod-minutes than five hours say little of a rate of one an hour (judged)."""
MOST_NAMES: Final = 12


@dataclass(frozen=True, slots=True, kw_only=True)
class Bar:
    """What was counted of one bar.

    Parameters
    ----------
    name : str
        Of what; empty for a stretch of numbers.
    low, high : float or None
        The stretch, in SI; hours of the local clock for 'hour'.
    minutes : float
        Rod-minutes.
    hits, hooked, landed : int
        Counted.
    rate, rate_low, rate_high : float
        Hits a rod-hour, and its interval.
    is_thin : bool
        Whether it fished too little to say anything.
    """

    name: str
    low: float | None
    high: float | None
    minutes: float
    hits: int
    hooked: int
    landed: int
    rate: float
    rate_low: float
    rate_high: float
    is_thin: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Trend:
    """Hits an hour along one axis.

    Parameters
    ----------
    axis : Axis
        Which.
    bars : tuple of Bar
        By number, or the most fished name first.
    best : int or None
        The bar with the highest rate among those that are not thin; None where all are.
    probability : float
        That its rate is above that of all others together.
    said : {'stands_apart', 'leans', 'nothing', 'too_little'}
        What may be said of it, being picked from so many.
    unknown_min : float
        Rod-minutes of which it is not known where they belong.
    """

    axis: Axis
    bars: tuple[Bar, ...]
    best: int | None
    probability: float
    said: Literal["stands_apart", "leans", "nothing", "too_little"]
    unknown_min: float


def rate_interval(hits: int, minutes: float, sure: float = SURE) -> tuple[float, float]:
    """Return the interval of a rate of Poisson counts that holds it at least so often.

    Parameters
    ----------
    hits : int
        Counted, >= 0.
    minutes : float
        Rod-minutes, > 0.
    sure : float
        With which probability, 0 to 1.

    Returns
    -------
    (float, float)
        Hits a rod-hour.

    References
    ----------
    .. [1] Garwood, F. (1936). Fiducial limits for the Poisson distribution. Biometrika 28, 437-442.
    """
    require_number("hits", hits, low=0)
    require_number("minutes", minutes, above=0.0, unit="min")
    require_number("sure", sure, above=0.0, high=0.999)
    tail = 0.5 * (1.0 - sure)
    low = float(gammaincinv(hits, tail)) if hits else 0.0
    return 60.0 * low / minutes, 60.0 * float(gammaincinv(hits + 1, 1.0 - tail)) / minutes


def trend(spells: Iterable[Spell], axis: Axis, units: Units) -> Trend:
    """Return hits an hour along an axis.

    Parameters
    ----------
    spells : iterable of Spell
        Of all days that are looked at.
    axis : Axis
        Which.
    units : {'us', 'metric'}
        On whose scale the bars are cut.

    Returns
    -------
    Trend
    """
    require_choice("axis", axis, AXES)
    require_choice("units", units, tuple(STEPS))
    sums: dict[tuple[str, int], list[float]] = defaultdict(lambda: [0.0, 0.0, 0.0, 0.0])
    unknown = 0.0
    for spell in spells:
        key = _key(spell, axis, units)
        if key is None:
            unknown += spell.minutes
            continue
        row = sums[key]
        for i, value in enumerate((spell.minutes, spell.hits, spell.hooked, spell.landed)):
            row[i] += value
    bars = [_bar(key, row, axis, units) for key, row in sums.items()]
    if axis in STEPS[units]:
        bars.sort(key=lambda bar: bar.low or 0.0)
    else:
        bars.sort(key=lambda bar: (-bar.minutes, bar.name))
        bars = bars[:MOST_NAMES]
    best, probability, said = _best(bars)
    return Trend(
        axis=axis, bars=tuple(bars), best=best, probability=probability, said=said,
        unknown_min=unknown,
    )


def _key(spell: Spell, axis: Axis, units: Units) -> tuple[str, int] | None:
    names = {
        "colour": spell.colour, "lure": spell.lure, "attractor": spell.attractor or "none",
        "kind": spell.kind,
    }
    if axis in names:
        return (names[axis], 0) if names[axis] else None
    value = {
        "temperature": spell.warm_degc, "depth": spell.depth_m, "hour": float(spell.hour),
        "leader": spell.leader_m, "setback": spell.setback_m, "speed": spell.speed_mps,
    }[axis]
    if value is None:
        return None
    step, origin = STEPS[units][axis]
    # A number that lies on the edge of a bar begins it, whatever its last binary place.
    return "", math.floor((value - origin) / step + 1e-9)


def _bar(key: tuple[str, int], row: list[float], axis: Axis, units: Units) -> Bar:
    name, index = key
    minutes, hits, hooked, landed = row
    low = high = None
    if axis in STEPS[units]:
        step, origin = STEPS[units][axis]
        low, high = origin + index * step, origin + (index + 1) * step
    rate_low, rate_high = rate_interval(round(hits), minutes)
    return Bar(
        name=name, low=low, high=high, minutes=minutes, hits=round(hits), hooked=round(hooked),
        landed=round(landed), rate=60.0 * hits / minutes, rate_low=rate_low, rate_high=rate_high,
        is_thin=minutes < THIN_MIN,
    )


def _best(
    bars: list[Bar],
) -> tuple[int | None, float, Literal["stands_apart", "leans", "nothing", "too_little"]]:
    fished = [i for i, bar in enumerate(bars) if not bar.is_thin]
    if len(fished) < 2 or not any(bars[i].hits for i in fished):
        return None, 0.5, "too_little"
    best = max(fished, key=lambda i: (bars[i].rate, bars[i].minutes))
    rest = [bar for i, bar in enumerate(bars) if i != best]
    judged = compare_rates(
        Exposure(hits=bars[best].hits, minutes=bars[best].minutes),
        Exposure(
            hits=sum(bar.hits for bar in rest), minutes=sum(bar.minutes for bar in rest)
        ),
        picked_from=len(fished),
    )
    said: Literal["stands_apart", "leans", "nothing", "too_little"] = "nothing"
    if judged.verdict == "better":
        said = "stands_apart"
    elif judged.verdict == "leaning_better":
        said = "leans"
    return best, judged.probability, said
