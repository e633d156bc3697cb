"""How others fished the same day: one who changes nothing, habit, the advisor, an oracle."""

from __future__ import annotations

from typing import Any, Final

from coldwake_core.lakesim.boat import LAKE_BOX, RIVER_BOX
from coldwake_core.lakesim.day import Outing, Policy, play
from coldwake_core.lakesim.policies import Advisor, Fixed, Habit, Oracle
from coldwake_core.lakesim.river import River
from trips.queries import trip_now

from .models import PracticeDay
from .water import empty_world_of_day

WHO: Final[dict[str, type[Policy]]] = {
    "fixed": Fixed, "habit": Habit, "advisor": Advisor, "oracle": Oracle,
}
MOST_RODS: Final = 6


def score_of(day: PracticeDay, who: str) -> dict[str, Any]:
    """Return hits and fish of somebody on the same day, as long as it was fished; kept once known.

    They go where the day's boat went, with as many rods as it had out, and a box of their own
    (docs/lakesim.md): hits a rod are compared.
    """
    used = len({stint.rod_id for stint in trip_now(day.trip).state.stints})
    rods = min(max(used, 1), MOST_RODS)
    key = f"{who}-{day.minutes}-{rods}"
    if key not in day.scores:
        world = empty_world_of_day(day)
        box = RIVER_BOX if isinstance(world, River) else LAKE_BOX
        # A day of an earlier version knows its last minutes alone: there the world's lap is sailed.
        way = [(share, bottom) for share, bottom in day.way] if len(day.way) >= day.minutes else []
        outing = Outing(box=box, rods=rods, way=way)
        result = play(world, WHO[who](), day.seed, until_min=day.minutes, outing=outing)
        day.scores = {**day.scores, key: {
            "hits": result.hits, "landed": result.landed, "rods": result.rods,
            "changes": result.changes,
        }}
        day.save(update_fields=["scores"])
    found: dict[str, Any] = day.scores[key]
    return found
