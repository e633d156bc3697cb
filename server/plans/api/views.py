"""The plans API."""

from __future__ import annotations

import uuid
from typing import Any

from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from coldwake_core.decode import decode, encode
from coldwake_core.places.plan.day import day_view
from coldwake_core.record.planned import DayPlan
from common.errors import body_of
from common.schemas import ErrorSerializer

from ..actions.plan_day import PlanDay, midnight_of, read_day
from ..actions.save_plan import SavePlan
from ..models import Plan
from ..permissions import own_plan, own_water
from ..weather import weather_of
from .schemas import (
    AskedSerializer,
    DayViewSerializer,
    KeptPlanSerializer,
    PlanRowSerializer,
    WeatherSerializer,
)

_ERRORS = {404: ErrorSerializer, 422: ErrorSerializer}


def _row(plan: Plan) -> dict[str, Any]:
    return {
        "id": str(plan.pk), "water_id": plan.water_id, "water_name": plan.water.name,
        "species": plan.species, "day": plan.day.isoformat(),
    }


class DayTriedView(APIView):
    """A day that is only tried."""

    @extend_schema(
        operation_id="try_day", request=AskedSerializer,
        responses={200: DayViewSerializer, 422: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Compute it and keep nothing."""
        body = body_of(request)
        water = own_water(request.user, body.get("water_id"))
        _, view = PlanDay(water=water, data=body).execute()
        return Response(encode(view))


class PlanListView(APIView):
    """The user's plans."""

    @extend_schema(operation_id="list_plans", responses=PlanRowSerializer(many=True))
    def get(self, request: Request) -> Response:
        """List them, the latest day first."""
        plans = Plan.objects.filter(owner_id=request.user.pk).defer("document", "asked")
        return Response([_row(plan) for plan in plans.select_related("water")])


class PlanView(APIView):
    """One plan."""

    @extend_schema(operation_id="get_plan", responses={200: KeptPlanSerializer, **_ERRORS})
    def get(self, request: Request, plan_id: uuid.UUID) -> Response:
        """Return what was asked and how the day looks."""
        plan = own_plan(request.user, plan_id)
        document = decode(DayPlan, plan.document, field="plan")
        view = day_view(
            document, species=plan.species,  # type: ignore[arg-type]
            sun=PlanDay(water=plan.water, data=plan.asked).sun(plan.day),
            bottom_m=plan.water.deepest_m, schools=plan.asked.get("schools") or {},
        )
        return Response({**_row(plan), "asked": plan.asked, "view": encode(view)})

    @extend_schema(
        operation_id="save_plan", request=AskedSerializer,
        responses={200: KeptPlanSerializer, 409: ErrorSerializer, 422: ErrorSerializer},
    )
    def put(self, request: Request, plan_id: uuid.UUID) -> Response:
        """Keep a plan under an id that the page made."""
        plan, view = SavePlan(
            owner=request.user, plan_id=plan_id, data=body_of(request)
        ).execute()
        return Response({**_row(plan), "asked": plan.asked, "view": encode(view)})

    @extend_schema(operation_id="drop_plan", responses={204: None, 404: ErrorSerializer})
    def delete(self, request: Request, plan_id: uuid.UUID) -> Response:
        """Drop it; trips that took it along keep it."""
        own_plan(request.user, plan_id).delete()
        return Response(status=204)


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
        asked = request.query_params.get("water_id", "")
        water = own_water(request.user, int(asked) if asked.isdecimal() else asked)
        day = read_day(request.query_params.get("day"))
        return Response(encode(weather_of(water, day, midnight_of(water, day))))
