"""Bodies that are files as they are."""

from __future__ import annotations

from typing import Any, ClassVar

from rest_framework.exceptions import ParseError
from rest_framework.parsers import BaseParser


class RawParser(BaseParser):
    """The bytes of a file, whole; of one that is too large one byte more than may be."""

    most_bytes: ClassVar[int]

    def parse(self, stream: Any, media_type: Any = None, parser_context: Any = None) -> Any:
        """Return the bytes; raises ParseError for a file that broke off on its way."""
        data = bytes(stream.read(self.most_bytes + 1))
        request = (parser_context or {}).get("request")
        told = "" if request is None else str(request.META.get("CONTENT_LENGTH") or "")
        if told.isdigit() and len(data) < min(int(told), self.most_bytes + 1):
            raise ParseError(
                f"The file broke off after {len(data)} of {told} bytes: send it again. Nothing of "
                "it was kept."
            )
        return data
