"""The instruments API."""

from __future__ import annotations

import uuid
from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework.parsers import JSONParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from coldwake_core.boat.instruments import Source, Sources, WheelRuns, wheel_by_runs
from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.record.payloads import check_uuid
from common.errors import body_of
from common.raw import RawParser
from common.schemas import ErrorSerializer
from trips.permissions import own_trip

from ..actions.keep_log import MOST_BYTES, KeepLog
from ..actions.record_log import RecordLog
from ..actions.save_sources import SaveSources
from ..live import read
from ..models import Listening
from .schemas import (
    InstrumentsSerializer,
    LogTakenSerializer,
    LogToldSerializer,
    SourcesSerializer,
    TakeLogSerializer,
    WheelFactorSerializer,
    WheelRunsSerializer,
)


def _sources(user: Any) -> Sources:
    kept = Listening.objects.filter(owner_id=user.pk).first()
    return decode(Sources, {"sources": [] if kept is None else kept.sources})


class InstrumentsView(APIView):
    """What the user's boat listens to."""

    @extend_schema(operation_id="get_instruments", responses=InstrumentsSerializer)
    def get(self, request: Request) -> Response:
        """Return the sources and what is heard from them now."""
        return Response({
            "sources": encode(_sources(request.user)),
            "heard": None if request.user.pk is None else read(request.user.pk),
        })

    @extend_schema(
        operation_id="save_instruments", request=SourcesSerializer,
        responses={200: SourcesSerializer, 422: ErrorSerializer},
    )
    def put(self, request: Request) -> Response:
        """Save the sources, the one that is believed first first."""
        body = body_of(request)
        saved = SaveSources(owner=request.user, sources=body.get("sources")).execute()
        return Response(encode(saved))


class LogParser(RawParser):
    """A log as it is."""

    media_type = "text/plain"
    most_bytes = MOST_BYTES


class LogView(APIView):
    """A recorded log: brought here to be played again, or taken into the trip it is of."""

    parser_classes = [LogParser, JSONParser]

    @extend_schema(
        operation_id="keep_log", request={"text/plain": str},
        responses={200: LogToldSerializer, 422: ErrorSerializer},
    )
    def put(self, request: Request) -> Response:
        """Keep it in place of the one before, and say what is in it."""
        data = request.data if isinstance(request.data, bytes) else b""
        return Response(encode(KeepLog(owner=request.user, data=data).execute()))

    @extend_schema(
        operation_id="take_log", request=TakeLogSerializer,
        responses={200: LogTakenSerializer, 404: ErrorSerializer, 422: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Put what says something new in it into a trip, at the moments that it tells."""
        body = body_of(request)
        trip = own_trip(request.user, uuid.UUID(check_uuid("trip_id", body.get("trip_id"))))
        wanted = body.get("source_id")
        among = [one for one in _sources(request.user).sources if one.id == wanted]
        if wanted is not None and not among:
            raise InvalidInputError("source_id", wanted, "one of those that are listened to")
        source = among[0] if among else Source(id="log", name="log", kind="log")
        return Response(encode(RecordLog(owner=request.user, trip=trip, source=source).execute()))


class WheelView(APIView):
    """A speedometer's wheel against GPS, there and back."""

    @extend_schema(
        operation_id="wheel_by_runs", request=WheelRunsSerializer,
        responses={200: WheelFactorSerializer, 422: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Compute its factor; nothing is kept."""
        runs = decode(WheelRuns, body_of(request))
        return Response({"wheel_factor": wheel_by_runs(runs)})
