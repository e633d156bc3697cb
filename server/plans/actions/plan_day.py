"""Compute a day: its water, its weather, its start, by the core."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, timedelta, timezone
from typing import Any, Final

from astral import Observer
from astral.sun import azimuth, elevation

from coldwake_core.advice.colour import COLOUR_SCHOOLS
from coldwake_core.advice.limits import noted_for
from coldwake_core.advice.safety import WayHome
from coldwake_core.checks import require_choice, require_number, require_text
from coldwake_core.column.ensemble import (
    MEMBERS,
    Start,
    forecast_day,
    start_from_month,
    start_from_profile,
    start_from_surface,
)
from coldwake_core.decode import decode
from coldwake_core.errors import InvalidInputError
from coldwake_core.places.plan.day import HOME, DayView, day_view
from coldwake_core.places.plan.river import RiverDay, RiverView, Shallow, river_view
from coldwake_core.record.payloads import SCHOOLS
from coldwake_core.record.planned import DayPlan, PlannedHour
from coldwake_core.record.trip import Sun
from coldwake_core.rig_rules.law import WaterRules
from coldwake_core.trade import Species
from coldwake_core.water.light import SECCHI_M
from coldwake_core.water.weather import (
    STEP_S,
    DayWeather,
    TypedDay,
    WeatherHour,
    step_count,
    typed_hours,
)
from waters.chart_out import chart_of, features_of
from waters.models import Water
from waters.sun import sun_of_day

SPECIES: Final = ("trout", "kokanee", "striper")
FIRST_H: Final = 3
LAST_H: Final = 23
FEW: Final = 12
"""Members while something is dragged: the picture of the day, with a rougher band."""
TYPED_WORDS: Final = "weather as typed"
FIELDS: Final = (
    "water_id", "species", "day", "surface_degc", "surface_age_h", "profile", "secchi_m", "hours",
    "typed", "weather_words", "schools", "rough", "oxygen", "home", "river",
)
FETCH_M: Final = 2000.0
"""Open water of a lake without a chart (judged: a small reservoir)."""


def midnight_of(water: Water, day: date) -> datetime:
    """Return the local midnight that begins a day at a water."""
    noon = datetime(day.year, day.month, day.day, 12, tzinfo=UTC)
    zone = timezone(timedelta(minutes=water.utc_offset_min_at(noon)))
    return datetime(day.year, day.month, day.day, tzinfo=zone)


def read_day(value: object) -> date:
    """Return a date; raises InvalidInputError unless it is one that is planned for."""
    try:
        day = date.fromisoformat(require_text("day", value, longest=10))
    except ValueError:
        raise InvalidInputError("day", value, "a day such as 2026-04-14") from None
    if not 1950 <= day.year <= 2150:
        raise InvalidInputError("day", value, "a day between 1950 and 2150")
    return day


def fetch_m(water: Water) -> float:
    """Return the longest open water by the chart, m; that of a small reservoir without one."""
    chart = water.chart
    if not chart:
        return FETCH_M
    wet = [
        (r, c) for r, row in enumerate(chart["rows"]) for c, depth in enumerate(row) if depth
    ]
    if not wet:
        return FETCH_M
    north = max(r for r, _ in wet) - min(r for r, _ in wet)
    east = max(c for _, c in wet) - min(c for _, c in wet)
    return max(math.hypot(north, east) * float(chart["cell_m"]), 100.0)


def rules_said(water: Water, day: date, species: Species) -> tuple[str, ...]:
    """Return what the user noted of the water's rules that bears on a day, in sentences."""
    if water.rules is None:
        return ()
    return noted_for(decode(WaterRules, water.rules, field="rules"), species, day)


def shallows_of(water: Water) -> tuple[Shallow, ...]:
    """Return the bars and necks of a water with the depth there at today's level."""
    chart = chart_of(water)
    found = []
    for item in features_of(water):
        depth = chart.depth_m(item.corners[0]) if chart and item.kind in ("bar", "neck") else None
        if depth is not None:
            found.append(Shallow(name=item.name, kind=item.kind, depth_m=depth))
    return tuple(found)


def shown(plan: DayPlan, *, water: Water, day: date, asked: dict[str, Any]) -> PlannedDay:
    """Return how a plan looks at its water, for what was asked with it."""
    species: Any = asked["species"]
    home, river = asked.get("home"), asked.get("river")
    offset = midnight_of(water, day).utcoffset() or timedelta()
    offset_min = round(offset.total_seconds() / 60.0)
    sun = sun_of_day(
        latitude_deg=water.latitude_deg, longitude_deg=water.longitude_deg, day=day,
        utc_offset_min=offset_min,
    )
    view = day_view(
        plan, species=species, sun=sun, bottom_m=water.deepest_m,
        schools=asked.get("schools") or {},
        home=HOME if home is None else decode(WayHome, home, field="home"),
    )
    return PlannedDay(
        plan=plan, view=view, sun=sun, utc_offset_min=offset_min,
        rules=rules_said(water, day, species),
        river=None if river is None else river_view(
            decode(RiverDay, river, field="river"), plan, view.phases, shallows_of(water)
        ),
    )


@dataclass(frozen=True, kw_only=True)
class ReadProfile:
    """Temperatures by depth as they were read: depth, m, and degrees Celsius."""

    profile: tuple[tuple[float, float], ...]


@dataclass(frozen=True, kw_only=True)
class ReadOxygen:
    """Oxygen by depth as it was measured: depth, m, and mg/l."""

    oxygen: tuple[tuple[float, float], ...]


@dataclass(frozen=True, kw_only=True)
class PlannedDay:
    """A day as it was computed: the plan, how it looks, its weather, light and clock."""

    plan: DayPlan
    view: DayView
    sun: Sun
    utc_offset_min: int
    rules: tuple[str, ...]
    river: RiverView | None
    hours: tuple[WeatherHour, ...] = ()


@dataclass(frozen=True, kw_only=True)
class PlanDay:
    """A day to plan on a water of the user's."""

    water: Water
    data: dict[str, Any]

    def check(self) -> None:
        """Raise CoreError naming what cannot be."""
        for name in self.data:
            if name not in FIELDS:
                raise InvalidInputError(name, self.data[name], "left out: no such field")
        require_choice("species", self.data.get("species"), SPECIES)
        self._schools()
        read_day(self.data.get("day"))

    def execute(self) -> PlannedDay:
        """Return the day; nothing is kept."""
        self.check()
        get, water = self.data.get, self.water
        day = read_day(get("day"))
        schools = self._schools()
        secchi = get("secchi_m")
        secchi = require_number(
            "secchi_m", SECCHI_M["clear"] if secchi is None else secchi, low=0.1, high=40.0,
            unit="m",
        )
        midnight = midnight_of(water, day)
        hours, words = self._hours(midnight)
        start = self._start(day)
        observer = Observer(latitude=water.latitude_deg, longitude=water.longitude_deg)

        def height(at_s: float) -> float:
            return float(elevation(observer, datetime.fromtimestamp(at_s, UTC)))

        forecast = forecast_day(
            start, hours,
            elevation_deg=[
                height(hours[0].at_s + STEP_S * (i + 0.5)) for i in range(step_count(hours))
            ],
            deepest_m=water.deepest_m, secchi_m=secchi, latitude_deg=water.latitude_deg,
            members=FEW if get("rough") is True else MEMBERS,
        )
        oxygen = get("oxygen")
        plan = DayPlan(
            oxygen=decode(ReadOxygen, {"oxygen": oxygen}).oxygen if oxygen else (),
            forecast=forecast, secchi_m=secchi, fetch_m=fetch_m(water),
            start_words=start.words, weather_words=words,
            colour_school=schools.get("colour", next(iter(COLOUR_SCHOOLS))),
            hours=tuple(
                PlannedHour(
                    at_s=hour.at_s, air_degc=hour.air_degc, cloud=hour.cloud,
                    wind_mps=hour.wind_mps, wind_from_deg=hour.wind_from_deg,
                    thunder=hour.thunder,
                    elevation_deg=height(hour.at_s),
                    azimuth_deg=float(
                        azimuth(observer, datetime.fromtimestamp(hour.at_s, UTC))
                    ) % 360.0,
                )
                for hour in hours
            ),
        )
        plan.check()
        return replace(shown(plan, water=water, day=day, asked=self.data), hours=hours)

    def _schools(self) -> dict[str, str]:
        schools = self.data.get("schools") or {}
        if not isinstance(schools, dict):
            raise InvalidInputError("schools", schools, "a school for each topic")
        for topic, school in schools.items():
            require_choice("schools", topic, tuple(SCHOOLS))
            require_choice(f"schools.{topic}", school, SCHOOLS[topic])
        return schools

    def _hours(self, midnight: datetime) -> tuple[tuple[WeatherHour, ...], str]:
        given, typed = self.data.get("hours"), self.data.get("typed")
        if given is None:
            known = decode(TypedDay, typed, field="typed")
            return typed_hours(
                known, midnight_s=midnight.timestamp(), first_h=FIRST_H, last_h=LAST_H
            ), TYPED_WORDS
        hours = decode(DayWeather, {"hours": given}).hours
        words = require_text(
            "weather_words", self.data.get("weather_words") or TYPED_WORDS, longest=200
        )
        first, last = midnight.timestamp(), midnight.timestamp() + 26.0 * 3600.0
        for i, hour in enumerate(hours):
            if not first <= hour.at_s <= last:
                raise InvalidInputError(f"hours[{i}].at_s", hour.at_s, "on the day that is planned")
        return hours, words

    def _start(self, day: date) -> Start:
        profile, surface = self.data.get("profile"), self.data.get("surface_degc")
        if profile:
            return start_from_profile(decode(ReadProfile, {"profile": profile}).profile)
        age_h = require_number(
            "surface_age_h", self.data.get("surface_age_h") or 0.0, low=0.0, high=1e5, unit="h"
        )
        of_here: dict[str, Any] = {
            "month": day.month, "latitude_deg": self.water.latitude_deg,
            "deepest_m": self.water.deepest_m, "fetch_m": fetch_m(self.water),
        }
        if surface is None:
            return start_from_month(**of_here)
        surface = require_number("surface_degc", surface, low=-1.0, high=40.0, unit="°C")
        if self.data.get("river"):
            # A current keeps its water mixed; what it stirs through the day is not computed.
            mixed = start_from_profile(((0.0, surface), (self.water.deepest_m, surface)))
            return replace(mixed, words="a river, taken as mixed at dawn")
        return start_from_surface(surface, age_h=age_h, **of_here)
