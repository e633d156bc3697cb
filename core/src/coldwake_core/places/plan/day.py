"""The day by hours: temperature over depth, light and wind, the phases, and how the day differs."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from ...advice.bands import LEAST_OXYGEN_MGPL, Interval, published_band, species_layers
from ...advice.colour import COLOUR_SCHOOLS
from ...advice.departure import Departure, departure
from ...advice.method import comfort_band_degc
from ...advice.phases import Phase, day_phases
from ...advice.safety import TurnBack, WayHome, turn_back
from ...record.planned import DayPlan
from ...record.trip import Sun
from ...trade import Species
from ...trip.now import Now
from ...trip.today import surface_readings
from ...water.forecast import Band, SlidDay, SurfaceReading
from ...water.layers import thermocline_m
from ...water.light import ColourAtDepth, colours_at, light_left
from .lake import LakeWind, lake_wind

ACROSS_DEG: Final = 90.0
DANGEROUS_MPS: Final = 8.0
"""Wind from which a small open boat should be off the water or near it (judged: 18 mph)."""
THUNDER: Final = 0.3
"""Chance of thunder from which an hour counts (judged: one in three is too many)."""
DAY_LAYER_M: Final = 4.0
"""The warm layer of one day lies above this, and is no thermocline (judged)."""
COLD_SHOCK_DEGC: Final = 15.0
WARM_RELEASE_DEGC: Final = 20.0
HOME: Final = WayHome()
"""A mile from the ramp and home at five and a half miles an hour, until the user says (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class HourView:
    """An hour of the day.

    Parameters
    ----------
    at_s : float
        Seconds since 1970-01-01 UTC.
    surface : Band
        Surface as it is expected now, degrees Celsius.
    planned_degc : float
        Surface as it was planned, degrees Celsius.
    profile_degc : tuple of float
        Temperature at the depths of the view, degrees Celsius.
    anglers, published : tuple of Interval
        Where the water is in each band.
    thermocline_m : float or None
        Depth of the season's thermocline, m; the day's own warm layer is none.
    cloud, wind_mps, wind_from_deg, air_degc : float
        The weather.
    elevation_deg, azimuth_deg : float
        The sun.
    across_deg : tuple of float
        The two headings across the sun, degrees from north; none when it is down.
    """

    at_s: float
    surface: Band
    planned_degc: float
    profile_degc: tuple[float, ...]
    anglers: tuple[Interval, ...]
    published: tuple[Interval, ...]
    thermocline_m: float | None
    cloud: float
    wind_mps: float
    wind_from_deg: float
    air_degc: float
    elevation_deg: float
    azimuth_deg: float
    across_deg: tuple[float, ...]


CautionKind = Literal["cold_water", "warm_release", "wind", "thunder", "dark"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Caution:
    """What can hurt, from when to when, and what the usual practice is."""

    kind: CautionKind
    from_s: float
    to_s: float
    text: str


@dataclass(frozen=True, slots=True, kw_only=True)
class School:
    """A view that can be chosen: its key and its name."""

    id: str
    name: str


@dataclass(frozen=True, slots=True, kw_only=True)
class LightAtDepth:
    """What is left of the light at a depth, and of each colour."""

    depth_m: float
    left: float
    colours: tuple[ColourAtDepth, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class DayView:
    """The day by hours.

    Parameters
    ----------
    depths_m : tuple of float
        Depths of the profiles, m.
    hours : tuple of HourView
        Hour by hour.
    phases, planned : tuple of Phase
        Phases as the day stands, and as they were planned.
    cautions : tuple of Caution
        When what can hurt.
    lake : LakeWind
        The lake under the day's strongest wind.
    turn_back : TurnBack or None
        When to turn for the ramp at the latest; None where it is never light.
    way_m : float
        How far the ramp was taken to be, m.
    oxygen : tuple of (float, float)
        Depth, m, and oxygen, mg/l, as measured; empty where nobody did.
    least_oxygen_mgpl : float
        Under it the fish is squeezed out, mg/l.
    light : tuple of LightAtDepth
        Light and colours at a few depths.
    anglers_degc, published_degc : tuple of float
        Both bands, degrees Celsius.
    published_source : str
        Where the second is from.
    departure : Departure or None
        How the day differs, once something was read.
    colour_schools : tuple of School
        Those there are.
    start_words, weather_words : str
        Where the day begins and whose weather it is.
    """

    depths_m: tuple[float, ...]
    hours: tuple[HourView, ...]
    phases: tuple[Phase, ...]
    planned: tuple[Phase, ...]
    cautions: tuple[Caution, ...]
    lake: LakeWind
    turn_back: TurnBack | None
    way_m: float
    oxygen: tuple[tuple[float, float], ...]
    least_oxygen_mgpl: float
    light: tuple[LightAtDepth, ...]
    anglers_degc: tuple[float, float]
    published_degc: tuple[float, float]
    published_source: str
    departure: Departure | None
    colour_schools: tuple[School, ...]
    start_words: str
    weather_words: str


def day_view(
    plan: DayPlan, *, species: Species, sun: Sun, bottom_m: float,
    schools: Mapping[str, str] | None = None, readings: Sequence[SurfaceReading] = (),
    home: WayHome = HOME,
) -> DayView:
    """Return the day by hours.

    Parameters
    ----------
    plan : DayPlan
        The day as planned.
    species : {'trout', 'kokanee', 'striper'}
        What is fished for.
    sun : Sun
        First light to dark.
    bottom_m : float
        Depth of the water, m.
    schools : mapping of str to str, optional
        The user's schools, by topic.
    readings : sequence of SurfaceReading
        Surface temperatures read so far.
    home : WayHome
        What the way home takes.

    Returns
    -------
    DayView
    """
    before, day = SlidDay(plan.forecast), SlidDay(plan.forecast, readings)

    def phases(of: SlidDay) -> tuple[Phase, ...]:
        return day_phases(
            plan, of, species=species, sun=sun, bottom_m=bottom_m,
            cold_school=(schools or {}).get("cold_morning"),
            colour_school=(schools or {}).get("colour"),
        )

    as_planned = phases(before)
    now = phases(day) if readings else as_planned
    published, source = published_band(species)
    return DayView(
        depths_m=plan.forecast.depths_m,
        hours=tuple(_hour(plan, before, day, h.at_s, species, bottom_m) for h in plan.hours),
        phases=now, planned=as_planned,
        cautions=_cautions(plan, day, sun, species),
        lake=lake_wind(plan, day, bottom_m=bottom_m),
        turn_back=_turn_back(plan, sun, home), way_m=home.way_m,
        oxygen=plan.oxygen, least_oxygen_mgpl=LEAST_OXYGEN_MGPL[species],
        light=tuple(
            LightAtDepth(
                depth_m=z, left=light_left(z, plan.secchi_m),
                colours=colours_at(z, plan.secchi_m),
            )
            for z in _light_depths(bottom_m)
        ),
        anglers_degc=comfort_band_degc(species), published_degc=published, published_source=source,
        departure=departure(before, readings, as_planned, now),
        colour_schools=tuple(School(id=k, name=v) for k, v in COLOUR_SCHOOLS.items()),
        start_words=plan.start_words, weather_words=plan.weather_words,
    )


def today_view(now: Now) -> DayView | None:
    """Return the day of the open trip.

    Parameters
    ----------
    now : Now
        The trip.

    Returns
    -------
    DayView or None
        None where it has no plan.
    """
    trip, state = now.trip, now.state
    if state.plan is None:
        return None
    return day_view(
        state.plan, species=trip.species, sun=trip.sun, bottom_m=trip.bottom_m,
        schools=state.schools, readings=surface_readings(now),
    )


def _hour(
    plan: DayPlan, before: SlidDay, day: SlidDay, at_s: float, species: Species, bottom_m: float
) -> HourView:
    hour = plan.hour_at(at_s)
    known = day.profile(at_s)
    # Mixed above the thermometer, and as at its lowest below the last depth.
    profile = [(0.0, known[0][1]), *known, (max(bottom_m, known[-1][0] + 0.1), known[-1][1])]
    across: tuple[float, ...] = ()
    if hour.elevation_deg > 0.0:
        one = (hour.azimuth_deg + ACROSS_DEG) % 180.0
        across = (one, one + 180.0)

    def layers(band_degc: tuple[float, float]) -> tuple[Interval, ...]:
        return species_layers(
            profile, band_degc, bottom_m=bottom_m, oxygen=plan.oxygen,
            least_mgpl=LEAST_OXYGEN_MGPL[species],
        )

    return HourView(
        at_s=at_s, surface=day.surface(at_s), planned_degc=before.surface(at_s).middle,
        profile_degc=tuple(t for _, t in known),
        anglers=layers(comfort_band_degc(species)), published=layers(published_band(species)[0]),
        thermocline_m=thermocline_m([p for p in profile if p[0] >= DAY_LAYER_M]),
        cloud=hour.cloud, wind_mps=hour.wind_mps,
        wind_from_deg=hour.wind_from_deg, air_degc=hour.air_degc,
        elevation_deg=hour.elevation_deg, azimuth_deg=hour.azimuth_deg, across_deg=across,
    )


def _turn_back(plan: DayPlan, sun: Sun, home: WayHome) -> TurnBack | None:
    if sun.dark_s <= sun.first_light_s:
        return None
    blown = [
        h.at_s for h in plan.hours
        if h.wind_mps >= DANGEROUS_MPS and sun.first_light_s < h.at_s < sun.dark_s
    ]
    struck = [
        h.at_s for h in plan.hours
        if h.thunder >= THUNDER and sun.first_light_s < h.at_s < sun.dark_s
    ]
    return turn_back(
        started_s=sun.first_light_s, dark_s=sun.dark_s, wind_s=blown[0] if blown else None,
        thunder_s=struck[0] if struck else None, home=home,
    )


def _light_depths(bottom_m: float) -> tuple[float, ...]:
    return tuple(z for z in (0.6, 3.0, 6.0, 12.0, 24.0) if z <= bottom_m) or (0.5 * bottom_m,)


def _cautions(plan: DayPlan, day: SlidDay, sun: Sun, species: Species) -> tuple[Caution, ...]:
    hours = [h for h in plan.hours if sun.first_light_s - 3600.0 <= h.at_s <= sun.dark_s + 3600.0]
    found: list[Caution] = []

    def while_(kind: CautionKind, text: str, holds: list[bool]) -> None:
        at = [h.at_s for h, true in zip(hours, holds, strict=True) if true]
        if at:
            found.append(Caution(kind=kind, from_s=at[0], to_s=at[-1] + 3600.0, text=text))

    surfaces = [day.surface(h.at_s) for h in hours]
    while_(
        "cold_water",
        "Water that cold takes breath and hands in minutes: life jacket on, a way back in, "
        "somebody ashore who knows.",
        [band.middle < COLD_SHOCK_DEGC for band in surfaces],
    )
    while_(
        "wind",
        "Wind for a small boat to be near the ramp: turn back before it, not in it.",
        [h.wind_mps >= DANGEROUS_MPS for h in hours],
    )
    while_(
        "thunder",
        "Thunder may come: rods and masts draw it. Off the water before it, and half an hour after "
        "the last of it.",
        [h.thunder >= THUNDER for h in hours],
    )
    if species != "striper":
        while_(
            "warm_release",
            "Surface past 68 °F: do not play and release trout or salmon in it.",
            [band.middle >= WARM_RELEASE_DEGC for band in surfaces],
        )
    if sun.sunrise_s < sun.sunset_s:
        found.append(Caution(
            kind="dark", from_s=sun.sunset_s, to_s=sun.dark_s,
            text="Lights on, lines in, and back before dark.",
        ))
    else:
        found.append(Caution(
            kind="dark", from_s=sun.first_light_s, to_s=sun.dark_s,
            text="The sun does not rise here that day: twilight at most, and dark before and after "
            "it. Lights on from the ramp.",
        ))
    return tuple(found)
