"""What pulls at the end of a line, how its inputs depart from what is stated, what each does."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Final

from ..water.fresh import Water
from .bodies import Ball, EndLoad, TowedBody
from .towed import CURVE_TOLERANCE


@dataclass(frozen=True, slots=True, kw_only=True)
class Shift:
    """A departure of the inputs from their stated values, used to carry doubt.

    Parameters
    ----------
    speed_mps : float
        Added to the speed, m/s.
    line_drag, strumming, weight, body_drag, body_lift, buoyancy, plate_lever : float
        Factors on the line's normal drag, on what strumming adds to it, on the weight of line and
        ball, on the drag of lure and weight, on the force of a lip, on the volume of a plug, and on
        the weight that a plate's lift carries.
    """

    speed_mps: float = 0.0
    line_drag: float = 1.0
    strumming: float = 1.0
    weight: float = 1.0
    body_drag: float = 1.0
    body_lift: float = 1.0
    buoyancy: float = 1.0
    plate_lever: float = 1.0


NO_SHIFT: Final = Shift()
WATER_TOLERANCE: Final = 20.0 * CURVE_TOLERANCE
"""Integration error allowed for rigs: depths within a millimetre, which is fine enough for water
and halves the work (CURVE_TOLERANCE is what the integrator is checked at)."""
BAND_TOLERANCE: Final = 10.0 * WATER_TOLERANCE
"""And for the edges of a band, which need not be as fine as a value."""
BODY_FACTORS: Final = ("body_drag", "body_lift", "buoyancy", "plate_lever")
_NUDGE: Final = 1e-3


def total_load(
    bodies: tuple[TowedBody, ...], speed_mps: float, water: Water, shift: Shift = NO_SHIFT
) -> EndLoad:
    """Return the pull of all that is at the end of a line.

    Parameters
    ----------
    bodies : tuple of TowedBody
        Lure, attractor and weights.
    speed_mps : float
        Speed through water, m/s.
    water : Water
        Density and viscosity.
    shift : Shift
        Departure of the inputs.

    Returns
    -------
    EndLoad

    References
    ----------
    Berteaux, H.O. (1976). Buoy Engineering: forces at the end of a towed line. From memory.
    """
    load = EndLoad(0.0, 0.0)
    for body in bodies:
        load = load + body.load(
            speed_mps, water, drag_factor=shift.body_drag, lift_factor=shift.body_lift,
            volume_factor=shift.buoyancy, lever_factor=shift.plate_lever,
        )
    return load


Slopes = dict[str, float]
"""Slopes of a depth or distance, m: in the logarithm of each factor of a Shift, in that of the
number (``setting``), and in the speed (``speed_mps``, m per m/s)."""


def load_slopes(
    bodies: tuple[TowedBody, ...], speed_mps: float, water: Water, shift: Shift
) -> dict[str, EndLoad]:
    """Return how the pull at the end of a line hangs on what makes it.

    Parameters
    ----------
    bodies : tuple of TowedBody
        Lure, attractor and weights.
    speed_mps : float
        Speed through water, m/s.
    water : Water
        Density and viscosity.
    shift : Shift
        Departure of the inputs.

    Returns
    -------
    dict of str to EndLoad
        N in the logarithm of each of BODY_FACTORS that matters here, and of the speed (``speed``).
    """
    base = total_load(bodies, speed_mps, water, shift)

    def slope(load: EndLoad) -> EndLoad:
        return EndLoad(
            (load.back_n - base.back_n) / _NUDGE, (load.down_n - base.down_n) / _NUDGE
        )

    matters = {
        "body_drag": True,
        "body_lift": any(body.down_area_m2 > 0.0 for body in bodies),
        "buoyancy": any(body.plate is None for body in bodies),
        "plate_lever": any(body.plate is not None for body in bodies),
    }
    found = {}
    for name in BODY_FACTORS:
        if matters[name]:
            moved = replace(shift, **{name: getattr(shift, name) * (1.0 + _NUDGE)})
            found[name] = slope(total_load(bodies, speed_mps, water, moved))
    found["speed"] = slope(total_load(bodies, speed_mps * (1.0 + _NUDGE), water, shift))
    return found


def add_pulls(
    into: Slopes, pull: tuple[float, float], loads: dict[str, EndLoad], speed_mps: float
) -> None:
    """Add what the inputs of a pull do to a goal, given what the pull does.

    Parameters
    ----------
    into : dict of str to float
        Slopes to add to, m.
    pull : (float, float)
        What a pull back and a pull down do, m/N.
    loads : dict of str to EndLoad
        How the pull hangs on its inputs (`load_slopes`).
    speed_mps : float
        Speed through water, m/s.
    """
    for name, load in loads.items():
        value = pull[0] * load.back_n + pull[1] * load.down_n
        if name == "speed":
            name, value = "speed_mps", value / max(speed_mps, 1e-6)
        into[name] = into.get(name, 0.0) + value


def weight_slopes(
    ball: Ball, speed_mps: float, water: Water, shift: Shift
) -> dict[str, EndLoad]:
    """Return how the pull of a ball hangs on what makes it, as `load_slopes` does for lures.

    Parameters
    ----------
    ball : Ball
        The weight.
    speed_mps : float
        Speed through water, m/s.
    water : Water
        Density and viscosity.
    shift : Shift
        Departure of the inputs.

    Returns
    -------
    dict of str to EndLoad
        N in the logarithm of ``body_drag``, ``weight`` and ``speed``.

    References
    ----------
    Giles, M.B., Pierce, N.A. (2000). An introduction to the adjoint approach to design. Flow,
    Turbulence and Combustion 65, 393-415. From memory.
    """
    load = ball.load(speed_mps, water, drag_factor=shift.body_drag)
    faster = ball.load(speed_mps * (1.0 + _NUDGE), water, drag_factor=shift.body_drag)
    return {
        "body_drag": EndLoad(load.back_n, 0.0),
        "weight": EndLoad(0.0, load.down_n * shift.weight),
        "speed": EndLoad((faster.back_n - load.back_n) / _NUDGE, 0.0),
    }
