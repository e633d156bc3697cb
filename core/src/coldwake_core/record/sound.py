"""Whether a folded record can be shown: every rod that is rigged must be one that can be solved."""

from __future__ import annotations

from ..errors import InvalidInputError
from ..gear.setup import build_rig
from ..gear.tackle import Outfit
from .state import RodState, TripState
from .trip import PastReading


def rod_fault(state: TripState, rod: RodState) -> InvalidInputError | None:
    """Return why a rod cannot be shown as the record has it.

    Parameters
    ----------
    state : TripState
        The present state.
    rod : RodState
        One of its rods.

    Returns
    -------
    InvalidInputError or None
        None when it can be.
    """
    if rod.setup is None:
        return None
    try:
        rig = build_rig(state.outfit, rod.setup)
        mates = state.mates_of(rod.setup)
        if mates:
            rig = build_rig(state.outfit, rod.setup, mates)
        rig.check()
        if rod.setting_m is not None and rod.status == "fishing":
            rig.check_number(rod.setting_m)
    except InvalidInputError as error:
        return error
    return None


def reading_can_be(outfit: Outfit, reading: PastReading) -> bool:
    """Return whether a depth that was seen can be held against its line.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    reading : PastReading
        The depth, with what was out.

    Returns
    -------
    bool
        Not where its tackle is gone, or where a device out of touch rigged the rod so meanwhile
        that its number cannot have been.
    """
    try:
        rig = build_rig(outfit, reading.setup, reading.mates)
        rig.check()
        rig.check_number(reading.setting_m)
    except InvalidInputError:
        return False
    return True


def faults(state: TripState) -> dict[str, InvalidInputError]:
    """Return the rods that cannot be shown as the record has them, with the reason.

    Parameters
    ----------
    state : TripState
        The present state.

    Returns
    -------
    dict of str to InvalidInputError
        By rod; empty when all is well.
    """
    found = {}
    for rod in state.rods.values():
        error = rod_fault(state, rod)
        if error is not None:
            found[rod.rod_id] = error
    return found
