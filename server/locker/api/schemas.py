"""Shapes of the locker API."""

from __future__ import annotations

from drf_spectacular.utils import PolymorphicProxySerializer, extend_schema_field
from rest_framework import serializers

from coldwake_core.gear.locker import PIECES
from coldwake_core.gear.pieces import Lure
from coldwake_core.gear.tackle import Place, Rod
from coldwake_core.sonar.cone import Sounder
from common.schemas import serializer_of


@extend_schema_field(
    PolymorphicProxySerializer(
        component_name="PieceData",
        serializers=[serializer_of(kind) for kind, _ in PIECES.values()],
        resource_type_field_name=None,
    )
)
class PieceDataField(serializers.JSONField):
    """The properties of a piece: one of the core's piece types."""


class AboardSerializer(serializers.Serializer):
    """How many of a piece are aboard a boat."""

    outfit_id = serializers.IntegerField()
    count = serializers.IntegerField()


class PieceSerializer(serializers.Serializer):
    """A piece of tackle in the locker."""

    id = serializers.IntegerField()
    kind = serializers.ChoiceField(choices=list(PIECES))
    key = serializers.CharField()
    name = serializers.CharField()
    is_retired = serializers.BooleanField()
    properties = PieceDataField()
    aboard = AboardSerializer(many=True)


class PieceListSerializer(serializers.Serializer):
    """All pieces, and how many there are before search and limit."""

    pieces = PieceSerializer(many=True)
    total = serializers.IntegerField()


class NewPieceSerializer(serializers.Serializer):
    """A piece to add, or the new properties of one."""

    kind = serializers.ChoiceField(choices=list(PIECES))
    properties = PieceDataField()


class RetireSerializer(serializers.Serializer):
    """Whether a piece is retired."""

    is_retired = serializers.BooleanField()


class SetAboardSerializer(serializers.Serializer):
    """How many of a piece are aboard."""

    piece_id = serializers.IntegerField()
    count = serializers.IntegerField()


class RowErrorSerializer(serializers.Serializer):
    """What is wrong in a row."""

    row = serializers.IntegerField()
    field = serializers.CharField()
    message = serializers.CharField()


class ImportSerializer(serializers.Serializer):
    """What an import did, or would do."""

    note = serializers.CharField()
    good = serializers.IntegerField()
    added = serializers.IntegerField()
    changed = serializers.IntegerField()
    bad = serializers.IntegerField()
    problems = RowErrorSerializer(many=True)
    imported = serializers.BooleanField()


class BoatSerializer(serializers.Serializer):
    """A boat to set up."""

    boat_name = serializers.CharField()
    boat_length_m = serializers.FloatField()
    rods = serializer_of(Rod)(many=True)
    places = serializer_of(Place)(many=True)
    sounder = serializer_of(Sounder)(required=False)


class BoatRowSerializer(serializers.Serializer):
    """A boat of the user's."""

    id = serializers.IntegerField()
    boat = BoatSerializer()


class MaterialSerializer(serializers.Serializer):
    """A line material of the table."""

    id = serializers.CharField()
    name = serializers.CharField()
    diameter_m = serializers.FloatField()
    density_kgpm3 = serializers.FloatField()
    strength_n = serializers.FloatField()
    has_core = serializers.BooleanField()
    is_cable = serializers.BooleanField()
    origin = serializers.CharField()


class CatalogueSerializer(serializers.Serializer):
    """What a locker is filled from."""

    materials = MaterialSerializer(many=True)
    plugs = serializers.ListField(
        child=serializer_of(Lure)(), help_text="generic plugs by size and lip"
    )
    places = serializers.ListField(
        child=serializer_of(Place)(), help_text="what a place for a rod usually is, one of a kind"
    )
    sounder = serializer_of(Sounder)(help_text="where a transducer usually is")
    boats = BoatSerializer(many=True, help_text="boats to begin from")
