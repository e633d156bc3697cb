"""Whether a folded record can be shown: every rod that is rigged must be one that can be solved."""

from __future__ import annotations

from ..errors import InvalidInputError
from ..gear.setup import build_rig
from .state import RodState, TripState


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
