"""The opening spread: built, or changed by its user and judged. Nothing is kept."""

from __future__ import annotations

import uuid
from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.spread.breaks import Out
from coldwake_core.spread.dress import Earned
from coldwake_core.spread.opening import OpeningSpread, build_opening, changed_opening
from coldwake_core.spread.planned import PhaseOpening
from common.errors import body_of
from common.schemas import ErrorSerializer, serializer_of
from plans.api.schemas import AskedSerializer
from plans.permissions import own_water

from ..actions.plan_opening import PlanOpening
from ..permissions import own_trip
from ..queries import trip_now, trip_now_s

_ERRORS = {404: ErrorSerializer, 422: ErrorSerializer}
OpeningSpreadSerializer = serializer_of(OpeningSpread)
PhaseOpeningSerializer = serializer_of(PhaseOpening)


class OpeningAskedSerializer(serializers.Serializer):
    """What to build a spread for; left out, the whole boat at the best speed."""

    speed_mps = serializers.FloatField(required=False, allow_null=True)
    rod_ids = serializers.ListField(
        child=serializers.CharField(), required=False, allow_null=True
    )


class PlannedOpeningSerializer(serializers.Serializer):
    """A day as it is asked for, the boat, and a moment of the day."""

    day = AskedSerializer()
    outfit_id = serializers.IntegerField()
    at_s = serializers.FloatField()
    begin = serializer_of(Earned)(
        many=True, required=False, help_text="looks that earned hits on days like it, best first"
    )


class ChangedSpreadSerializer(serializers.Serializer):
    """A spread as its user changed it."""

    speed_mps = serializers.FloatField()
    rods = serializer_of(Out)(many=True)


class OpeningView(APIView):
    """An opening spread."""

    @extend_schema(
        operation_id="build_opening", request=OpeningAskedSerializer,
        responses={200: OpeningSpreadSerializer, **_ERRORS},
    )
    def post(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Build one for what is aboard, the marks and the method of the hour."""
        trip, body = own_trip(request.user, trip_id), body_of(request)
        rod_ids = body.get("rod_ids")
        if rod_ids is not None and (
            not isinstance(rod_ids, list) or not all(isinstance(item, str) for item in rod_ids)
            or len(set(rod_ids)) < len(rod_ids)
        ):
            raise InvalidInputError("rod_ids", rod_ids, "a list of rods, each once")
        speed: Any = body.get("speed_mps")
        return Response(encode(build_opening(
            trip_now(trip), trip_now_s(trip), speed_mps=speed, rod_ids=rod_ids
        )))


class PlannedOpeningView(APIView):
    """The opening spread of a day that is only planned."""

    @extend_schema(
        operation_id="plan_opening", request=PlannedOpeningSerializer,
        responses={200: PhaseOpeningSerializer, 422: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Build it for a phase of the day, with every number at two speeds."""
        body = body_of(request)
        day = body.get("day")
        water = own_water(request.user, day.get("water_id") if isinstance(day, dict) else None)
        return Response(encode(PlanOpening(
            owner=request.user, water=water, day=day, outfit_id=body.get("outfit_id"),
            at_s=body.get("at_s"), begin=body.get("begin"),
        ).execute()))


class ChangedOpeningView(APIView):
    """A spread that its user changed."""

    @extend_schema(
        operation_id="judge_opening", request=ChangedSpreadSerializer,
        responses={200: OpeningSpreadSerializer, **_ERRORS},
    )
    def post(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Say where it runs and what it breaks."""
        trip, body = own_trip(request.user, trip_id), body_of(request)
        given = body.get("rods")
        if not isinstance(given, list) or len(given) > 30:
            raise InvalidInputError("rods", given, "a list of at most 30 rods")
        rods = [decode(Out, item, field=f"rods[{index}]") for index, item in enumerate(given)]
        speed: Any = body.get("speed_mps")
        return Response(encode(changed_opening(
            trip_now(trip), trip_now_s(trip), rods, speed
        )))
