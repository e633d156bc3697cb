"""Put a piece of tackle in the locker, change it, copy it, retire it."""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass
from typing import Any

from django.db import transaction

from coldwake_core.decode import encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.gear.locker import decode_piece

from ..models import Aboard, Outfit, TacklePiece
from ..signals import piece_leaving

MOST_PIECES = 5000


def slug(text: str) -> str:
    """Return a key made of a name: plain letters, digits and hyphens."""
    flat = unicodedata.normalize("NFKD", text).encode("ascii", "ignore").decode().lower()
    return re.sub(r"[^a-z0-9]+", "-", flat).strip("-")[:32] or "piece"


def new_key(taken: set[str], *words: str) -> str:
    """Return a key that is not taken yet."""
    base = slug(" ".join(word for word in words if word))
    key, number = base, 1
    while key in taken:
        number += 1
        key = f"{base}-{number}"
    return key


def stored(piece: Any) -> dict[str, Any]:
    """Return a piece of the core as it is kept: without its key, and without how many are aboard.
    """
    data: dict[str, Any] = encode(piece)
    data.pop("id")
    data.pop("count", None)
    return data


@dataclass(frozen=True, kw_only=True)
class SavePiece:
    """Add a piece, or change one: the whole of its properties is given."""

    owner: Any
    kind: object
    data: object
    piece: TacklePiece | None = None

    def check(self) -> tuple[str, str, dict[str, Any]]:
        """Return kind, key and data; raises CoreError naming what cannot be."""
        if not isinstance(self.data, dict):
            raise InvalidInputError("properties", self.data, "an object: what the piece is")
        kind = str(self.kind) if self.piece is None else self.piece.kind
        data = {name: value for name, value in self.data.items() if name != "count"}
        if self.piece is not None:
            key = self.piece.key
        else:
            taken = set(
                TacklePiece.objects.filter(owner_id=self.owner.pk, kind=kind)
                .values_list("key", flat=True)
            )
            if len(taken) >= MOST_PIECES:
                raise InvalidInputError("kind", kind, f"at most {MOST_PIECES} of a kind")
            key = new_key(taken, str(data.get("name", "")), str(data.get("colour", "")))
        core = decode_piece(kind, {**data, "id": key}, field="properties")
        return kind, key, stored(core)

    def execute(self) -> TacklePiece:
        """Keep it."""
        # A key is free only as long as nobody else writes: two adds at once wait for each other.
        with transaction.atomic():
            kind, key, data = self.check()
            piece = self.piece or TacklePiece(owner_id=self.owner.pk, kind=kind, key=key)
            piece.data, piece.name = data, data["name"]
            piece.save()
        return piece


def duplicate_piece(piece: TacklePiece) -> TacklePiece:
    """Return a copy with a name and a key of its own; its own ranges stay with the first."""
    data = {**piece.data, "name": f"{piece.data['name'][:50]}, copy", "own": []}
    if piece.kind not in ("attractor", "lure"):
        data.pop("own")
    return SavePiece(owner=piece.owner, kind=piece.kind, data=data).execute()


def delete_piece(piece: TacklePiece) -> None:
    """Delete a piece that no trip has ever had aboard; raises ConflictError otherwise."""
    piece_leaving.send(sender=TacklePiece, piece=piece)
    piece.delete()


def set_aboard(outfit: Outfit, piece: TacklePiece, count: object) -> None:
    """Say how many of a piece are aboard a boat."""
    if not isinstance(count, int) or isinstance(count, bool) or not 0 <= count <= 99:
        raise InvalidInputError("count", count, "a whole number from 0 to 99")
    with transaction.atomic():
        if count == 0:
            Aboard.objects.filter(outfit=outfit, piece=piece).delete()
        else:
            Aboard.objects.update_or_create(
                outfit=outfit, piece=piece, defaults={"count": count}
            )
