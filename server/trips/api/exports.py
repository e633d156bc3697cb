"""Trips out as files, and back in."""

from __future__ import annotations

import json
import uuid
from datetime import UTC, datetime
from typing import Any

from django.http import HttpResponse, StreamingHttpResponse
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from common.raw import RawParser
from common.schemas import ErrorSerializer

from ..actions.bring_trip import MOST_BYTES, BringTrip
from ..calendar_out import calendar_of
from ..lines_out import line_schema, lines_of
from ..permissions import own_trip
from ..queries import event_documents, events_csv
from ..track_out import geojson_of_trip, gpx_of_trip
from .schemas import TripDocumentSerializer, TripExportSerializer

_ERRORS = {404: ErrorSerializer, 422: ErrorSerializer}
LINES = "application/x-ndjson"


class ExportJsonView(APIView):
    """A whole trip as JSON."""

    @extend_schema(operation_id="export_json", responses={200: TripExportSerializer, **_ERRORS})
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Return the trip and its events as a file."""
        trip = own_trip(request.user, trip_id)
        response = Response({"trip": trip.document(), "events": event_documents(trip)})
        response["Content-Disposition"] = f'attachment; filename="trip-{trip.pk}.json"'
        return response


class ExportCsvView(APIView):
    """The events of a trip as CSV."""

    @extend_schema(operation_id="export_csv", responses={(200, "text/csv"): str, **_ERRORS})
    def get(self, request: Request, trip_id: uuid.UUID) -> HttpResponse:
        """Return the events as a file."""
        trip = own_trip(request.user, trip_id)
        return HttpResponse(
            events_csv(trip), content_type="text/csv; charset=utf-8",
            headers={"Content-Disposition": f'attachment; filename="trip-{trip.pk}.csv"'},
        )


class ExportGpxView(APIView):
    """A trip as GPX."""

    @extend_schema(
        operation_id="export_gpx", responses={(200, "application/gpx+xml"): str, **_ERRORS}
    )
    def get(self, request: Request, trip_id: uuid.UUID) -> HttpResponse:
        """Return track and waypoints as a file."""
        trip = own_trip(request.user, trip_id)
        return HttpResponse(
            gpx_of_trip(trip), content_type="application/gpx+xml",
            headers={"Content-Disposition": f'attachment; filename="trip-{trip.pk}.gpx"'},
        )


class ExportGeoJsonView(APIView):
    """A trip as GeoJSON."""

    @extend_schema(
        operation_id="export_geojson",
        responses={(200, "application/geo+json"): dict[str, Any], **_ERRORS},
    )
    def get(self, request: Request, trip_id: uuid.UUID) -> HttpResponse:
        """Return track and what happened as a file."""
        trip = own_trip(request.user, trip_id)
        return HttpResponse(
            json.dumps(geojson_of_trip(trip)), content_type="application/geo+json",
            headers={"Content-Disposition": f'attachment; filename="trip-{trip.pk}.geojson"'},
        )


class ExportLinesView(APIView):
    """A trip as lines of JSON."""

    @extend_schema(operation_id="export_lines", responses={(200, LINES): str, **_ERRORS})
    def get(self, request: Request, trip_id: uuid.UUID) -> StreamingHttpResponse:
        """Return what it started with, and an event a line, as a file."""
        trip = own_trip(request.user, trip_id)
        return StreamingHttpResponse(
            lines_of(trip), content_type=LINES,
            headers={"Content-Disposition": f'attachment; filename="trip-{trip.pk}.jsonl"'},
        )


class LineSchemaView(APIView):
    """What a line of a trip's lines of JSON is."""

    @extend_schema(
        operation_id="line_schema", responses={(200, "application/schema+json"): dict[str, Any]}
    )
    def get(self, request: Request) -> HttpResponse:
        """Return its JSON Schema (2020-12)."""
        return HttpResponse(
            json.dumps(line_schema(), indent=1), content_type="application/schema+json"
        )


class LinesParser(RawParser):
    """Lines as they are."""

    media_type = LINES
    most_bytes = MOST_BYTES


class BringTripView(APIView):
    """A trip back out of its lines."""

    parser_classes = [LinesParser]

    @extend_schema(
        operation_id="bring_trip", request={LINES: str},
        responses={201: TripDocumentSerializer, 409: ErrorSerializer, 422: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Keep it with all its events, or nothing of it."""
        data = request.data if isinstance(request.data, bytes) else b""
        trip = BringTrip(owner=request.user, data=data).execute()
        return Response(trip.document(), status=201)


class CalendarView(APIView):
    """Trips and planned days as a calendar."""

    @extend_schema(operation_id="export_calendar", responses={(200, "text/calendar"): str})
    def get(self, request: Request) -> HttpResponse:
        """Return it as a file."""
        return HttpResponse(
            calendar_of(request.user, datetime.now(UTC)),
            content_type="text/calendar; charset=utf-8",
            headers={"Content-Disposition": 'attachment; filename="trips.ics"'},
        )
