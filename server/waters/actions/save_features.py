"""Keep what stands on a water's chart, and how low the water is today."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any, Final

from django.db import transaction

from coldwake_core.chart.features import Feature, Features
from coldwake_core.checks import require_number
from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError

from ..chart_out import features_of
from ..models import Water
from .survey_water import make_chart

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
        before = _shores(features_of(self.water))
        self.water.features = encode(features.features)
        with transaction.atomic():
            self.water.save(update_fields=["features", "below_m"])
            if _shores(features.features) != before and self.water.surveys.exists():
                make_chart(self.water)
        return self.water


def _shores(features: Iterable[Feature]) -> list[Feature]:
    return [feature for feature in features if feature.kind == "shore"]
