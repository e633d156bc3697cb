"""Import a locker from CSV: all of it, only the good rows, or a look at what it would do."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from pathlib import Path
from typing import Any, Final

from django.db import transaction

from coldwake_core.checks import require_choice
from coldwake_core.gear.locker import decode_piece

from ..csv_io import GoodRow, ParsedCsv, read_csv
from ..models import Aboard, Outfit, TacklePiece
from .save_piece import new_key, stored

STARTER: Final = Path(__file__).resolve().parent.parent / "starter.csv"


@dataclass(frozen=True, kw_only=True)
class ImportPieces:
    """Import pieces; a known key is changed, a new one added.

    ``rows`` is "check" to import nothing, "all" to import only when every row is well, "good" to
    import those that are.
    """

    owner: Any
    raw: bytes
    rows: object = "check"
    outfit: Outfit | None = None

    def check(self) -> ParsedCsv:
        """Return the file, read and checked; raises CoreError where it cannot be read at all."""
        require_choice("rows", self.rows, ("check", "all", "good"))

        def key_of(kind: str, data: dict[str, Any]) -> str:
            """A row without a key is the piece of that name and colour."""
            return new_key(set(), *(str(data.get(name, "")) for name in ("name", "colour")))

        return read_csv(self.raw, key_of=key_of)

    def execute(self) -> dict[str, Any]:
        """Import what may be; return what was, or would be, done."""
        parsed = self.check()
        known = self._known()
        fresh = [row for row in parsed.rows if (row.kind, row.key) not in known]
        imports = self.rows == "good" or (self.rows == "all" and not parsed.bad_rows)
        if imports:
            with transaction.atomic():
                for row in parsed.rows:
                    self._take(row)
        return {
            "note": parsed.note, "good": len(parsed.rows), "added": len(fresh),
            "changed": len(parsed.rows) - len(fresh), "bad": len(parsed.bad_rows),
            "problems": [asdict(error) for error in parsed.errors], "imported": imports,
        }

    def _known(self) -> set[tuple[str, str]]:
        return set(
            TacklePiece.objects.filter(owner_id=self.owner.pk).values_list("kind", "key")
        )

    def _take(self, row: GoodRow) -> None:
        core = decode_piece(row.kind, {**row.data, "id": row.key})
        data = stored(core)
        piece, _ = TacklePiece.objects.update_or_create(
            owner_id=self.owner.pk, kind=row.kind, key=row.key,
            defaults={"data": data, "name": data["name"], "is_retired": False},
        )
        if self.outfit is not None and row.count is not None:
            Aboard.objects.filter(outfit=self.outfit, piece=piece).delete()
            if row.count:
                Aboard.objects.create(outfit=self.outfit, piece=piece, count=row.count)


def add_starter(owner: Any, outfit: Outfit | None) -> dict[str, Any]:
    """Put the starter locker in: about sixty generic pieces with plain names."""
    return ImportPieces(
        owner=owner, raw=STARTER.read_bytes(), rows="all", outfit=outfit
    ).execute()
