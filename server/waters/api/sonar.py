"""What a mark means: the sonar bench, without a trip."""

from __future__ import annotations

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from coldwake_core.checks import require_number
from coldwake_core.decode import encode
from coldwake_core.sonar.cone import Sounder
from coldwake_core.sonar.marks import MarkMeaning, mark_of, off_axis_m, trace_of
from coldwake_core.sonar.sound import shown_depth_m, sound_speed_mps
from common.errors import body_of
from common.schemas import ErrorSerializer, PairsField, serializer_of


class MarkAskedSerializer(serializers.Serializer):
    """A fish under a boat: how deep, how fast, how many pings, and how long it showed."""

    depth_m = serializers.FloatField()
    speed_mps = serializers.FloatField()
    pings_ps = serializers.FloatField()
    cone_deg = serializers.FloatField()
    transducer_m = serializers.FloatField(required=False)
    aside_m = serializers.FloatField(required=False)
    seconds = serializers.FloatField(required=False, allow_null=True)
    temperature_degc = serializers.FloatField(required=False)


class MarkMeantSerializer(serializers.Serializer):
    """What it draws, and how far off the axis it stood."""

    mark = serializer_of(MarkMeaning)()
    trace = PairsField()
    off_axis_m = serializers.FloatField(allow_null=True)
    sound_mps = serializers.FloatField()
    shown_m = serializers.FloatField()


class SonarView(APIView):
    """The sonar bench."""

    @extend_schema(
        operation_id="mark_meaning", request=MarkAskedSerializer,
        responses={200: MarkMeantSerializer, 422: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Return what a mark means."""
        body = body_of(request)
        sounder = Sounder(
            depth_m=require_number("transducer_m", body.get("transducer_m", 0.3)),
            cone_deg=require_number("cone_deg", body.get("cone_deg")),
        )
        depth = require_number("depth_m", body.get("depth_m"))
        speed = require_number("speed_mps", body.get("speed_mps"))
        pings = require_number("pings_ps", body.get("pings_ps"))
        mark = mark_of(sounder, depth_m=depth, speed_mps=speed, pings_ps=pings)
        trace = trace_of(
            sounder, depth_m=depth, speed_mps=speed, pings_ps=pings,
            aside_m=require_number("aside_m", body.get("aside_m", 0.0)),
        )
        seconds = body.get("seconds")
        off = None if seconds is None else off_axis_m(
            sounder, depth_m=depth, speed_mps=speed, seconds=require_number("seconds", seconds)
        )
        degc = require_number("temperature_degc", body.get("temperature_degc", 10.0))
        return Response({
            "mark": encode(mark), "trace": trace, "off_axis_m": off,
            "sound_mps": sound_speed_mps(degc),
            "shown_m": sounder.depth_m + shown_depth_m(
                depth - sounder.depth_m, temperature_degc=degc
            ),
        })
