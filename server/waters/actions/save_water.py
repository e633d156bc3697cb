"""Set up a water: its place, its depth, and the rules its user read."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final
from zoneinfo import available_timezones

from django.db import transaction

from coldwake_core.checks import require_number, require_text
from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.rig_rules.law import WaterRules

from ..models import Water

FIELDS: Final = (
    "name", "deepest_m", "latitude_deg", "longitude_deg", "utc_offset_min", "timezone",
    "rules",
)
MOST_WATERS: Final = 500


@dataclass(frozen=True, kw_only=True)
class SaveWater:
    """Add a water, or change one. Its chart stays."""

    owner: Any
    data: dict[str, Any]
    water: Water | None = None

    def check(self) -> dict[str, Any]:
        """Return the water's fields; raises CoreError naming what cannot be."""
        for name in self.data:
            if name not in FIELDS:
                raise InvalidInputError(name, self.data[name], "left out: no such field")
        get = self.data.get
        rules = get("rules")
        offset = require_number(
            "utc_offset_min", get("utc_offset_min"), low=-840.0, high=840.0, unit="min"
        )
        zone = get("timezone", "")
        if zone != "" and zone not in available_timezones():
            raise InvalidInputError("timezone", zone, "the IANA name of a time zone, or empty")
        return {
            "name": require_text("name", get("name"), longest=120),
            "deepest_m": require_number(
                "deepest_m", get("deepest_m"), above=0.0, high=300.0, unit="m"
            ),
            "latitude_deg": require_number(
                "latitude_deg", get("latitude_deg"), low=-85.0, high=85.0, unit="degrees"
            ),
            "longitude_deg": require_number(
                "longitude_deg", get("longitude_deg"), low=-180.0, high=180.0, unit="degrees"
            ),
            "utc_offset_min": int(offset),
            "timezone": zone,
            "rules": None if rules is None else encode(decode(WaterRules, rules, field="rules")),
        }

    def execute(self) -> Water:
        """Keep it."""
        fields = self.check()
        with transaction.atomic():
            if self.water is None and Water.objects.filter(
                owner_id=self.owner.pk
            ).count() >= MOST_WATERS:
                raise InvalidInputError("name", fields["name"], f"one of {MOST_WATERS} waters")
            water = self.water or Water(owner_id=self.owner.pk)
            for name, value in fields.items():
                setattr(water, name, value)
            water.save()
        return water
