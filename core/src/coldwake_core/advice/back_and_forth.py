"""There and back: the only way to tell a change on all rods at once from the clock.

A change of speed leaves no rod behind that could tell. Going back for a while (A, B, A) does; it
costs the minutes spent on the worse of the two, and is proposed when what would be learnt is worth
more than that.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Final

from ..constants import MPH_MPS
from ..evidence.day_model import DayModel
from ..evidence.recipe import Recipe
from ..record.payloads import MoveAnswered, MoveChange, SpeedChanged
from .choice import LEAST_GAIN, SHARE_LEFT
from .situation import Move, Situation

STRETCH_MIN: Final = (20.0, 30.0, 45.0)
"""How long each of the stretches lasts: long enough for hits, short enough for one mood."""
LEAST_SINCE_MIN: Final = 20.0
MOST_SINCE_MIN: Final = 120.0
"""A speed that was set so long ago is judged, not one just set or one of another time of day."""
SAME_MPS: Final = 0.05 * MPH_MPS
CLOCK_SD: Final = 0.35
"""How far the bite moves by itself from one stretch to the next, log (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class BackAndForth:
    """What going back for a while is worth.

    Parameters
    ----------
    minutes : float
        How long to go back for.
    gain : float
        Hits that knowing is worth over the time left, the cost taken off.
    """

    minutes: float
    gain: float


def weigh_back(
    *, mean: float, sd: float, rate_pm: float, minutes_left: float
) -> BackAndForth:
    """Return the stretch that is worth most.

    Parameters
    ----------
    mean, sd : float
        Of the log of the ratio of rates: the speed that was left against the one that is set.
    rate_pm : float
        Hits a minute of all rods at the speed that is set.
    minutes_left : float
        Minutes of fishing left.

    Returns
    -------
    BackAndForth

    Notes
    -----
    The value of what would be learnt (Raiffa & Schlaifer 1961, ch. 5): with n hits expected in a
    stretch the ratio is seen with variance v = 2/n + CLOCK_SD^2; what is believed afterwards is
    spread by s = sd^2/sqrt(sd^2 + v) around the mean. The unit normal loss of |mean|/s, times s and
    the hits of the time left, is gained by choosing the better one; the cost is the stretch spent
    at the other speed by what is believed now.

    References
    ----------
    Raiffa, H., Schlaifer, R. (1961). Applied Statistical Decision Theory, ch. 5. From memory.
    """
    best = BackAndForth(minutes=STRETCH_MIN[0], gain=-math.inf)
    for minutes in STRETCH_MIN:
        after = SHARE_LEFT * (minutes_left - minutes)
        hits = rate_pm * minutes
        if after <= 0.0 or hits <= 0.0:
            continue
        spread = sd * sd / math.sqrt(sd * sd + 2.0 / hits + CLOCK_SD**2)
        off = abs(mean) / spread
        loss = (
            math.exp(-0.5 * off * off) / math.sqrt(2.0 * math.pi)
            - off * 0.5 * math.erfc(off / math.sqrt(2.0))
        )
        cost = hits * max(1.0 - math.exp(mean), 0.0)
        gain = rate_pm * after * spread * loss - cost
        if gain > best.gain:
            best = BackAndForth(minutes=minutes, gain=gain)
    return best


def back_move(now: Situation, recipes: dict[str, Recipe]) -> Move | None:
    """Return the move back to the speed before, where it is worth its minutes.

    Parameters
    ----------
    now : Situation
        The trip now.
    recipes : dict of str to Recipe
        What each rod that fishes shows.

    Returns
    -------
    Move or None
        None where it was gone back and forth already.
    """
    speeds = now.state.speeds
    if len(speeds) < 2 or not recipes:
        return None
    (before_s, before_mps), (since_s, _) = speeds[-2:]
    minutes = (now.now_s - since_s) / 60.0
    window = now.window
    if (
        not LEAST_SINCE_MIN <= minutes <= MOST_SINCE_MIN
        or (since_s - before_s) / 60.0 < LEAST_SINCE_MIN
        or abs(before_mps - now.speed_mps) < SAME_MPS
        or (len(speeds) > 2 and abs(speeds[-3][1] - now.speed_mps) < SAME_MPS)
        or window is None
        or not window.low_mps <= before_mps <= window.high_mps
    ):
        return None
    mean, sd, rate = _ratio(now.model, recipes, before_mps)
    worth = weigh_back(mean=mean, sd=sd, rate_pm=rate, minutes_left=now.minutes_left)
    if worth.gain < LEAST_GAIN:
        return None
    return Move(
        answer=MoveAnswered(
            key=f"back:{since_s:.0f}", kind="speed",
            title=f"There and back: {worth.minutes:.0f} minutes as before",
            change=MoveChange(speed_changed=SpeedChanged(speed_mps=before_mps)),
        ),
        reason="All rods changed speed at once, so none is left to tell the change from the clock: "
               "only going back and forth can.",
        basis="trial", source="What it would be worth to know", cost_min=0.0,
        judge_after_min=worth.minutes, gain_hits=worth.gain,
        lasts_min=SHARE_LEFT * now.minutes_left,
    )


def _ratio(
    model: DayModel, recipes: dict[str, Recipe], before_mps: float
) -> tuple[float, float, float]:
    """Mean and spread of the log ratio, and hits a minute of all rods now."""
    mean = variance = rate = 0.0
    for recipe in recipes.values():
        here = model.terms(recipe)
        there = model.terms(replace(recipe, speed_mps=before_mps))
        off, doubt = model.difference(there, here)
        log_rate, unsure = model.log_rate(here)
        mean += off / len(recipes)
        variance += doubt / len(recipes)
        rate += math.exp(log_rate + 0.5 * min(unsure, 2.0))
    return mean, math.sqrt(variance), rate
