"""The rods of a trip as they stand, and at a speed that is only tried."""

from __future__ import annotations

from dataclasses import replace

from ...errors import CoreError, InvalidInputError
from ...gear.beat import SpeedAtDepth, predicted_rate_hz, speed_from_beat
from ...gear.setup import recipe_words, rig_kind, working_range
from ...gear.usual import first_setup, pair_of_speeds
from ...gear.window import verdict
from ...record.fold_beside import AGAIN
from ...record.state import RodState
from ...trip.now import Now
from ...trip.numbers import RodLine
from ...trip.track import bed_around, clearance_over
from .view import RodTally, RodView, SpeedPair


def rod_views(now: Now) -> tuple[RodView, ...]:
    """Return all rods, port to starboard.

    Parameters
    ----------
    now : Now
        The trip as it stands.

    Returns
    -------
    tuple of RodView
    """
    return tuple(sorted(
        (_rod_view(now, rod, now.speed_mps) for rod in now.state.rods.values()),
        key=lambda rod: (rod.side_m, rod.id),
    ))


def _rod_view(now: Now, rod: RodState, speed_mps: float) -> RodView:
    outfit = now.state.outfit
    item, setup = outfit.rod(rod.rod_id), rod.setup
    fault = now.faulty.get(rod.rod_id)
    tally = RodTally(
        hits=rod.tally.hits, hooked=rod.tally.hooked, landed=rod.tally.landed,
        kept=rod.tally.kept, lost=rod.tally.lost,
    )
    if setup is None:
        return RodView(
            id=item.id, name=item.name, shape=item.shape, kind=None, place_name="", side_m=99.0,
            tip_height_m=1.0, recipe="", status="in", works=None, verdict=None,
            soak_since_s=None, bait_since_s=None, tally=tally, setup=None, line=None,
            last_setting_m=None, wanted_depth_m=None,
            fault=None if fault is None else fault.message,
            begin=first_setup(outfit, item.id),
        )
    place, works = outfit.place(setup.place_id), working_range(outfit, setup)
    beat, current = now.state.beat_of(setup), now.state.current
    pair = pair_of_speeds(speed_mps, 0.0 if current is None else current.speed_mps)
    line, due, trouble = None, now.state.looks_due.get(rod.rod_id), None
    if rod.status == "fishing" and rod.setting_m is not None:
        try:
            line = now.lines.where(rod_id=rod.rod_id, setting_m=rod.setting_m, speed_mps=speed_mps)
        except CoreError as error:
            trouble = error.message
    return RodView(
        id=item.id, name=item.name, shape=item.shape, kind=rig_kind(outfit, setup),
        place_name=place.name, side_m=place.side_m, tip_height_m=place.tip_height_m,
        recipe=recipe_words(outfit, setup), status=rod.status, works=works,
        verdict=verdict(works, speed_mps), soak_since_s=rod.soak_since_s,
        bait_since_s=rod.bait_since_s if outfit.lure(setup.lure_id).takes_bait else None,
        tally=tally, setup=setup, line=line,
        last_setting_m=rod.setting_m, wanted_depth_m=rod.wanted_depth_m,
        readings=now.lines.readings_of(setup), aft_m=place.aft_m, on_board=place.kind == "board",
        bottom_tap=rod.bottom_tap, fault=trouble,
        has_tip=place.kind == "holder", on_cable=place.kind == "downrigger",
        look_item="swings" if setup.attractor_id is not None else "tracks_true",
        pair_mps=SpeedPair(first_mps=pair[0], second_mps=pair[1]),
        again=None if due is None else AGAIN[due.why], beat=beat,
        beats_per_10s=None if beat is None
        else 10.0 * predicted_rate_hz(beat, speed_mps),
    )


def lines_tried(
    now: Now, *, speed_mps: float, now_s: float | None = None
) -> tuple[RodLine, ...]:
    """Return where every lure that is out would be at a speed, over the bottom under it.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    speed_mps : float
        Speed through water, m/s.
    now_s : float, optional
        The moment, seconds since 1970-01-01 UTC: with it the chart tells of the bottom.

    Returns
    -------
    tuple of RodLine

    Raises
    ------
    InvalidInputError
        If it is no trolling speed.
    """
    bed = bed_around(now, now_s)
    lines = []
    for line in now.lines.lines_at(speed_mps=speed_mps):
        setup = now.state.rods[line.rod_id].setup
        assert setup is not None
        place = now.state.outfit.place(setup.place_id)
        lines.append(replace(line, clearance_m=clearance_over(
            bed, line, tip_side_m=place.side_m,
            behind_m=max(line.trail_m + place.aft_m, 0.0), side_m=place.side_m,
        )))
    return tuple(lines)


def speed_at_depth(now: Now, *, rod_id: str, beats: int, seconds: float) -> SpeedAtDepth:
    """Return the speed at which a rod's blade swings, from its tip's beat.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    rod_id : str
        The rod.
    beats : int
        Beats counted.
    seconds : float
        Over how long, seconds.

    Returns
    -------
    SpeedAtDepth

    Raises
    ------
    InvalidInputError
        If the rod's beat was never counted beside the boat, or the count is none.
    """
    _, setup = now.lines.rigged(rod_id)
    reference = now.state.beat_of(setup)
    if reference is None:
        raise InvalidInputError(
            "rod_id", rod_id, "a rod whose beat was counted beside the boat first"
        )
    return speed_from_beat(reference, beats=beats, seconds=seconds)
