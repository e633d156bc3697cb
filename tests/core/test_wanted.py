"""Where fish want it: against a swarm of paths drawn at random, and what must hold by itself."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from coldwake_core.evidence.wanted import Apart, Wanted, Wish

LOW, HIGH, CELL = 0.25, 21.25, 0.5
DEPTH = Wish(
    places=tuple(0.5 * (i + 1) for i in range(42)), width=3.0, beyond=0.55, elsewhere=0.12,
    drift=0.65, leap=0.01, ahead=1.2, fall=3.0, trust=0.5,
)
BAND = (2.0, 6.0)
MARKS: dict[str, float] = {"width": 1.9, "strays": 5.0, "counts": 0.8}


def lake(band: Any = None) -> Wanted:
    return Wanted(DEPTH, band)


def apart(of: Wanted, one: float | None, other: float | None, **how: bool) -> Apart:
    found = of.apart(one, other, **how)
    assert found is not None
    return found


def middle(of: Wanted) -> float:
    return math.fsum(d * p for d, p in zip(DEPTH.places, of.likely(), strict=True))


def bell(value: float, wanted: Any) -> Any:
    """What a lure earns by where fish want it, against the best, as the docstrings have it."""
    sd = np.where(value <= wanted, 3.0, 3.0 * 0.55)
    return 0.12 + 0.88 * np.exp(-0.5 * ((value - wanted) / sd) ** 2)


def pleases(value: float, wanted: Any) -> Any:
    """The same against one anywhere."""
    return bell(value, wanted) / bell(value, np.array(DEPTH.places)).mean()


class Swarm:
    """Paths of where fish want it, drawn at random and weighed: the same beliefs, no grid.

    Bootstrap filter (Gordon, Salmond & Smith 1993): half of them begun by the rule.
    """

    def __init__(self, count: int = 400_000) -> None:
        self.draw = np.random.default_rng(8)
        self.at = self.draw.uniform(LOW, HIGH, count)
        self.by_rule = np.arange(count) % 2 == 0
        fine = np.linspace(LOW, HIGH, 4001)
        off = np.maximum(np.maximum(BAND[0] - fine, fine - BAND[1]), 0.0)
        chance = np.exp(-0.5 * (off / 3.0) ** 2)
        self.at[self.by_rule] = self.draw.choice(
            fine, int(self.by_rule.sum()), p=chance / chance.sum()
        )

    def pass_time(self) -> None:
        moved = self.at + self.draw.normal(0.0, DEPTH.drift, self.at.size)
        # Who would leave the dial is asked again.
        while (out := (moved < LOW) | (moved > HIGH)).any():
            moved[out] = self.at[out] + self.draw.normal(0.0, DEPTH.drift, int(out.sum()))
        leapt = self.draw.uniform(size=self.at.size) < DEPTH.leap
        moved[leapt] = self.draw.uniform(LOW, HIGH, int(leapt.sum()))
        self.at = moved

    def take(self, likely: Any) -> None:
        kept = self.draw.choice(self.at.size, self.at.size, p=likely / likely.sum())
        self.at, self.by_rule = self.at[kept], self.by_rule[kept]

    def hits(self, told: Any) -> None:
        # Negative binomial by its size and mean, of all rods at once.
        likely = np.ones(self.at.size)
        for value, hits in told:
            size, mean = 1.0 / (0.4 + math.expm1(0.3)), 0.6 * pleases(value, self.at)
            likely = likely * (size / (size + mean)) ** size * (mean / (size + mean)) ** hits
        self.take(likely)

    def see(self, value: float) -> None:
        stray = 5.0 / (5.0 + self.at)
        bell = np.exp(-0.5 * ((value - self.at) / 1.9) ** 2) / (1.9 * np.sqrt(2.0 * np.pi))
        self.take((stray / 21.0 + (1.0 - stray) * bell) ** 0.8)


STORY = [
    ((3.0, 0), (12.0, 1), (18.0, 0)), ((3.0, 0), (12.0, 0), (18.0, 0)), 14.0,
    ((3.0, 0), (12.0, 1), (18.0, 1)), 5.0, ((6.0, 2), (12.0, 0), (18.0, 0)), 13.0,
]


def test_the_filter_says_what_a_swarm_of_paths_says():
    grid, swarm = lake(BAND), Swarm()
    for step in STORY:
        grid.pass_time()
        swarm.pass_time()
        if isinstance(step, float):
            grid.see([(step, 1)], **MARKS)
            swarm.see(step)
            continue
        for depth, hits in step:
            grid.hit(depth, hits, 0.6, 0.3, 0.4)
        swarm.hits(step)
    edges = np.arange(LOW, HIGH + 1.5, 3.0)
    found, _ = np.histogram(DEPTH.places, edges, weights=grid.likely())
    wanted, _ = np.histogram(swarm.at, edges)
    assert found == pytest.approx(wanted / swarm.at.size, abs=0.015)
    # How far the rule is trusted is how many of the paths that are left it began.
    assert grid.trust == pytest.approx(swarm.by_rule.mean(), abs=0.02)
    assert 0.1 < grid.trust < 0.45
    for depth in (0.5, 4.0, 11.0, 20.0):
        assert grid.share(depth) == pytest.approx(pleases(depth, swarm.at).mean(), rel=0.02)


def test_what_is_ahead_is_what_is_likely_moved_on_by_as_much_as_a_change_lasts():
    grid = lake()
    grid.hit(9.0, 3, 0.5, 0.2, 0.4)
    draw = np.random.default_rng(4)
    at = draw.choice(DEPTH.places, 400_000, p=np.array(grid.likely()) / sum(grid.likely()))
    ahead = at + draw.normal(0.0, DEPTH.ahead, at.size)
    ahead = ahead[(ahead > LOW) & (ahead < HIGH)]
    logs = {depth: np.log(pleases(depth, ahead)) for depth in (3.0, 9.0, 15.0)}
    for depth, log in logs.items():
        assert grid.ahead(depth) == pytest.approx(np.exp(log).mean(), rel=0.04)
        assert apart(grid, depth, None).mean == pytest.approx(log.mean(), abs=0.03)
    off = apart(grid, 9.0, 3.0)
    drawn = logs[9.0] - logs[3.0]
    assert off.mean == pytest.approx(drawn.mean(), abs=0.03)
    assert off.variance == pytest.approx(np.var(drawn), rel=0.06)
    better = math.fsum(p for p, log in zip(off.likely, off.logs, strict=True) if log > 0.0)
    assert better == pytest.approx((drawn > 0.0).mean(), abs=0.04)
    back = apart(grid, 3.0, 9.0)
    assert (back.mean, back.variance) == (
        pytest.approx(-off.mean), pytest.approx(off.variance)
    )
    assert grid.apart(9.0, 9.0) is grid.apart(None, None) is None


COUNTS = st.tuples(st.floats(-5.0, 40.0), st.integers(0, 40), st.floats(1e-6, 1e4))


@given(st.lists(COUNTS, max_size=8))
def test_whatever_is_counted_it_stays_a_probability(counts):
    one = lake(BAND)
    for depth, hits, due in counts:
        one.hit(depth, hits, due, 2.0, 0.4)
        one.see([(max(depth, 0.0), hits)], **MARKS)
        one.pass_time()
    for likely in (one.likely(), one.likely(by_rule=False)):
        assert math.fsum(likely) == pytest.approx(1.0)
        assert all(p > 0.0 for p in likely)
    assert 0.0 < one.trust < 1.0
    off = apart(one, 5.0, 10.0)
    assert math.isfinite(off.mean)
    assert off.variance >= 0.0


def test_before_anything_is_seen_all_places_earn_the_same_but_for_the_rule():
    fresh, ruled = lake(), lake(BAND)
    for depth in (0.5, 7.0, 21.0):
        assert fresh.share(depth) == pytest.approx(1.0)
    assert ruled.share(4.0) > 1.2 > 0.8 > ruled.share(15.0)
    assert ruled.likely(by_rule=False) == fresh.likely()
    assert apart(ruled, 4.0, 15.0, by_rule=False).mean == pytest.approx(0.0, abs=0.1)


def test_a_hit_speaks_for_its_depth_and_a_dry_rod_against_it_as_far_as_it_was_due():
    hit, dry, hardly, doubtful = lake(), lake(), lake(), lake()
    hit.hit(6.0, 1, 0.5, 0.0, 0.4)
    dry.hit(6.0, 0, 2.0, 0.0, 0.4)
    hardly.hit(6.0, 0, 0.02, 0.0, 0.4)
    doubtful.hit(6.0, 0, 2.0, 1.0, 0.4)
    assert hit.ahead(6.0) > 1.2
    assert dry.ahead(6.0) < 0.75
    assert 0.97 < hardly.ahead(6.0) < 1.01
    # Who does not know how many were due learns less from none.
    assert dry.ahead(6.0) < doubtful.ahead(6.0) < 0.95

def test_rods_of_a_time_are_held_against_what_was_known_before_it_in_whatever_order():
    one, other = lake(BAND), lake(BAND)
    told = [(3.0, 1), (12.0, 0), (18.0, 2)]
    for depth, hits in told:
        one.hit(depth, hits, 0.6, 0.3, 0.4)
        assert one.share(3.0) == lake(BAND).share(3.0)
    for depth, hits in reversed(told):
        other.hit(depth, hits, 0.6, 0.3, 0.4)
    assert one.likely() == pytest.approx(other.likely())
    one.pass_time()
    assert one.share(18.0) > lake(BAND).share(18.0)


def test_marks_all_over_the_water_are_strays_and_speak_for_fish_that_are_too_high_to_be_seen():
    one, at_once = lake(), lake()
    one.see([(depth, 1) for depth in (3.0, 8.0, 13.0, 18.0)], **MARKS)
    at_once.see([(13.0, 4)], **MARKS)
    # The cone is narrow near the top: fish that hold there make few of the marks.
    assert middle(one) < middle(lake()) - 1.0
    assert middle(at_once) == pytest.approx(13.0, abs=0.5)
    # Marks are known before the hits of the same time are held against what was.
    fresh = lake()
    fresh.see([(13.0, 4)], **MARKS)
    assert fresh.share(13.0) > 1.5 * lake().share(13.0)


def test_lures_below_the_fish_are_seen_by_fewer_than_those_above():
    one = lake()
    for _ in range(4):
        one.see([(10.0, 5)], **MARKS)
    assert abs(middle(one) - 10.0) < 0.5
    assert one.ahead(7.5) > one.ahead(12.5) + 0.2


def test_what_was_known_is_forgotten_as_fish_move_and_kept_where_they_do_not():
    one = lake()
    one.see([(10.0, 5)], **MARKS)
    sharp = max(one.likely())
    stays = Wanted(replace(DEPTH, drift=0.0, leap=0.0))
    stays.see([(10.0, 5)], **MARKS)
    ahead = one.ahead(10.0)
    for _ in range(12):
        one.pass_time()
        stays.pass_time()
    assert one.ahead(10.0) < 0.95 * ahead
    assert max(one.likely()) < 0.6 * sharp
    assert max(stays.likely()) == pytest.approx(sharp)
    for _ in range(600):
        one.pass_time()
    # Two days later they are anywhere.
    assert one.likely() == pytest.approx([1.0 / 42] * 42, rel=0.35)


def test_a_rule_that_the_day_speaks_for_is_trusted_and_one_that_it_speaks_against_is_not():
    proven, broken = lake(BAND), lake(BAND)
    for _ in range(6):
        proven.hit(4.0, 1, 0.3, 0.2, 0.4)
        broken.hit(4.0, 0, 0.3, 0.2, 0.4)
        proven.hit(15.0, 0, 0.3, 0.2, 0.4)
        broken.hit(15.0, 1, 0.3, 0.2, 0.4)
    assert proven.ahead(4.0) > proven.ahead(15.0)
    assert broken.ahead(4.0) < broken.ahead(15.0)
    assert proven.trust > 0.6 > 0.3 > broken.trust
    # The rule overruled is as good as none: what the day has shown is what is said.
    assert broken.ahead(15.0) == pytest.approx(broken.ahead(15.0, by_rule=False), rel=0.15)


def test_an_earlier_day_says_at_which_of_its_places_the_hits_came():
    shown = [(4.0, 0.0, 3.0), (14.0, 6.0, 3.0)]
    one, half, busy, none = lake(), lake(), lake(), lake()
    one.remember(shown, 1.0)
    half.remember(shown, 0.5)
    none.remember(shown, 0.0)
    # Twice as many due everywhere is the same day.
    busy.remember([(depth, hits, 2.0 * due) for depth, hits, due in shown], 1.0)
    assert one.share(14.0) == lake().share(14.0)
    assert one.ahead(14.0) > 1.5 * one.ahead(4.0)
    assert one.likely() == pytest.approx(busy.likely())
    assert none.likely() == pytest.approx([1.0 / 42] * 42)
    assert none.ahead(14.0) + 0.1 < half.ahead(14.0) < one.ahead(14.0) - 0.1
    # What was due of each is told with what was known of its place: by hand, of all places.
    ruled, prior = lake(BAND), np.array(lake(BAND).likely())
    ruled.remember(shown, 1.0)
    apart = [3.0 / lake(BAND).share(depth) * pleases(depth, np.array(DEPTH.places))
             for depth in (4.0, 14.0)]
    wanted = prior * (apart[1] / sum(apart)) ** 6.0
    assert ruled.likely() == pytest.approx(wanted / wanted.sum(), abs=1e-3)
    # Hits of a place that alone was fished say nothing of another.
    alone = lake()
    alone.remember([(14.0, 6.0, 3.0)], 1.0)
    alone.remember([], 1.0)
    assert alone.likely() == pytest.approx([1.0 / 42] * 42)


def test_a_copy_goes_on_by_itself():
    one = lake(BAND)
    before = one.ahead(10.0)
    other = one.copy()
    other.see([(10.0, 5)], **MARKS)
    assert other.ahead(10.0) > 1.5 * before
    assert one.ahead(10.0) == before


def test_where_a_dial_is_not_even_what_is_near_to_more_of_it_is_the_better_bet():
    one, at = Wanted(replace(DEPTH, even=False)), np.array(DEPTH.places)
    for value in (0.5, 4.0, 21.0):
        assert one.share(value) / one.share(10.0) == pytest.approx(
            bell(value, at).mean() / bell(10.0, at).mean(), rel=5e-3
        )
    assert one.share(10.0) > 1.05 > 0.95 > one.share(21.0)
    # On the whole it is the usual: the level means what it says.
    assert math.fsum(map(one.share, DEPTH.places)) / 42 == pytest.approx(1.0)
