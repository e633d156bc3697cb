"""Shapes of the waters API."""

from __future__ import annotations

from rest_framework import serializers

from coldwake_core.chart.features import Feature
from coldwake_core.rig_rules.law import WaterRules
from coldwake_core.survey.soundings import Survey as Looked
from common.schemas import PairsField, serializer_of


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


LookedSerializer = serializer_of(Looked)
FeatureSerializer = serializer_of(Feature)


class FeaturesSerializer(serializers.Serializer):
    """What stands on a chart, and how far the water is under the chart's level."""

    features = FeatureSerializer(many=True, required=False)
    below_m = serializers.FloatField(required=False)


class NewSurveySerializer(serializers.Serializer):
    """Soundings to look at, or to take."""

    name = serializers.CharField()
    format = serializers.ChoiceField(choices=["csv", "geojson", "gpx"])
    unit = serializers.ChoiceField(choices=["m", "ft"])
    text = serializers.CharField()
    swap = serializers.BooleanField(required=False)
    below_m = serializers.FloatField(required=False)
    take = serializers.BooleanField(required=False)


class ContourSerializer(serializers.Serializer):
    """A contour: its depth, and its places as [latitude, longitude]."""

    depth_m = serializers.FloatField()
    places = PairsField()


class SurveyRowSerializer(serializers.Serializer):
    """Soundings that a chart was made from."""

    id = serializers.IntegerField()
    name = serializers.CharField()
    count = serializers.IntegerField()
    below_m = serializers.FloatField()


class RowsField(serializers.ListField):
    """Rows of numbers, each of which may be missing."""

    child = serializers.ListField(child=serializers.FloatField(allow_null=True))


class ChartMapSerializer(serializers.Serializer):
    """A chart as it is drawn: corners, tint by rows from south to north, contours, features."""

    bounds = PairsField()
    rows = RowsField()
    doubt = RowsField()
    contours = ContourSerializer(many=True)
    shore = ContourSerializer(many=True)
    step_m = serializers.FloatField()
    deepest_m = serializers.FloatField()
    below_m = serializers.FloatField()
    features = FeatureSerializer(many=True)
    surveys = SurveyRowSerializer(many=True)
