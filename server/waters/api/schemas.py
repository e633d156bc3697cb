"""Shapes of the waters API."""

from __future__ import annotations

from rest_framework import serializers

from coldwake_core.rig_rules.law import WaterRules
from common.schemas import serializer_of


class NewWaterSerializer(serializers.Serializer):
    """A water to set up."""

    name = serializers.CharField()
    deepest_m = serializers.FloatField()
    latitude_deg = serializers.FloatField()
    longitude_deg = serializers.FloatField()
    utc_offset_min = serializers.IntegerField()
    timezone = serializers.CharField(required=False, allow_blank=True)
    rules = serializer_of(WaterRules)(allow_null=True)


class WaterSerializer(NewWaterSerializer):
    """A water of the user's."""

    id = serializers.IntegerField()
    has_chart = serializers.BooleanField()
