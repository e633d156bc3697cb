"""Which readings speak for which tackle, and what they say of it."""

from __future__ import annotations

from collections.abc import Sequence

from ..gear.setup import RodSetup, build_rig
from ..gear.tackle import Outfit
from ..lines.calibration import Calibration, DepthReading, LineFit, fit_line
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
    if not groups:
        return LineFit(calibration=Calibration.prior())
    own = groups.get((setup.attractor_id, setup.lure_id))
    fit = fit_line(
        [
            DepthReading(
                id=reading.id, rig=build_rig(outfit, reading.setup), setting_m=reading.setting_m,
                speed_mps=reading.speed_mps, depth_m=reading.depth_m, of=reading.of,
            )
            for reading in own or max(groups.values(), key=len)
        ],
        water,
    )
    return fit if own else LineFit(calibration=fit.calibration.with_another_body())
