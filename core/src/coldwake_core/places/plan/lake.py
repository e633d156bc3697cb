"""What the day's wind does to the lake as a whole: which end is warm, which wells up, and when."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ...chart.grid import compass_word
from ...record.planned import DayPlan
from ...water.forecast import SlidDay
from ...water.layers import Bowl, schmidt_stability_jpm2, wind_tilt

LEAST_MPS: Final = 2.0
"""Wind that piles nothing up (judged)."""
NARROW: Final = 0.3
"""A lake's width over its length, where only its length is known (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class LakeWind:
    """The lake under the day's strongest wind.

    Parameters
    ----------
    at_s : float
        When it blows, seconds since 1970-01-01 UTC.
    wind_mps : float
        How strong, m/s.
    warm_end, cold_end : str
        Where the warm water piles up, and where the cold comes near; empty in a light wind.
    wedderburn, lake_number : float or None
        Under 1 the cold water reaches the surface; None without layers.
    stability_jpm2 : float
        Work that would mix the lake, J/m2.
    follows_s : float or None
        How long the layers take to follow the wind: a quarter of their swing, s.
    lean_m : float
        How far the layer leans between the middle and an end, m.
    text : str
        In a sentence.
    """

    at_s: float
    wind_mps: float
    warm_end: str
    cold_end: str
    wedderburn: float | None
    lake_number: float | None
    stability_jpm2: float
    follows_s: float | None
    lean_m: float
    text: str


def lake_wind(plan: DayPlan, day: SlidDay, *, bottom_m: float) -> LakeWind:
    """Return the lake under the day's strongest wind.

    Parameters
    ----------
    plan : DayPlan
        The day.
    day : SlidDay
        Its temperatures.
    bottom_m : float
        Depth of the water, m.

    Returns
    -------
    LakeWind

    Notes
    -----
    The warm water piles up downwind and the cold comes up where the wind comes from (common
    practice; Wedderburn and Lake numbers say whether it does).
    """
    hour = max(plan.hours, key=lambda h: h.wind_mps)
    bowl = Bowl(deepest_m=bottom_m, area_m2=NARROW * plan.fetch_m**2)
    known = day.profile(hour.at_s)
    profile = [(0.0, known[0][1]), *known]
    tilt = wind_tilt(profile, bowl, wind_mps=hour.wind_mps, fetch_m=plan.fetch_m)
    light = hour.wind_mps < LEAST_MPS
    cold = compass_word(hour.wind_from_deg)
    warm = compass_word(hour.wind_from_deg + 180.0)
    if light:
        text = "Too little wind to move the warm water."
    elif tilt.verdict == "mixed":
        text = f"No layers to tilt: what warm skin there is drifts to the {warm} end."
    elif tilt.verdict == "wells_up":
        text = f"Cold water comes up at the {cold} end; the warm piles up at the {warm} end."
    elif tilt.verdict == "tilts":
        text = f"The warm layer is deeper at the {warm} end and thinner at the {cold} end."
    else:
        text = f"The layers hold; the warm skin drifts to the {warm} end."
    return LakeWind(
        at_s=hour.at_s, wind_mps=hour.wind_mps, warm_end="" if light else warm,
        cold_end="" if light else cold, wedderburn=tilt.wedderburn, lake_number=tilt.lake_number,
        stability_jpm2=schmidt_stability_jpm2(profile, bowl),
        follows_s=None if tilt.period_s is None else 0.25 * tilt.period_s, lean_m=tilt.lean_m,
        text=text,
    )
