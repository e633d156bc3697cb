"""Every bite of a trip as it was: on what, how deep, in which light, and what the line did."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Final, Literal, cast

from ..advice.shows import recipe_of
from ..errors import CoreError
from ..evidence.recipe import Recipe
from ..places.fish.bites import line_doing
from ..record.state import Stint, TripState
from ..trip.now import Now
from ..trip.today import surface_readings
from .digest import mean_speed, warm_at

Stage = Literal["hit", "hooked", "lost", "landed"]
Light = Literal["dark", "first_light", "sun_low", "sun_up", "dusk"]
LOW_S: Final = 5400.0
"""So long after it rises, and before it sets, the sun is low (judged: the morning's soft light)."""
SAME_FISH_S: Final = 900.0
"""What is told of a rod so long after a hit, and before its next one, is of that fish (judged)."""
ABOUT_S: Final = 60.0
"""A bite's speed is that of the minute before it."""
_ORDER: Final[dict[str, int]] = {"hit": 0, "hooked": 1, "lost": 2, "landed": 3}


@dataclass(frozen=True, slots=True, kw_only=True)
class BiteRow:
    """A bite.

    Parameters
    ----------
    at_s : float
        When, seconds since 1970-01-01 UTC by the trip's clock.
    rod_id : str
        On which rod.
    came_to : {'hit', 'hooked', 'lost', 'landed'}
        How far it came.
    lure, colour, attractor : str
        On what; empty where the record no longer says.
    leader_m, setback_m, depth_m, speed_mps : float or None
        How it fished, m and m/s.
    warm_degc : float or None
        Surface, degrees Celsius.
    light : Light
        By the sun of the day.
    doing : str
        What the line was doing, as far as it is known.
    """

    at_s: float
    rod_id: str
    came_to: Stage
    lure: str
    colour: str
    attractor: str
    leader_m: float | None
    setback_m: float | None
    depth_m: float | None
    speed_mps: float | None
    warm_degc: float | None
    light: Light
    doing: str


def bites_of(now: Now) -> tuple[BiteRow, ...]:
    """Return every bite of a trip, in order of time.

    Parameters
    ----------
    now : Now
        The trip as it stands.

    Returns
    -------
    tuple of BiteRow
    """
    state = now.state
    warm = [(r.at_s, r.temperature_degc) for r in surface_readings(now)]
    rows: list[BiteRow] = []
    open_row: dict[str, int] = {}
    for at_s, rod_id, kind in state.bites:
        if kind not in _ORDER:
            continue
        stage = cast(Stage, kind)
        index = open_row.get(rod_id)
        known = None if index is None else rows[index]
        is_new = stage == "hit" or known is None or at_s - known.at_s > SAME_FISH_S or (
            known.came_to in ("lost", "landed")
        )
        if is_new:
            open_row[rod_id] = len(rows)
            rows.append(_row(now, at_s, rod_id, stage, warm))
        elif index is not None and known is not None and _ORDER[stage] > _ORDER[known.came_to]:
            rows[index] = replace(known, came_to=stage)
    return tuple(rows)


def _row(
    now: Now, at_s: float, rod_id: str, came_to: Stage, warm: list[tuple[float, float]]
) -> BiteRow:
    stint = _fished(now.state, rod_id, at_s)
    speed = mean_speed(now, at_s - ABOUT_S, at_s)
    recipe, attractor = (None, "") if stint is None else _shown(now, stint, speed)
    return BiteRow(
        at_s=at_s, rod_id=rod_id, came_to=came_to, attractor=attractor,
        lure=recipe.lure if recipe else "", colour=recipe.colour if recipe else "",
        leader_m=recipe.leader_m if recipe else None,
        setback_m=recipe.setback_m if recipe else None,
        depth_m=recipe.depth_m if recipe else None, speed_mps=speed if recipe else None,
        warm_degc=warm_at(warm, at_s), light=light_at(now, at_s),
        doing=line_doing(now.state, rod_id, at_s),
    )


def _shown(now: Now, stint: Stint, speed_mps: float) -> tuple[Recipe | None, str]:
    outfit, attractor = now.state.outfit, stint.setup.attractor_id
    try:
        line = now.lines.solved(stint.setup, speed_mps, doubt="none")
        recipe = recipe_of(
            outfit, stint.setup, depth_m=line.place(stint.setting_m)[1].depth_m,
            setting_m=stint.setting_m, speed_mps=speed_mps,
        )
        return recipe, outfit.attractor(attractor).name if attractor else ""
    except CoreError:
        # An old record may name what is understood no longer: the bite stands all the same.
        return None, ""


def _fished(state: TripState, rod_id: str, at_s: float) -> Stint | None:
    before = [s for s in state.stints if s.rod_id == rod_id and s.start_s <= at_s]
    return before[-1] if before else None


def light_at(now: Now, at_s: float) -> Light:
    """Return the light of a moment by the sun of the trip's day.

    Parameters
    ----------
    now : Now
        The trip.
    at_s : float
        Seconds since 1970-01-01 UTC.

    Returns
    -------
    Light
    """
    sun = now.trip.sun
    if at_s < sun.first_light_s or at_s >= sun.dark_s:
        return "dark"
    if at_s < sun.sunrise_s:
        return "first_light"
    if at_s >= sun.sunset_s:
        return "dusk"
    low = at_s < sun.sunrise_s + LOW_S or at_s >= sun.sunset_s - LOW_S
    return "sun_low" if low else "sun_up"
