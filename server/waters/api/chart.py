"""The chart of a water: map, soundings, what stands on it; out as GeoJSON and GPX."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from django.http import HttpResponse, JsonResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.exceptions import NotFound
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from coldwake_core.decode import encode
from common.errors import body_of
from common.schemas import ErrorSerializer

from ..actions.save_features import SaveFeatures
from ..actions.survey_water import SurveyWater, make_chart
from ..chart_out import geojson_of, gpx_of, map_of
from ..models import Water
from ..permissions import own_water
from .schemas import (
    ChartMapSerializer,
    FeaturesSerializer,
    LookedSerializer,
    NewSurveySerializer,
)

_ERRORS = {404: ErrorSerializer, 422: ErrorSerializer}


def _chart(water: Water, unit: str) -> dict[str, Any]:
    return {
        **map_of(water, unit), "features": water.features, "below_m": water.below_m,
        "surveys": [
            {
                "id": survey.pk, "name": survey.name, "count": len(survey.points),
                "below_m": survey.below_m,
            }
            for survey in water.surveys.all()
        ],
    }


class ChartView(APIView):
    """A water's chart as it is drawn."""

    @extend_schema(
        operation_id="get_chart", responses={200: ChartMapSerializer, 404: ErrorSerializer},
        parameters=[OpenApiParameter("unit", str, enum=["m", "ft"])],
    )
    def get(self, request: Request, water_id: int) -> Response:
        """Return tint, contours in the reader's unit, and what stands on it."""
        water = own_water(request.user, water_id)
        return Response(_chart(water, "ft" if request.query_params.get("unit") == "ft" else "m"))

    @extend_schema(
        operation_id="save_features", request=FeaturesSerializer,
        responses={200: ChartMapSerializer, **_ERRORS},
    )
    def put(self, request: Request, water_id: int) -> Response:
        """Keep what stands on it, and today's level."""
        water = own_water(request.user, water_id)
        return Response(_chart(SaveFeatures(water=water, data=body_of(request)).execute(), "m"))


class SurveysView(APIView):
    """Soundings for a water."""

    @extend_schema(
        operation_id="add_survey", request=NewSurveySerializer,
        responses={200: LookedSerializer, **_ERRORS},
    )
    def post(self, request: Request, water_id: int) -> Response:
        """Look at soundings; with ``take`` keep them and make the chart anew."""
        water = own_water(request.user, water_id)
        return Response(encode(SurveyWater(water=water, data=body_of(request)).execute()))


class SurveyView(APIView):
    """One set of soundings."""

    @extend_schema(operation_id="drop_survey", responses={204: None, 404: ErrorSerializer})
    def delete(self, request: Request, water_id: int, survey_id: int) -> Response:
        """Drop it, and make the chart from the rest."""
        water = own_water(request.user, water_id)
        survey = water.surveys.filter(pk=survey_id).first()
        if survey is None:
            raise NotFound("This water has no such soundings.")
        with transaction.atomic():
            survey.delete()
            make_chart(water)
        return Response(status=204)


class ChartGeoJsonView(APIView):
    """The chart as GeoJSON."""

    @extend_schema(
        operation_id="chart_geojson", responses={200: OpenApiTypes.OBJECT, 404: ErrorSerializer}
    )
    def get(self, request: Request, water_id: int) -> JsonResponse:
        """Return contours and features."""
        response = JsonResponse(geojson_of(own_water(request.user, water_id)))
        response["Content-Type"] = "application/geo+json"
        response["Content-Disposition"] = 'attachment; filename="chart.geojson"'
        return response


class ChartGpxView(APIView):
    """What stands on the chart as GPX."""

    @extend_schema(
        operation_id="chart_gpx",
        responses={(200, "application/gpx+xml"): OpenApiTypes.STR, 404: ErrorSerializer},
    )
    def get(self, request: Request, water_id: int) -> HttpResponse:
        """Return waypoints."""
        return HttpResponse(
            gpx_of(own_water(request.user, water_id)), content_type="application/gpx+xml",
            headers={"Content-Disposition": 'attachment; filename="chart.gpx"'},
        )
