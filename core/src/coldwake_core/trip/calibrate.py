"""Which readings speak for which tackle, and what they say of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..chart.grid import DepthGrid, moved
from ..errors import CoreError
from ..gear.setup import RodSetup, build_rig
from ..gear.tackle import Outfit
from ..lines.calibration import (
    Calibration,
    DepthReading,
    InputSpread,
    LineFit,
    fit_line,
    spread_for,
)
from ..lines.rigs import Rig
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
    spread = spread_for(build_rig(outfit, setup))
    left = outfit.lure(setup.lure_id).lift_spread
    if left is None:
        return spread
    # Never surer than a tenth: two plugs out of one box differ.
    return replace(spread, body_lift=min(max(left, 0.1), spread.body_lift))


def _depth_reading(
    outfit: Outfit, reading: PastReading, water: Water, chart: DepthGrid | None
) -> DepthReading:
    """A reading for the fit: with its mates on the cable, and the bottom that the lure touched."""
    try:
        rig = build_rig(outfit, reading.setup, reading.mates)
        rig.check()
    except CoreError:
        # A mate is not aboard any more, or was noted where it could not be clipped.
        rig = build_rig(outfit, reading.setup)
    return DepthReading(
        id=reading.id, rig=rig, setting_m=reading.setting_m, speed_mps=reading.speed_mps,
        depth_m=reading.depth_m + _falls_away(reading, rig, water, chart), of=reading.of,
        sounder=outfit.sounder if reading.of == "ball" else None,
        boom_aft_m=outfit.place(reading.setup.place_id).aft_m,
    )


def _falls_away(
    reading: PastReading, rig: Rig, water: Water, chart: DepthGrid | None
) -> float:
    """How much deeper the chart is under a trailing lure than under the boat that sounded, m."""
    if chart is None or reading.place is None or reading.of != "lure":
        return 0.0
    behind = rig.solve(reading.speed_mps, water, reach_m=reading.setting_m).place(
        reading.setting_m, picture=False
    ).trail_m
    here = chart.depth_m(reading.place)
    there = chart.depth_m(
        moved(reading.place, course_deg=reading.course_deg + 180.0, distance_m=behind)
    )
    return 0.0 if here is None or there is None else there - here


def fit_setup(
    outfit: Outfit, setup: RodSetup, readings: Sequence[PastReading], water: Water,
    chart: DepthGrid | None = None,
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
    chart : DepthGrid, optional
        The water's chart, for the bottom under a lure that touched it.

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
            _depth_reading(outfit, reading, water, chart)
            for reading in own or max(groups.values(), key=len)
        ],
        water, spread,
    )
    return fit if own else LineFit(calibration=fit.calibration.with_another_body())
