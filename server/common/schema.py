"""What the schema library does not say by itself."""

from __future__ import annotations

from typing import Any


def loosen_payloads(result: dict[str, Any], **_: Any) -> dict[str, Any]:
    """What may look like several kinds: the event's type, or the piece's kind, tells which."""
    for name in ("EventPayload", "PieceData"):
        payload = result["components"]["schemas"][name]
        payload["anyOf"] = payload.pop("oneOf")
    return result


def tell_errors(result: dict[str, Any], **_: Any) -> dict[str, Any]:
    """Say of every operation that whatever else it answers is an error of the one shape.

    A body cut off, a login that ended, a method that is none: any route may answer so.
    """
    error = {
        "content": {"application/json": {"schema": {"$ref": "#/components/schemas/Error"}}},
        "description": "An error, in the shape of every error of this API.",
    }
    for path in result["paths"].values():
        for operation in path.values():
            operation["responses"].setdefault("default", error)
    return result
