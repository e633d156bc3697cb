"""What could be changed from what is out: one small step each, with its cost."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

from ..advice.tries import DEPTHS_M, LEADERS_M, PLUG_CLEAR_M, SETBACKS_M, TIE_MIN
from ..constants import FOOT_M, MPH_MPS
from .boat import (
    ATTRACTORS,
    COLOURS,
    Box,
    RodState,
    at_depth,
    depth_of,
    works,
)
from .day import Aboard, Change, reset_min

CLEAR_M: Final = 3.0 * FOOT_M
SPEED_STEPS: Final = (-0.4, -0.2, 0.2, 0.4)


def steps_of(aboard: Aboard) -> list[Change]:
    """Return all small steps from what is out that swim right.

    Parameters
    ----------
    aboard : Aboard
        What is out.

    Returns
    -------
    list of Change
    """
    found = []
    for step in SPEED_STEPS:
        speed = round((aboard.speed_mps / MPH_MPS + step), 1) * MPH_MPS
        if aboard.box.slowest_mps <= speed <= aboard.box.fastest_mps:
            found.append(Change(kind="speed", speed_mps=speed))
    for index, rod in enumerate(aboard.rods):
        if aboard.out_until[index] > aboard.minute:
            continue
        found += [
            Change(kind=kind, rods=((index, after),), cost_min=cost)
            for kind, after, cost in _rod_steps(rod, aboard)
            if works(after.look, aboard.speed_mps)
        ]
    return found


def _rod_steps(rod: RodState, aboard: Aboard) -> list[tuple[str, RodState, float]]:
    speed, reset = aboard.speed_mps, reset_min(rod)
    found: list[tuple[str, RodState, float]] = []
    if rod.kind == "flat":
        found += [
            ("setback", replace(rod, setting_m=out, setback_m=out), reset)
            for out in aboard.box.lines_out_m if out != rod.setting_m
        ]
    else:
        for depth in DEPTHS_M:
            if depth <= aboard.seen.bottom_m - CLEAR_M:
                after = at_depth(rod, speed, depth)
                if after is not None and abs(after.setting_m - rod.setting_m) > 0.5:
                    found.append(("depth", after, reset))
    tie = reset + TIE_MIN
    looks = [
        ("colour", replace(rod.look, colour=colour))
        for colour in COLOURS if colour != rod.look.colour
    ]
    looks += [
        ("leader", replace(rod.look, leader_m=leader)) for leader in LEADERS_M
        if leader != rod.look.leader_m and ATTRACTORS[rod.look.attractor].body is not None
    ]
    looks += [
        ("attractor", replace(rod.look, attractor=name))
        for name in aboard.box.attractors if name != rod.look.attractor
    ]
    looks += [
        ("lure", replace(rod.look, lure=name)) for name in aboard.box.lures
        if name != rod.look.lure
    ]
    found += [(kind, replace(rod, look=look), tie) for kind, look in looks]
    if rod.kind == "downrigger":
        found += [
            ("setback", replace(rod, setback_m=back), tie)
            for back in SETBACKS_M if abs(back - rod.setback_m) > 0.5
        ]
    if rod.kind != "flat":
        return found
    # No nearer to the bed than here, nor than where it comes up again.
    lowest = min(aboard.seen.bottom_m, aboard.bed().shallow_m) - PLUG_CLEAR_M
    return [step for step in found if depth_of(step[1], speed) < lowest]


def mended_of(rod: RodState, box: Box, speed_mps: float) -> list[RodState]:
    """Return a rod with another lure, or another attractor, that swims at a speed.

    Parameters
    ----------
    rod : RodState
        The rod.
    box : Box
        What is aboard.
    speed_mps : float
        Through the water, m/s.

    Returns
    -------
    list of RodState
        Empty where no single one of them would.
    """
    looks = (
        *(replace(rod.look, attractor=name) for name in box.attractors),
        *(replace(rod.look, lure=name) for name in box.lures),
    )
    return [replace(rod, look=look) for look in looks if works(look, speed_mps)]


def copies_of(aboard: Aboard, source: int) -> list[Change]:
    """Return each other rod with the look of one.

    Parameters
    ----------
    aboard : Aboard
        What is out.
    source : int
        The rod to copy.

    Returns
    -------
    list of Change
    """
    look = aboard.rods[source].look
    return [
        Change(
            kind="copy", rods=((index, replace(rod, look=look)),),
            cost_min=reset_min(rod) + TIE_MIN,
        )
        for index, rod in enumerate(aboard.rods)
        if index != source and rod.look != look and aboard.out_until[index] <= aboard.minute
    ]
