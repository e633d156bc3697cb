"""The practice API."""

from __future__ import annotations

import uuid
from collections import Counter
from typing import Any

from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.exceptions import NotFound
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from coldwake_core.checks import require_choice
from coldwake_core.decode import encode
from coldwake_core.lakesim.decisions import decisions
from coldwake_core.lakesim.practice import truth_of
from coldwake_core.lakesim.sailing import place_at
from coldwake_core.season.digest import digest
from common.errors import ConflictError, body_of
from common.schemas import ErrorSerializer
from trips.models import Trip
from trips.queries import trip_now

from ..actions.go_on import GoOn
from ..actions.start_practice import StartPractice
from ..models import PracticeDay
from ..scores import WHO, score_of
from ..water import path_of, world_of_day
from .schemas import (
    GoOnSerializer,
    NewPracticeSerializer,
    PracticeDaySerializer,
    ScoreSerializer,
    TruthViewSerializer,
)

_ERRORS = {404: ErrorSerializer, 409: ErrorSerializer, 422: ErrorSerializer}
MOST_LISTED = 50
LAST_BITES = 6


def _own(request: Request, trip_id: uuid.UUID) -> PracticeDay:
    day = PracticeDay.objects.select_related("trip").filter(
        trip_id=trip_id, trip__owner_id=request.user.pk
    ).first()
    if day is None:
        raise NotFound("You have no such practice day.")
    return day


def _told(day: PracticeDay) -> dict[str, Any]:
    trip: Trip = day.trip
    recorded = trip.events.filter(type="hit").count()
    if not day.taps:
        hits, landed = recorded, trip.events.filter(type="landed").count()
    else:
        # As where they record themselves: what was cast to a school counts apart.
        kinds = Counter(bite["kind"] for bite in day.bites if bite["rod_id"])
        hits, landed = kinds["hit"], kinds["landed"]
    return {
        "trip_id": str(trip.pk), "seed": day.seed, "minutes": day.minutes, "advice": day.advice,
        "world": day.world,
        "is_ended": trip.is_ended, "hits": hits, "landed": landed,
        "taps": day.taps, "recorded": recorded, "bites": day.bites[-LAST_BITES:],
        "clock_shift_s": trip.clock_shift_s, "clock_set_s": trip.clock_set_s,
        "clock_pace": trip.clock_pace,
    }


class PracticeListView(APIView):
    """The user's simulated days."""

    @extend_schema(operation_id="list_practice", responses=PracticeDaySerializer(many=True))
    def get(self, request: Request) -> Response:
        """List them, the latest first."""
        days = PracticeDay.objects.select_related("trip").filter(
            trip__owner_id=request.user.pk
        ).order_by("-looked_s")
        return Response([_told(day) for day in days[:MOST_LISTED]])

    @extend_schema(
        operation_id="start_practice", request=NewPracticeSerializer,
        responses={201: PracticeDaySerializer, 422: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Begin one."""
        body = body_of(request)
        day = StartPractice(
            owner=request.user, outfit_id=body.get("outfit_id"), seed=body.get("seed"),
            advice=body.get("advice", True), world=body.get("world", "lake"),
            taps=body.get("taps", False),
        ).execute()
        return Response(_told(day), status=201)


class PracticeView(APIView):
    """One simulated day."""

    @extend_schema(
        operation_id="go_on", request=GoOnSerializer,
        responses={200: PracticeDaySerializer, **_ERRORS},
    )
    def post(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Let it go on to its present moment; whoever fishes asks every second or so."""
        day = GoOn(day=_own(request, trip_id), pace=body_of(request).get("pace")).execute()
        return Response(_told(day))

    @extend_schema(operation_id="drop_practice", responses={204: None, 404: ErrorSerializer})
    def delete(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Drop it with its trip: no real record is touched."""
        _own(request, trip_id).trip.delete()
        return Response(status=204)


class TruthView(APIView):
    """What was hidden."""

    @extend_schema(operation_id="get_truth", responses={200: TruthViewSerializer, **_ERRORS})
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Return it once the day is over."""
        day = _own(request, trip_id)
        trip = day.trip
        if not trip.is_ended:
            raise ConflictError("The day is not over: end it, then its truth is shown.")
        start_s = trip.started_at.timestamp()
        now = trip_now(trip)
        world = world_of_day(day)
        end_s = start_s + 60.0 * max(day.minutes, 1)
        spells = digest(now, end_s).spells
        hits = {
            rod.rod_id: [at for at, rod_id, kind in now.state.bites
                         if rod_id == rod.rod_id and kind == "hit"]
            for rod in now.state.rods.values()
        }
        fished = []
        for stint in now.state.stints:
            last_s = min(end_s if stint.end_s is None else stint.end_s, end_s)
            if last_s - stint.start_s < 60.0:
                continue
            placed = now.lines.solved(stint.setup, now.speed_mps, doubt="none").place(
                stint.setting_m
            )[1]
            fished.append([
                (stint.start_s - start_s) / 60.0, (last_s - start_s) / 60.0, placed.depth_m,
                float(sum(stint.start_s <= at <= last_s for at in hits[stint.rod_id])),
            ])
        truth, path = truth_of(world, max(day.minutes, 1)), path_of(day)
        return Response({
            "truth": encode(truth), "day": _told(day),
            "places": [encode(place_at(path, share)) for share in truth.schools],
            "rod_minutes": sum(spell.minutes for spell in spells),
            "rods": len({stint.rod_id for stint in now.state.stints}),
            # The speed that a trip begins with stands until one is set.
            "speeds": [[0.0, now.state.speeds[0][1] if now.state.speeds else now.speed_mps], *(
                [(at_s - start_s) / 60.0, speed] for at_s, speed in now.state.speeds
            )],
            "fished": fished,
            "decisions": [
                encode(one) for one in decisions(
                    world, now, start_s, max(day.minutes, 1), day.boat.get("hands")
                )
            ],
        })


class ScoreView(APIView):
    """How somebody else fished the same day."""

    @extend_schema(
        operation_id="get_score", responses={200: ScoreSerializer, **_ERRORS},
        parameters=[OpenApiParameter("who", str, enum=list(WHO), required=True)],
    )
    def get(self, request: Request, trip_id: uuid.UUID) -> Response:
        """Fish it once; a few seconds the first time."""
        day = _own(request, trip_id)
        who = require_choice("who", request.query_params.get("who", ""), tuple(WHO))
        if not day.trip.is_ended:
            raise ConflictError("The day is not over: end it, then scores are shown.")
        return Response(score_of(day, who))
