"""A CSV file as the body of a request, refused before it is read when it is too large."""

from __future__ import annotations

from typing import IO, Any

from rest_framework.parsers import BaseParser

from config.errors import TooLargeError

from ..csv_io import MOST_BYTES


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
