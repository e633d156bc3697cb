"""Which readings speak for which tackle, and what they say of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..gear.setup import RodSetup, build_rig
from ..gear.tackle import Outfit
from ..lines.calibration import (
    STATED_SPREAD,
    Calibration,
    DepthReading,
    InputSpread,
    LineFit,
    fit_line,
)
from ..record.trip import PastReading
from ..water.fresh import Water

Key = tuple[str, str, str | None, str]


def line_key(outfit: Outfit, setup: RodSetup) -> tuple[str, str]:
    """Return what makes a line the same line: the reel, and for a downrigger the cable too.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on a rod.

    Returns
    -------
    (str, str)
        Line, and place where it matters.
    """
    place = outfit.place(setup.place_id)
    return setup.line_id, place.id if place.kind == "downrigger" else ""


def spread_of(outfit: Outfit, setup: RodSetup) -> InputSpread:
    """Return how sure the inputs of a rod's tackle are before any reading.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod.

    Returns
    -------
    InputSpread
        A plug with printed points is surer of its lip than a generic one.
    """
    left = outfit.lure(setup.lure_id).lift_spread
    if left is None:
        return STATED_SPREAD
    # Never surer than a tenth: two plugs out of one box differ.
    return replace(STATED_SPREAD, body_lift=min(max(left, 0.1), STATED_SPREAD.body_lift))


def fit_setup(
    outfit: Outfit, setup: RodSetup, readings: Sequence[PastReading], water: Water
) -> LineFit:
    """Return what the readings say of the tackle on a rod.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod.
    readings : sequence of PastReading
        Depths seen, those set aside left out.
    water : Water
        Density and viscosity.

    Returns
    -------
    LineFit

    Notes
    -----
    Readings with the same line and the same lure count in full. Where there are none, what was
    learnt of the line with the lure that has most of them is kept, and the lure taken as unknown.
    """
    groups: dict[tuple[str | None, str], list[PastReading]] = {}
    for reading in readings:
        if line_key(outfit, reading.setup) == line_key(outfit, setup):
            body = (reading.setup.attractor_id, reading.setup.lure_id)
            groups.setdefault(body, []).append(reading)
    spread = spread_of(outfit, setup)
    if not groups:
        return LineFit(calibration=Calibration.prior(spread))
    own = groups.get((setup.attractor_id, setup.lure_id))
    fit = fit_line(
        [
            DepthReading(
                id=reading.id, rig=build_rig(outfit, reading.setup), setting_m=reading.setting_m,
                speed_mps=reading.speed_mps, depth_m=reading.depth_m, of=reading.of,
            )
            for reading in own or max(groups.values(), key=len)
        ],
        water, spread,
    )
    return fit if own else LineFit(calibration=fit.calibration.with_another_body())
