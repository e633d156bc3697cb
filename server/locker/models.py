"""Outfits and tackle: a boat with its places and rods, and what is in its box."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.db import models

from coldwake_core.decode import decode
from coldwake_core.gear.locker import PIECES, Piece, decode_piece, piece_list
from coldwake_core.gear.tackle import Outfit as CoreOutfit


class Outfit(models.Model):
    """One boat. A trip takes a copy with all that is aboard, so later changes do not rewrite it."""

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="outfits"
    )
    name = models.CharField(max_length=120)
    data = models.JSONField(
        help_text="boat_name, boat_length_m, rods and places of coldwake_core's Outfit, SI units"
    )

    class Meta:
        ordering = ("name", "pk")

    def __str__(self) -> str:
        return self.name

    def document(self) -> dict[str, Any]:
        """Return the core's ``Outfit`` in JSON: the boat with what is aboard."""
        lists: dict[str, list[Any]] = {name: [] for _, name in PIECES.values()}
        rows = self.aboard.filter(count__gt=0, piece__is_retired=False).select_related("piece")
        for row in rows.order_by("piece__name", "piece__key"):
            lists[piece_list(row.piece.kind)].append(
                {**row.piece.data, "id": row.piece.key, "count": row.count}
            )
        return {**self.data, **lists}

    def core(self) -> CoreOutfit:
        """Return it as the core knows it; raises InvalidInputError when it is not sound."""
        return decode(CoreOutfit, self.document(), field="outfit")


class TacklePiece(models.Model):
    """A piece of tackle that somebody owns. Retired, never deleted, once a trip has used it."""

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="pieces"
    )
    kind = models.CharField(max_length=20)
    key = models.CharField(max_length=40, help_text="the core's id of the piece")
    name = models.CharField(max_length=60)
    data = models.JSONField(help_text="a piece of coldwake_core.gear as JSON, SI units")
    is_retired = models.BooleanField(default=False)

    class Meta:
        ordering = ("kind", "name", "key")
        constraints = [
            models.UniqueConstraint(fields=("owner", "kind", "key"), name="one_key_a_kind")
        ]

    def __str__(self) -> str:
        return self.name

    def core(self) -> Piece:
        """Return it as the core knows it."""
        return decode_piece(self.kind, {**self.data, "id": self.key})


class Aboard(models.Model):
    """How many of a piece are aboard a boat."""

    outfit = models.ForeignKey(Outfit, on_delete=models.CASCADE, related_name="aboard")
    piece = models.ForeignKey(TacklePiece, on_delete=models.CASCADE, related_name="aboard")
    count = models.PositiveSmallIntegerField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=("outfit", "piece"), name="one_row_a_piece")]

    def __str__(self) -> str:
        return f"{self.count} × {self.piece_id} on {self.outfit_id}"
