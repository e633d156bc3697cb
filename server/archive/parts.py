"""What an account is made of, in an order in which each stands on what came before."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Final

from django.db.models import Model, QuerySet

from instruments.models import Listening
from locker.models import Aboard, Outfit, TacklePiece
from plans.models import Plan
from practice.models import LessonProgress, PracticeDay
from seasons.models import NotedCatch
from trips.models import Event, Photo, Trip
from waters.models import Survey, Water

Mine = Callable[[int], QuerySet[Any]]
FORMAT: Final = 1
PARTS: Final[tuple[tuple[str, type[Model], Mine], ...]] = (
    ("pieces", TacklePiece, lambda pk: TacklePiece.objects.filter(owner_id=pk)),
    ("boats", Outfit, lambda pk: Outfit.objects.filter(owner_id=pk)),
    ("aboard", Aboard, lambda pk: Aboard.objects.filter(outfit__owner_id=pk)),
    ("waters", Water, lambda pk: Water.objects.filter(owner_id=pk)),
    ("surveys", Survey, lambda pk: Survey.objects.filter(water__owner_id=pk)),
    ("plans", Plan, lambda pk: Plan.objects.filter(owner_id=pk)),
    ("listening", Listening, lambda pk: Listening.objects.filter(owner_id=pk)),
    ("trips", Trip, lambda pk: Trip.objects.filter(owner_id=pk)),
    ("practice", PracticeDay, lambda pk: PracticeDay.objects.filter(trip__owner_id=pk)),
    ("events", Event, lambda pk: Event.objects.filter(trip__owner_id=pk)),
    ("noted", NotedCatch, lambda pk: NotedCatch.objects.filter(owner_id=pk)),
    ("lessons", LessonProgress, lambda pk: LessonProgress.objects.filter(owner_id=pk)),
    ("photos", Photo, lambda pk: Photo.objects.filter(trip__owner_id=pk)),
)
