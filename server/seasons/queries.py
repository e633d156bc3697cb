"""A season: its days, its trends, what was noted elsewhere."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterable, Sequence
from contextlib import suppress
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any, Final

from coldwake_core.decode import decode
from coldwake_core.errors import CoreError
from coldwake_core.evidence.likeness import DayMarks
from coldwake_core.rig_rules.law import WaterRules
from coldwake_core.season.begin import PastDay
from coldwake_core.season.bites import BiteRow
from coldwake_core.season.digest import DayDigest, Spell
from coldwake_core.season.kept import KeptOver, kept_over
from trips.models import Trip

from .digests import days_of, digests_of, numbers_of
from .models import NotedCatch

MOST_TRIPS: Final = 500


@dataclass(frozen=True, kw_only=True)
class SeasonAsked:
    """Whose season: of one species, on one water or all."""

    owner_id: Any
    species: str
    water_name: str | None = None


@dataclass(frozen=True, kw_only=True)
class Season:
    """Trips with their days in short, and how many wait to be worked out."""

    trips: list[Trip]
    days: dict[Any, dict[str, Any]]
    digests: dict[Any, DayDigest]
    noted: list[NotedCatch]
    waiting: int

    def spells(self) -> Iterable[Spell]:
        """Yield every spell of every day."""
        for digest in self.digests.values():
            yield from digest.spells


def season_of(asked: SeasonAsked, *, days_only: bool = False) -> Season:
    """Return a season, the latest trips first; without what stands behind its days if asked."""
    where: dict[str, Any] = {"owner_id": asked.owner_id, "species": asked.species}
    real = {"is_practice": False}
    if asked.water_name is not None:
        where["water_name"] = asked.water_name
    trips = list(Trip.objects.filter(**where, **real).only(
        "id", "name", "water_name", "species", "started_at", "utc_offset_min", "is_ended",
        "clock_shift_s", "rest_after_s", "clock_pace", "clock_set_s", "owner_id",
    )[:MOST_TRIPS])
    digests: dict[Any, DayDigest] = {}
    if days_only:
        days, waiting = days_of(trips)
    else:
        digests, waiting = digests_of(trips)
        days = {key: numbers_of(short) for key, short in digests.items()}
    return Season(
        trips=trips, days=days, digests=digests, waiting=waiting,
        noted=list(NotedCatch.objects.filter(**where)),
    )


def fish_there_are(owner_id: Any) -> dict[str, Any]:
    """Return which species and waters a season can be asked of, the most fished first."""
    rows = Counter(
        Trip.objects.filter(owner_id=owner_id, is_practice=False)
        .values_list("species", "water_name")
    )
    rows.update(
        NotedCatch.objects.filter(owner_id=owner_id).values_list("species", "water_name")
    )
    species: Counter[str] = Counter()
    waters: Counter[str] = Counter()
    for (kind, water), count in rows.items():
        species[kind] += count
        waters[water] += count
    return {
        "species": [kind for kind, _ in species.most_common()],
        "waters": [water for water, _ in waters.most_common() if water],
    }


def local_day(trip: Trip) -> date:
    """Return the day by the calendar at the water."""
    return (trip.started_at + timedelta(minutes=trip.utc_offset_min)).date()


def day_rows(season: Season) -> list[dict[str, Any]]:
    """Return the days in order of time: trips, and what was noted elsewhere."""
    rows: list[dict[str, Any]] = []
    for trip in season.trips:
        numbers = season.days.get(trip.pk)
        if numbers is None:
            continue
        rows.append({
            "trip_id": str(trip.pk), "name": trip.name, "water_name": trip.water_name,
            "day": local_day(trip).isoformat(), **numbers,
        })
    noted: dict[tuple[date, str, str], list[NotedCatch]] = {}
    for one in season.noted:
        noted.setdefault((one.day, one.water_name, one.source), []).append(one)
    for (day, water, source), fish in noted.items():
        warm = [one.warm_degc for one in fish if one.warm_degc is not None]
        depths = sorted(one.depth_m for one in fish if one.depth_m is not None)
        rows.append({
            "trip_id": None, "name": source, "water_name": water, "day": day.isoformat(),
            "minutes": 0.0, "hits": 0, "landed": sum(one.count for one in fish),
            "kept": sum(one.kept for one in fish), "cast_landed": 0,
            "warm_first_degc": warm[0] if warm else None,
            "warm_last_degc": warm[-1] if warm else None, "marks_m": None,
            "fished_m": depths[len(depths) // 2] if depths else None,
            "best": Counter(one.lure for one in fish if one.lure).most_common(1)[0][0] if any(
                one.lure for one in fish
            ) else "",
        })
    return sorted(rows, key=lambda row: row["day"])


def kept_lately(season: Season, species: Any) -> KeptOver | None:
    """Return what was kept lately, against the rules as the latest trip there took them along."""
    days = [
        (local_day(trip), season.digests[trip.pk].caught)
        for trip in season.trips if trip.pk in season.digests
    ]
    if not season.trips:
        return None
    latest = Trip.objects.only("rules", "id").get(pk=season.trips[0].pk)
    rules = None
    if latest.rules is not None:
        # A note of an earlier version that is understood no longer hides no fish.
        with suppress(CoreError):
            rules = decode(WaterRules, latest.rules, field="rules")
    return kept_over(days, rules, species)


def past_days(season: Season) -> list[PastDay]:
    """Return the days as days to come are likened to them."""
    found = []
    for trip in season.trips:
        short = season.digests.get(trip.pk)
        if short is None or not trip.is_ended:
            continue
        warm = [w for w in (short.warm_first_degc, short.warm_last_degc) if w is not None]
        day = local_day(trip)
        found.append(PastDay(
            marks=DayMarks(
                day_of_year=float(day.timetuple().tm_yday), water=trip.water_name,
                surface_degc=sum(warm) / len(warm) if warm else None, secchi_m=None,
            ),
            month=day.month, name=trip.name, spells=short.spells,
        ))
    return found


def events_of_bites(trip: Trip, rows: Sequence[BiteRow]) -> list[list[tuple[str, float]]]:
    """Return the events that told each bite of a trip, with their times, s, the last first."""
    undone = {
        payload["event_id"]
        for payload in trip.events.filter(type="undone").values_list("payload", flat=True)
    }
    told = [
        (at_s, payload.get("rod_id"), str(pk))
        for pk, at_s, payload in trip.events.filter(
            type__in=("hit", "hooked", "landed", "lost")
        ).order_by("-at_s", "-pk").values_list("pk", "at_s", "payload")
        if str(pk) not in undone
    ]
    found = []
    for i, row in enumerate(rows):
        end_s = next(
            (other.at_s for other in rows[i + 1:] if other.rod_id == row.rod_id), math.inf
        )
        found.append([
            (pk, at_s) for at_s, rod_id, pk in told
            if rod_id == row.rod_id and row.at_s <= at_s < end_s
        ])
    return found
