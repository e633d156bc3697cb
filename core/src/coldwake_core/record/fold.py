"""The fold: events in, present state out. Pure, and the same code on both sides of the link."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import replace
from typing import Any, Final

from ..boat.current import Current
from ..chart.grid import GeoPoint
from ..gear.beat import Beat
from ..gear.setup import RodSetup
from .casting import APPLY_CASTING
from .events import Event
from .fold_beside import APPLY_BESIDE, TURNED_DEG, apply_checked, keep_beat, look_again
from .order import standing
from .payloads import (
    BeatCounted,
    BottomTap,
    ClearanceChosen,
    CurrentNoted,
    DepthSeen,
    Landed,
    LineSet,
    MarkSeen,
    MoveAnswered,
    OffsetChosen,
    PositionFixed,
    ReadingSetAside,
    RodOnly,
    SchoolChosen,
    Sounded,
    SpeedChanged,
    TemperatureRead,
    TipMoved,
    VoltageRead,
)
from .planned import DayPlan
from .state import (
    SURFACE_M,
    Answer,
    LandedFish,
    Reading,
    RodState,
    Stint,
    TimedMark,
    TripState,
)
from .told import APPLY_TOLD, begin_pass, begin_turn
from .trip import PastReading, Trip

PLACE_KNOWN_S: Final = 120.0
"""A depth seen is laid on the chart if the place was known within this time, s."""

SAME_PLACE_S = 120.0
"""A place told this soon after a sounding is where it was made (judged)."""
SAME_BITE_S = 120.0
"""A fish hooked this soon after a hit on the same rod is that hit."""


def begin(trip: Trip) -> TripState:
    """Return the state of a trip before anything has happened.

    Parameters
    ----------
    trip : Trip
        What the trip started with.

    Returns
    -------
    TripState
    """
    return TripState(
        outfit=trip.outfit, rods={rod.id: RodState(rod_id=rod.id) for rod in trip.outfit.rods},
        bottom_m=trip.bottom_m, deepest_m=trip.bottom_m,
        depth_readings=list(trip.readings), species=trip.species, plan=trip.plan,
    )


def fold(trip: Trip, events: Iterable[Event]) -> TripState:
    """Return the state that the events of a trip add up to.

    Parameters
    ----------
    trip : Trip
        What the trip started with.
    events : iterable of Event
        Its events, in any order; an id may come twice.

    Returns
    -------
    TripState
    """
    state = begin(trip)
    for event in standing({event.id: event for event in events}.values()):
        apply(state, event)
    return state


def apply(state: TripState, event: Event) -> None:
    """Change a state by one event that stands.

    Parameters
    ----------
    state : TripState
        The state before, changed in place.
    event : Event
        What happened next; no undoing.

    Notes
    -----
    Never raises: a rod that is not aboard, for what brought it was taken back elsewhere, is passed
    over.
    """
    rod_id = getattr(event.payload, "rod_id", None)
    if rod_id is None or rod_id in state.rods:
        _APPLY[event.type](state, event.at_s, event.payload, event.id)
    state.last_event_id, state.last_event_type = event.id, event.type


def _end_stint(state: TripState, rod_id: str, at_s: float) -> None:
    index = state.stint_of.get(rod_id)
    if index is not None and state.stints[index].end_s is None:
        state.stints[index] = replace(state.stints[index], end_s=at_s)


def _start_stint(state: TripState, rod: RodState, at_s: float) -> None:
    if rod.setup is not None and rod.setting_m is not None:
        state.stint_of[rod.rod_id] = len(state.stints)
        state.stints.append(Stint(rod.rod_id, rod.setup, rod.setting_m, at_s))


def _baited(state: TripState, rod: RodState, at_s: float) -> None:
    rod.bait_since_s = at_s
    state.bait_looks[rod.rod_id] = (*state.bait_looks.get(rod.rod_id, ()), at_s)


def _rig(state: TripState, at_s: float, setup: RodSetup, _: str = "") -> None:
    rod = state.rods[setup.rod_id]
    _end_stint(state, rod.rod_id, at_s)
    if rod.setup is not None and rod.setup.line_id != setup.line_id:
        # Another reel: the old number means nothing on it.
        rod.setting_m = rod.wanted_depth_m = None
        rod.status = "in"
    rod.setup = setup
    _baited(state, rod, at_s)
    if rod.status == "fishing":
        rod.soak_since_s = at_s
        _start_stint(state, rod, at_s)


def _set_line(state: TripState, at_s: float, line: LineSet, _: str = "") -> None:
    rod = state.rods[line.rod_id]
    _end_stint(state, rod.rod_id, at_s)
    if rod.status != "fishing" or rod.soak_since_s is None:
        rod.soak_since_s = at_s
    rod.setting_m, rod.wanted_depth_m = line.setting_m, line.wanted_depth_m
    rod.status, rod.open_hit_s = "fishing", None
    # Another device may have ended the trip: a line that goes down says that it goes on.
    state.ended = False
    if rod.bait_since_s is None:
        _baited(state, rod, at_s)
    _start_stint(state, rod, at_s)
    if rod.setup is not None:
        # One cable, one counter: the other lines on it go up and down with the ball.
        for mate in state.mates_of(rod.setup):
            other = state.rods[mate.rod_id]
            if other.setting_m != line.setting_m:
                _end_stint(state, other.rod_id, at_s)
                other.setting_m, other.wanted_depth_m = line.setting_m, None
                _start_stint(state, other, at_s)


def _change_setup(state: TripState, at_s: float, rod: RodState, setup: RodSetup) -> None:
    """Change how a rod stands while its line stays out: the clocks run on."""
    _end_stint(state, rod.rod_id, at_s)
    rod.setup = setup
    if rod.status == "fishing":
        _start_stint(state, rod, at_s)


def _tip(state: TripState, at_s: float, item: TipMoved, _: str) -> None:
    rod = state.rods[item.rod_id]
    if rod.setup is not None:
        _change_setup(state, at_s, rod, replace(rod.setup, tip=item.tip))


def _tap(state: TripState, at_s: float, item: BottomTap, _: str) -> None:
    state.rods[item.rod_id].bottom_tap = item.on


def _board_reset(state: TripState, at_s: float, item: RodOnly, _: str) -> None:
    """After a fish the lines inside slide out one place; the fresh line goes innermost."""
    fresh = state.rods[item.rod_id]
    if fresh.setup is None:
        return
    places = {place.id: place for place in state.outfit.places}
    own = places.get(fresh.setup.place_id)
    if own is None or own.kind != "board":
        return
    inside = []
    for rod in state.rods.values():
        if rod.setup is not None and rod is not fresh and rod.status == "fishing":
            place = places.get(rod.setup.place_id)
            on_board = place is not None and place.kind == "board"
            if place is not None and on_board and 0.0 < place.side_m / own.side_m < 1.0:
                inside.append((place, rod))
    inside.sort(key=lambda pair: -abs(pair[0].side_m))
    free = own
    for place, rod in inside:
        assert rod.setup is not None
        _change_setup(state, at_s, rod, replace(rod.setup, place_id=free.id))
        free = place
    _change_setup(state, at_s, fresh, replace(fresh.setup, place_id=free.id))


def _beat(state: TripState, at_s: float, item: BeatCounted, _: str) -> None:
    rod = state.rods[item.rod_id]
    if rod.setup is not None and state.speed_mps is not None:
        body = (rod.setup.attractor_id, rod.setup.lure_id)
        beat = Beat(beats=item.beats, seconds=item.seconds, speed_mps=state.speed_mps)
        state.beats[body] = beat
        keep_beat(state, rod.setup, beat)


def _voltage(state: TripState, at_s: float, item: VoltageRead, _: str) -> None:
    state.voltages.append((at_s, item))


def _clearance(state: TripState, at_s: float, item: ClearanceChosen, _: str) -> None:
    state.kept_off_m = item.clearance_m


def _fix(state: TripState, at_s: float, item: PositionFixed, _: str) -> None:
    if state.fix is not None:
        turned = abs((item.course_deg - state.fix[1].course_deg + 180.0) % 360.0 - 180.0)
        if turned >= TURNED_DEG:
            look_again(state, at_s, "turn")
    state.fix = (at_s, item)
    state.fixes.append(state.fix)
    sounded = state.sounded_at_s
    if sounded is not None and at_s - sounded <= SAME_PLACE_S:
        # Sounded just before the place was told: it was sounded here.
        state.sounded_fix = state.fix


def _line_in(state: TripState, at_s: float, item: RodOnly, _: str) -> None:
    rod = state.rods[item.rod_id]
    _end_stint(state, rod.rod_id, at_s)
    rod.status, rod.soak_since_s, rod.open_hit_s = "in", None, None
    state.looks_due.pop(rod.rod_id, None)


def _tangled(state: TripState, at_s: float, item: RodOnly, _: str) -> None:
    """A line is cleared out of the water, and the minutes of it are counted as such."""
    rod = state.rods[item.rod_id]
    if rod.setup is not None:
        state.tangles.append((at_s, rod.setup))
    if rod.status != "in":
        _line_in(state, at_s, item, "")


def _bait(state: TripState, at_s: float, item: RodOnly, _: str) -> None:
    _baited(state, state.rods[item.rod_id], at_s)


def _count_hit(state: TripState, at_s: float, rod: RodState) -> None:
    rod.tally.hits += 1
    index = state.stint_of.get(rod.rod_id)
    if index is not None:
        state.stints[index] = replace(state.stints[index], hits=state.stints[index].hits + 1)


def _hit(state: TripState, at_s: float, item: RodOnly, event_id: str) -> None:
    rod = state.rods[item.rod_id]
    _count_hit(state, at_s, rod)
    rod.open_hit_s = at_s
    state.bites.append((at_s, item.rod_id, "hit"))


def _hooked(state: TripState, at_s: float, item: RodOnly, _: str) -> None:
    rod = state.rods[item.rod_id]
    if rod.open_hit_s is None or at_s - rod.open_hit_s > SAME_BITE_S:
        _count_hit(state, at_s, rod)
        state.bites.append((at_s, item.rod_id, "hit"))
    _end_stint(state, rod.rod_id, at_s)
    rod.tally.hooked += 1
    rod.status, rod.open_hit_s, rod.soak_since_s = "fish_on", None, None
    rod.fish_on_s = at_s
    state.bites.append((at_s, item.rod_id, "hooked"))


def _after_fish(state: TripState, at_s: float, rod_id: str) -> RodState:
    """A fish that was never tapped as hooked was hooked all the same."""
    rod = state.rods[rod_id]
    if rod.status != "fish_on":
        _hooked(state, at_s, RodOnly(rod_id=rod_id), "")
    rod.status = "in"
    return rod


def _landed(state: TripState, at_s: float, item: Landed, _: str) -> None:
    rod = _after_fish(state, at_s, item.rod_id)
    rod.tally.landed += 1
    rod.tally.kept += item.kept
    state.bites.append((at_s, item.rod_id, "landed"))
    state.landed.append(LandedFish(
        at_s=at_s, rod_id=item.rod_id, kept=item.kept, length_m=item.length_m,
        on_bait=rod.setup is not None and rod.setup.bait_id is not None,
        species=item.species or state.species, photo_id=item.photo_id,
    ))


def _lost(state: TripState, at_s: float, item: RodOnly, _: str) -> None:
    rod = _after_fish(state, at_s, item.rod_id)
    rod.tally.lost += 1
    state.bites.append((at_s, item.rod_id, "lost"))


def _speed(state: TripState, at_s: float, item: SpeedChanged, _: str = "") -> None:
    state.speed_mps = item.speed_mps
    state.speeds.append((at_s, item.speed_mps))


def _temperature(state: TripState, at_s: float, item: TemperatureRead, _: str) -> None:
    reading = Reading(at_s, item.temperature_degc, item.depth_m)
    state.readings.append(reading)
    if item.depth_m <= SURFACE_M:
        state.surface = reading


def _mark(state: TripState, at_s: float, item: MarkSeen, event_id: str) -> None:
    state.marks.append(TimedMark(at_s, item, event_id))


def _sounded(state: TripState, at_s: float, item: Sounded, _: str) -> None:
    state.bottom_m, state.sounded_at_s, state.sounded_fix = item.bottom_m, at_s, state.fix
    state.soundings.append((at_s, item.bottom_m, state.speed_mps or 0.0))
    state.deepest_m = max(state.deepest_m, item.bottom_m)


def _offset(state: TripState, at_s: float, item: OffsetChosen, _: str) -> None:
    state.offset_m = item.above_mark_m


def _current(state: TripState, at_s: float, item: CurrentNoted, _: str) -> None:
    state.current = Current(speed_mps=item.speed_mps, toward_deg=item.toward_deg)


def _depth_seen(state: TripState, at_s: float, item: DepthSeen, event_id: str) -> None:
    setup = state.rods[item.rod_id].setup
    if setup is None:
        return
    place, course = None, 0.0
    if state.fix is not None and at_s - state.fix[0] <= PLACE_KNOWN_S:
        fix = state.fix[1]
        place = GeoPoint(latitude_deg=fix.latitude_deg, longitude_deg=fix.longitude_deg)
        course = fix.course_deg
    state.depth_readings.append(PastReading(
        id=event_id, setup=setup, setting_m=item.setting_m, speed_mps=item.speed_mps,
        depth_m=item.depth_m, of=item.of, mates=state.mates_of(setup), place=place,
        course_deg=course,
    ))


def _set_aside(state: TripState, at_s: float, item: ReadingSetAside, _: str) -> None:
    if item.aside:
        state.set_aside.add(item.event_id)
    else:
        state.set_aside.discard(item.event_id)


def _school(state: TripState, at_s: float, item: SchoolChosen, _: str) -> None:
    state.schools[item.topic] = item.school


def _taken(state: TripState, at_s: float, item: MoveAnswered, _: str) -> None:
    state.answers.append(Answer(at_s, True, item))
    if item.change.line_set is not None and item.change.line_set.rod_id in state.rods:
        _set_line(state, at_s, item.change.line_set)
    if item.change.speed_changed is not None:
        _speed(state, at_s, item.change.speed_changed)
    if item.change.rod_rigged is not None and item.change.rod_rigged.rod_id in state.rods:
        _rig(state, at_s, item.change.rod_rigged)
    if item.change.checked is not None:
        apply_checked(state, at_s, item.change.checked)
    if item.change.pass_begun is not None:
        begin_pass(state, at_s, item.change.pass_begun, "")
    if item.change.turn_begun is not None:
        begin_turn(state, at_s, item.change.turn_begun, "")


def _refused(state: TripState, at_s: float, item: MoveAnswered, _: str) -> None:
    state.answers.append(Answer(at_s, False, item))


def _ended(state: TripState, at_s: float, item: object, _: str) -> None:
    state.ended = True
    for rod_id in state.rods:
        _line_in(state, at_s, RodOnly(rod_id=rod_id), "")


def _planned(state: TripState, _: float, item: DayPlan, __: str) -> None:
    state.plan = item


_APPLY: dict[str, Callable[[TripState, float, Any, str], None]] = {
    "rod_rigged": _rig,
    "day_planned": _planned,
    **APPLY_TOLD,
    "line_set": _set_line,
    "line_in": _line_in,
    "bait_checked": _bait,
    "tangled": _tangled,
    "hit": _hit,
    "hooked": _hooked,
    "landed": _landed,
    "lost": _lost,
    "speed_changed": _speed,
    "temperature_read": _temperature,
    "mark_seen": _mark,
    "sounded": _sounded,
    "offset_chosen": _offset,
    "current_noted": _current,
    "depth_seen": _depth_seen,
    "reading_set_aside": _set_aside,
    "tip_moved": _tip,
    "bottom_tap": _tap,
    "board_reset": _board_reset,
    "beat_counted": _beat,
    "voltage_read": _voltage,
    "clearance_chosen": _clearance,
    "position_fixed": _fix,
    "school_chosen": _school,
    "move_taken": _taken,
    "move_refused": _refused,
    "trip_ended": _ended,
    **APPLY_BESIDE,
    **APPLY_CASTING,
}
