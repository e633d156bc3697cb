"""Reading and writing the locker's CSV: every bad row is told, and nothing bad gets in."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Any, Final

from coldwake_core.errors import CoreError, InvalidInputError
from coldwake_core.gear.locker import PIECES, Piece, decode_piece
from common.csv import FORMULA, decoded, guard

from .csv_format import (
    BY_NAME,
    COLUMNS,
    HEAD,
    HEADER,
    LONGEST_CELL,
    CellError,
    column_of,
    plain,
    read_whole,
)
from .models import TacklePiece

MOST_ROWS: Final = 5000
_MOST_ERRORS: Final = 200


@dataclass(frozen=True)
class RowError:
    """What is wrong in one row."""

    row: int
    field: str
    message: str


@dataclass
class GoodRow:
    """A row that can be taken."""

    row: int
    kind: str
    key: str
    piece: Piece
    count: int | None


@dataclass
class ParsedCsv:
    """A whole file, read and checked."""

    note: str
    rows: list[GoodRow] = field(default_factory=list)
    errors: list[RowError] = field(default_factory=list)
    bad_rows: set[int] = field(default_factory=set)

    def wrong(self, row: int, name: str, message: str) -> None:
        """Keep an error; of very many the first ones are enough to mend by."""
        self.bad_rows.add(row)
        if len(self.errors) < _MOST_ERRORS:
            self.errors.append(RowError(row, name, message))


def write_csv(pieces: Iterable[TacklePiece], counts: dict[int, int]) -> str:
    """Return pieces as CSV, in a column for each property."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(HEADER)
    for piece in pieces:
        row = [piece.kind, guard(piece.key), guard(piece.name), str(counts.get(piece.pk, 0))]
        for column in COLUMNS:
            value: Any = piece.data if piece.kind in column.kinds else None
            for name in column.path:
                value = value.get(name) if isinstance(value, dict) else None
            row.append("" if value is None or value in ("", []) else guard(column.write(value)))
        writer.writerow(row)
    return out.getvalue()


def read_csv(raw: bytes, *, key_of: Any) -> ParsedCsv:
    """Return what a CSV file holds, row by row.

    ``key_of(kind, data)`` makes a key for a row without one. Raises InvalidInputError where the
    file as a whole cannot be read.
    """
    text, note = decoded(raw)
    first = text.split("\n", 1)[0]
    delimiter = max(",;\t", key=first.count)
    reader = csv.reader(io.StringIO(text), delimiter=delimiter, strict=True)
    parsed = ParsedCsv(note=note)
    try:
        header = [name.strip().lower() for name in next(reader, [])]
        _check_header(header)
        for number, cells in enumerate(reader, start=2):
            if number - 1 > MOST_ROWS:
                raise InvalidInputError(
                    "file", f"{number} rows", f"at most {MOST_ROWS} rows: split it"
                )
            if any(cell.strip() for cell in cells):
                _read_row(parsed, number, header, cells, key_of)
    except csv.Error as error:
        raise InvalidInputError(
            "file", f"line {reader.line_num}", f"CSV with closed quotes ({error})"
        ) from None
    _refuse_twice(parsed)
    parsed.rows = [row for row in parsed.rows if row.row not in parsed.bad_rows]
    return parsed


def _check_header(header: list[str]) -> None:
    for name in ("kind", "name"):
        if name not in header:
            raise InvalidInputError(
                "file", ", ".join(header)[:200],
                f"CSV whose first row names its columns, {name} among them",
            )
    unknown = [name for name in header if name and name not in HEADER]
    if unknown:
        raise InvalidInputError(
            "file", ", ".join(unknown)[:200], "without unknown columns; known are "
            + ", ".join(HEADER),
        )
    twice = {name for name in header if name and header.count(name) > 1}
    if twice:
        raise InvalidInputError("file", ", ".join(sorted(twice)), "each column only once")


def _read_row(
    parsed: ParsedCsv, number: int, header: list[str], cells: list[str], key_of: Any
) -> None:
    if len(cells) > len(header):
        parsed.wrong(number, "row", f"has {len(cells)} cells for {len(header)} columns")
        return
    values = {name: cell.strip() for name, cell in zip(header, cells, strict=False) if name}
    kind = values.get("kind", "").lower()
    if kind not in PIECES:
        parsed.wrong(number, "kind", f"({kind[:40]}) must be one of " + ", ".join(PIECES))
        return
    data: dict[str, Any] = {}
    count: int | None = None
    good = True
    for name, cell in values.items():
        if cell == "" or name == "kind":
            continue
        if len(cell) > LONGEST_CELL:
            parsed.wrong(number, name, f"must be {LONGEST_CELL} characters at most")
            good = False
            continue
        cell = _unguarded(parsed, number, name, cell)
        try:
            if name == "count":
                count = read_whole(cell)
                if not 0 <= count <= 99:
                    raise CellError("0 to 99")
            elif name in HEAD:
                data[{"key": "id"}.get(name, name)] = cell
            else:
                _put(data, kind, name, cell)
        except CellError as error:
            parsed.wrong(number, name, f"({cell[:60]}) must be {error}")
            good = False
    if not good or number in parsed.bad_rows:
        return
    data.setdefault("id", key_of(kind, data))
    try:
        piece = decode_piece(kind, data, field="")
    except CoreError as error:
        parsed.wrong(number, *_told(kind, error))
        return
    parsed.rows.append(GoodRow(number, kind, piece.id, piece, count))


def _put(data: dict[str, Any], kind: str, name: str, cell: str) -> None:
    column = BY_NAME[name]
    if kind not in column.kinds:
        raise CellError(f"left empty: a {kind} has no {name}")
    place = data
    for part in column.path[:-1]:
        place = place.setdefault(part, {})
    place[column.path[-1]] = column.read(cell)


def _unguarded(parsed: ParsedCsv, number: int, name: str, cell: str) -> str:
    """Take our own guard off again; refuse what a spreadsheet would run."""
    if cell[0] == "'" and cell[1:2] in FORMULA:
        return cell[1:]
    is_number = (name in BY_NAME and BY_NAME[name].unit is not None) or name == "count"
    if cell[0] in FORMULA and not is_number:
        parsed.wrong(
            number, name,
            f"({cell[:60]}) must not begin with {cell[0]}: a spreadsheet would run it as a "
            "formula. Put plain text there.",
        )
    return cell


def _told(kind: str, error: CoreError) -> tuple[str, str]:
    """The column and what it must be, in the column's own unit."""
    column = column_of(kind, error.field)
    if column is None:
        name = {"id": "key"}.get(error.field, error.field)
        return name, str(error)
    low, high = getattr(error, "low", None), getattr(error, "high", None)
    if column.unit is None or (low is None and high is None):
        value = getattr(error, "value", "")
        if value is None:
            return column.name, f"must be given: a {kind} cannot be computed without it"
        return column.name, f"must be {getattr(error, 'requirement', error)}"
    bounds = [
        f"{word} {plain(round(bound / column.unit, 3))}"
        for word, bound in (("over or at", low), ("at most", high)) if bound is not None
    ]
    return column.name, "must be " + " and ".join(bounds)


def _refuse_twice(parsed: ParsedCsv) -> None:
    seen: dict[tuple[str, str], int] = {}
    for row in parsed.rows:
        first = seen.setdefault((row.kind, row.key), row.row)
        if first != row.row:
            parsed.wrong(row.row, "key", f"({row.key}) stands in row {first} already")
