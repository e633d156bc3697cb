"""What the day has taught so far: its model, fed with the record, five minutes at a time."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import lru_cache
from typing import Final, cast

from ..advice.shows import recipe_of, thumb_of
from ..constants import MPH_MPS
from ..errors import CoreError
from ..evidence.day_model import DayModel
from ..evidence.recipe import Recipe, Thumb
from ..gear.setup import RodSetup, working_range
from ..record.earlier import MOST_SHOWN, EarlierDay, ShownEarlier
from ..water.light import daylight
from .beds import bed_between
from .now import Now
from .pieces import STEP_S, Piece, Step, marks_since, steps_of
from .today import method_now

SHALLOWEST_M: Final = 2.0
DEEPEST_M: Final = 36.0
DIAL_STEP: Final = 1.25
"""Fish are looked for down to the deepest sounding, in steps of a quarter, within these two."""
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
LEAST_MIN: Final = 0.25
"""Fewer rod-minutes are counted with a hit alone, and as so many."""
LEAST_SHOWN_MIN: Final = 10.0
"""A recipe that fished for less taught nothing."""

Shown = dict[tuple[RodSetup, float, float], Recipe | None]


def learnt(now: Now, now_s: float) -> DayModel:
    """Return the day's model with all of the record up to the last full five minutes, and marks.

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
    followed anew. Fish that were marked since are seen at once, by a copy.
    """
    method = method_now(now, now_s)
    deepest_m = _dial_m(now.state.deepest_m)
    thumb = None if method is None else thumb_of(method, now.state.species, deepest_m)
    steps = [
        (step, _bed(now, thumb, count)) for count, step in enumerate(steps_of(now, now_s))
    ]
    share = EARLIER_SHARE[now.state.schools.get("earlier", "half")]
    about = (now.state.outfit, deepest_m, thumb, share, now.state.plan)
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
        model = _begun(deepest_m, thumb, now.trip.earlier, share).copy()
        kept = {0: model}
    if begun < len(steps):
        model = model.copy()
        shown: Shown = {}
        for count, (step, bed_m) in enumerate(steps[begun:], start=begun + 1):
            at_s = now.trip.started_at_s + STEP_S * (count - 1)
            _teach(now, model, step, bed_m, shown, _light(now, at_s))
            if count % KEEP_EVERY == 0 or count > len(steps) - KEEP_LAST:
                kept[count] = model
                model = model.copy()
        model = kept[len(steps)]
        late = len(steps) - KEEP_LAST
        kept = {n: m for n, m in kept.items() if n % KEEP_EVERY == 0 or n > late}
    now.memo["learnt"] = about, steps, kept
    seen = marks_since(now, len(steps), now_s)
    if not seen:
        return model
    known, shown_now = now.memo.get("learnt_marks", (None, model))
    bed_m = _bed(now, thumb, len(steps))
    if known != (about, steps, seen, bed_m):
        shown_now = model.copy()
        shown_now.mark(seen, beds_m=_each(bed_m, seen))
        now.memo["learnt_marks"] = (about, steps, seen, bed_m), shown_now
    return cast(DayModel, shown_now)


def _bed(now: Now, thumb: Thumb | None, step: int) -> float | None:
    """How deep the water was in a step, where that matters: else a late sounding changes nothing.
    """
    if thumb is None or not thumb.by_the_bed:
        return None
    since_s = now.trip.started_at_s + STEP_S * step
    return bed_between(now, since_s, since_s + STEP_S)


def _each(bed_m: float | None, marks: tuple[tuple[float, int], ...]) -> list[float]:
    return [] if bed_m is None else [bed_m] * len(marks)


def _dial_m(deepest_m: float) -> float:
    """How deep fish are looked for: a little beyond what was sounded, for the bed goes on falling.

    In few steps, for with another dial the day is learnt anew.
    """
    steps = math.ceil(math.log(max(deepest_m, SHALLOWEST_M)) / math.log(DIAL_STEP) - 1e-9)
    return min(DIAL_STEP**steps, DEEPEST_M)


@lru_cache(maxsize=8)
def _begun(
    deepest_m: float, thumb: Thumb | None, earlier: tuple[EarlierDay, ...], share: float
) -> DayModel:
    """A model that has seen nothing of its own day: only ever copied.

    Twenty earlier days take it the better part of a second: not to be spent again on an answer.
    """
    model = DayModel(deepest_m=deepest_m, thumb=thumb)
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
    for pieces, _ in steps_of(now, now_s):
        for piece in pieces:
            key = piece.setup, piece.setting_m, piece.speed_mps
            if key not in shown:
                shown[key] = _shown(now, piece)
            recipe = shown[key]
            if recipe is not None:
                sums = found.setdefault(_about(recipe), [0.0, 0.0])
                sums[0] += piece.hits
                sums[1] += piece.minutes
    long = sorted(
        ((recipe, sums) for recipe, sums in found.items() if sums[1] >= LEAST_SHOWN_MIN),
        key=lambda item: -item[1][1],
    )
    return tuple(
        ShownEarlier(
            depth_m=recipe.depth_m, speed_mps=recipe.speed_mps, setback_m=recipe.setback_m,
            leader_m=recipe.leader_m, flash=recipe.flash, thump=recipe.thump,
            colour=recipe.colour, lure=recipe.lure, bait=recipe.bait, scent=recipe.scent,
            hits=round(hits), minutes=minutes,
        )
        for recipe, (hits, minutes) in long[:MOST_SHOWN]
    )


def _about(recipe: Recipe) -> Recipe:
    """The recipe as nearly as days are told apart: a wheel's speed is another each minute."""
    return replace(
        recipe, speed_mps=max(round(recipe.speed_mps / ALIKE_MPS), 1) * ALIKE_MPS,
        depth_m=round(recipe.depth_m / ALIKE_M) * ALIKE_M,
        setback_m=float(round(recipe.setback_m)),
    )


def _teach(
    now: Now, model: DayModel, step: Step, bed_m: float | None, shown: Shown,
    light: float | None,
) -> None:
    pieces, marks = step
    model.pass_time(light=light)
    model.mark(marks, beds_m=_each(bed_m, marks))
    passing = model.passing(sum(count for _, count in marks))
    for piece in pieces:
        # A rod fishes one thing for hours: its line is placed once.
        key = piece.setup, piece.setting_m, piece.speed_mps
        if key not in shown:
            shown[key] = _shown(now, piece)
        recipe = shown[key]
        # A dry moment says nothing; a bite right after a change is that change's.
        if recipe is not None and (piece.hits or piece.minutes > LEAST_MIN):
            model.count(
                model.terms(replace(recipe, bed_m=bed_m)), piece.hits,
                max(piece.minutes, LEAST_MIN), passing=passing,
            )


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
