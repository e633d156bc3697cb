"""What the schema library does not say by itself."""

from __future__ import annotations

from typing import Any


def loosen_payloads(result: dict[str, Any], **_: Any) -> dict[str, Any]:
    """An event's payload may look like several kinds: the event's type tells which is meant."""
    payload = result["components"]["schemas"]["EventPayload"]
    payload["anyOf"] = payload.pop("oneOf")
    return result
