"""Keep in the locker what was seen of a piece beside the boat, so that every later trip has it."""

from __future__ import annotations

from typing import Any

from coldwake_core.decode import encode
from coldwake_core.gear.pieces import OwnRange
from coldwake_core.gear.tackle import Outfit

from ..models import TacklePiece


def keep_own_ranges(owner_id: int, outfit: Outfit, trip_times_s: set[float]) -> None:
    """Take the ranges of a trip's outfit over into its owner's pieces.

    ``trip_times_s`` are the times of all auditions of that trip, those taken back included: what
    the locker holds of them and the trip no longer does was taken back.
    """
    for kind, items in (("attractor", outfit.attractors), ("lure", outfit.lures)):
        by_key = {item.id: item for item in items}
        pieces = TacklePiece.objects.filter(owner_id=owner_id, kind=kind, key__in=by_key)
        for piece in pieces:
            before = piece.data.get("own", [])
            kept = [own for own in before if own["at_s"] not in trip_times_s]
            merged = _latest([*kept, *(_document(own) for own in by_key[piece.key].own)])
            if merged != before:
                piece.data = {**piece.data, "own": merged}
                piece.save(update_fields=["data"])


def _document(own: OwnRange) -> dict[str, Any]:
    made: dict[str, Any] = encode(own)
    return made


def _latest(ranges: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Of each tow point the range seen last."""
    latest: dict[str, dict[str, Any]] = {}
    for own in sorted(ranges, key=lambda item: float(item["at_s"])):
        latest[own.get("tow_point", "")] = own
    return [latest[name] for name in sorted(latest)]
