"""Whether to turn round and go back through what was met, or to go on."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from typing import Final

from ..chart.grid import compass_word
from ..constants import FOOT_M
from ..evidence.day_model import STEP_MIN, DayModel
from ..evidence.recipe import Recipe
from ..record.payloads import MoveAnswered, MoveChange, PassBegun, TurnBegun
from .choice import Weighed
from .situation import Move, Situation, Spot, Ways

AHEAD_MIN: Final = 16
"""So far a way is looked at, min (judged: there and a little beyond)."""
ROUND_MIN: Final = 2
"""Minutes to turn round with lines out, in which nothing is met (judged)."""
ROUND_AGAIN_S: Final = 300.0
"""So long a turn that was begun is left to itself (judged: to turn and to be on the way back)."""
S_TURN_MIN: Final = 3.0
S_TURN_AGAIN_S: Final = 3600.0
"""Minutes of an S-turn, and how long what it told is not asked again (judged)."""
HABIT_BACK_S: Final = 600.0
FARTHEST_MIN: Final = 40
"""Farther than so many minutes nobody goes for fish that may have moved (judged)."""
THERE_MIN: Final = 10
"""So long a place where fish were met is thought to last (judged)."""
UNDER_LURES_M: Final = 4.0 * FOOT_M
"""So much water is wanted under the deepest lure on the way (common practice)."""
LEAST_TURN_HITS: Final = 0.3
"""Hits to be gained from which a turn is worth the trouble (judged)."""


def turning_gain(*, rate_pm: float, ahead: Sequence[float], back: Sequence[float]) -> float:
    """Return how many hits are to be gained by turning round now.

    Parameters
    ----------
    rate_pm : float
        Hits a minute of all rods together where as many fish are met as usual.
    ahead, back : sequence of float
        How many fish the way on and the way back hold, against the usual, minute by minute, the
        nearest first.

    Returns
    -------
    float
        Below 0 where going on is worth more.
    """
    return rate_pm * (sum(back[: AHEAD_MIN - ROUND_MIN]) - sum(ahead[:AHEAD_MIN]))


def turn_move(now: Situation, recipes: Iterable[Recipe]) -> Move | None:
    """Return the move back through what was met, where it is worth a turn.

    Parameters
    ----------
    now : Situation
        The trip now.
    recipes : iterable of Recipe
        What each rod that fishes shows.

    Returns
    -------
    Move or None
        None where going on is worth as much, or nobody knows where the boat has been.
    """
    ways = now.ways
    if ways is None or _is_turning(now):
        return None
    gain = turning_gain(
        rate_pm=rate_of_all(now.model, recipes), ahead=ways.ahead, back=ways.back
    )
    if gain < LEAST_TURN_HITS:
        return None
    lies = sum(ways.back) / len(ways.back), sum(ways.ahead) / len(ways.ahead)
    return Move(
        # Taken or put off, it is of this track: another stretch has another.
        answer=_answer(f"turn:{round(ways.back_deg / 45.0) % 8}", ways),
        reason=f"By what was marked and hit along the track, the way back holds {lies[0]:.1f} "
               f"times what the day met on the whole, the way on {lies[1]:.1f}. Turn wide: inside "
               "lines sink.",
        basis="evidence", source="Marks and hits along the track; found fish are gone back through "
                                 "(common practice)",
        cost_min=float(ROUND_MIN), judge_after_min=float(AHEAD_MIN), gain_hits=gain,
        lasts_min=float(AHEAD_MIN),
    )


def place_move(now: Situation, recipes: Iterable[Recipe]) -> Move | None:
    """Return the move to the place farther off, of those where fish were met, that is worth most.

    Parameters
    ----------
    now : Situation
        The trip now.
    recipes : iterable of Recipe
        What each rod that fishes shows.

    Returns
    -------
    Move or None
        None where no such place or no clear way there is known, the chart has too little water on
        it for the lures that are out, or one is under way.
    """
    if now.ways is None or _is_turning(now) or _is_under_way(now):
        return None
    deepest = max((rod.depth_m for rod in now.rods), default=0.0)
    able = [
        spot for spot in now.ways.spots
        if spot.shallowest_m is None or spot.shallowest_m >= deepest + UNDER_LURES_M
    ]
    rate = rate_of_all(now.model, recipes)
    gains = [(going_gain(rate_pm=rate, ahead=now.ways.ahead, spot=spot), spot) for spot in able]
    gain, spot = max(gains, key=lambda item: item[0], default=(0.0, None))
    if spot is None:
        return None
    minutes = ROUND_MIN + len(spot.way) + len(spot.there)
    fish = "1 fish was" if spot.marks == 1 else f"{spot.marks} fish were"
    met = " and ".join([
        *([f"{fish} marked"] if spot.marks else []), *([f"{spot.hits} hit"] if spot.hits else []),
    ])
    lies = sum(spot.there) / len(spot.there)
    how = "back along your own track" if spot.shallowest_m is None else (
        "by the chart in enough water; look yourself"
    )
    return Move(
        answer=MoveAnswered(
            key="place", kind="place",
            title=f"Go back to where fish were met, {compass_word(spot.toward_deg)}",
            change=MoveChange(pass_begun=PassBegun(toward_deg=spot.toward_deg)),
        ),
        reason=f"{spot.since_min:.0f} minutes ago {met} there: by now it may hold {lies:.1f} times "
               f"what the day met on the whole. About {len(spot.way)} minutes from here, {how}.",
        basis="evidence", source="Marks and hits along the track; found fish are gone back to "
                                 "(common practice)",
        cost_min=float(ROUND_MIN), judge_after_min=float(minutes), gain_hits=gain,
        lasts_min=float(minutes),
    )


def going_gain(*, rate_pm: float, ahead: Sequence[float], spot: Spot) -> float:
    """Return how many hits are to be gained by going to a place rather than on.

    Parameters
    ----------
    rate_pm : float
        Hits a minute of all rods together where as many fish are met as usual.
    ahead : sequence of float
        How many fish the way on holds, against the usual, minute by minute.
    spot : Spot
        The place.

    Returns
    -------
    float
        Below 0 where going on is worth more. Beyond what is known of the way on it is the usual.
    """
    minutes = ROUND_MIN + len(spot.way) + len(spot.there)
    on = [*ahead, *[1.0] * minutes][:minutes]
    return rate_pm * (sum(spot.way) + sum(spot.there) - sum(on))


def _is_under_way(now: Situation) -> bool:
    """Whether a place was set out for that may not be reached yet."""
    since = now.now_s - FARTHEST_MIN * 60.0
    return any(a.taken and a.move.kind == "place" and a.at_s >= since for a in now.state.answers)


def _is_turning(now: Situation) -> bool:
    """Whether a turn was begun just now: until places tell of it the ways are those of before."""
    turns, passes = now.state.turns, now.state.passes
    if passes and now.now_s - passes[-1].start_s < ROUND_AGAIN_S:
        return True
    last = turns[-1] if turns else None
    # Nobody tells the end of every turn.
    return last is not None and last.end_s is None and now.now_s - last.start_s < ROUND_AGAIN_S


def _answer(key: str, ways: Ways) -> MoveAnswered:
    return MoveAnswered(
        key=key, kind="turn", title="Turn round, go back through",
        change=MoveChange(pass_begun=PassBegun(toward_deg=ways.back_deg)),
    )


def s_turn_first(now: Situation, speed: Move) -> Move | None:
    """Return an S-turn in the place of a speed that nobody knows to be better.

    Parameters
    ----------
    now : Situation
        The trip now.
    speed : Move
        The change of speed that would be tried, with what it is worth.

    Returns
    -------
    Move or None
        None where the boat has turned within the last S_TURN_AGAIN_S.

    Notes
    -----
    Speed is the first dial and an S-turn its mildest form (common practice): both sides at once,
    and nothing is set anew. It is worth what the trial is, less the minutes that this one waits.
    """
    turns = now.state.turns
    if turns and now.now_s - turns[-1].start_s < S_TURN_AGAIN_S:
        return None
    horizon = speed.lasts_min or S_TURN_MIN
    return Move(
        answer=MoveAnswered(
            key="s_turn", kind="s_turn", title="S-turn, to port and back",
            change=MoveChange(turn_begun=TurnBegun(toward="port")),
        ),
        reason="Which speed they want is not shown yet. In a turn the inside lines slow and sink "
               "and the outside ones speed up and rise: a bite on either side says which way to "
               "go, and nothing is set anew.",
        basis="trial", source="Speed first, and an S-turn before a new speed (common practice)",
        cost_min=S_TURN_MIN, judge_after_min=S_TURN_MIN,
        gain_hits=(speed.gain_hits or 0.0) * max(1.0 - S_TURN_MIN / horizon, 0.0),
        lasts_min=speed.lasts_min,
    )


def back_by_habit(now: Situation) -> Move | None:
    """Return the way back through what was just hit, as habit has it.

    Parameters
    ----------
    now : Situation
        The trip now.

    Returns
    -------
    Move or None
        None without a hit of the last HABIT_BACK_S, or when a pass was begun since.
    """
    since = now.now_s - HABIT_BACK_S
    hits = [at_s for at_s, _, kind in now.state.bites if kind == "hit" and at_s >= since]
    passes = now.state.passes
    if now.ways is None or not hits or (passes and passes[-1].start_s >= since):
        return None
    return Move(
        answer=_answer("turn:habit", now.ways),
        reason=f"{len(hits)} hit{'' if len(hits) == 1 else 's'} in the last "
               f"{HABIT_BACK_S / 60.0:.0f} minutes: they are behind. Turn wide: inside lines sink.",
        basis="school", source="Habit: found fish are gone back through",
        cost_min=float(ROUND_MIN), judge_after_min=float(AHEAD_MIN),
    )


def rate_of_all(model: DayModel, recipes: Iterable[Recipe]) -> float:
    """Return how many hits a minute all rods together can expect.

    Parameters
    ----------
    model : DayModel
        What is known of the day.
    recipes : iterable of Recipe
        What each rod shows.

    Returns
    -------
    float
    """
    # As likely as not: what nobody knows of a morning makes no school worth turning for.
    return math.fsum(
        math.exp(model.log_rate(model.terms(recipe))[0]) for recipe in recipes
    )


def turn_comes_first(gain: float, other: Weighed | None) -> bool:
    """Return whether a turn is made now rather than what else is best.

    Parameters
    ----------
    gain : float
        Hits to be gained by the turn.
    other : Weighed or None
        What else is best, if anything is worth it.

    Returns
    -------
    bool
        What can wait until the next look loses those minutes alone; a way back gets longer.
    """
    waits = 0.0 if other is None else other.worth * STEP_MIN / other.horizon_min
    return gain >= max(LEAST_TURN_HITS, waits)
