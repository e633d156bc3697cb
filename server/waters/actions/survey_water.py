"""Take soundings for a water: looked at first, then kept, and the chart made anew from all."""

from __future__ import annotations

import uuid
from dataclasses import dataclass, replace
from typing import Any, Final

from django.db import transaction

from coldwake_core.chart.features import Feature, Features
from coldwake_core.chart.grid import GeoPoint
from coldwake_core.checks import require_choice, require_number, require_text
from coldwake_core.decode import encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.survey.soundings import Oddity, Sounding, grid_soundings, look_at
from coldwake_core.survey.soundings import Survey as Looked

from ..chart_out import features_of
from ..models import Survey, Water
from ..soundings_io import FORMATS, UNITS, read_shores, read_soundings

LONGEST_TEXT: Final = 1_900_000
MOST_SURVEYS: Final = 100
FIELDS: Final = ("name", "format", "unit", "swap", "text", "below_m", "take")


@dataclass(frozen=True, kw_only=True)
class SurveyWater:
    """Soundings of a file for a water of the user's."""

    water: Water
    data: dict[str, Any]

    def execute(self) -> Looked:
        """Return what they look like; keep them, and make the chart, where ``take`` says so."""
        for field in self.data:
            if field not in FIELDS:
                raise InvalidInputError(field, self.data[field], "left out: no such field")
        get, water = self.data.get, self.water
        name = require_text("name", get("name"), longest=120)
        unit = require_choice("unit", get("unit"), tuple(UNITS))
        below = require_number("below_m", get("below_m", 0.0), low=-100.0, high=200.0, unit="m")
        text = get("text")
        if not isinstance(text, str) or len(text) > LONGEST_TEXT:
            raise InvalidInputError("text", type(text).__name__, f"at most {LONGEST_TEXT} letters")
        for flag in ("swap", "take"):
            if not isinstance(get(flag, False), bool):
                raise InvalidInputError(flag, get(flag), "true or false")
        home = GeoPoint(latitude_deg=water.latitude_deg, longitude_deg=water.longitude_deg)
        soundings = read_soundings(
            text, kind=str(require_choice("format", get("format"), FORMATS)),
            unit=unit, swap=get("swap", False), home=home,  # type: ignore[arg-type]
        )
        shores = self._shores(text) if get("format") == "geojson" else []
        looked = look_at(
            soundings, known_deepest_m=water.deepest_m, known_at=home, beside=soundings_of(water),
        )
        if get("take", False):
            self._keep(name, below, soundings, shores)
        if shores:
            looked = replace(looked, oddities=(*looked.oddities, Oddity(
                kind="shore", count=len(shores),
                text="closed lines without a depth: taken as shore and islands",
            )))
        return looked

    def _shores(self, text: str) -> list[Feature]:
        """Shores of a file as features; the same file once more brings none twice."""
        have = {f.corners for f in features_of(self.water)}
        found = [
            Feature(id=str(uuid.uuid4()), name="shore", kind="shore", corners=corners)
            for corners in read_shores(text, swap=self.data.get("swap", False))
            if corners not in have
        ]
        for i, feature in enumerate(found):
            try:
                feature.check()
            except InvalidInputError as error:
                error.field = f"shores[{i}].{error.field}"
                raise
        return found

    def _keep(
        self, name: str, below_m: float, soundings: list[Sounding], shores: list[Feature]
    ) -> None:
        with transaction.atomic():
            if shores:
                features = Features(features=(*features_of(self.water), *shores))
                features.check()
                self.water.features = encode(features.features)
                self.water.save(update_fields=["features"])
            if self.water.surveys.count() >= MOST_SURVEYS:
                raise InvalidInputError("name", name, f"one of {MOST_SURVEYS} surveys of a water")
            Survey.objects.create(
                water=self.water, name=name, below_m=below_m, points=[
                    [s.place.latitude_deg, s.place.longitude_deg, round(s.depth_m, 3)]
                    for s in soundings
                ],
            )
            make_chart(self.water)


def soundings_of(water: Water) -> list[Sounding]:
    """Return all soundings of a water, at the chart's own level."""
    return [
        Sounding(
            place=GeoPoint(latitude_deg=latitude, longitude_deg=longitude),
            depth_m=max(depth + survey.below_m, 0.0),
        )
        for survey in water.surveys.all() for latitude, longitude, depth in survey.points
    ]


def make_chart(water: Water) -> None:
    """Make the chart of a water from all its soundings; without any it has none."""
    soundings = soundings_of(water)
    if not soundings:
        water.chart, water.doubt = None, None
    else:
        names = ", ".join(water.surveys.values_list("name", flat=True))
        shores = [f.corners for f in features_of(water) if f.kind == "shore"]
        chart = grid_soundings(soundings, origin=names[:200], shores=shores)
        water.chart, water.doubt = encode(chart.grid), encode(chart.doubt_m)
        deepest = max((d for row in chart.grid.rows for d in row if d is not None), default=0.0)
        water.deepest_m = max(round(deepest, 2), 0.5)
    water.save(update_fields=["chart", "doubt", "deepest_m"])


