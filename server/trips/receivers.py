"""What trips have to say when something that they stand on is about to go."""

from __future__ import annotations

from contextlib import suppress
from itertools import chain
from typing import Any

from coldwake_core.gear.locker import piece_list
from common.errors import ConflictError
from locker.models import TacklePiece

from .models import Event, Photo, Trip


def keep_what_was_aboard(sender: Any, piece: TacklePiece, **_: Any) -> None:
    """Raise ConflictError where a trip has ever had the piece aboard."""
    name = piece_list(piece.kind)
    begun = Trip.objects.filter(owner_id=piece.owner_id).values_list("outfit", flat=True)
    brought = Event.objects.filter(trip__owner_id=piece.owner_id, type="tackle_brought")
    aboard = chain(begun.iterator(), brought.values_list("payload", flat=True).iterator())
    if any(item.get("id") == piece.key for outfit in aboard for item in outfit.get(name, [])):
        raise ConflictError(f"{piece.name} was aboard a trip: retire it instead.")


def drop_picture(sender: Any, instance: Photo, **_: Any) -> None:
    """Take the picture away with its row; the last one takes the trip's folder along."""
    instance.file.unlink(missing_ok=True)
    with suppress(OSError):
        instance.file.parent.rmdir()
