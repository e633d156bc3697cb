"""What the schema library does not say by itself."""

from __future__ import annotations

from typing import Any


def loosen_payloads(result: dict[str, Any], **_: Any) -> dict[str, Any]:
    """What may look like several kinds: the event's type, or the piece's kind, tells which."""
    for name in ("EventPayload", "PieceData"):
        payload = result["components"]["schemas"][name]
        payload["anyOf"] = payload.pop("oneOf")
    return result
