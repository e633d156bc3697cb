"""Shapes of the trip API, made from the core's own dataclasses."""

from __future__ import annotations

import dataclasses
import types
import typing
from typing import Any

from drf_spectacular.utils import PolymorphicProxySerializer, extend_schema_field
from rest_framework import serializers

from coldwake_core.fish.bench import BenchView, SpreadCheck
from coldwake_core.fish.beside import BesideView
from coldwake_core.fish.manoeuvre import ManoeuvreView
from coldwake_core.fish.numbers import NumberAtSpeed, RodLine
from coldwake_core.fish.order import LineOrders
from coldwake_core.fish.plan import PlanView, TightestTurns
from coldwake_core.fish.view import FishView
from coldwake_core.gear.ladder import LadderStep
from coldwake_core.gear.setup import RodSetup
from coldwake_core.record.beside import TackleBrought
from coldwake_core.record.events import EVENT_TYPES
from coldwake_core.record.trip import Trip as CoreTrip


class PathsField(serializers.ListField):
    """Lines of [behind the tip, below the surface] points."""

    child = serializers.ListField(
        child=serializers.ListField(child=serializers.FloatField(), min_length=2, max_length=2)
    )


_SIMPLE: dict[Any, type[serializers.Field]] = {
    str: serializers.CharField, float: serializers.FloatField, int: serializers.IntegerField,
    bool: serializers.BooleanField,
}
_GRID_ROW = tuple[float | None, ...]
_MADE: dict[type, type[serializers.Serializer]] = {}


def serializer_of(kind: type) -> type[serializers.Serializer]:
    """Return the serializer of a dataclass of the core, for the schema.

    Written here because the off-the-shelf dataclass serializer does not know tuples of points.
    """
    if kind not in _MADE:
        hints = typing.get_type_hints(kind)
        fields: dict[str, Any] = {
            spec.name: _field(
                hints[spec.name],
                required=spec.default is dataclasses.MISSING,
            )
            for spec in dataclasses.fields(kind)
        }
        _MADE[kind] = type(f"{kind.__name__}Serializer", (serializers.Serializer,), {
            **fields, "__doc__": (kind.__doc__ or "").split("\n\n")[0],
        })
    return _MADE[kind]


def _field(hint: Any, *, required: bool = True, nullable: bool = False) -> serializers.Field:
    origin, args = typing.get_origin(hint), typing.get_args(hint)
    options: dict[str, Any] = {"required": required, "allow_null": nullable}
    if origin in (typing.Union, types.UnionType):
        inner = next(arg for arg in args if arg is not type(None))
        return _field(inner, required=required, nullable=True)
    if origin is typing.Literal:
        return serializers.ChoiceField(choices=list(args), **options)
    if origin is tuple:
        if typing.get_origin(args[0]) is tuple and args[0] != _GRID_ROW:
            return PathsField(**options)
        return serializers.ListField(child=_field(args[0]), **options)
    if dataclasses.is_dataclass(hint):
        return serializer_of(typing.cast(type, hint))(**options)
    return _SIMPLE[hint](**options)


FishViewSerializer = serializer_of(FishView)
RodLineSerializer = serializer_of(RodLine)
PlanViewSerializer = serializer_of(PlanView)
ManoeuvreViewSerializer = serializer_of(ManoeuvreView)
NumberAtSpeedSerializer = serializer_of(NumberAtSpeed)
BenchViewSerializer = serializer_of(BenchView)
LadderStepSerializer = serializer_of(LadderStep)
BesideViewSerializer = serializer_of(BesideView)
TackleBroughtSerializer = serializer_of(TackleBrought)
SpreadCheckSerializer = serializer_of(SpreadCheck)
RodSetupSerializer = serializer_of(RodSetup)
LineOrdersSerializer = serializer_of(LineOrders)
TightestTurnsSerializer = serializer_of(TightestTurns)
TripDocumentSerializer = serializer_of(CoreTrip)


class LadderAskedSerializer(serializers.Serializer):
    """What is wanted of a rod's flash and thump."""

    setup = RodSetupSerializer()
    flash = serializers.ChoiceField(choices=["less", "same", "more"])
    thump = serializers.ChoiceField(choices=["less", "same", "more"])


class TripRowSerializer(serializers.Serializer):
    """A trip in the list."""

    id = serializers.UUIDField()
    name = serializers.CharField()
    water_name = serializers.CharField()
    species = serializers.CharField()
    started_at_s = serializers.FloatField()
    utc_offset_min = serializers.IntegerField()
    is_ended = serializers.BooleanField()


class ChoiceRowSerializer(serializers.Serializer):
    """Something to choose from."""

    id = serializers.IntegerField()
    name = serializers.CharField()


class TripListSerializer(serializers.Serializer):
    """The user's trips, and what a new one can be started with."""

    trips = TripRowSerializer(many=True)
    waters = ChoiceRowSerializer(many=True)
    outfits = ChoiceRowSerializer(many=True)


class NewTripSerializer(serializers.Serializer):
    """A trip to start; sent again under the same id, it is started once."""

    id = serializers.UUIDField(required=False)
    name = serializers.CharField(max_length=120)
    water_id = serializers.IntegerField()
    outfit_id = serializers.IntegerField()
    species = serializers.ChoiceField(choices=["trout", "kokanee", "striper"])


@extend_schema_field(
    PolymorphicProxySerializer(
        component_name="EventPayload",
        serializers=list(dict.fromkeys(serializer_of(kind) for kind in EVENT_TYPES.values())),
        resource_type_field_name=None,
    )
)
class PayloadField(serializers.JSONField):
    """The payload of an event: one of the core's payload types."""


class EventSerializer(serializers.Serializer):
    """Something that happened."""

    id = serializers.UUIDField()
    at_s = serializers.FloatField()
    type = serializers.ChoiceField(choices=list(EVENT_TYPES))
    payload = PayloadField()


class EventBatchSerializer(serializers.Serializer):
    """Events to append, all or none."""

    events = EventSerializer(many=True)


class EventPageSerializer(EventBatchSerializer):
    """Events in the order in which they came in, and the number to ask from next."""

    after = serializers.IntegerField()


class AppendedSerializer(serializers.Serializer):
    """Which events are new, and which were here already."""

    added = serializers.ListField(child=serializers.UUIDField())
    known = serializers.ListField(child=serializers.UUIDField())


class TripExportSerializer(serializers.Serializer):
    """A whole trip: what it started with and all its events."""

    trip = TripDocumentSerializer()
    events = EventSerializer(many=True)
