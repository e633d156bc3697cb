"""A day that is advised: the demo's boat with its lines out, and what a move is chosen from."""

from __future__ import annotations

from typing import Any

import pytest
from trip_cases import at, event, session

from coldwake_core.advice.moves import next_move
from coldwake_core.constants import MPH_MPS, degc_from_degf
from coldwake_core.places.fish import page


def fishing(*more: dict[str, Any], mph: float = 1.55, degf: float = 51.0, **changes: Any):
    """All six demo rods out at a speed that suits them, at a surface temperature."""
    return session(
        event("temperature_read", 0, temperature_degc=degc_from_degf(degf)),
        event("speed_changed", 0, speed_mps=mph * MPH_MPS),
        event("line_set", 1, rod_id="rod-1", setting_m=30.0),
        event("line_set", 1, rod_id="rod-2", setting_m=20.0),
        event("line_set", 1, rod_id="rod-3", setting_m=4.0),
        event("line_set", 1, rod_id="rod-4", setting_m=9.0),
        *more,
        **changes,
    )


def situation(opened: Any, minute: float, monkeypatch: pytest.MonkeyPatch) -> Any:
    """What a move is chosen from."""
    seen: list[Any] = []

    def kept(asked: Any) -> Any:
        seen.append(asked)
        return next_move(asked)

    monkeypatch.setattr(page, "next_move", kept)
    opened.view(at(minute))
    return seen[-1]
