"""Import a locker from CSV: all of it, only the good rows, or a look at what it would do."""

from __future__ import annotations

from collections import Counter
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import Any, Final

from django.db import transaction

from coldwake_core.checks import require_choice
from coldwake_core.errors import InvalidInputError

from ..csv_io import GoodRow, ParsedCsv, read_csv
from ..models import Aboard, Outfit, TacklePiece
from .save_piece import MOST_PIECES, new_key, stored

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
        with transaction.atomic():
            known = self._known()
            fresh = [row for row in parsed.rows if (row.kind, row.key) not in known]
            self._check_room(known, fresh)
            imports = self.rows == "good" or (self.rows == "all" and not parsed.bad_rows)
            if imports:
                self._take(parsed.rows)
        return {
            "note": parsed.note, "good": len(parsed.rows), "added": len(fresh),
            "changed": len(parsed.rows) - len(fresh), "bad": len(parsed.bad_rows),
            "problems": [asdict(error) for error in parsed.errors], "imported": imports,
        }

    def _known(self) -> set[tuple[str, str]]:
        return set(
            TacklePiece.objects.filter(owner_id=self.owner.pk).values_list("kind", "key")
        )

    @staticmethod
    def _check_room(known: set[tuple[str, str]], fresh: list[GoodRow]) -> None:
        """No more of a kind than could be added one by one."""
        had = Counter(kind for kind, _ in known)
        for kind, more in Counter(row.kind for row in fresh).items():
            if had[kind] + more > MOST_PIECES:
                raise InvalidInputError(
                    "file", f"{more} of kind {kind}",
                    f"at most {MOST_PIECES} of a kind, and you have {had[kind]}",
                )

    def _take(self, rows: list[GoodRow]) -> None:
        """Keep them all at once. What was retired stays retired."""
        TacklePiece.objects.bulk_create(
            (
                TacklePiece(
                    owner_id=self.owner.pk, kind=row.kind, key=row.key, data=data,
                    name=data["name"],
                )
                for row in rows
                for data in (stored(row.piece),)
            ),
            batch_size=500, update_conflicts=True, unique_fields=["owner", "kind", "key"],
            update_fields=["data", "name"],
        )
        counts = {(row.kind, row.key): row.count for row in rows if row.count is not None}
        if self.outfit is None or not counts:
            return
        keys = {
            (kind, key): pk for pk, kind, key in TacklePiece.objects.filter(
                owner_id=self.owner.pk
            ).values_list("pk", "kind", "key")
        }
        given = {keys[place]: count for place, count in counts.items()}
        aboard = Aboard.objects.filter(outfit=self.outfit)
        others = [row for row in aboard if row.piece_id not in given]
        aboard.delete()
        Aboard.objects.bulk_create([
            *(Aboard(outfit=self.outfit, piece_id=row.piece_id, count=row.count) for row in others),
            *(
                Aboard(outfit=self.outfit, piece_id=piece_id, count=count)
                for piece_id, count in given.items() if count
            ),
        ], batch_size=500)


def add_starter(owner: Any, outfit: Outfit | None) -> dict[str, Any]:
    """Put the starter locker in: some ninety generic pieces with plain names."""
    return ImportPieces(
        owner=owner, raw=STARTER.read_bytes(), rows="all", outfit=outfit
    ).execute()
