"""What Fish shows: the trip as it stands, at a moment."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from typing import Final

from ...advice.candidates import compare_rods, method_depth_m
from ...advice.cures import funnel_view
from ...advice.limits import limit_now
from ...advice.marks import (
    MarkedBand,
    lowest_m,
    mark_targets,
    marked_bands,
    recent_marks,
    run_at_m,
)
from ...advice.method import Method, comfort_band_degc, comfort_depths_m, is_by_the_bed
from ...advice.moves import next_move
from ...advice.phases import show_at
from ...advice.put_off import put_off_now
from ...advice.situation import Advice, RodNow, Situation
from ...advice.tries import FREE_LINES, LINES_OUT_M, PLUG_CLEAR_M, depths_to_try
from ...boat.current import PassSpeeds, pass_speeds
from ...checks import require_number
from ...errors import CoreError, NoSolutionError
from ...evidence.bed import BedFished
from ...evidence.rates import Exposure
from ...evidence.verdict import judge_moves
from ...gear.setup import RodSetup, working_range
from ...gear.window import shared_window
from ...record.state import TimedMark, TripState
from ...sonar.cone import Sounder
from ...sonar.marks import MarkMeaning, mark_of
from ...trip.beds import bed_fished
from ...trip.keep_out import keep_out_now
from ...trip.learnt import learnt
from ...trip.now import Now
from ...trip.today import method_now, phase_now, today
from ...trip.ways import ways
from .ahead import bottom_here_m, look_ahead, over_the_track, shallowest_m
from .bites import bites_now, casting_now, latest_pass, turn_hint, turning_now
from .rods import rod_views
from .steer import wind_view
from .view import (
    AheadView,
    ComfortView,
    DayOnFish,
    EarlierView,
    FishView,
    LayerView,
    MarkView,
    PhaseSpan,
    RibbonMark,
    RodView,
    TemperaturePoint,
)

SURFACE_OLD_S: Final = 3600.0
"""A surface temperature an hour old says when it was read (judged: it moves by the hour)."""
LONG_FIGHT_S: Final = 1200.0
"""A fish is seldom on for twenty minutes on this tackle (judged)."""
SAME_FISH_S: Final = 600.0
"""A fish hooked, landed or lost so soon after a bite on the same rod is that fish (judged)."""
MARK_SLACK_M: Final = 0.5
"""A mark so little below the bottom that is known here may still be here."""
LEAST_LENGTH: Final = 0.15
"""A line is let out or taken in by this share of it or more (judged)."""
MOST_MARKS: Final = 80
"""More than these, the newest, no eye tells apart in the lane of marks."""


def fish_view(now: Now, now_s: float, *, advised: bool = True) -> FishView:
    """Return the Fish view at a moment.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    now_s : float
        Seconds since 1970-01-01 UTC.
    advised : bool
        Whether the next move is weighed: nobody asks for one of a moment that is long over.

    Returns
    -------
    FishView
    """
    require_number("now_s", now_s)
    state, outfit = now.state, now.state.outfit
    speed = now.speed_mps
    window = shared_window([
        working_range(outfit, rod.setup) for rod in now.lines.rods_out() if rod.setup is not None
    ])
    surface = state.surface_degc
    method = method_now(now, now_s)
    rods, ahead = _rods_and_ahead(now, now_s)
    bottom_here = bottom_here_m(ahead, state)
    marks = [mark for mark in state.marks if mark.mark.depth_m <= bottom_here + MARK_SLACK_M]
    bands = tuple(marked_bands(marks, now_s))
    here = {mark.event_id for mark in marks}
    surface_age = None if state.surface is None else max(now_s - state.surface.at_s, 0.0)
    rises_to, bed = shallowest_m(ahead, state), bed_fished(now, now_s)
    now_rods = tuple(
        _rod_now(now, view, bands, method, now_s, rises_to, bed) for view in rods if view.line
    )
    advice = Advice(move=None)
    if advised and not state.ended:
        advice = next_move(Situation(
            outfit=outfit, state=state, now_s=now_s, speed_mps=speed, rods=now_rods,
            window=window, method=method, bands=bands, model=learnt(now, now_s),
            minutes_left=max(now.trip.sun.dark_s - now_s, 0.0) / 60.0,
            depths_at=lambda mps: _depths_at(now, now_rods, mps),
            lowest_m=lowest_m(state, rises_to), bed_m=bed.usual_m, ways=ways(now, now_s),
            species=now.trip.species, water_rules=now.trip.rules,
        ))
    recent = {mark.event_id for mark in recent_marks(state.marks, now_s)}
    return FishView(
        now_s=now_s, speed_mps=speed, bottom_m=state.bottom_m,
        above_mark_m=state.above_mark_m, marks_school=state.schools.get("marks", "above"),
        advice_school=state.schools.get("advice", "weighed"),
        rods=rods, current=state.current,
        passes=_passes(now), wind=wind_view(now, now_s), window=window, surface_degc=surface,
        surface_age_s=surface_age,
        surface_old=surface_age is not None and surface_age >= SURFACE_OLD_S,
        profile=_profile(now), comfort=_comfort(now, now_s),
        marks=tuple(
            _mark(now, m, recent=m.event_id in recent, here=m.event_id in here)
            for m in state.marks[-MOST_MARKS:]
        ),
        method=method, move=advice.move, others=advice.others,
        put_off=() if state.ended else put_off_now(state.answers, now_s),
        comparison=compare_rods(now_rods),
        bites=bites_now(state, now_s), passing=latest_pass(state, now_s),
        casting=casting_now(state), turning=turning_now(state, now_s), turn_hint=turn_hint(state),
        funnel=funnel_view(state, now.trip.species), earlier=_earlier(now),
        judged=tuple(judge_moves(
            state.answers, state.stints, state.bites, now_s, state.bait_looks
        )),
        temperatures=tuple(
            TemperaturePoint(
                at_s=r.at_s, temperature_degc=r.temperature_degc, depth_m=r.depth_m
            )
            for r in state.readings if r.depth_m <= 1.0
        ),
        ribbon=_ribbon(now),
        undo_event_id=state.last_event_id, undo_event_type=state.last_event_type,
        day=_day(now, now_s),
        limit=limit_now(
            now.trip.rules, state.landed, now.trip.species, now.trip.local_day(now_s)
        ),
        keep_out=() if state.ended else keep_out_now(now, now_s), ended=state.ended,
        ahead=ahead, clearance_m=state.clearance_m, unread=now.unread,
    )


def rods_now(now: Now, now_s: float) -> tuple[RodView, ...]:
    """Return the rods as the view has them, without what takes longer to weigh.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    now_s : float
        Seconds since 1970-01-01 UTC.

    Returns
    -------
    tuple of RodView
        What a tap is answered with at once; the view, with its advice, follows.
    """
    require_number("now_s", now_s)
    return _rods_and_ahead(now, now_s)[0]


def _rods_and_ahead(now: Now, now_s: float) -> tuple[tuple[RodView, ...], AheadView | None]:
    rods = rod_views(now)
    ahead = look_ahead(now, rods, now_s)
    rods = over_the_track(rods, ahead, deepest_m=now.state.deepest_m)
    return tuple(_asked_about(now.state, rod, now_s) for rod in rods), ahead


def _earlier(now: Now) -> EarlierView | None:
    days = now.trip.earlier
    if not days:
        return None
    return EarlierView(
        days=tuple(day.name for day in days), like=sum(day.like for day in days),
        share=now.state.schools.get("earlier", "half"),
    )


def _asked_about(state: TripState, rod: RodView, now_s: float) -> RodView:
    """A fish that has been on so long has more likely been forgotten than fought."""
    since_s = state.rods[rod.id].fish_on_s
    if rod.status != "fish_on" or since_s is None or now_s - since_s < LONG_FIGHT_S:
        return rod
    return replace(rod, long_fight_s=now_s - since_s)


def _rod_now(
    now: Now, view: RodView, bands: tuple[MarkedBand, ...], method: Method | None, now_s: float,
    rises_to_m: float, bed: BedFished,
) -> RodNow:
    assert view.setup is not None
    assert view.line is not None
    assert view.kind is not None
    assert view.works is not None
    # Clear of what lies ahead too: nobody sets a rod to raise it in a minute.
    lowest, is_free = lowest_m(now.state, rises_to_m), view.kind in FREE_LINES
    asked = [depth for depth in mark_targets(now.state, bands) if depth <= lowest]
    by_rule = None if method is None else method_depth_m(method, lowest, bed.usual_m)
    if by_rule is not None:
        asked.append(by_rule)
    solved = now.lines.solved(view.setup, now.speed_mps, doubt="full")
    trials = () if is_free else depths_to_try(view.line.depth_m, lowest)
    asked += trials
    reachable = {}
    for depth in asked:
        try:
            reachable[depth] = solved.setting_for(depth)
        except NoSolutionError:
            continue
    same = [
        stint for stint in now.state.stints
        if stint.rod_id == view.id and stint.setup == view.setup
    ]
    # Who fishes near the bed goes over where it came up in the last hour again.
    over_m = min(rises_to_m, bed.shallow_m) if is_by_the_bed(now.trip.species) else rises_to_m
    lengths = {} if not is_free else _lengths(
        now, view.setup, view.line.number.setting_m, min(lowest, over_m - PLUG_CLEAR_M)
    )
    return RodNow(
        rod_id=view.id, name=view.name, setup=view.setup,
        setting_m=view.line.number.setting_m, depth_m=view.line.depth_m, kind=view.kind,
        works=view.works, reachable=reachable,
        exposure=Exposure(
            hits=sum(stint.hits for stint in same),
            minutes=sum(stint.minutes(now_s) for stint in same),
        ),
        trial_depths=trials, lengths=lengths,
    )


def _lengths(
    now: Now, setup: RodSetup, setting_m: float, deepest_m: float
) -> dict[float, float]:
    """How far a line of its own depth could be let out, and how deep it would run."""
    solved = now.lines.solved(setup, now.speed_mps, doubt="none")
    found = {}
    for length in LINES_OUT_M[now.trip.species]:
        if abs(length - setting_m) < LEAST_LENGTH * setting_m:
            continue
        try:
            depth = solved.place(length, picture=False)[1].depth_m
        except CoreError:
            continue
        if depth <= deepest_m:
            found[length] = depth
    return found


def _depths_at(now: Now, rods: Sequence[RodNow], speed_mps: float) -> dict[str, float]:
    """Depths of the rods that fish at another speed, as far as they can be."""
    found = {}
    for rod in rods:
        try:
            found[rod.rod_id] = now.lines.where_quickly(
                rod.rod_id, rod.setting_m, speed_mps
            ).depth_m
        except CoreError:
            continue
    return found


def _day(now: Now, now_s: float) -> DayOnFish | None:
    day, plan = today(now), now.state.plan
    if day is None or plan is None:
        return None
    phase, off = phase_now(now, now_s), day.departure
    after = next((p for p in day.phases if p.start_s > now_s), None)
    return DayOnFish(
        until_s=None if phase is None else phase.end_s,
        next_name=None if after is None else after.method.name,
        next_from_s=None if after is None else after.start_s,
        colours="" if phase is None else show_at(phase, now_s).colours,
        colour_school="" if phase is None else show_at(phase, now_s).school,
        off_degc=None if off is None else off.off_degc,
        departure="" if off is None else off.text,
        slid_to_s=None if off is None else off.slid_to_s,
        planned=tuple(
            TemperaturePoint(
                at_s=hour.at_s, depth_m=0.0,
                temperature_degc=day.before.surface(hour.at_s).middle,
            )
            for hour in plan.hours
        ),
        expected=tuple(
            TemperaturePoint(
                at_s=hour.at_s, depth_m=0.0, temperature_degc=day.day.surface(hour.at_s).middle
            )
            for hour in plan.hours if hour.at_s > now_s
        ),
        phases=tuple(
            PhaseSpan(from_s=p.start_s, to_s=p.end_s, name=p.method.name) for p in day.phases
        ),
    )


def _mark(now: Now, timed: TimedMark, *, recent: bool, here: bool) -> MarkView:
    state, mark = now.state, timed.mark
    sounder = state.outfit.sounder
    meant = None
    if mark.depth_m > sounder.depth_m and now.speed_mps > 0.0:
        meant = _meant(sounder, mark.depth_m, now.speed_mps)
    return MarkView(
        event_id=timed.event_id, at_s=timed.at_s, depth_m=mark.depth_m, count=mark.count,
        recent=recent, here=here,
        run_at_m=run_at_m(state, mark.depth_m),
        cone_m=0.0 if meant is None else meant.width_m,
        in_cone_s=0.0 if meant is None else meant.seconds,
    )


@lru_cache(maxsize=256)
def _meant(sounder: Sounder, depth_m: float, speed_mps: float) -> MarkMeaning:
    return mark_of(sounder, depth_m=depth_m, speed_mps=speed_mps, pings_ps=1.0)


def _passes(now: Now) -> PassSpeeds | None:
    current = now.state.current
    if current is None or current.speed_mps >= now.speed_mps:
        return None
    return pass_speeds(through_water_mps=now.speed_mps, current=current)


def _profile(now: Now) -> tuple[TemperaturePoint, ...]:
    latest = {reading.depth_m: reading for reading in now.state.readings}
    return tuple(
        TemperaturePoint(
            at_s=latest[depth].at_s, temperature_degc=latest[depth].temperature_degc,
            depth_m=depth,
        )
        for depth in sorted(latest)
    )


def _comfort(now: Now, now_s: float) -> ComfortView:
    low, high = comfort_band_degc(now.trip.species)
    profile, day = now.state.profile(), today(now)
    ahead = len(profile) < 2 and day is not None
    if ahead and day is not None:
        # Nobody lowered a thermometer: the forecast's column, slid by the surface that was read.
        profile = list(day.day.profile(now_s))
    depths = comfort_depths_m(profile, (low, high), bottom_m=now.state.bottom_m)
    return ComfortView(
        forecast=ahead,
        low_degc=low, high_degc=high,
        layers=tuple(LayerView(top_m=top, base_m=base) for top, base in depths),
    )


def _ribbon(now: Now) -> tuple[RibbonMark, ...]:
    marks = [
        RibbonMark(at_s=at_s, kind=kind, rod_id=rod_id, text="")  # type: ignore[arg-type]
        for at_s, rod_id, kind in now.state.bites
    ]
    marks = _last_stages(marks)
    marks += [
        RibbonMark(
            at_s=answer.at_s, kind="move_taken" if answer.taken else "move_refused",
            rod_id=answer.move.rod_id, text=answer.move.title,
        )
        for answer in now.state.answers
    ]
    return tuple(sorted(marks, key=lambda mark: mark.at_s))


def _last_stages(marks: Sequence[RibbonMark]) -> list[RibbonMark]:
    """One sign a fish on the ribbon: its last stage. The marks are in order of time."""
    kept: list[RibbonMark] = []
    went_on: dict[str | None, float] = {}
    for mark in reversed(marks):
        if went_on.get(mark.rod_id, math.inf) - mark.at_s >= SAME_FISH_S:
            kept.append(mark)
        if mark.kind != "hit":
            went_on[mark.rod_id] = mark.at_s
    return kept
