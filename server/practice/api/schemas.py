"""Shapes of the practice API."""

from __future__ import annotations

from rest_framework import serializers

from coldwake_core.chart.grid import GeoPoint
from coldwake_core.lakesim.decisions import Decision
from coldwake_core.lakesim.practice import Truth
from coldwake_core.lakesim.worlds import WORLDS
from coldwake_core.lessons.task import Given, Judged, Task
from common.schemas import serializer_of


class NewPracticeSerializer(serializers.Serializer):
    """A day to practise on."""

    outfit_id = serializers.IntegerField()
    seed = serializers.IntegerField(required=False, help_text="which day; a surprise without")
    advice = serializers.BooleanField(required=False)
    world = serializers.ChoiceField(choices=list(WORLDS), required=False)
    taps = serializers.BooleanField(required=False, help_text="whether bites are tapped by hand")


class GoOnSerializer(serializers.Serializer):
    """How fast it goes on; as before where nothing is said."""

    pace = serializers.FloatField(required=False)


class PracticeBiteSerializer(serializers.Serializer):
    """Something a fish did on a day on which it is tapped by hand."""

    at_s = serializers.FloatField()
    rod_id = serializers.CharField(allow_blank=True, help_text="empty for a cast")
    kind = serializers.ChoiceField(choices=["hit", "hooked", "landed", "lost"])
    length_m = serializers.FloatField(allow_null=True)


class PracticeDaySerializer(serializers.Serializer):
    """A simulated day."""

    trip_id = serializers.UUIDField()
    seed = serializers.IntegerField()
    minutes = serializers.IntegerField(help_text="that have been played, of 480")
    advice = serializers.BooleanField()
    world = serializers.ChoiceField(choices=list(WORLDS))
    is_ended = serializers.BooleanField()
    hits = serializers.IntegerField()
    landed = serializers.IntegerField()
    taps = serializers.BooleanField(help_text="whether bites are tapped by hand")
    recorded = serializers.IntegerField(help_text="hits that stand in the record")
    bites = PracticeBiteSerializer(many=True, help_text="the last, where they are tapped by hand")
    clock_shift_s = serializers.FloatField()
    clock_set_s = serializers.FloatField()
    clock_pace = serializers.FloatField()


class ScoreSerializer(serializers.Serializer):
    """How somebody fished the same day."""

    hits = serializers.IntegerField()
    landed = serializers.IntegerField()
    rods = serializers.IntegerField()
    changes = serializers.IntegerField()


class TruthViewSerializer(serializers.Serializer):
    """What was hidden, once the day is over, and what was fished."""

    truth = serializer_of(Truth)()
    day = PracticeDaySerializer()
    places = serializer_of(GeoPoint)(many=True, help_text="of the schools")
    rod_minutes = serializers.FloatField()
    rods = serializers.IntegerField(help_text="that were fished")
    speeds = serializers.ListField(
        child=serializers.ListField(child=serializers.FloatField()),
        help_text="minute of the day and speed set, m/s",
    )
    fished = serializers.ListField(
        child=serializers.ListField(child=serializers.FloatField()),
        help_text="minutes from and to, depth fished, m, and hits, of each stretch",
    )
    decisions = serializer_of(Decision)(many=True, help_text="that mattered most")


class LessonSerializer(serializers.Serializer):
    """A lesson, and how far one is with it."""

    id = serializers.CharField()
    title = serializers.CharField()
    says = serializers.CharField()
    needed = serializers.IntegerField(help_text="right in a row that pass it")
    is_drill = serializers.BooleanField(help_text="stands beside the ladder")
    asked = serializers.IntegerField()
    right = serializers.IntegerField()
    streak = serializers.IntegerField()
    best = serializers.IntegerField()
    passed = serializers.BooleanField()


class LessonTaskSerializer(serializers.Serializer):
    """The task that is asked now."""

    lesson = LessonSerializer()
    task = serializer_of(Task)()


class TrySerializer(serializers.Serializer):
    """A stretch to be fished: of which task, counted from 0, and what is set."""

    lesson = serializers.CharField()
    asked = serializers.IntegerField()
    set = serializer_of(Given)(many=True)


class AnswerSerializer(serializers.Serializer):
    """An answer: to which task, counted from 0."""

    lesson = serializers.CharField()
    asked = serializers.IntegerField()
    answers = serializer_of(Given)(many=True)


class JudgedAnswerSerializer(serializers.Serializer):
    """What came of an answer."""

    lesson = LessonSerializer()
    right = serializers.BooleanField()
    judged = serializer_of(Judged)(many=True)
