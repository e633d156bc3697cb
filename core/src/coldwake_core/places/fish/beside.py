"""Beside the boat: the checks before a line goes out, and lures to look at again."""

from __future__ import annotations

from dataclasses import dataclass

from ...gear.inspection import Inspection, boat_inspections, rod_inspections
from ...gear.pieces import SpeedRange
from ...record.beside import Outcome
from ...record.fold_beside import AGAIN
from ...trip.now import Now


@dataclass(frozen=True, slots=True, kw_only=True)
class LookState:
    """Something to look at, and what came of it.

    Parameters
    ----------
    look : Inspection
        What to look for.
    at_s : float or None
        When it was last looked at, seconds since 1970-01-01 UTC; None if never on this trip.
    outcome : Outcome or None
        What came of it.
    due : bool
        Whether it is still to be done: never looked at, or a fault that stands.
    """

    look: Inspection
    at_s: float | None
    outcome: Outcome | None
    due: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class RodBeside:
    """A rod beside the boat.

    Parameters
    ----------
    rod_id : str
        The rod.
    looks : tuple of LookState
        Its checks.
    again : str or None
        Why its lure should be looked at again.
    again_since_s : float or None
        Since when, seconds since 1970-01-01 UTC.
    blade_works, lure_works : SpeedRange or None
        Working ranges in use.
    blade_own, lure_own : bool
        Whether that range was seen beside the boat.
    """

    rod_id: str
    looks: tuple[LookState, ...]
    again: str | None
    again_since_s: float | None
    blade_works: SpeedRange | None
    lure_works: SpeedRange
    blade_own: bool
    lure_own: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class BesideView:
    """All checks of a trip.

    Parameters
    ----------
    boat : tuple of LookState
        Before the boat leaves the ramp.
    rods : tuple of RodBeside
        Every rigged rod.
    """

    boat: tuple[LookState, ...]
    rods: tuple[RodBeside, ...]


def beside_view(now: Now) -> BesideView:
    """Return the checks of boat and rods.

    Parameters
    ----------
    now : Now
        The trip as it stands.

    Returns
    -------
    BesideView
    """
    state, outfit = now.state, now.state.outfit
    rods = []
    for rod in state.rods.values():
        setup = rod.setup
        if setup is None:
            continue
        lure = outfit.lure(setup.lure_id)
        blade = None if setup.attractor_id is None else outfit.attractor(setup.attractor_id)
        due = state.looks_due.get(rod.rod_id)
        rods.append(RodBeside(
            rod_id=rod.rod_id,
            looks=tuple(_state(now, rod.rod_id, look) for look in rod_inspections(outfit, setup)),
            again=None if due is None else AGAIN[due.why],
            again_since_s=None if due is None else due.at_s,
            blade_works=None if blade is None else blade.works_at(setup.tow_point),
            lure_works=lure.works_at(),
            blade_own=blade is not None
            and any(own.tow_point == setup.tow_point for own in blade.own),
            lure_own=bool(lure.own),
        ))
    return BesideView(
        boat=tuple(_state(now, "", look) for look in boat_inspections(outfit)), rods=tuple(rods)
    )


def _state(now: Now, rod_id: str, look: Inspection) -> LookState:
    done = now.state.checks.get((rod_id, look.item))
    if done is None:
        return LookState(look=look, at_s=None, outcome=None, due=True)
    return LookState(
        look=look, at_s=done.at_s, outcome=done.outcome, due=done.outcome == "fault"
    )
