"""CSV as it comes from other people's spreadsheets, and as it goes back to them."""

from __future__ import annotations

import csv
import io
import math
from typing import IO, Any, Final

from rest_framework.parsers import BaseParser

from coldwake_core.errors import InvalidInputError

from .errors import TooLargeError

MOST_BYTES: Final = 2_000_000
FORMULA: Final = ("=", "+", "-", "@", "\t", "\r")


def guard(text: str) -> str:
    """Keep a spreadsheet from taking text for a formula."""
    return "'" + text if text[:1] in FORMULA else text


def decoded(raw: bytes) -> tuple[str, str]:
    """Return the text of a file and a note on how it was read; raises InvalidInputError."""
    if raw[:2] in (b"\xff\xfe", b"\xfe\xff"):
        encodings = [("utf-16", "Read as UTF-16.")]
    else:
        encodings = [("utf-8-sig", ""), ("cp1252", "Not UTF-8: read as Windows-1252. Look at "
                      "letters with accents before you import.")]
    for encoding, note in encodings:
        try:
            text = raw.decode(encoding)
        except UnicodeDecodeError:
            continue
        if "\x00" in text:
            break
        return text, note
    raise InvalidInputError(
        "file", f"{len(raw)} bytes", "a text file: CSV in UTF-8, UTF-16 or Windows-1252"
    )


def table_of(text: str) -> tuple[list[str], list[tuple[int, list[str]]]]:
    """Return the names of the columns, in lower case, and the rows that hold anything.

    Each row comes with its number in the file. Comma, semicolon and tab part columns, whichever the
    file uses. Raises InvalidInputError where it is no table.
    """
    try:
        dialect: Any = csv.Sniffer().sniff(text[:4000], delimiters=",;\t")
    except csv.Error:
        dialect = csv.excel
    try:
        lines = list(csv.reader(io.StringIO(text), dialect))
    except csv.Error as error:
        raise InvalidInputError("text", str(error), "a file of rows and columns") from None
    if not lines:
        return [], []
    head = [cell.strip().lower() for cell in lines[0]]
    return head, [
        (number, [cell.strip() for cell in line])
        for number, line in enumerate(lines[1:], start=2) if any(cell.strip() for cell in line)
    ]


def number_in(row: tuple[int, list[str]], index: int, name: str) -> float:
    """Return the number in a column of a row; raises InvalidInputError naming both."""
    number, cells = row
    cell = cells[index] if index < len(cells) else ""
    try:
        value = float(cell)
    except ValueError:
        raise InvalidInputError(f"row {number}.{name}", cell[:40], "a number") from None
    if not math.isfinite(value):
        raise InvalidInputError(f"row {number}.{name}", cell[:40], "a number")
    return value


class CsvParser(BaseParser):
    """The bytes of a CSV file."""

    media_type = "text/csv"

    def parse(  # type: ignore[override]
        self, stream: IO[Any], media_type: str | None = None, parser_context: Any = None
    ) -> bytes:
        """Return the bytes; raises TooLargeError beyond what a locker can hold."""
        request = (parser_context or {}).get("request")
        length = 0
        if request is not None:
            text = request.META.get("CONTENT_LENGTH") or "0"
            length = int(text) if text.isdigit() else 0
        raw = b"" if length > MOST_BYTES else stream.read(MOST_BYTES + 1)
        if max(length, len(raw)) > MOST_BYTES:
            raise TooLargeError(
                f"file ({max(length, len(raw)) / 1e6:.1f} MB) must be at most "
                f"{MOST_BYTES / 1e6:.0f} MB: split it, or look whether it is the right one. "
                "Nothing was imported."
            )
        return raw
