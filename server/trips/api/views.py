"""The trip API: thin, the rules are in the core."""

from __future__ import annotations

import time
import uuid
from datetime import UTC, datetime
from typing import Any

from django.http import FileResponse, HttpResponse
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.exceptions import NotFound
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from coldwake_core.checks import require_number
from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.gear.setup import RodSetup
from coldwake_core.places.above.asked import manoeuvre, orders, plan, tightest
from coldwake_core.places.above.back import back_through
from coldwake_core.places.fish.beside import beside_view
from coldwake_core.places.fish.page import fish_view
from coldwake_core.places.fish.rods import lines_tried
from coldwake_core.places.review.ledger import ledger
from coldwake_core.places.review.photos import photos
from coldwake_core.places.rig.bench import bench, check_spread, ladder
from coldwake_core.places.rig.shelf import shelf
from coldwake_core.record.day_soundings import day_soundings
from coldwake_core.trip.now import Now
from coldwake_core.trip.today import surface_readings
from coldwake_core.water.forecast import SurfaceReading
from common.errors import body_of
from common.keys import key_of
from common.raw import RawParser
from common.schemas import ErrorSerializer
from locker.models import Outfit
from waters.models import Water

from ..actions.append_events import CLOCK_SLACK_S, AppendEvents, ClockError
from ..actions.first_day import FirstDay
from ..actions.keep_photo import MOST_BYTES, KeepPhoto
from ..actions.start_trip import StartTrip
from ..actions.take_plan import TakePlan
from ..kit import kit_of
from ..models import Trip
from ..permissions import own_trip, seen_by
from ..queries import (
    aboard_news,
    events_json,
    last_seq,
    trip_at,
    trip_now,
    trip_now_s,
)
from .schemas import (
    AppendedSerializer,
    BackOfferSerializer,
    BenchViewSerializer,
    BesideViewSerializer,
    DaySoundingsSerializer,
    EventBatchSerializer,
    EventPageSerializer,
    FirstDaySerializer,
    FishViewSerializer,
    KeptPhotoSerializer,
    KitSerializer,
    LadderAskedSerializer,
    LadderStepSerializer,
    LastSurfaceSerializer,
    LedgerSerializer,
    LineOrdersSerializer,
    ManoeuvreViewSerializer,
    NewTripSerializer,
    NumberAtSpeedSerializer,
    PhotosSerializer,
    PlanViewSerializer,
    RodLineSerializer,
    RodSetupSerializer,
    ShelfPieceSerializer,
    SpreadCheckSerializer,
    TackleBroughtSerializer,
    TakePlanSerializer,
    TightestTurnsSerializer,
    TripDocumentSerializer,
    TripListSerializer,
)

_ERRORS = {404: ErrorSerializer, 422: ErrorSerializer}


def _row(trip: Trip, user: Any) -> dict[str, Any]:
    return {
        "id": str(trip.pk), "name": trip.name, "water_name": trip.water_name,
        "species": trip.species, "started_at_s": trip.started_at.timestamp(),
        "is_ended": trip.is_ended, "utc_offset_min": trip.utc_offset_min,
        "outfit_id": trip.boat_id,
        "skipper": None if trip.owner_id == user.pk else trip.owner.get_username(),
        # By its own clock: one that was left open is fished today, the demo's on its own day.
        "now_s": trip.started_at.timestamp() if trip.is_ended else trip_now_s(trip),
    }


class TripListView(APIView):
    """The user's trips."""

    @extend_schema(operation_id="list_trips", responses=TripListSerializer)
    def get(self, request: Request) -> Response:
        """List trips, the latest first, with what a new one can be started with."""
        owner = {"owner_id": request.user.pk}
        trips = Trip.objects.filter(seen_by(request.user), is_practice=False).only(
            "id", "name", "water_name", "species", "started_at", "is_ended", "utc_offset_min",
            "clock_shift_s", "rest_after_s", "clock_pace", "clock_set_s", "owner__username",
        ).select_related("owner")
        return Response({
            "trips": [_row(trip, request.user) for trip in trips[:200]],
            "waters": list(Water.objects.filter(**owner).values("id", "name")),
            "outfits": list(Outfit.objects.filter(**owner).values("id", "name")),
        })

    @extend_schema(
        operation_id="start_trip", request=NewTripSerializer,
        responses={201: TripDocumentSerializer, 422: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Start a trip now."""
        body = body_of(request)
        trip = StartTrip(
            owner=request.user, name=body.get("name"), water_id=body.get("water_id"),
            outfit_id=body.get("outfit_id"), species=body.get("species"),
            started_at=_started_at(body.get("started_at_s")), trip_id=body.get("id"),
            plan_id=body.get("plan_id"), carried=body.get("outfit"),
        ).execute()
        return Response(trip.document(), status=201)


OLDEST_START_S = 60.0 * 86400.0


def _started_at(given: object) -> datetime:
    """When a trip began: now, or when a phone without a server said so."""
    now = datetime.now(UTC)
    if given is None:
        return now
    at_s = require_number("started_at_s", given, unit="s")
    if not now.timestamp() - OLDEST_START_S <= at_s <= now.timestamp() + CLOCK_SLACK_S:
        raise ClockError(
            "started_at_s", at_s, "within the last sixty days: check the clock of this device"
        )
    return datetime.fromtimestamp(at_s, UTC)


class KitView(APIView):
    """What a phone carries along."""

    @extend_schema(operation_id="get_kit", responses=KitSerializer)
    def get(self, request: Request) -> Response:
        """Return all that a trip is started from where there is no server."""
        return Response(kit_of(request.user, datetime.now(UTC)))


class LastSurfaceView(APIView):
    """A water's surface on the morning of the last trip: a plan without a profile starts there."""

    @extend_schema(
        operation_id="last_surface", responses={200: LastSurfaceSerializer, 422: ErrorSerializer},
        parameters=[OpenApiParameter("water_id", int, required=True)],
    )
    def get(self, request: Request) -> Response:
        """Return it, or nothing where no trip read one."""
        water_id = key_of(request.query_params.get("water_id", ""))
        trips = Trip.objects.filter(owner_id=request.user.pk, water_id=water_id)
        surface: SurfaceReading | None = None
        profile: list[tuple[float, float]] = []
        read_s: float | None = None
        for trip in trips[:5]:
            now = trip_now(trip)
            # The first of the day: a plan begins at dawn.
            surface = surface or next(iter(surface_readings(now)), None)
            if not profile and len(now.state.profile()) > 1:
                profile, read_s = now.state.profile(), now.state.readings[-1].at_s
        return Response({
            "temperature_degc": surface.temperature_degc if surface else None,
            "at_s": surface.at_s if surface else None, "profile": profile, "profile_at_s": read_s,
        })


class FirstDayView(APIView):
    """The first trip of a fresh account."""

    @extend_schema(
        operation_id="first_day", request=FirstDaySerializer,
        responses={201: TripDocumentSerializer, 409: ErrorSerializer, 422: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Make boat, tackle and water, and start a trip with its rods rigged."""
        body = body_of(request)
        trip = FirstDay(
            owner=request.user, started_at=datetime.now(UTC), trip_id=body.get("id"),
            timezone=body.get("timezone", ""),
            **{
                name: body.get(name) for name in (
                    "boat_name", "species", "water_name", "deepest_m", "utc_offset_min",
                    "latitude_deg", "longitude_deg",
                )
            },
        ).execute()
        return Response(trip.document(), status=201)


class TripView(APIView):
    """One trip."""

    @extend_schema(operation_id="get_trip", responses={200: TripDocumentSerializer, **_ERRORS})
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Return what the trip started with."""
        trip = own_trip(request.user, trip_id)
        document = trip.document()
        # By the clock as it stands: that of a trip that rests is further behind every minute.
        document["clock_set_s"] = time.time()
        document["clock_shift_s"] = document["clock_set_s"] - trip_now_s(trip)
        return Response(document)


class EventsView(APIView):
    """The events of a trip."""

    @extend_schema(
        operation_id="list_events",
        parameters=[OpenApiParameter("after", int, OpenApiParameter.QUERY, required=False)],
        responses={200: EventPageSerializer, **_ERRORS},
    )
    def get(self, request: Request, trip_id: uuid.UUID) -> HttpResponse:
        """Return the events that came in after a number, all when it is left out."""
        trip = own_trip(request.user, trip_id)
        given = request.query_params.get("after", "0")
        after = int(given) if given.isascii() and given.isdigit() and len(given) < 10 else None
        if after is None:
            raise InvalidInputError("after", given, "the number that came with the last events")
        tag = f'"{trip.pk}-{after}-{last_seq(trip)}"'
        if request.headers.get("If-None-Match") == tag:
            return HttpResponse(status=304, headers={"ETag": tag})
        return HttpResponse(
            events_json(trip, after=after), content_type="application/json",
            headers={"ETag": tag, "Cache-Control": "no-cache"},
        )

    @extend_schema(
        operation_id="append_events", request=EventBatchSerializer,
        responses={200: AppendedSerializer, 409: ErrorSerializer, **_ERRORS},
    )
    def post(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Append events, all or none; an id that is known changes nothing."""
        trip = own_trip(request.user, trip_id, late=True)
        appended = AppendEvents(trip, body_of(request).get("events")).execute()
        return Response({"added": appended.added, "known": appended.known})


class FishView(APIView):
    """What the Fish view shows."""

    @extend_schema(
        operation_id="get_fish", responses={200: FishViewSerializer, **_ERRORS},
        parameters=[OpenApiParameter("at_s", float, OpenApiParameter.QUERY, required=False)],
    )
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Compute it for this moment; or for an earlier one, without the advice of then."""
        trip = own_trip(request.user, trip_id)
        now, now_s = _moment(request, trip)
        return Response(encode(fish_view(now, now_s, advised="at_s" not in request.query_params)))


def _moment(request: Request, trip: Trip) -> tuple[Now, float]:
    """The trip as it stands, or as it stood at the moment that is asked for, and that moment."""
    if "at_s" not in request.query_params:
        return trip_now(trip), trip_now_s(trip)
    at_s = require_number(
        "at_s", _number(request, "at_s"), low=trip.started_at.timestamp() - 86400.0,
        high=max(trip_now_s(trip), trip.started_at.timestamp()) + 1.0, unit="s",
    )
    return trip_at(trip, at_s), at_s


def _number(request: Request, name: str) -> float | str:
    """Return a query parameter as a number; what is none is left for the core to refuse."""
    return _as_number(request.query_params.get(name, ""))


def _as_number(text: str) -> float | str:
    try:
        return float(text)
    except ValueError:
        return text


def _float_parameter(name: str, *, required: bool = True) -> OpenApiParameter:
    return OpenApiParameter(name, float, OpenApiParameter.QUERY, required=required)


def _given(request: Request, *names: str) -> dict[str, float | str]:
    """Return those of the numbers that were given."""
    return {name: _number(request, name) for name in names if name in request.query_params}


_TURN = (
    _float_parameter("radius_m", required=False), _float_parameter("rate_degps", required=False),
)


class LinesView(APIView):
    """Where every lure would be at another speed."""

    @extend_schema(
        operation_id="get_lines", parameters=[_float_parameter("speed_mps")],
        responses={200: RodLineSerializer(many=True), **_ERRORS},
    )
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Solve all lines for a speed, without keeping it."""
        trip = own_trip(request.user, trip_id)
        speed: Any = _number(request, "speed_mps")
        return Response(encode(
            lines_tried(trip_now(trip), speed_mps=speed, now_s=trip_now_s(trip))
        ))


class NumberView(APIView):
    """The number that puts a lure at a depth."""

    @extend_schema(
        operation_id="get_number",
        parameters=[
            OpenApiParameter("rod_id", str, OpenApiParameter.QUERY, required=True),
            _float_parameter("depth_m"), _float_parameter("speed_mps", required=False),
        ],
        responses={200: RodLineSerializer, **_ERRORS},
    )
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Solve one line for a depth, without keeping it."""
        now = trip_now(own_trip(request.user, trip_id))
        speed: Any = None
        if "speed_mps" in request.query_params:
            speed = _number(request, "speed_mps")
        depth: Any = _number(request, "depth_m")
        rod_id = request.query_params.get("rod_id", "")
        return Response(encode(
            now.lines.number_for(rod_id=rod_id, depth_m=depth, speed_mps=speed)
        ))


class PlanView(APIView):
    """The spread from above."""

    @extend_schema(
        operation_id="get_plan",
        parameters=[
            OpenApiParameter("course", str, OpenApiParameter.QUERY, required=True),
            *_TURN, _float_parameter("leeway_deg", required=False),
            _float_parameter("at_s", required=False),
        ],
        responses={200: PlanViewSerializer, **_ERRORS},
    )
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Solve the spread straight, or in a turn; as it stands, or as it stood."""
        now, now_s = _moment(request, own_trip(request.user, trip_id))
        asked: Any = _given(request, "radius_m", "rate_degps", "leeway_deg")
        return Response(encode(plan(
            now, course=request.query_params.get("course", ""), now_s=now_s, **asked
        )))


class TakePlanView(APIView):
    """A planned day for a trip that is under way."""

    @extend_schema(
        operation_id="take_plan", request=TakePlanSerializer,
        responses={204: None, 409: ErrorSerializer, **_ERRORS},
    )
    def post(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Take it: every device of the boat hears of it as of any other event."""
        trip, body = own_trip(request.user, trip_id), body_of(request)
        TakePlan(trip=trip, event_id=body.get("id"), plan_id=body.get("plan_id")).execute()
        return Response(status=204)


class ManoeuvreView(APIView):
    """An S-turn or U-turn as it unfolds."""

    @extend_schema(
        operation_id="get_manoeuvre",
        parameters=[
            OpenApiParameter("kind", str, OpenApiParameter.QUERY, required=True),
            OpenApiParameter("toward", str, OpenApiParameter.QUERY, required=True),
            *_TURN,
        ],
        responses={200: ManoeuvreViewSerializer, **_ERRORS},
    )
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Pull every line through it."""
        trip = own_trip(request.user, trip_id)
        asked: Any = {name: request.query_params.get(name, "") for name in ("kind", "toward")}
        turn: Any = _given(request, "radius_m", "rate_degps")
        return Response(encode(
            manoeuvre(trip_now(trip), **asked, **turn, now_s=trip_now_s(trip))
        ))


class NumbersView(APIView):
    """The numbers that hold a lure at one depth at several speeds."""

    @extend_schema(
        operation_id="get_numbers",
        parameters=[
            OpenApiParameter("rod_id", str, OpenApiParameter.QUERY, required=True),
            _float_parameter("depth_m"),
            OpenApiParameter(
                "speed_mps", float, OpenApiParameter.QUERY, required=True, many=True
            ),
        ],
        responses={200: NumberAtSpeedSerializer(many=True), **_ERRORS},
    )
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Solve one line at each speed, without keeping it."""
        now = trip_now(own_trip(request.user, trip_id))
        depth: Any = _number(request, "depth_m")
        speeds: Any = [_as_number(text) for text in request.query_params.getlist("speed_mps")]
        rod_id = request.query_params.get("rod_id", "")
        return Response(encode(
            now.lines.numbers_at(rod_id=rod_id, depth_m=depth, speeds_mps=speeds)
        ))


class BenchView(APIView):
    """A rod's chain on the bench."""

    @extend_schema(
        operation_id="post_bench", request=RodSetupSerializer,
        parameters=[OpenApiParameter("fit", bool, OpenApiParameter.QUERY, required=False)],
        responses={200: BenchViewSerializer, **_ERRORS},
    )
    def post(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Check a setup that is only tried; nothing is kept."""
        now = trip_now(own_trip(request.user, trip_id))
        setup = decode(RodSetup, body_of(request), field="setup")
        fit = request.query_params.get("fit") == "true"
        return Response(encode(bench(now, setup, fit=fit)))


class ShelfView(APIView):
    """The box, opened at one rod."""

    @extend_schema(
        operation_id="post_shelf", request=RodSetupSerializer,
        responses={200: ShelfPieceSerializer(many=True), **_ERRORS},
    )
    def post(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Say what aboard could hang on it; nothing is kept."""
        now = trip_now(own_trip(request.user, trip_id))
        return Response(encode(shelf(now, decode(RodSetup, body_of(request), field="setup"))))


class LadderView(APIView):
    """A little less flash, the same thump."""

    @extend_schema(
        operation_id="post_ladder", request=LadderAskedSerializer,
        responses={200: LadderStepSerializer(many=True), **_ERRORS},
    )
    def post(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Say what aboard answers that for a rod; nothing is kept."""
        now, body = trip_now(own_trip(request.user, trip_id)), body_of(request)
        setup = decode(RodSetup, body.get("setup"), field="setup")
        wants: Any = {name: body.get(name) for name in ("flash", "thump")}
        return Response(encode(ladder(now, setup, **wants)))


class BesideView(APIView):
    """The checks beside the boat."""

    @extend_schema(operation_id="get_beside", responses={200: BesideViewSerializer, **_ERRORS})
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """List them for boat and rods."""
        return Response(encode(beside_view(trip_now(own_trip(request.user, trip_id)))))


class AboardNewsView(APIView):
    """What the locker has aboard this boat that the trip has not."""

    @extend_schema(operation_id="get_news", responses={200: TackleBroughtSerializer, **_ERRORS})
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """List new and changed things, as the event that brings them aboard."""
        return Response(aboard_news(own_trip(request.user, trip_id)))


class SpreadView(APIView):
    """What the rules say of all rigged rods together."""

    @extend_schema(operation_id="get_spread", responses={200: SpreadCheckSerializer, **_ERRORS})
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Check them all."""
        return Response(encode(check_spread(trip_now(own_trip(request.user, trip_id)))))


class OrdersView(APIView):
    """The order of letting out and taking in."""

    @extend_schema(operation_id="get_orders", responses={200: LineOrdersSerializer, **_ERRORS})
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Sort the rigged rods."""
        return Response(encode(orders(trip_now(own_trip(request.user, trip_id)))))


class TightestView(APIView):
    """The smallest safe turns."""

    @extend_schema(operation_id="get_tightest", responses={200: TightestTurnsSerializer, **_ERRORS})
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Find them to either side."""
        trip = own_trip(request.user, trip_id)
        return Response(encode(tightest(trip_now(trip), now_s=trip_now_s(trip))))


class BackView(APIView):
    """The way back through a place."""

    @extend_schema(
        operation_id="get_back", responses={200: BackOfferSerializer, **_ERRORS},
        parameters=[OpenApiParameter("target_id", str, required=False)],
    )
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Find it."""
        trip = own_trip(request.user, trip_id)
        return Response(encode(back_through(
            trip_now(trip), now_s=trip_now_s(trip), target_id=request.query_params.get("target_id")
        )))


class LedgerView(APIView):
    """What each kind of rig cost and earned."""

    @extend_schema(operation_id="get_ledger", responses={200: LedgerSerializer, **_ERRORS})
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Count it."""
        trip = own_trip(request.user, trip_id)
        return Response(encode(ledger(trip_now(trip), trip_now_s(trip))))


class DaySoundingsView(APIView):
    """What was sounded on a trip, for its water's chart."""

    @extend_schema(
        operation_id="get_day_soundings", responses={200: DaySoundingsSerializer, **_ERRORS}
    )
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Return it as the file that the water takes: nothing is kept by this."""
        trip = own_trip(request.user, trip_id)
        state = trip_now(trip).state
        found = day_soundings(state)
        name = f"{trip.name}, {trip.started_at:%Y-%m-%d}"[:120]
        return Response({
            "water_id": trip.water_id, "name": name, "count": len(found),
            "unplaced": len(state.soundings) - len(found),
            "doubt_m": max((one.doubt_m for one in found), default=0.0),
            "below_m": 0.0 if trip.water is None else trip.water.below_m,
            "taken": trip.water is not None and trip.water.surveys.filter(name=name).exists(),
            "text": "\n".join(["latitude,longitude,depth", *(
                f"{one.place.latitude_deg:.6f},{one.place.longitude_deg:.6f},{one.bottom_m:.2f}"
                for one in found
            )]),
        })


class PhotosView(APIView):
    """The photos of a trip."""

    @extend_schema(operation_id="list_photos", responses={200: PhotosSerializer, **_ERRORS})
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """List what the record tells of photos, and which pictures have come in."""
        trip = own_trip(request.user, trip_id)
        here = {str(key) for key in trip.photos.values_list("pk", flat=True)}
        return Response({
            "photos": [
                {**encode(photo), "is_here": photo.photo_id in here}
                for photo in photos(trip_now(trip).state)
            ]
        })


class PictureParser(RawParser):
    """A picture as it is."""

    media_type = "image/*"
    most_bytes = MOST_BYTES


class PhotoView(APIView):
    """A picture."""

    parser_classes = [PictureParser]

    @extend_schema(operation_id="get_photo", responses={(200, "image/jpeg"): bytes, **_ERRORS})
    def get(self, request: Request, trip_id: uuid.UUID, photo_id: uuid.UUID) -> FileResponse:
        """Return the picture."""
        photo = own_trip(request.user, trip_id).photos.filter(pk=photo_id).first()
        if photo is None or not photo.file.exists():
            raise NotFound("There is no such photo here yet.")
        return FileResponse(
            photo.file.open("rb"), content_type="image/jpeg",
            headers={"Cache-Control": "private, max-age=86400"},
        )

    @extend_schema(
        operation_id="keep_photo", request={"image/*": bytes},
        responses={200: KeptPhotoSerializer, **_ERRORS},
    )
    def put(self, request: Request, trip_id: uuid.UUID, photo_id: uuid.UUID) -> Response:
        """Keep a picture, once, under the id that the record names it by."""
        trip = own_trip(request.user, trip_id, late=True)
        data = request.data if isinstance(request.data, bytes) else b""
        photo = KeepPhoto(trip=trip, photo_id=photo_id, data=data).execute()
        return Response({
            "photo_id": str(photo.pk), "width_px": photo.width_px, "height_px": photo.height_px
        })
