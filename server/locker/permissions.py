"""Who may see and change what is in a locker: its owner."""

from __future__ import annotations

from typing import Any

from rest_framework.exceptions import NotFound

from .models import Outfit, TacklePiece


def own_piece(user: Any, piece_id: int) -> TacklePiece:
    """Return a piece of the user's; raises NotFound for all others alike."""
    piece = TacklePiece.objects.filter(pk=piece_id, owner_id=user.pk).first()
    if piece is None:
        raise NotFound("You have no such piece of tackle.")
    return piece


def own_outfit(user: Any, outfit_id: int) -> Outfit:
    """Return a boat of the user's; raises NotFound for all others alike."""
    outfit = Outfit.objects.filter(pk=outfit_id, owner_id=user.pk).first()
    if outfit is None:
        raise NotFound("You have no such boat.")
    return outfit
