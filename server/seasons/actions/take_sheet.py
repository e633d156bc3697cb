"""Keep what was understood of a spreadsheet: each row once."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from typing import Any, Final

from django.db import transaction

from coldwake_core.checks import require_text
from coldwake_core.errors import InvalidInputError

from ..models import NotedCatch
from ..sheet import Row, Sheet, read_sheet, understood

MOST_ALL: Final = 100_000


@dataclass(frozen=True, kw_only=True)
class SheetTaken:
    """What was understood, and what was kept of it."""

    sheet: Sheet
    good: list[Row]
    bad: list[str]
    taken: int
    known: int


@dataclass(frozen=True, kw_only=True)
class TakeSheet:
    """Look at a spreadsheet, and keep it where that is asked for."""

    owner: Any
    data: dict[str, Any]

    def execute(self) -> SheetTaken:
        """Return what is understood; raises InvalidInputError with nothing kept."""
        name = require_text("name", self.data.get("name"), longest=120)
        text = require_text("text", self.data.get("text"), longest=2_000_000)
        sheet = read_sheet(
            text, species=str(self.data.get("species")), columns=self.data.get("columns"),
            units=self.data.get("units"), dates=self.data.get("dates"),
        )
        good, bad = understood(sheet)
        if self.data.get("take") is not True:
            return SheetTaken(sheet=sheet, good=good, bad=bad, taken=0, known=0)
        if not good:
            raise InvalidInputError("text", "no row is understood", "rows with a day each")
        taken = self._kept(name, good)
        return SheetTaken(
            sheet=sheet, good=good, bad=bad, taken=taken, known=len(good) - taken
        )

    def _kept(self, name: str, good: list[Row]) -> int:
        mine = NotedCatch.objects.filter(owner_id=self.owner.pk)
        with transaction.atomic():
            before = mine.count()
            if before + len(good) > MOST_ALL:
                raise InvalidInputError("text", f"{before} rows before it", f"at most {MOST_ALL}")
            # Two fish of one day may be two rows that read the same: the second is another fish.
            seen: Counter[str] = Counter()
            rows = []
            for row in good:
                seen[row.key] += 1
                rows.append(NotedCatch(
                    owner_id=self.owner.pk, source=name, key=f"{row.key[:56]}-{seen[row.key]}",
                    **{
                        field: getattr(row, field) for field in (
                            "day", "hour", "water_name", "species", "count", "kept", "length_m",
                            "depth_m", "speed_mps", "warm_degc", "lure", "colour", "note",
                        )
                    },
                ))
            NotedCatch.objects.bulk_create(rows, ignore_conflicts=True, batch_size=500)
            return mine.count() - before
