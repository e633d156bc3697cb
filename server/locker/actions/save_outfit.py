"""Set up a boat: its rods and the places where they stand."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

from django.db import transaction

from coldwake_core.checks import require_text
from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.gear.tackle import Outfit as CoreOutfit
from common.errors import ConflictError

from ..models import Outfit

FIELDS: Final = ("boat_name", "boat_length_m", "rods", "places", "sounder")
MOST_BOATS: Final = 50


@dataclass(frozen=True, kw_only=True)
class SaveOutfit:
    """Add a boat, or change one. What is aboard it stays."""

    owner: Any
    data: dict[str, Any]
    outfit: Outfit | None = None

    def check(self) -> dict[str, Any]:
        """Return the boat's data; raises CoreError naming what cannot be."""
        for name in self.data:
            if name not in FIELDS:
                raise InvalidInputError(name, self.data[name], "left out: a boat has no such field")
        bare: dict[str, Any] = {"lines": [], "attractors": [], "lures": []}
        core = decode(CoreOutfit, {**self.data, **bare})
        if not core.rods:
            raise InvalidInputError("rods", 0, "one rod at least")
        if not core.places:
            raise InvalidInputError("places", 0, "one place for a rod at least")
        for index, place in enumerate(core.places):
            require_text(f"places[{index}].name", place.name, longest=60)
        return {name: encode(getattr(core, name)) for name in FIELDS}

    def execute(self) -> Outfit:
        """Keep it."""
        data = self.check()
        with transaction.atomic():
            same = Outfit.objects.filter(owner_id=self.owner.pk, name=data["boat_name"])
            if self.outfit is not None:
                same = same.exclude(pk=self.outfit.pk)
            if same.exists():
                raise ConflictError(
                    f"boat_name ({data['boat_name']}) must be new: you have a boat of that name."
                )
            if self.outfit is None and Outfit.objects.filter(
                owner_id=self.owner.pk
            ).count() >= MOST_BOATS:
                raise InvalidInputError("boat_name", data["boat_name"], f"one of {MOST_BOATS}")
            outfit = self.outfit or Outfit(owner_id=self.owner.pk)
            outfit.name, outfit.data = data["boat_name"], data
            outfit.save()
        return outfit
