"""The plans API."""

from __future__ import annotations

import uuid
from dataclasses import replace
from datetime import UTC, datetime
from typing import Any

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from coldwake_core.advice.safety import FloatPlan
from coldwake_core.checks import require_choice, require_text
from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.record.planned import DayPlan
from coldwake_core.survey.legs import Leg, LegsWish, plan_legs
from coldwake_core.water.weather import DayWeather
from common.errors import body_of
from common.keys import key_of
from common.schemas import ErrorSerializer
from waters.chart_out import chart_of, features_of, gpx_of_legs

from ..actions.plan_day import (
    FIRST_H,
    LAST_H,
    PlanDay,
    PlannedDay,
    midnight_of,
    read_day,
    shown,
)
from ..actions.save_plan import SavePlan
from ..files import read_profile, read_weather
from ..float_plan import ics_of, text_of
from ..models import Plan
from ..permissions import own_plan, own_water
from ..weather import weather_of
from .schemas import (
    AskedSerializer,
    DayTriedSerializer,
    FileAskedSerializer,
    FileReadSerializer,
    FloatAskedSerializer,
    FloatWrittenSerializer,
    KeptPlanSerializer,
    LegsAskedSerializer,
    LegSerializer,
    PlanRowSerializer,
    WeatherSerializer,
)

_ERRORS = {404: ErrorSerializer, 422: ErrorSerializer}


def _row(plan: Plan) -> dict[str, Any]:
    return {
        "id": str(plan.pk), "water_id": plan.water_id, "water_name": plan.water.name,
        "species": plan.species, "day": plan.day.isoformat(),
    }


def _day(planned: PlannedDay) -> dict[str, Any]:
    return {
        "view": encode(planned.view), "hours": encode(planned.hours), "sun": encode(planned.sun),
        "utc_offset_min": planned.utc_offset_min, "rules": list(planned.rules),
        "river": encode(planned.river),
    }


class DayTriedView(APIView):
    """A day that is only tried."""

    @extend_schema(
        operation_id="try_day", request=AskedSerializer,
        responses={200: DayTriedSerializer, 422: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Compute it and keep nothing."""
        body = body_of(request)
        water = own_water(request.user, body.get("water_id"))
        return Response(_day(PlanDay(water=water, data=body).execute()))


def _legs(request: Request) -> tuple[str, tuple[Leg, ...]]:
    body = body_of(request)
    water = own_water(request.user, body.get("water_id"))
    wish = decode(LegsWish, body.get("wish"), field="wish")
    chart = chart_of(water)
    if chart is None:
        raise InvalidInputError(
            "water_id", water.pk, "a water with a chart: bring soundings in under Locker, Waters"
        )
    return water.name, plan_legs(chart, wish, features_of(water))


class LegsView(APIView):
    """Legs along a contour of a water."""

    @extend_schema(
        operation_id="plan_legs", request=LegsAskedSerializer,
        responses={200: LegSerializer(many=True), 422: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Return them, the best first."""
        return Response(encode(_legs(request)[1]))


class LegsGpxView(APIView):
    """The same legs for a plotter."""

    @extend_schema(
        operation_id="legs_gpx", request=LegsAskedSerializer,
        responses={(200, "application/gpx+xml"): OpenApiTypes.STR, 422: ErrorSerializer},
    )
    def post(self, request: Request) -> HttpResponse:
        """Return them as GPX routes."""
        name, legs = _legs(request)
        return HttpResponse(
            gpx_of_legs(name, [list(leg.places) for leg in legs]),
            content_type="application/gpx+xml",
            headers={"Content-Disposition": 'attachment; filename="legs.gpx"'},
        )


class FloatPlanView(APIView):
    """A float plan, written to be sent."""

    @extend_schema(
        operation_id="write_float_plan", request=FloatAskedSerializer,
        responses={200: FloatWrittenSerializer, 422: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Return it; nothing is kept: it is nobody's business but theirs."""
        body = body_of(request)
        water = own_water(request.user, body.get("water_id"))
        plan = decode(FloatPlan, body.get("plan"), field="plan")
        offset = water.utc_offset_min_at(datetime.fromtimestamp(plan.out_s, UTC))
        return Response({
            "text": text_of(plan, offset), "ics": ics_of(plan, offset, str(uuid.uuid4()))
        })


class PlanListView(APIView):
    """The user's plans."""

    @extend_schema(operation_id="list_plans", responses=PlanRowSerializer(many=True))
    def get(self, request: Request) -> Response:
        """List them, the latest day first."""
        plans = Plan.objects.filter(owner_id=request.user.pk).defer("document", "asked")
        return Response([_row(plan) for plan in plans.select_related("water")])


class PlanView(APIView):
    """One plan."""

    @extend_schema(operation_id="get_day_plan", responses={200: KeptPlanSerializer, **_ERRORS})
    def get(self, request: Request, plan_id: uuid.UUID) -> Response:
        """Return what was asked and how the day looks."""
        plan = own_plan(request.user, plan_id)
        planned = replace(
            shown(
                decode(DayPlan, plan.document, field="plan"), water=plan.water, day=plan.day,
                asked=plan.asked,
            ),
            hours=decode(DayWeather, {"hours": plan.asked["hours"]}).hours,
        )
        return Response({**_row(plan), "asked": plan.asked, **_day(planned)})

    @extend_schema(
        operation_id="save_plan", request=AskedSerializer,
        responses={200: KeptPlanSerializer, **_ERRORS},
    )
    def put(self, request: Request, plan_id: uuid.UUID) -> Response:
        """Keep a plan under an id that the page made."""
        plan, planned = SavePlan(
            owner=request.user, plan_id=plan_id, data=body_of(request)
        ).execute()
        return Response({**_row(plan), "asked": plan.asked, **_day(planned)})

    @extend_schema(operation_id="drop_plan", responses={204: None, 404: ErrorSerializer})
    def delete(self, request: Request, plan_id: uuid.UUID) -> Response:
        """Drop it; trips that took it along keep it."""
        own_plan(request.user, plan_id).delete()
        return Response(status=204)


class ReadFileView(APIView):
    """Weather or a profile from a file of the user's."""

    @extend_schema(
        operation_id="read_day_file", request=FileAskedSerializer,
        responses={200: FileReadSerializer, 422: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Read it and keep nothing."""
        body = body_of(request)
        kind = require_choice("kind", body.get("kind"), ("weather", "profile"))
        text = require_text("text", body.get("text"), longest=200_000)
        if kind == "profile":
            profile, oxygen = read_profile(text)
            return Response({"hours": [], "profile": profile, "oxygen": oxygen})
        water = own_water(request.user, body.get("water_id"))
        hours = read_weather(
            text, midnight_of(water, read_day(body.get("day"))), first_h=FIRST_H, last_h=LAST_H
        )
        return Response({"hours": encode(hours), "profile": [], "oxygen": []})


class WeatherView(APIView):
    """The forecast of a day."""

    @extend_schema(
        operation_id="get_weather", responses={200: WeatherSerializer, 422: ErrorSerializer},
        parameters=[
            OpenApiParameter("water_id", int, required=True),
            OpenApiParameter("day", str, required=True),
        ],
    )
    def get(self, request: Request) -> Response:
        """Return the service's answer, or the last one kept with its age."""
        water = own_water(request.user, key_of(request.query_params.get("water_id", "")))
        day = read_day(request.query_params.get("day"))
        return Response(encode(weather_of(water, day, midnight_of(water, day))))
