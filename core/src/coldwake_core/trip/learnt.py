"""What the day has taught so far: its model, fed with the record, five minutes at a time.

The record in pieces: each rod's recipe for as long as it fished it, at the speed of the moment,
with the hits that came; what a rod did out of the water counts for nothing.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import lru_cache
from operator import itemgetter
from typing import Final

from ..advice.marks import run_at_m
from ..advice.shows import CLIPPED, recipe_of, thumb_of
from ..constants import MPH_MPS
from ..errors import CoreError
from ..evidence.bait import stint_minutes
from ..evidence.day_model import STEP_MIN, DayModel, expected
from ..evidence.recipe import Recipe, Thumb
from ..gear.setup import RodSetup, rig_kind, working_range
from ..gear.tackle import Outfit
from ..record.earlier import MOST_SHOWN, EarlierDay, ShownEarlier
from ..record.state import Stint, Turn
from ..tow.turns import USUAL_RADIUS_M, Side, TipInTurn, turn_speed_share
from ..water.light import daylight
from .now import Now
from .today import method_now

STEP_S = STEP_MIN * 60.0
MOST_STEPS = 288
"""A day and a night of five minutes; what was before is Review's."""
DEEPEST_M = 36.0
EARLIER_SHARE: Final = {"none": 0.0, "half": 0.5, "full": 1.0}
"""What earlier days like this one count, as their user says; half until anybody does (judged)."""
KEEP_EVERY: Final = 12
KEEP_LAST: Final = 3
"""The model is kept as it was after each hour, and after the last steps: a tap that comes late is
learnt from there."""
ALIKE_MPS: Final = 0.1 * MPH_MPS
ALIKE_M: Final = 0.5
"""What fished at one speed to a tenth of a mile an hour, one depth to half a metre and one setback
to a metre is one recipe to days to come (judged: nearer the model's dials tell nothing apart)."""
BEND_S: Final = 60.0
"""A turn whose end nobody told counts for so long, one bend: what comes after may go the other way
(judged)."""
TURN_S: Final = 180.0
"""What ended later was ended by the next one's beginning."""
LEAST_SHOWN_MIN: Final = 10.0
"""A recipe that fished for less taught nothing."""


@dataclass(frozen=True, slots=True)
class Piece:
    """A rod fishing one thing within five minutes: with how many hits, and for how long."""

    rod_id: str
    setup: RodSetup
    setting_m: float
    speed_mps: float
    hits: int
    minutes: float


Shown = dict[tuple[RodSetup, float, float], Recipe | None]
Step = tuple[tuple[Piece, ...], tuple[tuple[float, int], ...]]


def learnt(now: Now, now_s: float) -> DayModel:
    """Return the day's model with all of the record up to the last full five minutes.

    Parameters
    ----------
    now : Now
        The trip.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    DayModel
        Nobody who reads it changes it.

    Notes
    -----
    Worked out once for each five minutes; what comes late is learnt in its place, and all that
    followed anew.
    """
    steps = _steps(now, now_s)
    method = method_now(now, now_s)
    thumb = None if method is None else thumb_of(method, now.state.bottom_m)
    share = EARLIER_SHARE[now.state.schools.get("earlier", "half")]
    about = (now.state.outfit, thumb, share, now.state.plan)
    known, done, kept = now.memo.get("learnt", (None, [], {}))
    if known != about:
        done, kept = [], {}
    same = next(
        (i for i, (a, b) in enumerate(zip(done, steps, strict=False)) if a != b),
        min(len(done), len(steps)),
    )
    # Models that a later tap cannot touch any more are gone on from; what came late is learnt anew.
    kept = {count: model for count, model in kept.items() if count <= same}
    begun = max(kept, default=0)
    model = kept.get(begun)
    if model is None:
        model = _begun(
            min(max(now.state.deepest_m, 2.0), DEEPEST_M), now.trip.earlier, share
        ).copy()
        kept = {0: model}
    if begun < len(steps):
        model = model.copy()
        shown: Shown = {}
        for count, (pieces, marks) in enumerate(steps[begun:], start=begun + 1):
            at_s = now.trip.started_at_s + STEP_S * (count - 1)
            _teach(now, model, thumb, pieces, marks, shown, _light(now, at_s))
            if count % KEEP_EVERY == 0 or count > len(steps) - KEEP_LAST:
                kept[count] = model
                model = model.copy()
        model = kept[len(steps)]
        late = len(steps) - KEEP_LAST
        kept = {n: m for n, m in kept.items() if n % KEEP_EVERY == 0 or n > late}
    now.memo["learnt"] = about, steps, kept
    return model


@lru_cache(maxsize=8)
def _begun(deepest_m: float, earlier: tuple[EarlierDay, ...], share: float) -> DayModel:
    """A model that has seen nothing of its own day: only ever copied.

    Twenty earlier days take it the better part of a second: not to be spent again on an answer.
    """
    model = DayModel(deepest_m=deepest_m)
    model.remember(earlier, share)
    return model


def taught(now: Now, now_s: float) -> tuple[ShownEarlier, ...]:
    """Return what a day has taught, for days to come.

    Parameters
    ----------
    now : Now
        The trip as it ended.
    now_s : float
        Its end, seconds since 1970-01-01 UTC.

    Returns
    -------
    tuple of ShownEarlier
        Each recipe that fished for ten minutes or more, those that fished longest.
    """
    found: dict[Recipe, list[float]] = {}
    shown: Shown = {}
    thumbs: dict[int, Thumb | None] = {}
    for number, (pieces, _) in enumerate(_steps(now, now_s)):
        at_s = now.trip.started_at_s + STEP_S * number
        hour = int(at_s // 3600.0)
        if hour not in thumbs:
            method = method_now(now, at_s)
            thumbs[hour] = None if method is None else thumb_of(method, now.state.bottom_m)
        thumb = thumbs[hour]
        for piece in pieces:
            key = piece.setup, piece.setting_m, piece.speed_mps
            if key not in shown:
                shown[key] = _shown(now, piece)
            recipe = shown[key]
            if recipe is not None:
                sums = found.setdefault(_about(recipe), [0.0, 0.0, 0.0])
                sums[0] += piece.hits
                sums[1] += piece.minutes
                sums[2] += piece.minutes * (0.0 if thumb is None else expected(recipe, thumb))
    long = sorted(
        ((recipe, sums) for recipe, sums in found.items() if sums[1] >= LEAST_SHOWN_MIN),
        key=lambda item: -item[1][1],
    )
    return tuple(
        ShownEarlier(
            depth_m=recipe.depth_m, speed_mps=recipe.speed_mps, setback_m=recipe.setback_m,
            leader_m=recipe.leader_m, flash=recipe.flash, thump=recipe.thump,
            colour=recipe.colour, lure=recipe.lure, bait=recipe.bait, scent=recipe.scent,
            expected=minutes_off / minutes, hits=round(hits), minutes=minutes,
        )
        for recipe, (hits, minutes, minutes_off) in long[:MOST_SHOWN]
    )


def _about(recipe: Recipe) -> Recipe:
    """The recipe as nearly as days are told apart: a wheel's speed is another each minute."""
    return replace(
        recipe, speed_mps=max(round(recipe.speed_mps / ALIKE_MPS), 1) * ALIKE_MPS,
        depth_m=round(recipe.depth_m / ALIKE_M) * ALIKE_M,
        setback_m=float(round(recipe.setback_m)),
    )


def _teach(
    now: Now, model: DayModel, thumb: Thumb | None, pieces: tuple[Piece, ...],
    marks: tuple[tuple[float, int], ...], shown: Shown, light: float | None,
) -> None:
    model.pass_time(light=light)
    passing = model.passing(sum(count for _, count in marks))
    for piece in pieces:
        # A rod fishes one thing for hours: its line is placed once.
        key = piece.setup, piece.setting_m, piece.speed_mps
        if key not in shown:
            shown[key] = _shown(now, piece)
        recipe = shown[key]
        if recipe is not None and piece.minutes > 0.25:
            model.count(
                model.weights(recipe, thumb), piece.hits, piece.minutes, passing=passing
            )
    model.mark(marks)


def _light(now: Now, at_s: float) -> float | None:
    """How bright it was by the plan's sun and cloud; None without a plan."""
    if now.state.plan is None:
        return None
    hour = now.state.plan.hour_at(at_s)
    return daylight(hour.elevation_deg, hour.cloud)


def _shown(now: Now, piece: Piece) -> Recipe | None:
    """What a piece showed; None for one that did not swim right, or cannot be any more."""
    outfit = now.state.outfit
    try:
        works = working_range(outfit, piece.setup)
        if not works.low_mps <= piece.speed_mps <= works.high_mps:
            return None
        depth = now.lines.solved(piece.setup, piece.speed_mps, doubt="none").place(
            piece.setting_m
        )[1].depth_m
        return recipe_of(
            outfit, piece.setup, depth_m=depth, setting_m=piece.setting_m,
            speed_mps=piece.speed_mps,
        )
    except CoreError:
        return None


def _steps(now: Now, now_s: float) -> list[Step]:
    """The record cut at each five minutes since the start."""
    start, state = now.trip.started_at_s, now.state
    count = min(max(int((now_s - start) // STEP_S), 0), MOST_STEPS)
    pieces: list[list[Piece]] = [[] for _ in range(count)]
    marks: list[list[tuple[float, int]]] = [[] for _ in range(count)]
    hits: dict[str, list[float]] = defaultdict(list)
    for at_s, rod_id, kind in state.bites:
        if kind == "hit":
            hits[rod_id].append(at_s)
    for stint in state.stints:
        for index in _touched(stint, start, now_s, count):
            low = start + STEP_S * index
            first = max(low, stint.start_s)
            last = min(low + STEP_S, now_s if stint.end_s is None else stint.end_s)
            if last <= first:
                continue
            bites = hits[stint.rod_id]
            pieces[index] += [
                Piece(
                    stint.rod_id, stint.setup, stint.setting_m,
                    speed if toward is None else _in_turn(state.outfit, stint, speed, toward),
                    _between(bites, since, until, to_the_end=until == stint.end_s),
                    stint_minutes(
                        stint, since, until, looks=state.bait_looks.get(stint.rod_id, ()),
                        hits=bites,
                    ),
                )
                for begun, over, toward in _bends(state.turns, first, last)
                for since, until, speed in _even(state.speeds, now.speed_mps, begun, over)
            ]
    # Sonar tells depths by the foot: hundreds of marks lie at a few dozen of them.
    run_at: dict[float, float] = {}
    for timed in state.marks:
        index = int((timed.at_s - start) // STEP_S)
        if 0 <= index < count:
            depth = timed.mark.depth_m
            if depth not in run_at:
                run_at[depth] = run_at_m(state, depth)
            marks[index].append((run_at[depth], timed.mark.count))
    # In one order, whichever of two devices spoke first.
    return [
        (tuple(sorted(p, key=lambda piece: (piece.rod_id, piece.setting_m))), tuple(sorted(m)))
        for p, m in zip(pieces, marks, strict=True)
    ]


def _bends(
    turns: list[Turn], first: float, last: float
) -> Iterator[tuple[float, float, Side | None]]:
    """A spell cut at the turns that were told: from, to, and toward which side it turned."""
    at = first
    for turn in turns:
        since = max(turn.start_s, at)
        over = turn.start_s + BEND_S
        if turn.end_s is not None and turn.end_s - turn.start_s <= TURN_S:
            over = turn.end_s
        until = min(over, last)
        if until > since:
            if since > at:
                yield at, since, None
            yield since, until, turn.toward
            at = until
    if last > at:
        yield at, last, None


def _even(
    speeds: list[tuple[float, float]], otherwise_mps: float, first: float, last: float
) -> Iterator[tuple[float, float, float]]:
    """A spell cut where the speed changed, with its mean: a wheel's wobble is no change."""
    at = bisect_right(speeds, first, key=itemgetter(0))
    # Before any speed was told, the first that was.
    steady = speeds[at - 1][1] if at else speeds[0][1] if speeds else otherwise_mps
    begun = since = first
    going, way = steady, 0.0
    for when, speed in speeds[at:bisect_left(speeds, last, key=itemgetter(0))]:
        way += going * (when - since)
        since, going = when, speed
        if abs(speed - steady) >= ALIKE_MPS:
            if when > begun:
                yield begun, when, _mean(steady, way, when - begun)
            begun, steady, way = when, speed, 0.0
    way += going * (last - since)
    yield begun, last, _mean(steady, way, last - begun)


def _mean(steady_mps: float, way_m: float, time_s: float) -> float:
    mean = way_m / time_s
    # To a hundredth where it wobbled: what is solved for one spell serves the next.
    return steady_mps if abs(mean - steady_mps) < 1e-9 else round(mean, 2)


def _in_turn(outfit: Outfit, stint: Stint, speed_mps: float, toward: Side) -> float:
    """How fast a lure is pulled through a turn: inside slower, outside faster."""
    tip = TipInTurn(
        radius_m=USUAL_RADIUS_M, toward=toward, aft_m=0.0,
        side_m=outfit.place(stint.setup.place_id).side_m,
    )
    clipped = rig_kind(outfit, stint.setup) in CLIPPED
    share = turn_speed_share(
        outward_m=tip.outward_m, trail_m=stint.setup.setback_m if clipped else stint.setting_m
    )
    # Turns of one boat are much alike: what it solves for one serves the next.
    return round(speed_mps * share, 2)


def _between(times: list[float], first: float, last: float, *, to_the_end: bool) -> int:
    # A stint ends with the bite that ended it: that one is its own.
    end = bisect_right(times, last) if to_the_end else bisect_left(times, last)
    return end - bisect_left(times, first)


def _touched(stint: Stint, start_s: float, now_s: float, count: int) -> range:
    end = now_s if stint.end_s is None else stint.end_s
    first = max(int((stint.start_s - start_s) // STEP_S), 0)
    return range(first, min(int((end - start_s) // STEP_S) + 1, count))
