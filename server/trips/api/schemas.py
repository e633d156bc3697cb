"""Shapes of the trip API, made from the core's own dataclasses."""

from __future__ import annotations

from drf_spectacular.utils import PolymorphicProxySerializer, extend_schema_field
from rest_framework import serializers

from coldwake_core.chart.features import Feature
from coldwake_core.chart.grid import DepthGrid
from coldwake_core.gear.ladder import LadderStep
from coldwake_core.gear.setup import RodSetup
from coldwake_core.gear.tackle import Outfit as CoreOutfit
from coldwake_core.places.above.back import BackOffer
from coldwake_core.places.above.order import LineOrders
from coldwake_core.places.above.spread import PlanView, TightestTurns
from coldwake_core.places.above.unfolding import ManoeuvreView
from coldwake_core.places.fish.beside import BesideView
from coldwake_core.places.fish.view import FishView
from coldwake_core.places.review.ledger import Ledger
from coldwake_core.places.review.photos import Photo
from coldwake_core.places.rig.bench import BenchView, SpreadCheck
from coldwake_core.places.rig.shelf import ShelfPiece
from coldwake_core.record.beside import TackleBrought
from coldwake_core.record.earlier import EarlierDay
from coldwake_core.record.events import EVENT_TYPES
from coldwake_core.record.planned import DayPlan
from coldwake_core.record.trip import PastReading, Sun
from coldwake_core.record.trip import Trip as CoreTrip
from coldwake_core.rig_rules.law import WaterRules
from coldwake_core.trip.numbers import NumberAtSpeed, RodLine
from common.schemas import PairsField, serializer_of

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
ShelfPieceSerializer = serializer_of(ShelfPiece)
RodSetupSerializer = serializer_of(RodSetup)
LineOrdersSerializer = serializer_of(LineOrders)
BackOfferSerializer = serializer_of(BackOffer)
LedgerSerializer = serializer_of(Ledger)
TightestTurnsSerializer = serializer_of(TightestTurns)
TripDocumentSerializer = serializer_of(CoreTrip)


class LadderAskedSerializer(serializers.Serializer):
    """What is wanted of a rod's flash and thump."""

    setup = RodSetupSerializer()
    flash = serializers.ChoiceField(choices=["less", "same", "more"])
    thump = serializers.ChoiceField(choices=["less", "same", "more"])


class DaySoundingsSerializer(serializers.Serializer):
    """Soundings of a trip, as its water takes them."""

    water_id = serializers.IntegerField(allow_null=True, help_text="null: the water was dropped")
    name = serializers.CharField()
    count = serializers.IntegerField()
    unplaced = serializers.IntegerField(help_text="sounded where no place was known")
    doubt_m = serializers.FloatField(help_text="the widest circle of their places, m")
    below_m = serializers.FloatField(help_text="how low the water stands now, m")
    taken = serializers.BooleanField(help_text="whether the water has soundings of this name")
    text = serializers.CharField(help_text="CSV: latitude, longitude, depth in m")


class TripRowSerializer(serializers.Serializer):
    """A trip in the list."""

    id = serializers.UUIDField()
    name = serializers.CharField()
    water_name = serializers.CharField()
    species = serializers.CharField()
    started_at_s = serializers.FloatField()
    utc_offset_min = serializers.IntegerField()
    is_ended = serializers.BooleanField()
    outfit_id = serializers.IntegerField(allow_null=True, help_text="its boat, where it is kept")
    skipper = serializers.CharField(
        allow_null=True, help_text="whose trip it is, where the user is of the crew"
    )
    now_s = serializers.FloatField(help_text="now by the trip's own clock; its start once ended")


class ChoiceRowSerializer(serializers.Serializer):
    """Something to choose from."""

    id = serializers.IntegerField()
    name = serializers.CharField()


class TripListSerializer(serializers.Serializer):
    """The user's trips, and what a new one can be started with."""

    trips = TripRowSerializer(many=True)
    waters = ChoiceRowSerializer(many=True)
    outfits = ChoiceRowSerializer(many=True)


class LastSurfaceSerializer(serializers.Serializer):
    """A surface temperature and when it was read, both null where none was; and the latest
    profile that a thermometer was lowered for, with its own time.
    """

    temperature_degc = serializers.FloatField(allow_null=True)
    at_s = serializers.FloatField(allow_null=True)
    profile = PairsField()
    profile_at_s = serializers.FloatField(allow_null=True)


class FirstDaySerializer(serializers.Serializer):
    """A first trip: boat, tackle and water are made with it."""

    id = serializers.UUIDField(required=False)
    boat_name = serializers.CharField(max_length=120, help_text="one of the catalogue's boats")
    species = serializers.ChoiceField(choices=["trout", "kokanee", "striper"])
    water_name = serializers.CharField(max_length=120)
    deepest_m = serializers.FloatField()
    utc_offset_min = serializers.IntegerField()
    timezone = serializers.CharField(required=False)
    latitude_deg = serializers.FloatField(required=False, help_text="guessed when left out")
    longitude_deg = serializers.FloatField(required=False)


class NewTripSerializer(serializers.Serializer):
    """A trip to start; sent again under the same id, it is started once."""

    id = serializers.UUIDField(required=False)
    name = serializers.CharField(max_length=120)
    water_id = serializers.IntegerField()
    outfit_id = serializers.IntegerField()
    species = serializers.ChoiceField(choices=["trout", "kokanee", "striper"])
    plan_id = serializers.UUIDField(required=False, allow_null=True)
    started_at_s = serializers.FloatField(required=False)
    outfit = serializer_of(CoreOutfit)(required=False)


class KitDaySerializer(serializers.Serializer):
    """The light of a day at a water, and its clock."""

    day = serializers.DateField()
    utc_offset_min = serializers.IntegerField()
    sun = serializer_of(Sun)()


class PhotoSerializer(serializer_of(Photo)):  # type: ignore[misc]
    """A photo, as the record tells of it, and whether its picture has come in."""

    is_here = serializers.BooleanField()


class PhotosSerializer(serializers.Serializer):
    """The photos of a trip, in order of time."""

    photos = PhotoSerializer(many=True)


class KeptPhotoSerializer(serializers.Serializer):
    """A picture that is kept, and how large."""

    photo_id = serializers.UUIDField()
    width_px = serializers.IntegerField()
    height_px = serializers.IntegerField()


class KitWaterSerializer(serializers.Serializer):
    """A water as a trip on it begins."""

    id = serializers.IntegerField()
    name = serializers.CharField()
    bottom_m = serializers.FloatField()
    chart = serializer_of(DepthGrid)(allow_null=True)
    keep_out = serializer_of(Feature)(many=True)
    rules = serializer_of(WaterRules)(allow_null=True)
    days = KitDaySerializer(many=True)
    earlier = serializers.DictField(child=serializer_of(EarlierDay)(many=True))


class KitOutfitSerializer(serializers.Serializer):
    """A boat with what is aboard, what its lines were seen to do, and what was left on the rods."""

    id = serializers.IntegerField()
    name = serializers.CharField()
    outfit = serializer_of(CoreOutfit)()
    readings = serializer_of(PastReading)(many=True)
    rigged = RodSetupSerializer(many=True)


class KitPlanSerializer(serializers.Serializer):
    """A planned day to come."""

    id = serializers.UUIDField()
    water_id = serializers.IntegerField()
    species = serializers.CharField()
    day = serializers.DateField()
    plan = serializer_of(DayPlan)()


class KitSerializer(serializers.Serializer):
    """All that a trip is started from where there is no server."""

    made_at_s = serializers.FloatField()
    waters = KitWaterSerializer(many=True)
    left_out = serializers.ListField(
        child=serializers.CharField(), help_text="waters that there is no room for"
    )
    outfits = KitOutfitSerializer(many=True)
    plans = KitPlanSerializer(many=True)


class TakePlanSerializer(serializers.Serializer):
    """A planned day for a trip under way; sent again under the same id, it is taken once."""

    id = serializers.UUIDField()
    plan_id = serializers.UUIDField()


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
