"""Whose trip it is."""

from __future__ import annotations

import uuid
from datetime import UTC, datetime, timedelta
from typing import Final

from django.contrib.auth.models import AbstractBaseUser, AnonymousUser
from django.db.models import Q, QuerySet
from rest_framework.exceptions import NotFound

from accounts.models import Crew

from .models import Event, Trip

LATE: Final = timedelta(days=2)
"""So long after its end a trip takes what the crew recorded where there was no link."""


def seen_by(user: AbstractBaseUser | AnonymousUser) -> Q:
    """Whose trips somebody sees: their own, and those open of the skippers they sail with."""
    return Q(owner_id=user.pk) | Q(is_ended=False, is_practice=False, owner_id__in=_skippers(user))


def _skippers(user: AbstractBaseUser | AnonymousUser) -> QuerySet[Crew, int]:
    return Crew.objects.filter(member_id=user.pk).values_list("skipper_id", flat=True)


def own_trip(
    user: AbstractBaseUser | AnonymousUser, trip_id: uuid.UUID, *, late: bool = False
) -> Trip:
    """Return a trip of this user, or one that their skipper has open; another is not there.

    ``late`` lets the crew's record in for two days after its end. Raises
    rest_framework.exceptions.NotFound otherwise.
    """
    # What it started with is large and, once read, kept: it is fetched when it is asked for.
    trips = Trip.objects.defer(
        "outfit", "chart", "keep_out", "readings", "rules", "sun", "plan", "earlier", "taught"
    )
    trip = trips.filter(seen_by(user), pk=trip_id).first()
    if trip is None and late:
        just_ended = Event.objects.filter(
            trip_id=trip_id, type="trip_ended", received_at__gte=datetime.now(UTC) - LATE
        )
        if just_ended.exists():
            trip = trips.filter(owner_id__in=_skippers(user), pk=trip_id).first()
    if trip is None:
        raise NotFound("You have no such trip.")
    return trip
