"""How others fished the same day: one who changes nothing, habit, the advisor, an oracle."""

from __future__ import annotations

from typing import Any, Final

from coldwake_core.lakesim.day import Policy, play
from coldwake_core.lakesim.policies import Advisor, Fixed, Habit, Oracle
from coldwake_core.lakesim.river import River
from coldwake_core.lakesim.worlds import WORLDS, world_of

from .models import PracticeDay

WHO: Final[dict[str, type[Policy]]] = {
    "fixed": Fixed, "habit": Habit, "advisor": Advisor, "oracle": Oracle,
}


def who_fished(day: PracticeDay) -> list[str]:
    """Return who has fished the same day: their six rods are rigged for lakes."""
    return [] if issubclass(WORLDS[day.world], River) else list(WHO)


def score_of(day: PracticeDay, who: str) -> dict[str, Any]:
    """Return hits and fish of somebody on the same day, as long as it was fished; kept once known.

    They fish with six rods and a box of their own (docs/lakesim.md): hits a rod are compared.
    """
    key = f"{who}-{day.minutes}"
    if key not in day.scores:
        result = play(world_of(day.world, day.seed), WHO[who](), day.seed, until_min=day.minutes)
        day.scores = {**day.scores, key: {
            "hits": result.hits, "landed": result.landed, "rods": 6, "changes": result.changes,
        }}
        day.save(update_fields=["scores"])
    found: dict[str, Any] = day.scores[key]
    return found
