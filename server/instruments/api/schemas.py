"""Shapes of the instruments API, made from the core's own dataclasses."""

from __future__ import annotations

from rest_framework import serializers

from coldwake_core.boat.instruments import Sources, Value, WheelRuns
from common.schemas import serializer_of

from ..actions.record_log import LogTaken
from ..logs import LogTold

SourcesSerializer = serializer_of(Sources)
WheelRunsSerializer = serializer_of(WheelRuns)
LogToldSerializer = serializer_of(LogTold)
LogTakenSerializer = serializer_of(LogTaken)


class WheelFactorSerializer(serializers.Serializer):
    """What a wheel is to be multiplied by."""

    wheel_factor = serializers.FloatField()


class TakeLogSerializer(serializers.Serializer):
    """The trip that a log was recorded on."""

    trip_id = serializers.UUIDField()
    source_id = serializers.CharField(
        required=False, help_text="the source whose corrections hold for the log"
    )


class SourceStateSerializer(serializers.Serializer):
    """How it is with a source."""

    id = serializers.CharField()
    name = serializers.CharField()
    words = serializers.CharField(help_text="what is wrong with it; empty where nothing is")
    age_s = serializers.FloatField(allow_null=True)
    good = serializers.IntegerField()
    checksum = serializers.IntegerField()
    unknown = serializers.IntegerField()
    broken = serializers.IntegerField()


class HeardSerializer(serializers.Serializer):
    """What is heard now, from whom, how old, and which of it is used."""

    at_s = serializers.FloatField()
    sources = SourceStateSerializer(many=True)
    values = serializer_of(Value)(many=True)
    trip = serializers.CharField(allow_null=True, help_text="the trip that takes it")
    recorded = serializers.IntegerField(help_text="events since it is listened to")
    refused = serializers.CharField(help_text="why the trip did not take the last one")


class InstrumentsSerializer(serializers.Serializer):
    """What a boat listens to, and what is heard."""

    sources = SourcesSerializer()
    heard = HeardSerializer(allow_null=True, help_text="null where nobody listens")
