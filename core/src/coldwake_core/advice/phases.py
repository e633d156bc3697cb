"""The phases of a day: which method when, tied to temperature and light, so that they slide.

One mechanism for the plan and for the method of the hour on Fish. Nowhere is a bite promised.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Final

from ..checks import require_number
from ..record.planned import DayPlan
from ..record.trip import Sun
from ..trade import Species
from ..water.forecast import SlidDay
from .bands import LEAST_OXYGEN_MGPL, species_layers
from .colour import Show, colours_for
from .method import Method, comfort_band_degc, method_of_the_hour

STEP_S: Final = 600.0
SHORT_S: Final = 2400.0
"""A phase under forty minutes is part of its neighbour: it is over before it can be judged
(judged)."""
FALLING_DEGC: Final = 0.2
"""So far under the day's warmest the surface is held to fall (judged: a thermometer's 0.4 °F)."""
FOLLOWS: Final = ("trout_comfort", "trout_deep", "trout_hot", "kokanee_top", "kokanee_deep",
                  "kokanee_hot")
"""Methods whose depth is where the temperature is; the others are fished by the top or the bed."""
DEEPEST_TROLLED_M: Final = 60.0
UNDER_M: Final = 3.0
"""A contour is followed that lies so far under the lures (judged: ten feet)."""
LEAST_CONTOUR_M: Final = 6.0
CLEAR_M: Final = 1.2
"""What lures keep off the bottom all along (common practice: 4 ft)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class ShowFrom:
    """What to show, and from when, seconds since 1970-01-01 UTC."""

    from_s: float
    show: Show


@dataclass(frozen=True, slots=True, kw_only=True)
class Phase:
    """A stretch of the day with one method.

    Parameters
    ----------
    start_s, end_s : float
        From and to, seconds since 1970-01-01 UTC.
    method : Method
        How to fish it; its depths are the column's where a temperature is followed.
    falling : bool
        Whether the surface falls from its warmest.
    shows : tuple of ShowFrom
        Colours, by the school chosen, and from when each: light changes within a phase.
    earliest_s, latest_s : float or None
        When it begins if the day runs warm, or cold; None if that day never has it.
    depth_words : str
        Where its depths are from.
    surface_degc : float
        Surface at its middle, degrees Celsius.
    contour_m, water_m : float
        Depth of the bottom to follow, and what must be under the boat all along, m.
    leg_mps : float
        Speed that its legs are reckoned at, m/s: the middle of the method's.
    """

    start_s: float
    end_s: float
    method: Method
    falling: bool
    shows: tuple[ShowFrom, ...]
    earliest_s: float | None
    latest_s: float | None
    depth_words: str
    surface_degc: float
    contour_m: float
    water_m: float
    leg_mps: float


def day_phases(
    plan: DayPlan, day: SlidDay, *, species: Species, sun: Sun, bottom_m: float,
    cold_school: str | None = None, colour_school: str | None = None,
) -> tuple[Phase, ...]:
    """Return the phases of a day.

    Parameters
    ----------
    plan : DayPlan
        Weather, sun, clarity.
    day : SlidDay
        Its temperatures as the readings so far leave them.
    species : {'trout', 'kokanee', 'striper'}
        What is fished for.
    sun : Sun
        First light and dark: the day's ends.
    bottom_m : float
        Depth of the water, m.
    cold_school : {'cover_water', 'stay_slow'}, optional
        The user's school for a cold morning.
    colour_school : str, optional
        The user's school of colours; the plan's own without one.

    Returns
    -------
    tuple of Phase
        One after the other from first light to dark, as far as the forecast goes; none when it
        does not touch the day.

    Notes
    -----
    Each ten minutes has the method that its surface calls for (``method_of_the_hour``); a run of
    the same is a phase, parted where the surface begins to fall after its warmest. Runs shorter
    than forty minutes go to the longer neighbour.
    """
    require_number("bottom_m", bottom_m, above=0.0, high=300.0, unit="m")
    first = max(sun.first_light_s, plan.forecast.at_s[0])
    last = min(sun.dark_s, plan.forecast.at_s[-1])
    if last - first < STEP_S:
        return ()
    count = int((last - first) // STEP_S) + 1
    times = [first + STEP_S * i for i in range(count)]
    surface = [day.surface(at_s) for at_s in times]

    def method(degc: float) -> Method:
        return method_of_the_hour(species=species, surface_degc=degc, cold_school=cold_school)

    middles = [band.middle for band in surface]
    warmest = max(range(count), key=lambda i: middles[i])
    rose = middles[warmest] - middles[0] > 2.0 * FALLING_DEGC
    falls = [
        rose and i > warmest and middles[warmest] - middles[i] > FALLING_DEGC for i in range(count)
    ]
    runs = _runs([(method(middles[i]).id, falls[i]) for i in range(count)])
    found = []
    for start, end in runs:
        half = (start + end) // 2
        chosen = method(middles[half])
        depths, words = _depths(chosen, plan, day, times[half], species, bottom_m)
        found.append(Phase(
            start_s=times[start], end_s=last if end == count else times[end],
            method=depths, falling=falls[half],
            shows=_shows(plan, colour_school or plan.colour_school, times[start:end]),
            earliest_s=_enters(times, [band.high for band in surface], chosen.id, method),
            latest_s=_enters(times, [band.low for band in surface], chosen.id, method),
            depth_words=words, surface_degc=middles[half],
            contour_m=min(_contour_m(depths), bottom_m), water_m=min(_water_m(depths), bottom_m),
            leg_mps=0.5 * (depths.speed_low_mps + depths.speed_high_mps),
        ))
    return tuple(found)


def phase_at(phases: tuple[Phase, ...], at_s: float) -> Phase | None:
    """Return the phase that a moment is in.

    Parameters
    ----------
    phases : tuple of Phase
        The day's.
    at_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    Phase or None
        None outside the day.
    """
    return next((p for p in phases if p.start_s <= at_s < p.end_s), None)


def _runs(keys: list[tuple[str, bool]]) -> list[tuple[int, int]]:
    """Return (start, end) of each run of the same key, short ones given to a longer neighbour."""
    edges = [0] + [i + 1 for i, (a, b) in enumerate(pairwise(keys)) if a != b] + [len(keys)]
    runs = list(pairwise(edges))
    least = SHORT_S / STEP_S
    while len(runs) > 1:
        short = min(range(len(runs)), key=lambda i: runs[i][1] - runs[i][0])
        start, end = runs[short]
        if end - start >= least:
            break
        before = runs[short - 1] if short else None
        after = runs[short + 1] if short + 1 < len(runs) else None
        if after is None or (before and before[1] - before[0] >= after[1] - after[0]):
            assert before is not None
            runs[short - 1:short + 1] = [(before[0], end)]
        else:
            runs[short:short + 2] = [(start, after[1])]
        # What stood apart only because of the short one between is one again.
        merged = [runs[0]]
        for run in runs[1:]:
            if keys[_half(run)] == keys[_half(merged[-1])]:
                merged[-1] = (merged[-1][0], run[1])
            else:
                merged.append(run)
        runs = merged
    return runs


def _shows(plan: DayPlan, school: str, times: list[float]) -> tuple[ShowFrom, ...]:
    """Return what a school shows over a stretch, a new entry where it changes."""
    found: list[ShowFrom] = []
    for at_s in times:
        hour = plan.hour_at(at_s)
        show = colours_for(
            school, elevation_deg=hour.elevation_deg, cloud=hour.cloud, secchi_m=plan.secchi_m
        )
        if not found or found[-1].show.colours != show.colours:
            found.append(ShowFrom(from_s=at_s, show=show))
    return tuple(found)


def show_at(phase: Phase, at_s: float) -> Show:
    """Return what to show at a moment of a phase.

    Parameters
    ----------
    phase : Phase
        The phase.
    at_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    Show
    """
    begun = [item.show for item in phase.shows if item.from_s <= at_s]
    return begun[-1] if begun else phase.shows[0].show


def _contour_m(method: Method) -> float:
    """Where to go along: over the lures, or on the edge of the water that the method asks for."""
    if method.off_bed_high_m:
        return method.depth_base_m
    return max(method.depth_base_m + UNDER_M, LEAST_CONTOUR_M)


def _water_m(method: Method) -> float:
    """The least water to fish in."""
    return method.depth_top_m if method.off_bed_high_m else method.depth_base_m + CLEAR_M


def _half(run: tuple[int, int]) -> int:
    return (run[0] + run[1]) // 2


def _enters(
    times: list[float], degc: list[float], key: str, method: Callable[[float], Method]
) -> float | None:
    return next((t for t, value in zip(times, degc, strict=True) if method(value).id == key), None)


def _depths(
    method: Method, plan: DayPlan, day: SlidDay, at_s: float, species: Species, bottom_m: float
) -> tuple[Method, str]:
    """Return the method with the depths that the column gives it, and where they are from."""
    deepest = min(bottom_m, DEEPEST_TROLLED_M)
    usual = replace(
        method, depth_top_m=min(method.depth_top_m, deepest),
        depth_base_m=min(method.depth_base_m, deepest),
    )
    if method.id not in FOLLOWS:
        return usual, "as this method is fished"
    layers = species_layers(
        day.profile(at_s), comfort_band_degc(species), bottom_m=deepest, oxygen=plan.oxygen,
        least_mgpl=LEAST_OXYGEN_MGPL[species],
    )
    if not layers:
        lacking = "no water of the band in the forecast"
        if plan.oxygen:
            lacking += " with oxygen enough"
        return usual, f"as usual at this surface temperature: {lacking}"
    top, base = layers[0].top_m, layers[0].base_m
    if top <= 0.5:
        # The forecast begins at the thermometer; the water above it is the same.
        top = 0.0
    more = f"; and again from {len(layers) - 1} layer(s) further down" if len(layers) > 1 else ""
    return (
        replace(usual, depth_top_m=top, depth_base_m=base),
        f"where the water is in the band{' and has oxygen' if plan.oxygen else ''}{more}",
    )
