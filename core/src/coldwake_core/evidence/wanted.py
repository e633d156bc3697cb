"""Where on a dial the fish want it: how likely each place, by rule, by hits, and as time goes by.

Fish are taken to want one place on the dial, and to care less for a lure the farther off it is;
where that place is, is kept as a probability for each. A rod that is dry speaks against where it
is as far as it should have been hit, a hit for it. A rule of thumb is one more place to begin: how
far it is trusted is learnt with the rest, so that a day can overrule it.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from operator import add, mul
from typing import Final

LEAST_LIKELY: Final = 0.001
"""What is held back for all places together, whatever is counted."""
MOST_DOUBT: Final = 3.0
"""Nobody is less sure of what was due than this, relative variance: more would say nothing."""
FINEST: Final = 0.01
"""Lures nearer than this to each other, in widths, are at one place."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Wish:
    """How fish want something of a dial.

    Parameters
    ----------
    places : tuple of float
        Places on the dial, rising.
    width : float
        How far off a lure still pleases, sd on the dial.
    beyond : float
        The width for a lure beyond the place that is wanted, as a share of that before it.
    elsewhere : float
        What a lure far off earns, against the best.
    drift : float
        How far the place moves in five minutes, sd on the dial; 0 for one that stays.
    leap : float
        How likely it is somewhere else altogether after five minutes.
    ahead : float
        How far it will have moved, on the whole, while a change lasts, sd on the dial.
    fall : float
        How a rule of thumb thins out beside its band, sd on the dial.
    trust : float
        How likely the rule of thumb is thought to know where, before a day has shown anything.
    even : bool
        Whether a lure at the end of the dial is as good a bet as one in its middle before anything
        is known; if not, what is near to more of the dial is the better one.
    """

    places: tuple[float, ...]
    width: float
    beyond: float = 1.0
    elsewhere: float
    drift: float = 0.0
    leap: float = 0.0
    ahead: float = 0.0
    fall: float = 1.0
    trust: float = 0.0
    even: bool = True


@dataclass(frozen=True, slots=True)
class Apart:
    """One lure against another: for each place how likely it is, and the log of their ratio there.

    ``mean`` and ``variance`` are those of the log.
    """

    likely: list[float]
    logs: list[float]
    mean: float
    variance: float


class _View:
    """How likely each place is while a change lasts, what lures can expect, and how they differ."""

    def __init__(self, likely: list[float]) -> None:
        self.likely = likely
        self.expected: dict[int, float] = {}
        self.apart: dict[tuple[int | None, ...], Apart] = {}


class Wanted:
    """How likely each place on a dial is the one that fish want.

    Parameters
    ----------
    wish : Wish
        How they want it.
    band : (float, float), optional
        Where a rule of thumb says.

    References
    ----------
    Rabiner, L.R. (1989). A tutorial on hidden Markov models. Proceedings of the IEEE 77, 257-286:
    the forward filter. From memory.
    """

    def __init__(self, wish: Wish, band: tuple[float, float] | None = None) -> None:
        self.wish = wish
        many = len(wish.places)
        self.shown = [1.0 / many] * many
        """Begun anywhere: by what the day has shown alone."""
        self.ruled = self.shown if band is None else _begun(wish, *band)
        """Begun by the rule of thumb."""
        self.trust = 0.0 if band is None else wish.trust
        self._mixed = self._mix()
        self._said: list[float] | None = None
        self._near: dict[int, tuple[list[float], list[float]]] = {}
        self._usual = 1.0
        if not wish.even:
            near = [math.fsum(self._pleases(value)[0]) / many for value in wish.places]
            self._usual, self._near = math.fsum(near) / many, {}
        self._drift = _kernel(wish.places, wish.drift, wish.leap)
        self._ahead = _kernel(wish.places, wish.ahead, 0.0)
        self._views: dict[bool, _View] = {}

    def copy(self) -> Wanted:
        """Return one that can go on without this one.

        Returns
        -------
        Wanted
        """
        other = object.__new__(Wanted)
        # What is known is replaced, never changed.
        other.__dict__.update(self.__dict__)
        return other

    def likely(self, *, by_rule: bool = True) -> list[float]:
        """Return how likely each place is.

        Parameters
        ----------
        by_rule : bool
            Whether the rule of thumb is trusted as far as it is, or not at all.

        Returns
        -------
        list of float
        """
        self._settle()
        return self._mixed if by_rule else self.shown

    def _mix(self) -> list[float]:
        trust = self.trust
        if not trust:
            return self.shown
        return [
            trust * r + (1.0 - trust) * s for r, s in zip(self.ruled, self.shown, strict=True)
        ]

    def share(self, value: float) -> float:
        """Return what a lure could expect before what was noted of this time: 1 is the usual.

        Parameters
        ----------
        value : float
            Where it is on the dial.

        Returns
        -------
        float
        """
        return float(sum(map(mul, self._mixed, self._pleases(value)[0])))

    def ahead(self, value: float, *, by_rule: bool = True) -> float:
        """Return what a lure can expect while a change lasts: 1 is the usual.

        Parameters
        ----------
        value : float
            Where it is on the dial.
        by_rule : bool
            Whether the rule of thumb is trusted as far as it is, or not at all.

        Returns
        -------
        float
        """
        view = self._view(by_rule)
        key = self._key(value)
        found = view.expected.get(key)
        if found is None:
            found = view.expected[key] = sum(map(mul, view.likely, self._pleases(value)[0]))
        return found

    def apart(
        self, one: float | None, other: float | None, *, by_rule: bool = True
    ) -> Apart | None:
        """Return how one lure stands against another by where fish want it.

        Parameters
        ----------
        one, other : float or None
            Where they are on the dial; None for one that is not on it.
        by_rule : bool
            Whether the rule of thumb is trusted as far as it is, or not at all.

        Returns
        -------
        Apart or None
            None for two at one place.
        """
        keys = tuple(None if value is None else self._key(value) for value in (one, other))
        if keys[0] == keys[1]:
            return None
        view = self._view(by_rule)
        found = view.apart.get(keys)
        if found is None:
            found = view.apart[keys] = self._held_apart(view.likely, one, other)
        return found

    def _held_apart(
        self, likely: list[float], one: float | None, other: float | None
    ) -> Apart:
        logs = [0.0] * len(likely)
        for value, sign in ((one, 1.0), (other, -1.0)):
            if value is not None:
                near = self._pleases(value)[1]
                logs = [log + sign * more for log, more in zip(logs, near, strict=True)]
        mean = sum(map(mul, likely, logs))
        square = sum([p * log * log for p, log in zip(likely, logs, strict=True)])
        return Apart(likely, logs, mean, max(square - mean * mean, 0.0))

    def pass_time(self) -> None:
        """Let five minutes go by: what is wanted moves."""
        self._settle()
        if self._drift is not None:
            self.shown, self.ruled = (
                [sum(map(mul, row, likely)) for row in self._drift]
                for likely in (self.shown, self.ruled)
            )
            self._mixed, self._views = self._mix(), {}

    def hit(
        self, value: float, hits: int, due: float, doubt: float, dispersion: float
    ) -> None:
        """Take note of the hits of a lure; what of a time is noted is learnt together.

        Parameters
        ----------
        value : float
            Where it is on the dial.
        hits : int
            Hits, >= 0.
        due : float
            Hits that were due of a lure that expects the usual, > 0.
        doubt : float
            Variance of the log of ``due``.
        dispersion : float
            Variance of a count is its mean plus this times its mean squared.
        """
        bunched = dispersion + min(math.expm1(min(doubt, 5.0)), MOST_DOUBT)
        size = hits + 1.0 / bunched
        near, logs = self._pleases(value)
        many = bunched * due
        self._say([
            hits * log - size * math.log1p(many * share)
            for share, log in zip(near, logs, strict=True)
        ])

    def remember(self, counts: Sequence[tuple[float, float, float]], weight: float) -> None:
        """Learn from an earlier day: of its hits, how many came where.

        Parameters
        ----------
        counts : sequence of (float, float, float)
            Where on the dial, hits, and how many of them were due as far as is known.
        weight : float
            What part of it counts.

        Notes
        -----
        How many there were is of no account (multinomial): a day on which one place alone was
        fished says nothing of another.
        """
        due = [part / self.share(value) for value, _, part in counts]
        near = [self._pleases(value)[0] for value, _, _ in counts]
        said = []
        for k in range(len(self.wish.places)):
            parts = [part * row[k] for part, row in zip(due, near, strict=True)]
            whole = sum(parts)
            said.append(weight * math.fsum(
                hits * math.log(part / whole)
                for (_, hits, _), part in zip(counts, parts, strict=True) if hits
            ))
        if counts:
            self._say(said)

    def see(self, places: Sequence[tuple[float, float]], *, width: float, strays: float,
            counts: float) -> None:
        """Learn from places at which fish were seen, some of which are others.

        Parameters
        ----------
        places : sequence of (float, float)
            Where on the dial, and how many.
        width : float
            How far from where they want it they are seen, sd on the dial.
        strays : float
            Of fish that want it here half of what is seen is others: fewer if they want it lower,
            more if they do higher.
        counts : float
            What one that is seen counts beside those that were seen with it.
        """
        span = self.wish.places[-1]
        said = [0.0] * len(self.wish.places)
        for value, many in places:
            for k, place in enumerate(self.wish.places):
                stray = strays / (strays + place)
                bell = math.exp(-0.5 * ((value - place) / width) ** 2) / (width * _ROOT)
                said[k] += counts * many * math.log(stray / span + (1.0 - stray) * bell)
        self._say(said)
        self._settle()

    def _say(self, log_likely: list[float]) -> None:
        self._said = log_likely if self._said is None else list(
            map(add, self._said, log_likely)
        )

    def _settle(self) -> None:
        """Learn what was noted."""
        if self._said is None:
            return
        most = max(self._said)
        bears = [math.exp(said - most) for said in self._said]
        self._said, self._views = None, {}
        many = len(bears)
        told = []
        for name in ("shown", "ruled"):
            found = list(map(mul, getattr(self, name), bears))
            whole = sum(found)
            setattr(self, name, [
                (1.0 - LEAST_LIKELY) * p / whole + LEAST_LIKELY / many for p in found
            ])
            told.append(whole)
        if self.trust:
            odds = self.trust * told[1] / ((1.0 - self.trust) * told[0])
            self.trust = min(max(odds / (1.0 + odds), LEAST_LIKELY), 1.0 - LEAST_LIKELY)
        self._mixed = self._mix()

    def _view(self, by_rule: bool) -> _View:
        """How likely each place is while a change lasts, and what was worked out of it."""
        self._settle()
        by_rule = by_rule and self.trust > 0.0
        if by_rule not in self._views:
            likely = self.likely(by_rule=by_rule)
            if self._ahead is not None:
                likely = [sum(map(mul, row, likely)) for row in self._ahead]
            self._views[by_rule] = _View(likely)
        return self._views[by_rule]

    def _key(self, value: float) -> int:
        return round(value / (FINEST * self.wish.width))

    def _pleases(self, value: float) -> tuple[list[float], list[float]]:
        """What a lure earns by where fish want it, and the log of it; 1 is the usual."""
        key = self._key(value)
        found = self._near.get(key)
        if found is None:
            wish, at = self.wish, key * FINEST * self.wish.width
            near = [
                wish.elsewhere + (1.0 - wish.elsewhere) * math.exp(-0.5 * (
                    (at - place) / (wish.width * (1.0 if at <= place else wish.beyond))
                ) ** 2)
                for place in wish.places
            ]
            usual = sum(near) / len(near) if wish.even else self._usual
            near = [share / usual for share in near]
            found = self._near[key] = near, [math.log(share) for share in near]
        return found


_ROOT: Final = math.sqrt(2.0 * math.pi)


def _begun(wish: Wish, low: float, high: float) -> list[float]:
    """Inside a band, and thinning out beside it."""
    found = [
        math.exp(-0.5 * (max(low - place, place - high, 0.0) / wish.fall) ** 2) + LEAST_LIKELY
        for place in wish.places
    ]
    whole = sum(found)
    return [p / whole for p in found]


def _kernel(places: Sequence[float], sd: float, leap: float) -> list[list[float]] | None:
    """From each place, a column, to each other, a row: near ones likely, any with a leap."""
    if sd <= 0.0:
        return None
    columns = []
    for start in places:
        bell = [math.exp(-0.5 * ((end - start) / sd) ** 2) for end in places]
        whole = sum(bell)
        columns.append([(1.0 - leap) * p / whole + leap / len(places) for p in bell])
    return [list(row) for row in zip(*columns, strict=True)]
