"""Shapes of the season's API, made from the core's own dataclasses."""

from __future__ import annotations

from rest_framework import serializers

from coldwake_core.places.review.ledger import LedgerRow
from coldwake_core.season.begin import Beginning, LikeDay
from coldwake_core.season.bites import BiteRow
from coldwake_core.season.kept import KeptOver
from coldwake_core.season.trends import Trend
from common.schemas import serializer_of

from ..sheet import FIELDS, UNITS


class ToldSerializer(serializers.Serializer):
    """An event, and when it was."""

    event_id = serializers.UUIDField()
    at_s = serializers.FloatField()


class BiteRowSerializer(serializer_of(BiteRow)):  # type: ignore[misc]
    """A bite, with the events that told it: taken back, it never was."""

    told = ToldSerializer(many=True, help_text="the last first")



class SeasonDaySerializer(serializers.Serializer):
    """A day of the season."""

    trip_id = serializers.UUIDField(allow_null=True, help_text="null: out of a spreadsheet")
    name = serializers.CharField(allow_blank=True)
    water_name = serializers.CharField(allow_blank=True)
    day = serializers.DateField()
    minutes = serializers.FloatField(help_text="rod-minutes; 0 where nobody noted them")
    hits = serializers.IntegerField()
    landed = serializers.IntegerField()
    kept = serializers.IntegerField()
    cast_landed = serializers.IntegerField()
    warm_first_degc = serializers.FloatField(allow_null=True)
    warm_last_degc = serializers.FloatField(allow_null=True)
    marks_m = serializers.FloatField(allow_null=True)
    fished_m = serializers.FloatField(allow_null=True, help_text="middle depth of the hits")
    best = serializers.CharField(allow_blank=True, help_text="what had most hits")


class SeasonSerializer(serializers.Serializer):
    """A season."""

    species = serializers.CharField(allow_blank=True)
    water_name = serializers.CharField(allow_null=True)
    of_species = serializers.ListField(child=serializers.CharField())
    of_waters = serializers.ListField(child=serializers.CharField())
    waiting = serializers.IntegerField(help_text="trips that are still to be worked out")
    days = SeasonDaySerializer(many=True)
    trends = serializer_of(Trend)(many=True)
    noted = serializers.IntegerField(help_text="fish out of spreadsheets, in no rate")
    kept = serializer_of(KeptOver)(allow_null=True, help_text="over the last days; null: none")
    ledger = serializer_of(LedgerRow)(many=True, help_text="of handling, over all days")


class BeginSerializer(serializers.Serializer):
    """What to begin with, and the days that say so."""

    days = serializer_of(LikeDay)(many=True)
    begin = serializer_of(Beginning)(many=True)
    waiting = serializers.IntegerField()


class SheetAskedSerializer(serializers.Serializer):
    """A spreadsheet, and what its columns are."""

    name = serializers.CharField(max_length=120)
    text = serializers.CharField()
    species = serializers.ChoiceField(
        choices=["trout", "kokanee", "striper"], help_text="of rows that say none"
    )
    columns = serializers.DictField(
        child=serializers.IntegerField(), required=False,
        help_text=f"where each of {', '.join(FIELDS)} stands, from 0; guessed where left out",
    )
    units = serializers.DictField(
        child=serializers.CharField(), required=False,
        help_text=f"of {', '.join(UNITS)}; guessed where left out",
    )
    dates = serializers.ChoiceField(choices=["ymd", "mdy", "dmy"], required=False)
    take = serializers.BooleanField(default=False)


class SheetColumnSerializer(serializers.Serializer):
    """A column of a spreadsheet."""

    head = serializers.CharField(allow_blank=True)
    samples = serializers.ListField(child=serializers.CharField(allow_blank=True))


class SheetRowSerializer(serializers.Serializer):
    """A row as it was understood, in SI."""

    row = serializers.IntegerField()
    day = serializers.DateField()
    hour = serializers.FloatField(allow_null=True)
    water_name = serializers.CharField(allow_blank=True)
    species = serializers.CharField()
    count = serializers.IntegerField()
    kept = serializers.IntegerField()
    length_m = serializers.FloatField(allow_null=True)
    depth_m = serializers.FloatField(allow_null=True)
    speed_mps = serializers.FloatField(allow_null=True)
    warm_degc = serializers.FloatField(allow_null=True)
    lure = serializers.CharField(allow_blank=True)
    colour = serializers.CharField(allow_blank=True)
    note = serializers.CharField(allow_blank=True)


class SheetReadSerializer(serializers.Serializer):
    """What was understood of a spreadsheet."""

    columns = SheetColumnSerializer(many=True)
    mapping = serializers.DictField(child=serializers.IntegerField())
    units = serializers.DictField(child=serializers.CharField())
    dates = serializers.CharField()
    unsure = serializers.ListField(
        child=serializers.CharField(), help_text="what was guessed and could be otherwise"
    )
    rows = SheetRowSerializer(many=True, help_text="the first twenty that are understood")
    good = serializers.IntegerField()
    bad = serializers.ListField(
        child=serializers.CharField(), help_text="the first fifty that are not, each with why"
    )
    bad_count = serializers.IntegerField()
    taken = serializers.IntegerField(help_text="rows kept now")
    known = serializers.IntegerField(help_text="rows that were kept before")
