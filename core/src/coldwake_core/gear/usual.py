"""What boats and rigs usually have: where a form begins, every figure to be changed by its user."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

from ..constants import FOOT_M, MPH_MPS, POUND_KG
from .pieces import SLOWEST_MPS
from .setup import RodSetup
from .tackle import Outfit, Place

USUAL_PLACES: Final = (
    Place(
        id="holder", name="holder", kind="holder", side_m=5.5 * FOOT_M,
        tip_height_m=3.25 * FOOT_M,
    ),
    Place(
        id="downrigger", name="rigger", kind="downrigger", side_m=3.5 * FOOT_M,
        tip_height_m=3.25 * FOOT_M,
        cable_material_id="cable-steel-150", cable_length_m=200.0 * FOOT_M, ball_kg=10.0 * POUND_KG,
    ),
    Place(
        id="board", name="board clip", kind="board", side_m=65.0 * FOOT_M,
        tip_height_m=5.0 * FOOT_M,
    ),
)
"""A rod reaching out from a 16 ft boat's side; 200 ft of steel cable and a 10 lb ball (common
practice); a board 65 ft out (judged)."""

SETBACK_M: Final = 20.0 * FOOT_M
"""Behind a clip to begin with: within the kokanee school's 10 to 30 ft (common practice)."""
WEIGHT_AHEAD_M: Final = 4.0 * FOOT_M
"""A weight is placed at least 3 ft ahead (common practice)."""
CURRENT_FROM_WIND_MPS: Final = 0.15 * MPH_MPS
"""Half of what GPS shows more into the wind than with it, for lures that work alike: 0.9 against
1.2 mph (common practice)."""
EITHER_SIDE_MPS: Final = 0.2 * MPH_MPS
"""A small change of speed (common practice)."""


def fitted(outfit: Outfit, setup: RodSetup) -> RodSetup:
    """Return a setup without what its kind of line cannot have, and with what it cannot be without.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        As it was chosen, piece by piece.

    Returns
    -------
    RodSetup

    Raises
    ------
    UnknownItemError
        If its line is not aboard.
    """
    if outfit.line(setup.line_id).kind == "downrigger":
        setup = replace(
            setup, weight_kg=0.0, weight_ahead_m=0.0, drop_m=0.0,
            setback_m=setup.setback_m or SETBACK_M,
            slider_kg=setup.slider_kg if setup.above_ball_m > 0.0 else 0.0,
        )
    else:
        setup = replace(setup, setback_m=0.0, above_ball_m=0.0, slider_kg=0.0, release_id=None)
        if setup.weight_kg > 0.0:
            setup = replace(setup, weight_ahead_m=setup.weight_ahead_m or WEIGHT_AHEAD_M)
        else:
            setup = replace(setup, weight_ahead_m=0.0, drop_m=0.0)
    if setup.attractor_id is None:
        setup = replace(setup, leader_m=0.0, leader_id=None)
    return setup


def first_setup(outfit: Outfit, rod_id: str) -> RodSetup | None:
    """Return what a rod that was never rigged begins with: the first that goes together.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    rod_id : str
        The rod.

    Returns
    -------
    RodSetup or None
        None where no line, holder or lure is aboard.
    """
    line = next((item for item in outfit.lines if item.kind != "downrigger"), None)
    place = next((item for item in outfit.places if item.kind == "holder"), None)
    if line is None or place is None or not outfit.lures:
        return None
    return RodSetup(
        rod_id=rod_id, place_id=place.id, line_id=line.id, lure_id=outfit.lures[0].id
    )


def pair_of_speeds(speed_mps: float, current_mps: float) -> tuple[float, float]:
    """Return the two speeds through water that one GPS speed is, held one way and the other.

    Parameters
    ----------
    speed_mps : float
        Speed through water now, m/s.
    current_mps : float
        Speed of the current, m/s; 0 in still water, where the wind makes the difference.

    Returns
    -------
    (float, float)
        Against the current and with it; in still water with the wind behind and into it, m/s.
    """
    if current_mps > 0.0:
        return speed_mps, max(speed_mps - 2.0 * current_mps, SLOWEST_MPS)
    return max(speed_mps - CURRENT_FROM_WIND_MPS, SLOWEST_MPS), speed_mps + CURRENT_FROM_WIND_MPS
