"""Whose trip it is."""

from __future__ import annotations

import uuid

from django.contrib.auth.models import AbstractBaseUser, AnonymousUser
from rest_framework.exceptions import NotFound

from .models import Trip


def own_trip(user: AbstractBaseUser | AnonymousUser, trip_id: uuid.UUID) -> Trip:
    """Return a trip of this user; another's is as if it were not there.

    Raises rest_framework.exceptions.NotFound otherwise.
    """
    # What it started with is large and, once read, kept: it is fetched when it is asked for.
    trips = Trip.objects.defer(
        "outfit", "chart", "readings", "rules", "sun", "plan", "earlier", "taught"
    )
    trip = trips.filter(pk=trip_id, owner_id=user.pk).first()
    if trip is None:
        raise NotFound("You have no such trip.")
    return trip
