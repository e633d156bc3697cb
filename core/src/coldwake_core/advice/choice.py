"""Which change is worth most: hits to be gained over the time left, less what it costs.

Every option is one small step from what is out. The model says what each is worth and how little
it knows; what is unknown is worth a look as long as there is time to use what is learnt.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Final, Literal

from ..evidence.day_model import DayModel, Terms
from ..evidence.recipe import Recipe

CURIOUS: Final = 0.15
"""Standard deviations by which the unknown is favoured (chosen on days that no goal is tried
on: docs/advice.md)."""
LONGEST_MIN: Final = 120.0
SHORTEST_MIN: Final = 20.0
SHARE_LEFT: Final = 0.6
"""A change is thought to last for six tenths of the time left, two hours at most (judged)."""
LEAST_GAIN: Final = 0.3
"""Under so many hits it is left alone: that is an answer (chosen on seeds 7000 to 7119)."""
LEAST_LIKELY: Final = 0.5
"""What is less likely than not to earn more is nobody's advice, whatever it might earn: of those
that would have been taken at 40 to 50 % four in ten were right (docs/advice.md)."""

KEPT: Final = 0.87
"""Odds that a change earns more are cut to so much: what is out is there because something spoke
for it, and not all of that is in the model (chosen on seeds 7000 to 7119: docs/advice.md)."""

TEMPERED: Final = 0.9
"""The log of the odds is told by so much of itself: the model is a little too sure either way (the
likeliest of what held on seeds 7000 to 7119, of moves taken and of all: docs/advice.md)."""

SUREST: Final = 0.87
"""Nobody is told that a change earns more with more than this: of what the model gave more to, on
seeds 7000 to 7119, 87 in a hundred held."""

OptionKind = Literal[
    "speed", "depth", "setback", "colour", "leader", "bait", "scent", "attractor", "lure",
    "copy",
]
ORDER: Final[tuple[OptionKind, ...]] = (
    "speed", "depth", "setback", "colour", "leader", "scent", "bait", "lure", "attractor", "copy",
)
"""The order of the dials, cheapest and mildest first (common practice): the first of equals."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Option:
    """One small step from what is out.

    Parameters
    ----------
    key : str
        What it is, to know it again.
    kind : OptionKind
        Which dial.
    after : tuple of (str, Recipe)
        Rods it changes, and what they show then.
    cost_min : float
        Minutes each of them is out of the water.
    costs_min : mapping of str to float
        The same of rods that are out longer than the others.
    """

    key: str
    kind: OptionKind
    after: tuple[tuple[str, Recipe], ...]
    cost_min: float
    costs_min: Mapping[str, float] = field(default_factory=dict)


@dataclass(frozen=True, slots=True, kw_only=True)
class Weighed:
    """An option and what it is worth.

    Parameters
    ----------
    option : Option
        The option.
    worth : float
        What it is chosen by, hits: gain and curiosity.
    gain : float
        Hits expected to be gained over the time it lasts, its cost taken off.
    better : float
        Probability that it earns more a minute than what it replaces.
    horizon_min : float
        How long it is thought to last, min.
    """

    option: Option
    worth: float
    gain: float
    better: float
    horizon_min: float


MOST_ODD: Final = 2
"""A speed at which so many rods would have to wear something else may be worth it; one for which
half of the boat is tied anew is another day's."""
LEADS_HITS: Final = 2
LEADS_MIN: Final = 90.0
"""A rod with so many hits in so many minutes, and more than any other, leads (judged)."""


def leading(hits: Mapping[str, int]) -> str | None:
    """Return the rod that leads: it is left as it is, for the others to be held against.

    Parameters
    ----------
    hits : mapping of str to int
        Hits of each rod on what it shows now, in the last LEADS_MIN minutes.

    Returns
    -------
    str or None
        None where no rod has LEADS_HITS, or two have as many.

    Notes
    -----
    It costs nothing on simulated days (docs/advice.md), and nobody takes off what is catching.
    """
    best = max(hits, key=hits.__getitem__, default=None)
    if best is None or hits[best] < LEADS_HITS:
        return None
    return best if sum(many == hits[best] for many in hits.values()) == 1 else None


def weigh_options(
    model: DayModel, now: Mapping[str, Recipe], options: Sequence[Option], minutes_left: float
) -> list[Weighed]:
    """Return the options with what they are worth, the best first.

    Parameters
    ----------
    model : DayModel
        What is known of the day.
    now : mapping of str to Recipe
        What each rod that fishes shows.
    options : sequence of Option
        What could be changed.
    minutes_left : float
        Minutes of fishing left.

    Returns
    -------
    list of Weighed
        Those that are likelier than not to earn more come first.

    Notes
    -----
    With N(m, s²) the difference of log rates, a rod that earns r a minute has its worth by
    ``r ((H - c) exp(m + CURIOUS s) - H)`` over the time H for the cost c: by what is as likely as
    not, a little curious. The gain that is told is the expected one, of the means of both rates.
    """
    horizon = min(max(SHARE_LEFT * minutes_left, SHORTEST_MIN), LONGEST_MIN)
    standing: dict[str, tuple[Terms, float, float]] = {}
    for rod, recipe in now.items():
        terms = model.terms(recipe)
        standing[rod] = terms, *model.log_rate(terms)
    found = []
    for option in options:
        worth = gain = 0.0
        pairs = []
        for rod, recipe in option.after:
            before, log_before, doubt_before = standing[rod]
            rate = math.exp(log_before + 0.5 * min(doubt_before, 2.0))
            terms = model.terms(recipe)
            log_after, doubt_after = model.log_rate(terms)
            _, variance = model.difference(terms, before)
            more, sd = log_after - log_before, math.sqrt(variance)
            # Of a rate that is less sure more is to be expected: the mean of a skewed distribution.
            skew = 0.5 * (doubt_after - doubt_before)
            left = max(horizon - option.costs_min.get(rod, option.cost_min), 0.0)
            worth += rate * (left * math.exp(min(more + CURIOUS * sd, 3.0)) - horizon)
            gain += rate * (left * math.exp(min(more + skew, 3.0)) - horizon)
            pairs.append((terms, before))
        found.append(Weighed(
            option=option, worth=worth, gain=gain, better=_held_against(model.better(pairs)),
            horizon_min=horizon,
        ))
    return sorted(found, key=lambda w: (
        w.better < LEAST_LIKELY, -w.worth, ORDER.index(w.option.kind), w.option.key
    ))


def better_of(
    model: DayModel, now: Mapping[str, Recipe], option: Option, *, by_rule: bool = True
) -> float:
    """Return how likely an option earns more a minute than what it replaces.

    Parameters
    ----------
    model : DayModel
        What is known of the day.
    now : mapping of str to Recipe
        What each rod that fishes shows.
    option : Option
        What would be changed.
    by_rule : bool
        Whether rules of thumb are trusted as far as they are, or what the day has shown alone.

    Returns
    -------
    float
    """
    return _held_against(model.better([
        (model.terms(recipe, by_rule=by_rule), model.terms(now[rod], by_rule=by_rule))
        for rod, recipe in option.after
    ]))


def _held_against(likely: float) -> float:
    """The probability with its odds cut, a little less sure either way, and never all but sure."""
    if likely >= 1.0:
        return SUREST
    odds = math.pow(KEPT * likely / (1.0 - likely), TEMPERED)
    return min(odds / (1.0 + odds), SUREST)


def best_option(weighed: Sequence[Weighed]) -> Weighed | None:
    """Return the option to take, or None where the best is to leave it alone.

    Parameters
    ----------
    weighed : sequence of Weighed
        Options, the best first.

    Returns
    -------
    Weighed or None
    """
    if not weighed or weighed[0].worth < LEAST_GAIN or weighed[0].better < LEAST_LIKELY:
        return None
    return weighed[0]
