"""The season's API."""

from __future__ import annotations

import csv
import io
import uuid
from contextlib import suppress
from datetime import UTC, date, datetime
from typing import Any

from django.http import HttpResponse
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from coldwake_core.checks import require_choice, require_number
from coldwake_core.decode import encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.evidence.likeness import DayMarks
from coldwake_core.places.review.ledger import added_up
from coldwake_core.season.begin import begin_with, like_days
from coldwake_core.season.bites import bites_of
from coldwake_core.season.trends import AXES, STEPS, Trend, trend
from common.csv import guard
from common.errors import body_of
from common.schemas import ErrorSerializer
from trips.permissions import own_trip
from trips.queries import trip_now

from ..actions.take_sheet import TakeSheet
from ..models import NotedCatch
from ..queries import (
    Season,
    SeasonAsked,
    day_rows,
    events_of_bites,
    fish_there_are,
    kept_lately,
    past_days,
    season_of,
)
from .schemas import (
    BeginSerializer,
    BiteRowSerializer,
    SeasonSerializer,
    SheetAskedSerializer,
    SheetReadSerializer,
)

_ERRORS = {422: ErrorSerializer}
_SEASON = [
    OpenApiParameter("species", str, enum=["trout", "kokanee", "striper"]),
    OpenApiParameter("water_name", str),
]
_UNITS = OpenApiParameter("units", str, enum=["us", "metric"])


def _asked(request: Request, there: dict[str, Any]) -> SeasonAsked:
    """What is asked for; the most fished where nothing is said."""
    usual = there["species"][0] if there["species"] else "trout"
    species = require_choice(
        "species", request.query_params.get("species", usual), ("trout", "kokanee", "striper")
    )
    return SeasonAsked(
        owner_id=request.user.pk, species=species,
        water_name=request.query_params.get("water_name"),
    )


def _trends(season: Season, request: Request) -> list[Trend]:
    units: Any = require_choice("units", request.query_params.get("units", "us"), tuple(STEPS))
    spells = list(season.spells())
    return [trend(spells, axis, units) for axis in AXES]


class SeasonView(APIView):
    """A season."""

    @extend_schema(
        operation_id="get_season",
        parameters=[*_SEASON, _UNITS, OpenApiParameter("days_only", bool)],
        responses={200: SeasonSerializer, **_ERRORS},
    )
    def get(self, request: Request) -> Response:
        """Return its days and trends; or, sooner, its days alone."""
        there = fish_there_are(request.user.pk)
        asked = _asked(request, there)
        days_only = request.query_params.get("days_only") == "true"
        season = season_of(asked, days_only=days_only)
        kept = None if days_only else kept_lately(season, asked.species)
        return Response({
            "species": asked.species, "water_name": asked.water_name,
            "of_species": there["species"], "of_waters": there["waters"],
            "waiting": season.waiting, "days": day_rows(season),
            "trends": [] if days_only else [encode(one) for one in _trends(season, request)],
            "noted": sum(one.count for one in season.noted),
            "kept": None if kept is None else encode(kept),
            "ledger": [
                encode(row) for row in added_up(
                    one for short in season.digests.values() for one in short.handled
                )
            ],
        })


class TrendCsvView(APIView):
    """The numbers of one chart as a file."""

    @extend_schema(
        operation_id="export_trend",
        parameters=[*_SEASON, _UNITS, OpenApiParameter("axis", str, enum=list(AXES))],
        responses={(200, "text/csv"): str, **_ERRORS},
    )
    def get(self, request: Request) -> HttpResponse:
        """Return its bars, a row each, in SI."""
        axis = require_choice("axis", request.query_params.get("axis", ""), AXES)
        asked = _asked(request, fish_there_are(request.user.pk))
        season = season_of(asked)
        while season.waiting:
            # A file says all of it or nothing: days that were not counted yet are counted first.
            season = season_of(asked)
        found = next(one for one in _trends(season, request) if one.axis == axis)
        out = io.StringIO()
        writer = csv.writer(out)
        writer.writerow([
            axis, "low_si", "high_si", "rod_minutes", "hits", "hooked", "landed",
            "hits_per_rod_hour", "low_80", "high_80",
        ])
        for bar in found.bars:
            writer.writerow([
                guard(bar.name), bar.low, bar.high, round(bar.minutes, 1), bar.hits, bar.hooked,
                bar.landed, round(bar.rate, 4), round(bar.rate_low, 4), round(bar.rate_high, 4),
            ])
        return HttpResponse(
            out.getvalue(), content_type="text/csv; charset=utf-8",
            headers={"Content-Disposition": f'attachment; filename="season-{axis}.csv"'},
        )


class BitesView(APIView):
    """The bites of a trip."""

    @extend_schema(
        operation_id="list_bites", responses={200: BiteRowSerializer(many=True), **_ERRORS,
                                              404: ErrorSerializer},
    )
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """List each with recipe, depth, water, light and what the line was doing."""
        trip = own_trip(request.user, trip_id)
        rows = bites_of(trip_now(trip))
        return Response([
            {**encode(row), "told": [{"event_id": pk, "at_s": at_s} for pk, at_s in told]}
            for row, told in zip(rows, events_of_bites(trip, rows), strict=True)
        ])


class BeginView(APIView):
    """What to begin with on a day that comes."""

    @extend_schema(
        operation_id="begin_with",
        parameters=[
            *_SEASON, OpenApiParameter("day", str), OpenApiParameter("surface_degc", float),
        ],
        responses={200: BeginSerializer, **_ERRORS},
    )
    def get(self, request: Request) -> Response:
        """Return it with the days that say so, from all waters: how like they are is weighed."""
        asked = _asked(request, fish_there_are(request.user.pk))
        season = season_of(SeasonAsked(owner_id=asked.owner_id, species=asked.species))
        text = request.query_params.get("day")
        try:
            day = datetime.now(UTC).date() if text is None else date.fromisoformat(text)
        except ValueError:
            raise InvalidInputError("day", text, "a day such as 2026-04-14") from None
        surface: Any = request.query_params.get("surface_degc")
        if surface is not None:
            with suppress(ValueError):  # the core names it
                surface = float(surface)
            surface = require_number("surface_degc", surface, low=-1.0, high=40.0, unit="°C")
        today = DayMarks(
            day_of_year=float(day.timetuple().tm_yday), surface_degc=surface, secchi_m=None,
            water=asked.water_name or "",
        )
        days = past_days(season)
        return Response({
            "days": [encode(one) for one in like_days(today, days)[:12]],
            "begin": [encode(one) for one in begin_with(today, day.month, days)],
            "waiting": season.waiting,
        })


class SheetView(APIView):
    """Somebody's spreadsheet of fish."""

    @extend_schema(
        operation_id="read_sheet", request=SheetAskedSerializer,
        responses={200: SheetReadSerializer, **_ERRORS},
    )
    def post(self, request: Request) -> Response:
        """Say what is understood of it; keep that where ``take`` is true."""
        done = TakeSheet(owner=request.user, data=body_of(request)).execute()
        sheet = done.sheet
        return Response({
            "columns": [
                {"head": head, "samples": [
                    cells[i][:40] for _, cells in sheet.rows[:3] if i < len(cells)
                ]}
                for i, head in enumerate(sheet.head)
            ],
            "mapping": sheet.mapping, "units": sheet.units, "dates": sheet.dates,
            "unsure": sheet.unsure,
            "rows": [
                {**{k: v for k, v in vars(row).items() if k != "key"}, "day": row.day.isoformat()}
                for row in done.good[:20]
            ],
            "good": len(done.good), "bad": done.bad[:50], "bad_count": len(done.bad),
            "taken": done.taken, "known": done.known,
        })

    @extend_schema(
        operation_id="drop_sheet", responses={204: None},
        parameters=[OpenApiParameter("name", str, required=True)],
    )
    def delete(self, request: Request) -> Response:
        """Drop all rows of one file."""
        NotedCatch.objects.filter(
            owner_id=request.user.pk, source=request.query_params.get("name", "")
        ).delete()
        return Response(status=204)
