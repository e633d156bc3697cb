"""Shapes of the plans API."""

from __future__ import annotations

from rest_framework import serializers

from coldwake_core.advice.safety import FloatPlan, WayHome
from coldwake_core.places.plan.day import DayView
from coldwake_core.places.plan.river import RiverDay, RiverView
from coldwake_core.record.trip import Sun
from coldwake_core.survey.legs import Leg, LegsWish
from coldwake_core.water.weather import TypedDay, WeatherHour
from common.schemas import PairsField, serializer_of

DayViewSerializer = serializer_of(DayView)
WeatherHourSerializer = serializer_of(WeatherHour)


class AskedSerializer(serializers.Serializer):
    """A day to plan: a surface temperature or a profile, hours of weather or a typed day."""

    water_id = serializers.IntegerField()
    species = serializers.ChoiceField(choices=["trout", "kokanee", "striper"])
    day = serializers.DateField()
    surface_degc = serializers.FloatField(allow_null=True, required=False)
    surface_age_h = serializers.FloatField(allow_null=True, required=False)
    profile = PairsField(allow_null=True, required=False)
    secchi_m = serializers.FloatField(allow_null=True, required=False)
    hours = WeatherHourSerializer(many=True, allow_null=True, required=False)
    typed = serializer_of(TypedDay)(allow_null=True, required=False)
    weather_words = serializers.CharField(allow_null=True, required=False)
    schools = serializers.DictField(child=serializers.CharField(), required=False)
    rough = serializers.BooleanField(required=False)
    oxygen = PairsField(allow_null=True, required=False)
    home = serializer_of(WayHome)(allow_null=True, required=False)
    river = serializer_of(RiverDay)(allow_null=True, required=False)


class DayTriedSerializer(serializers.Serializer):
    """A day as it was computed: how it looks, its weather hour by hour, its light and clock."""

    view = DayViewSerializer()
    hours = WeatherHourSerializer(many=True)
    sun = serializer_of(Sun)()
    utc_offset_min = serializers.IntegerField()
    rules = serializers.ListField(child=serializers.CharField())
    river = serializer_of(RiverView)(allow_null=True)


class FileAskedSerializer(serializers.Serializer):
    """A file of weather, for a water and a day, or of a profile."""

    kind = serializers.ChoiceField(choices=["weather", "profile"])
    text = serializers.CharField(max_length=200_000)
    water_id = serializers.IntegerField(required=False)
    day = serializers.DateField(required=False)


class FileReadSerializer(serializers.Serializer):
    """What a file held, in SI units."""

    hours = WeatherHourSerializer(many=True)
    profile = PairsField()
    oxygen = PairsField()


class LegsAskedSerializer(serializers.Serializer):
    """Legs that are wanted on a water."""

    water_id = serializers.IntegerField()
    wish = serializer_of(LegsWish)()


LegSerializer = serializer_of(Leg)


class FloatAskedSerializer(serializers.Serializer):
    """A float plan to write."""

    water_id = serializers.IntegerField()
    plan = serializer_of(FloatPlan)()


class FloatWrittenSerializer(serializers.Serializer):
    """A float plan as text and as iCalendar."""

    text = serializers.CharField()
    ics = serializers.CharField()


class PlanRowSerializer(serializers.Serializer):
    """A plan in the list."""

    id = serializers.UUIDField()
    water_id = serializers.IntegerField()
    water_name = serializers.CharField()
    species = serializers.CharField()
    day = serializers.DateField()


class KeptPlanSerializer(PlanRowSerializer, DayTriedSerializer):
    """A plan, what was asked, and the day."""

    asked = AskedSerializer()


class WeatherSerializer(serializers.Serializer):
    """A day's weather, how old the answer is, and what went wrong."""

    hours = WeatherHourSerializer(many=True)
    words = serializers.CharField(allow_blank=True)
    age_s = serializers.FloatField(allow_null=True)
    trouble = serializers.CharField(allow_blank=True)
