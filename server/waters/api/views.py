"""The waters API."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework.exceptions import NotFound
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from common.errors import body_of
from common.schemas import ErrorSerializer

from ..actions.save_water import FIELDS, SaveWater
from ..models import Water
from .schemas import NewWaterSerializer, WaterSerializer

_ERRORS = {404: ErrorSerializer, 422: ErrorSerializer}


def _water(water: Water) -> dict[str, Any]:
    return {
        "id": water.pk, "has_chart": water.chart is not None,
        **{name: getattr(water, name) for name in FIELDS},
    }


class WaterListView(APIView):
    """The user's waters."""

    @extend_schema(operation_id="list_waters", responses=WaterSerializer(many=True))
    def get(self, request: Request) -> Response:
        """List them."""
        return Response([_water(w) for w in Water.objects.filter(owner_id=request.user.pk)])

    @extend_schema(
        operation_id="add_water", request=NewWaterSerializer,
        responses={201: WaterSerializer, **_ERRORS},
    )
    def post(self, request: Request) -> Response:
        """Add a water."""
        water = SaveWater(owner=request.user, data=body_of(request)).execute()
        return Response(_water(water), status=201)


class WaterView(APIView):
    """One water."""

    @extend_schema(
        operation_id="change_water", request=NewWaterSerializer,
        responses={200: WaterSerializer, **_ERRORS},
    )
    def put(self, request: Request, water_id: int) -> Response:
        """Change it; trips that were fished there keep what they had."""
        water = Water.objects.filter(pk=water_id, owner_id=request.user.pk).first()
        if water is None:
            raise NotFound("You have no such water.")
        saved = SaveWater(owner=request.user, data=body_of(request), water=water).execute()
        return Response(_water(saved))
