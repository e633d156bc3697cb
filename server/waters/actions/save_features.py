"""Keep what stands on a water's chart, and how low the water is today."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

from coldwake_core.chart.features import Features
from coldwake_core.checks import require_number
from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError

from ..models import Water

FIELDS: Final = ("features", "below_m")


@dataclass(frozen=True, kw_only=True)
class SaveFeatures:
    """Features and level of a water of the user's."""

    water: Water
    data: dict[str, Any]

    def execute(self) -> Water:
        """Keep them, all or none."""
        for name in self.data:
            if name not in FIELDS:
                raise InvalidInputError(name, self.data[name], "left out: no such field")
        features = decode(Features, {"features": self.data.get("features", self.water.features)})
        self.water.below_m = require_number(
            "below_m", self.data.get("below_m", self.water.below_m), low=-100.0, high=200.0,
            unit="m",
        )
        self.water.features = encode(features.features)
        self.water.save(update_fields=["features", "below_m"])
        return self.water
