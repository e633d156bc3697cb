"""One model of the day: what each dial is worth, the clock that all rods share, and the doubt.

Hits are counts over rod-minutes. The logarithm of their rate is a sum: the day's level, the clock
of the bite, how near a lure is to where on each dial the fish want it (``wanted``, begun by rules
of thumb), and what else each dial is worth. The model is filtered: what is counted moves it, time
lets it forget.
"""

from __future__ import annotations

import math
from bisect import bisect_right
from collections import defaultdict
from collections.abc import Sequence
from copy import copy
from dataclasses import dataclass, replace
from itertools import zip_longest
from operator import add, mul
from typing import Final

from ..constants import FOOT_M, INCH_M, MPH_MPS
from ..record.earlier import EarlierDay
from .recipe import Recipe, Thumb
from .wanted import Apart, Wanted, Wish

LEVEL_PM: Final = 1.0 / 120.0
"""Hits a rod-minute before anything is known (judged: one in two hours a rod)."""
OVERDISPERSION: Final = 0.4
"""Hits come in bunches: variance of a count is mean + 0.4 mean squared (judged)."""
STEP_MIN: Final = 5.0
"""Minutes that are counted together."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Dial:
    """How an effect is spread over a dial.

    Parameters
    ----------
    knots : tuple of float
        Places on the dial, rising; effects run straight between them.
    sd : float
        Standard deviation of an effect, in logs of the rate.
    reach : float
        How far on the dial effects are alike.
    memory_min : float
        Minutes after which an effect is half forgotten; inf for one that lasts the day.
    """

    knots: tuple[float, ...]
    sd: float
    reach: float
    memory_min: float


def _logs(values: Sequence[float], unit: float) -> tuple[float, ...]:
    return tuple(math.log(value * unit) for value in values)


SPEED: Final = Dial(
    knots=_logs((0.8, 1.1, 1.45, 1.9, 2.5, 3.3, 4.4), MPH_MPS), sd=0.3, reach=0.35,
    memory_min=240.0,
)
FLASH: Final = Dial(knots=(0.0, 0.25, 0.5, 0.75, 1.0), sd=0.25, reach=0.35, memory_min=300.0)
THUMP: Final = Dial(knots=(0.0, 0.35, 0.7, 1.0), sd=0.2, reach=0.45, memory_min=300.0)
LEADER: Final = Dial(
    knots=_logs((8.0, 16.0, 32.0, 64.0), INCH_M), sd=0.2, reach=0.8, memory_min=math.inf
)
SETBACK: Final = Dial(
    knots=_logs((12.0, 30.0, 75.0, 190.0), FOOT_M), sd=0.25, reach=1.0, memory_min=math.inf
)
DEPTH_STEP_M: Final = 1.5
LEAST_DEPTH_STEP_M: Final = 0.3
DEPTH_STEPS: Final = 8.0
"""The dial of depth has a place each 1.5 m, in shallow water each eighth of it, or each foot."""
DEPTH_SD: Final = 0.25
DEPTH_REACH: Final = 2.0
"""How far effects of depth are alike, in steps of the dial: fish of a shallow river hold by the
foot (judged)."""
DEPTH_MEMORY_MIN: Final = 150.0
COLOUR_SD: Final = 0.55
LURE_SD: Final = 0.5
BAIT_SD: Final = 0.4
SCENT_SD: Final = 0.3
LIGHT_SD: Final = 0.4
"""How much more a colour may be worth in full light than in the dark, or less, log of the rate."""
USUAL_LIGHT: Final = 0.5
"""The light in which a colour is worth what its own effect says, 0 dark to 1 full."""
LEVEL_SD: Final = 1.0
CLOCK_SD: Final = 0.7
CLOCK_MEMORY_MIN: Final = 45.0
"""Spreads of all effects: judged. Those of the dials on which fish want one place are what such a
place does not tell."""
LASTING: Final = 0.5
"""Of what an effect may be, how much of its variance one day has in common with others (judged)."""
PASSING: Final = 0.5
PASSING_SD: Final = 0.4
"""How the log of the rate goes with that of the fish passed: as half of it, until a day shows
(judged). A screen shows some of the fish, and not all of them bite."""
TRUST: Final = 0.5
"""How likely a rule of thumb knows where fish want something, before a day has shown it (judged).
"""


def _evenly(ends: Sequence[float], steps: int) -> tuple[float, ...]:
    low, high = ends
    return tuple(low + (high - low) * i / steps for i in range(steps + 1))


WISHES: Final[dict[str, Wish]] = {
    "speed": Wish(
        places=_evenly(_logs((0.6, 5.5), MPH_MPS), 44), width=0.4, elsewhere=0.1, drift=0.05,
        leap=0.005, ahead=0.08, fall=0.3, trust=TRUST, even=False,
    ),
    "flash": Wish(
        places=_evenly((0.0, 1.0), 20), width=0.6, elsewhere=0.1, drift=0.05, leap=0.005,
        ahead=0.08, even=False,
    ),
    "thump": Wish(
        places=_evenly((0.0, 1.0), 20), width=0.6, elsewhere=0.1, drift=0.05, leap=0.005,
        ahead=0.08, even=False,
    ),
    "leader": Wish(
        places=_evenly(_logs((8.0, 64.0), INCH_M), 15), width=1.4, elsewhere=0.1,
    ),
    "setback": Wish(
        places=_evenly(_logs((12.0, 190.0), FOOT_M), 19), width=1.5, elsewhere=0.1, fall=0.8,
        trust=0.35, even=False,
    ),
}
"""How fish want each dial but depth: logs of m/s and m, and 0 to 1 (judged, and wide)."""
AGREED_TRUST: Final = 0.8
AGREED_FALL: Final = 0.12
"""A speed that all schools agree on is likelier to be right, and narrower (chosen on days of a
simulated river, seeds 300 to 379: docs/advice.md)."""
SPEED_STEP: Final = 0.05
BEYOND_TROLLED: Final = 0.15
"""Speeds that known fish might want end a sixth beyond those at which anybody trolls for them
(judged)."""
CELLS: Final = 3
"""Places of depth in a step of the dial. Widths and drifts are in steps as well, for fish of a
shallow river hold by the foot: on a lake a step is 1.5 m."""
MARK_STEPS: Final = 1.27
"""How far a mark of theirs is from where they hold, sd (judged)."""
STRAY_STEPS: Final = 3.3
"""Fish that hold so deep, 5 m on a lake, make half of the marks: fewer when they hold higher, for
the cone is narrow there, more when deeper (judged)."""
MARKS_TOLD: Final = 0.8
"""What a mark counts beside those of the same school (judged)."""
MOST_MARKS: Final = 15
"""More marks together, as a sounder tells them by itself, say no more than so many (judged)."""


def _holding(deepest_m: float, step_m: float) -> Wish:
    """How fish hold at a depth: a lure under them is seen by few (common practice)."""
    cell = step_m / CELLS
    return Wish(
        places=tuple(cell * (i + 1) for i in range(max(round(deepest_m / cell), 2))),
        width=2.0 * step_m, beyond=0.55, elsewhere=0.12, drift=0.43 * step_m, leap=0.01,
        ahead=0.8 * step_m, fall=2.0 * step_m, trust=TRUST, even=False,
    )


Weights = list[tuple[int, float]]


@dataclass(frozen=True, slots=True)
class Terms:
    """What the log of a recipe's rate is the sum of: effects, and places on dials."""

    effects: Weights
    at: dict[str, float]
    by_rule: bool


Count = tuple[Weights, float, float]
"""Effects that a rate is the sum of, hits, and the log of what is expected without them."""
Matrix = list[list[float]]


class DayModel:
    """What is known of the day so far.

    Parameters
    ----------
    deepest_m : float
        How deep anything is trolled, m.
    thumb : Thumb, optional
        What rules of thumb expect.

    References
    ----------
    West, M., Harrison, J. (1997). Bayesian Forecasting and Dynamic Models, 2nd ed., ch. 14:
    Poisson observations in a linear dynamic model. From memory.
    """

    def __init__(self, *, deepest_m: float, thumb: Thumb | None = None) -> None:
        step = min(max(deepest_m / DEPTH_STEPS, LEAST_DEPTH_STEP_M), DEPTH_STEP_M)
        depths = max(math.ceil(deepest_m / step), 2)
        depth = Dial(
            knots=tuple(step * i for i in range(min(depths, 24) + 1)), sd=DEPTH_SD,
            reach=DEPTH_REACH * step, memory_min=DEPTH_MEMORY_MIN,
        )
        self._moved: dict[int, int] = {}
        self.mean: list[float] = []
        self.cov: list[list[float]] = []
        self._keep: list[float] = []
        self._fresh: list[tuple[int, list[list[float]]]] = []
        self._level = self._add([[LEVEL_SD**2]], math.inf)
        self._clock = self._add([[CLOCK_SD**2]], CLOCK_MEMORY_MIN)
        self._passing = self._add([[PASSING_SD**2]], math.inf)
        self._passed = (0, 0)
        self._light = 0.0
        self.mean[self._passing] = PASSING
        self._dials: dict[str, tuple[int, Dial]] = {}
        for name, dial in (
            ("depth", depth), ("speed", SPEED), ("flash", FLASH), ("thump", THUMP),
            ("leader", LEADER), ("setback", SETBACK),
        ):
            self._dials[name] = self._add(_kernel(dial), dial.memory_min), dial
        bands = {} if thumb is None else _bands(thumb)
        wishes = {"depth": _holding(deepest_m, step), **WISHES}
        if thumb is not None:
            wishes["speed"] = replace(wishes["speed"], places=_speeds(thumb))
            if thumb.speed_agreed:
                wishes["speed"] = replace(
                    wishes["speed"], trust=AGREED_TRUST, fall=AGREED_FALL
                )
        # Where fish hold by the bed, depths are told as in water so deep throughout.
        self._bed_m = deepest_m if thumb is not None and thumb.by_the_bed else None
        self._wanted = {name: Wanted(wish, bands.get(name)) for name, wish in wishes.items()}
        # Effects of what a box holds have a number below zero until they are first shown:
        # a box of hundreds must not make hundreds of effects that nothing is known of.
        self._known: dict[tuple[str, str], int] = {}
        self._unseen: dict[int, float] = {}

    def _named(self, kind: str, name: str, sd: float) -> int:
        index = self._known.get((kind, name))
        if index is None:
            index = self._known[kind, name] = -1 - len(self._known)
            self._unseen[index] = sd**2
        return index

    def _real(self, weights: Weights) -> Weights:
        """The same with an effect for all that it names, as it is now shown."""
        for (kind, name), index in list(self._known.items()):
            if index < 0 and any(i == index for i, _ in weights):
                made = self._add([[self._unseen[index]]], math.inf)
                self._known[kind, name] = made
                self._moved[index] = made
        return self._now(weights)

    def _now(self, weights: Weights) -> Weights:
        return [(self._moved.get(i, i), w) for i, w in weights] if self._moved else weights

    def copy(self) -> DayModel:
        """Return a model that can go on without this one.

        Returns
        -------
        DayModel
        """
        other = copy(self)
        other.mean, other.cov = list(self.mean), [list(row) for row in self.cov]
        other._keep, other._fresh = list(self._keep), list(self._fresh)
        other._known, other._unseen = dict(self._known), dict(self._unseen)
        other._moved = dict(self._moved)
        other._wanted = {name: wanted.copy() for name, wanted in self._wanted.items()}
        return other

    def _add(self, block: list[list[float]], memory_min: float) -> int:
        start, size = len(self.mean), len(block)
        for row in self.cov:
            row.extend([0.0] * size)
        for row in block:
            self.cov.append([0.0] * start + list(row))
        self.mean.extend([0.0] * size)
        keep = 1.0 if math.isinf(memory_min) else (
            0.0 if memory_min == 0.0 else 0.5 ** (STEP_MIN / memory_min)
        )
        self._keep.extend([keep] * size)
        if keep < 1.0:
            lost = 1.0 - keep**2
            self._fresh.append((start, [[lost * value for value in row] for row in block]))
        return start

    def terms(self, recipe: Recipe, *, by_rule: bool = True) -> Terms:
        """Return what a recipe's rate is the sum of.

        Parameters
        ----------
        recipe : Recipe
            The lure as it fishes.
        by_rule : bool
            Whether rules of thumb are trusted as far as they are, or the day alone.

        Returns
        -------
        Terms
        """
        at = {
            "speed": math.log(max(recipe.speed_mps, 0.1)),
            "flash": recipe.flash, "thump": recipe.thump,
            "setback": math.log(max(recipe.setback_m, 1.0)),
        }
        depth_m = self._told_m(recipe.depth_m, recipe.bed_m)
        if depth_m is not None:
            at["depth"] = depth_m
        if recipe.leader_m is not None:
            at["leader"] = math.log(max(recipe.leader_m, 0.05))
        found = [(self._level, 1.0), (self._clock, 1.0)]
        for name, value in at.items():
            found += self._on(name, value)
        found.append((self._named("colour", recipe.colour, COLOUR_SD), 1.0))
        if self._light:
            found.append((self._named("light", recipe.colour, LIGHT_SD), self._light))
        found.append((self._named("lure", recipe.lure, LURE_SD), 1.0))
        if recipe.bait:
            found.append((self._named("bait", recipe.bait, BAIT_SD), 1.0))
        if recipe.scent:
            found.append((self._named("scent", recipe.scent, SCENT_SD), 1.0))
        return Terms(found, at, by_rule)

    def _told_m(self, depth_m: float, bed_m: float | None) -> float | None:
        """Where on the dial of depth something is; None where only the bed would tell."""
        if self._bed_m is None:
            return depth_m
        if bed_m is None:
            return None
        return min(max(self._bed_m - (bed_m - depth_m), 0.0), self._bed_m)

    def _on(self, name: str, value: float) -> Weights:
        start, dial = self._dials[name]
        knots = dial.knots
        if value <= knots[0]:
            return [(start, 1.0)]
        if value >= knots[-1]:
            return [(start + len(knots) - 1, 1.0)]
        upper = bisect_right(knots, value)
        share = (value - knots[upper - 1]) / (knots[upper] - knots[upper - 1])
        return [(start + upper - 1, 1.0 - share), (start + upper, share)]

    def log_rate(self, terms: Terms) -> tuple[float, float]:
        """Return mean and variance of the log of the rate, hits a rod-minute.

        Parameters
        ----------
        terms : Terms
            Of a recipe.

        Returns
        -------
        (float, float)
            The variance is that of its effects: of where fish want it the mean is taken.
        """
        mean, variance = self._sum(self._now(terms.effects))
        near = math.fsum(
            math.log(wanted.ahead(terms.at[name], by_rule=terms.by_rule))
            for name, wanted in self._wanted.items() if name in terms.at
        )
        return math.log(LEVEL_PM) + mean + near, variance

    def _sum(self, weights: Weights) -> tuple[float, float]:
        """Mean and variance of a sum of effects; one never shown is N(0, sd²), by itself."""
        seen = [(i, w) for i, w in weights if i >= 0]
        mean = math.fsum(self.mean[i] * w for i, w in seen)
        variance = math.fsum(self._unseen[i] * w * w for i, w in weights if i < 0)
        for i, w in seen:
            row = self.cov[i]
            variance += w * sum([row[j] * u for j, u in seen])
        return mean, max(variance, 1e-12)

    def difference(self, one: Terms, other: Terms) -> tuple[float, float]:
        """Return mean and variance of the difference of two log rates.

        Parameters
        ----------
        one, other : Terms
            Of two recipes.

        Returns
        -------
        (float, float)
            What they share, the clock before all, drops out. The mean is of the logs: of what
            might be wanted anywhere more is to be expected (``log_rate``) than is likely.
        """
        mean, variance = self._effects_apart(one, other)
        for apart in self._wants_apart(one, other).values():
            mean, variance = mean + apart.mean, variance + apart.variance
        return mean, variance

    def better(self, pairs: Sequence[tuple[Terms, Terms]]) -> float:
        """Return how likely the first of each pair earn more, all in all, than the second.

        Parameters
        ----------
        pairs : sequence of (Terms, Terms)
            Of recipes.

        Returns
        -------
        float
            0 to 1.

        Notes
        -----
        On the dial that tells them apart most it is asked place by place; what the others and the
        effects add is taken for normal. Rods share their doubt: what is wrong of one is likely
        wrong of all.
        """
        parts = [(self._effects_apart(*pair), self._wants_apart(*pair)) for pair in pairs]
        doubt: dict[str, float] = defaultdict(float)
        for _, wants in parts:
            for name, apart in wants.items():
                doubt[name] += apart.variance
        most = max(doubt, key=doubt.__getitem__, default="")
        places, likely = [0.0], [1.0]
        mean = sd = 0.0
        for (shift, variance), wants in parts:
            mean += shift
            for name, apart in wants.items():
                if name == most:
                    likely = apart.likely
                    places = list(map(add, places * (len(likely) // len(places)), apart.logs))
                else:
                    mean, variance = mean + apart.mean, variance + apart.variance
            sd += math.sqrt(variance)
        unit = -1.0 / (max(sd, 1e-9) * math.sqrt(2.0))
        return 0.5 * sum([
            p * math.erfc(unit * (mean + log)) for p, log in zip(likely, places, strict=True)
        ])

    def _effects_apart(self, one: Terms, other: Terms) -> tuple[float, float]:
        net: dict[int, float] = dict(self._now(one.effects))
        for index, weight in self._now(other.effects):
            net[index] = net.get(index, 0.0) - weight
        return self._sum([(i, w) for i, w in net.items() if abs(w) > 1e-12])

    def _wants_apart(self, one: Terms, other: Terms) -> dict[str, Apart]:
        found = {}
        for name, wanted in self._wanted.items():
            here, there = one.at.get(name), other.at.get(name)
            # Most changes are of one dial.
            if here != there:
                apart = wanted.apart(here, there, by_rule=one.by_rule)
                if apart is not None:
                    found[name] = apart
        return found

    def pass_time(self, steps: int = 1, *, light: float | None = None) -> None:
        """Let steps of five minutes go by: effects that do not last are forgotten a little.

        Parameters
        ----------
        steps : int
            How many.
        light : float, optional
            How bright it is from now on, 0 to 1, where anybody knows: ``water.light.daylight``.
        """
        self._light = 0.0 if light is None else light - USUAL_LIGHT
        for _ in range(steps):
            for wanted in self._wanted.values():
                wanted.pass_time()
            keep = self._keep
            self.mean = list(map(mul, self.mean, keep))
            for i, row in enumerate(self.cov):
                a = keep[i]
                self.cov[i] = [value * a * b for value, b in zip(row, keep, strict=True)]
            for start, block in self._fresh:
                for i, fresh in enumerate(block, start):
                    row = self.cov[i]
                    for j, value in enumerate(fresh, start):
                        row[j] += value

    def passing(self, marks: int) -> float:
        """Take note of the fish marked in five minutes, and return how they are against the usual.

        Parameters
        ----------
        marks : int
            Fish seen on the sonar, >= 0.

        Returns
        -------
        float
            Log of the ratio to the mean of all so far; 0 on a day without a mark.
        """
        fish, steps = self._passed[0] + marks, self._passed[1] + 1
        self._passed = fish, steps
        return math.log((marks + 0.5) / (fish / steps + 0.5))

    def count(self, terms: Terms, hits: int, minutes: float, *, passing: float = 0.0) -> None:
        """Learn from hits over rod-minutes of one recipe.

        Parameters
        ----------
        terms : Terms
            Of the recipe.
        hits : int
            Hits, >= 0.
        minutes : float
            Rod-minutes, > 0.
        passing : float
            What ``passing`` returned for these minutes: a dry rod where no fish are says little.
        """
        effects = self._real(terms.effects)
        if passing:
            effects = [*effects, (self._passing, passing)]
        mean, doubt = self._sum(effects)
        near = self._near(terms)
        offset = math.log(LEVEL_PM * minutes) + math.fsum(near.values())
        for name, log_share in near.items():
            self._wanted[name].hit(
                terms.at[name], hits, math.exp(offset + mean - log_share), doubt, OVERDISPERSION
            )
        self._learn(effects, hits, offset, OVERDISPERSION)

    def _near(self, terms: Terms) -> dict[str, float]:
        """Log of what a recipe can expect now on each dial."""
        return {
            name: math.log(wanted.share(terms.at[name]))
            for name, wanted in self._wanted.items() if name in terms.at
        }

    def remember(self, days: Sequence[EarlierDay], share: float) -> None:
        """Learn from earlier days, before anything of this one is counted.

        Parameters
        ----------
        days : sequence of EarlierDay
            Each counts by how like this one it is.
        share : float
            What part of it counts at all, 0 to 1: as its user says.

        Notes
        -----
        A power prior (Ibrahim & Chen 2000): counts and exposure are taken times the weight. How
        well a day bit says nothing of this one, so its exposure is scaled until what it expects of
        the whole day is what the day gave: only what earned more than the rest of its own day is
        learnt. And days differ: of an effect's variance LASTING times the share is the same on all
        days, the rest each day's own (Gelman et al. 2013). Earlier days tell of the first alone;
        what is today's own is as unknown as on a day without a record.

        References
        ----------
        Ibrahim, J.G., Chen, M.-H. (2000). Power prior distributions for regression models.
        Statistical Science 15, 46-60. From memory.
        Gelman, A. et al. (2013). Bayesian Data Analysis, 3rd ed., ch. 5: hierarchical models. From
        memory.
        """
        told = [
            self._told(day) for day in days if day.like > 0.0 and any(i.hits for i in day.shown)
        ]
        if not told or share <= 0.0:
            return
        lasting = LASTING * share
        own = [[(1.0 - lasting) * value for value in row] for row in self.cov]
        self.cov = [[lasting * value for value in row] for row in self.cov]
        for counts in told:
            self._learn_apart([(effects, hits, due) for effects, hits, due, _ in counts], own)
        self.cov = _sum_of(self.cov, own)
        for counts in told:
            for name, wanted in self._wanted.items():
                wanted.remember([
                    (terms.at[name], hits, math.exp(due))
                    for _, hits, due, terms in counts if name in terms.at
                ], lasting)

    def _learn_apart(self, counts: Sequence[Count], own: Matrix) -> None:
        """Learn from a day whose effects are these and, beside them, its own, of variance ``own``.

        The same as with its own effects in the state, count by count, and forgotten with the day;
        but it is reckoned among the counts, which are fewer than the effects of both together.
        """
        both = _sum_of(self.cov, own)
        size, many = len(self.mean), len(counts)
        # What counts so far have taken from how sums and effects go together, a part each: the
        # rows of a root of it, for sums and for effects.
        sums, effects = [list[float]() for _ in counts], [list[float]() for _ in range(size)]
        due = [offset + self._mean_of(weights) for weights, _, offset in counts]
        for k, (weights, hits, _) in enumerate(counts):
            mine, spread = sums[k], _mixed(both, weights)
            row = [
                sum([spread[i] * w for i, w in counts[j][0]]) - sum(map(mul, mine, sums[j]))
                for j in range(k, many)
            ]
            variance = max(row[0], 1e-12)
            mode, curve = poisson_mode(hits, due[k], variance, OVERDISPERSION)
            step, root = (mode - due[k]) / variance, math.sqrt(curve / (1.0 + curve * variance))
            for i, value in enumerate(_mixed(self.cov, weights)):
                gain = value - sum(map(mul, mine, effects[i]))
                self.mean[i] += step * gain
                effects[i].append(root * gain)
            for j in range(k, many):
                due[j] += step * row[j - k]
                if j > k:
                    sums[j].append(root * row[j - k])
        for i, (row, taken) in enumerate(zip(self.cov, effects, strict=True)):
            if any(taken):
                # The matrix is symmetric: the half below mirrors the half above.
                for j in range(i, size):
                    self.cov[j][i] = row[j] = row[j] - sum(map(mul, taken, effects[j]))

    def _mean_of(self, weights: Weights) -> float:
        return math.fsum([self.mean[i] * w for i, w in weights])

    def _told(self, day: EarlierDay) -> list[tuple[Weights, float, float, Terms]]:
        """Counts of an earlier day: effects, hits and the log of what it would expect of them."""
        found = []
        for item in day.shown:
            terms = self.terms(Recipe(
                depth_m=item.depth_m, speed_mps=item.speed_mps, setback_m=item.setback_m,
                leader_m=item.leader_m, flash=item.flash, thump=item.thump,
                colour=item.colour, lure=item.lure, bait=item.bait, scent=item.scent,
            ))
            effects = [
                (i, w) for i, w in self._real(terms.effects)
                if i not in (self._level, self._clock)
            ]
            found.append((effects, item, math.exp(math.fsum(self._near(terms).values())), terms))
        hits = sum(item.hits for item in day.shown)
        scale = hits / math.fsum(item.minutes * near for _, item, near, _ in found)
        return [
            (effects, day.like * item.hits, math.log(day.like * scale * item.minutes * near), terms)
            for effects, item, near, terms in found
        ]

    def mark(
        self, counts: Sequence[tuple[float, int]], *, beds_m: Sequence[float] = ()
    ) -> None:
        """Learn from fish seen on the sonar: at which depths.

        Parameters
        ----------
        counts : sequence of (float, int)
            Depth of the fish, m, and how many.
        beds_m : sequence of float, optional
            Depth of the water under each, m: asked of fish that hold by the bed.

        Notes
        -----
        A second look at where they hold. Whether anybody watched the screen is not known, so a time
        without marks says nothing, and with marks only where they are.
        """
        step = self._dials["depth"][1].knots[1]
        seen: dict[float, int] = defaultdict(int)
        for (depth_m, fish), bed_m in zip_longest(counts, beds_m[:len(counts)]):
            told_m = self._told_m(depth_m, bed_m)
            if told_m is not None:
                seen[told_m] += fish
        many = sum(seen.values())
        if many:
            self._wanted["depth"].see(
                [(depth_m, fish) for depth_m, fish in seen.items() if fish],
                width=MARK_STEPS * step, strays=STRAY_STEPS * step,
                counts=MARKS_TOLD * min(1.0, MOST_MARKS / many),
            )

    def _learn(self, weights: Weights, count: float, offset: float, dispersion: float) -> None:
        """One count: the mode of its log rate by Newton, then a step of rank one."""
        gain = _mixed(self.cov, weights)
        variance = max(math.fsum(gain[i] * w for i, w in weights), 1e-12)
        prior = offset + self._mean_of(weights)
        mode, curve = poisson_mode(count, prior, variance, dispersion)
        step = (mode - prior) / variance
        self.mean = [m + step * g for m, g in zip(self.mean, gain, strict=True)]
        shrink = curve / (1.0 + curve * variance)
        cov = self.cov
        for i, g in enumerate(gain):
            c = shrink * g
            if c:
                cov[i] = [value - c * h for value, h in zip(cov[i], gain, strict=True)]


def poisson_mode(
    count: float, mean: float, variance: float, dispersion: float
) -> tuple[float, float]:
    """Return the most probable log of a mean count, and the curvature of its likelihood there.

    Parameters
    ----------
    count : float
        What was counted; of an earlier day, a part of it.
    mean, variance : float
        What was believed of the log before.
    dispersion : float
        Variance of a count is its mean plus this times its mean squared.

    Returns
    -------
    (float, float)
    """
    eta = mean
    for _ in range(30):
        expected_count = math.exp(min(eta, 20.0))
        spread = 1.0 + dispersion * expected_count
        slope = (count - expected_count) / spread - (eta - mean) / variance
        curve = (1.0 + dispersion * count) * expected_count / spread**2
        step = slope / (curve + 1.0 / variance)
        step = min(max(step, -2.0), 2.0)
        eta += step
        if abs(step) < 1e-10:
            break
    expected_count = math.exp(min(eta, 20.0))
    spread = 1.0 + dispersion * expected_count
    return eta, (1.0 + dispersion * count) * expected_count / spread**2


def _bands(thumb: Thumb) -> dict[str, tuple[float, float]]:
    """Where on each dial rules of thumb say that fish want it."""
    return {
        "depth": (thumb.depth_top_m, thumb.depth_base_m),
        "speed": (math.log(thumb.speed_low_mps), math.log(thumb.speed_high_mps)),
        "setback": (
            math.log(max(thumb.setback_low_m, 1.0)), math.log(max(thumb.setback_high_m, 1.0))
        ),
    }


def _speeds(thumb: Thumb) -> tuple[float, ...]:
    """Fish that nobody trolls for at a walk want nothing at a walk: logs of m/s."""
    ends = (
        math.log(thumb.slowest_mps) - BEYOND_TROLLED, math.log(thumb.fastest_mps) + BEYOND_TROLLED
    )
    return _evenly(ends, max(round((ends[1] - ends[0]) / SPEED_STEP), 4))


def _sum_of(one: Matrix, other: Matrix) -> Matrix:
    return [list(map(add, a, b)) for a, b in zip(one, other, strict=True)]


def _mixed(cov: Matrix, weights: Weights) -> list[float]:
    """How a sum of effects goes with each of them: rows by their weights, for cov is symmetric."""
    parts = [weight for _, weight in weights]
    rows = [cov[index] for index, _ in weights]
    return [sum(map(mul, parts, column)) for column in zip(*rows, strict=True)]


def _kernel(dial: Dial) -> list[list[float]]:
    return [
        [
            dial.sd**2 * (math.exp(-0.5 * ((a - b) / dial.reach) ** 2) + (1e-6 if a == b else 0.0))
            for b in dial.knots
        ]
        for a in dial.knots
    ]
