"""Boats to begin from: where holders, riggers and boards commonly are (common practice)."""

from __future__ import annotations

import json
from functools import cache
from pathlib import Path
from typing import Any

from coldwake_core.errors import UnknownItemError

PLACE = Path(__file__).resolve().parent / "boats.json"


@cache
def usual_boats() -> tuple[dict[str, Any], ...]:
    """Return the boats, smallest first, in the shape of ``Outfit.data``."""
    return tuple(json.loads(PLACE.read_text("utf-8")))


def usual_boat(name: object, *, field: str) -> dict[str, Any]:
    """Return one of them by its name; raises UnknownItemError naming the field."""
    for boat in usual_boats():
        if boat["boat_name"] == name:
            return boat
    names = ", ".join(boat["boat_name"] for boat in usual_boats())
    raise UnknownItemError(field, name, f"one of {names}")
