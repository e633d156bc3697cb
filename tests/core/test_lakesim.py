"""The simulated lake: the same seed, the same day; costs are paid; what was counted is told."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

import numpy as np
import pytest

from coldwake_core.constants import MPH_MPS
from coldwake_core.lakesim import bench
from coldwake_core.lakesim.boat import (
    RIVER_BOX,
    Look,
    RodState,
    at_depth,
    depth_of,
    recipe_of,
    works,
)
from coldwake_core.lakesim.claims import Claim, claims_of, tenths_of
from coldwake_core.lakesim.day import Aboard, Change, opening, play
from coldwake_core.lakesim.other import Lively, OtherLaws, Reversed
from coldwake_core.lakesim.policies import Advisor, Fixed, Habit, Oracle
from coldwake_core.lakesim.river import River
from coldwake_core.lakesim.standard import Standard
from coldwake_core.lakesim.steps import steps_of
from coldwake_core.lakesim.world import DAY_MIN, Fate, Seen, Shown, World

WORLDS = (Standard, OtherLaws, Reversed)


def aboard(world: World, minute: int = 0) -> Aboard:
    rods, speed = opening(world.seen(0))
    return Aboard(
        minute=minute, seen=world.seen(minute), rods=rods, speed_mps=speed, out_until=[0.0] * 6
    )


def shown(rod: RodState, speed_mps: float, **changes: object) -> Shown:
    values: dict[str, object] = {
        "recipe": recipe_of(rod, speed_mps), "works": works(rod.look, speed_mps), "baited": True,
        "turning": "", **changes,
    }
    return Shown(**values)  # type: ignore[arg-type]


@pytest.mark.parametrize("world", WORLDS)
def test_a_seed_is_a_day(world):
    one, again, other = world(5), world(5), world(6)
    assert one.seen(100) == again.seen(100)
    assert one.seen(100) != other.seen(100)
    rods, speed = opening(one.seen(0))
    lures = [shown(rod, speed) for rod in rods]
    assert one.rates(60, lures) == again.rates(60, lures)
    marks = [w.marks(60, np.random.default_rng(1)) for w in (one, again)]
    assert marks[0] == marks[1]
    first, second = play(world(5), Fixed(), 5), play(world(5), Fixed(), 5)
    assert (first.hits, first.landed) == (second.hits, second.landed)


@pytest.mark.parametrize("world", WORLDS)
def test_every_rate_is_one_and_a_lure_that_spins_or_lost_its_bait_earns_less(world):
    day = world(3)
    rods, speed = opening(day.seen(0))
    for minute in range(0, DAY_MIN, 37):
        rates = day.rates(minute, [shown(rod, speed) for rod in rods])
        assert all(math.isfinite(rate) and rate >= 0.0 for rate in rates)
        one = shown(rods[0], speed)
        spun, bare = shown(rods[0], speed, works=False), shown(rods[0], speed, baited=False)
        right, rolled, empty = day.rates(minute, [one, spun, bare])
        assert rolled < right
        assert empty < right
        fate = day.fate(minute, one)
        assert 0.0 < fate.hooked <= 1.0
        assert 0.0 < fate.landed <= 1.0


def test_a_lively_lake_is_the_standard_one_with_twice_the_bites():
    for seed in (3, 4):
        usual, lively = Standard(seed), Lively(seed)
        rods, speed = opening(usual.seen(0))
        lures = [shown(rod, speed) for rod in rods]
        for minute in (5, 200, 470):
            assert lively.seen(minute) == usual.seen(minute)
            assert lively.rates(minute, lures) == pytest.approx(
                [2.0 * rate for rate in usual.rates(minute, lures)]
            )
            marks = [w.marks(minute, np.random.default_rng(1)) for w in (usual, lively)]
            assert marks[0] == marks[1]


def test_depth_is_the_line_solver_s():
    look = Look(lure="small hoochie", colour="pink", attractor="small dodger", leader_m=0.3)
    rod = RodState(kind="leadcore", look=look, setback_m=1.0, setting_m=33.0)
    slow, fast = depth_of(rod, 1.2 * MPH_MPS), depth_of(rod, 1.8 * MPH_MPS)
    # Common practice: 6 to 8 ft a colour at 1.2-1.5 mph, less when faster; 27 m are three colours.
    assert 3 * 6 * 0.3048 * 0.7 < slow < 3 * 8 * 0.3048 * 1.3
    assert fast < slow
    there = at_depth(rod, 1.5 * MPH_MPS, 5.0)
    assert depth_of(there, 1.5 * MPH_MPS) == pytest.approx(5.0, abs=0.1)
    assert at_depth(rod, 1.5 * MPH_MPS, 200.0) is None


def test_a_dodger_works_in_its_range_and_a_hoochie_only_behind_something():
    look = Look(lure="small hoochie", colour="pink", attractor="small dodger", leader_m=0.3)
    # Common practice: a small dodger swings from 0.9 to 1.6 or so.
    assert works(look, 1.3 * MPH_MPS)
    assert not works(look, 2.5 * MPH_MPS)
    naked = Look(lure="small hoochie", colour="pink", attractor="none", leader_m=0.3)
    assert not works(naked, 1.3 * MPH_MPS)


class Once:
    """Takes one change at a minute, then fishes on."""

    name = "once"

    def __init__(self, minute: int, cost_min: float) -> None:
        self.minute, self.cost_min = minute, cost_min

    def begin(self, aboard: Aboard, world: World) -> None:
        self.aboard = aboard

    def decide(self, aboard: Aboard) -> Change | None:
        if aboard.minute != self.minute:
            return None
        return Change(kind="depth", rods=((1, aboard.rods[1]),), cost_min=self.cost_min)


def test_a_change_is_paid_for_in_minutes_out_of_the_water():
    def fished(cost_min: float) -> int:
        policy = Once(100, cost_min)
        play(Standard(9), policy, 9)
        return sum(1 for at, _ in policy.aboard.fished[1] if 100 <= at < 130)

    assert fished(0.0) - fished(20.0) == 20


def test_who_knows_the_truth_catches_more_and_who_does_nothing_changes_nothing():
    hits = {name: 0 for name in ("fixed", "habit", "advisor", "oracle")}
    for seed in range(900, 904):
        for policy in (Fixed(), Habit(), Advisor(), Oracle()):
            result = play(Standard(seed), policy, seed)
            assert result.landed <= result.hooked <= result.hits
            hits[policy.name] += result.hits
            assert result.changes == 0 or policy.name != "fixed"
    # Four days tell no more: habit and advice are held apart by the bench's three hundred.
    assert hits["fixed"] < hits["advisor"] < hits["oracle"]


def test_steps_swim_right_keep_off_the_bottom_and_change_one_thing():
    state = aboard(Standard(4))
    for change in steps_of(state):
        assert (change.speed_mps is None) == (len(change.rods) == 1)
        for index, rod in change.rods:
            assert works(rod.look, state.speed_mps)
            before = state.rods[index]
            assert rod.kind == before.kind
            dials = [
                name for name in ("lure", "colour", "attractor", "leader_m")
                if getattr(rod.look, name) != getattr(before.look, name)
            ]
            assert len(dials) <= 1
            if change.kind == "depth":
                assert depth_of(rod, state.speed_mps) < state.seen.bottom_m - 0.5


def test_a_river_s_plugs_are_kept_off_its_bed():
    river = River(3)
    rods, speed = opening(river.seen(0), RIVER_BOX)
    state = Aboard(
        minute=0, seen=river.seen(0), rods=rods, speed_mps=speed, out_until=[0.0] * 4,
        box=RIVER_BOX,
    )
    lines = [c.rods[0][1] for c in steps_of(state) if c.kind in ("setback", "lure")]
    assert lines
    assert all(depth_of(rod, speed) < state.seen.bottom_m - 0.3 for rod in lines)
    # The next lip on the longest line would plough it.
    deepest = replace(
        rods[0], look=replace(rods[0].look, lure="river plug, next lip"), setting_m=32.0,
        setback_m=32.0,
    )
    assert depth_of(deepest, speed) > state.seen.bottom_m - 0.3


def test_marks_of_the_reversed_world_are_of_other_fish():
    seen = []
    for seed in range(40):
        day = Reversed(seed)
        marks = [m for minute in range(0, 240, 4)
                 for m in day.marks(minute, np.random.default_rng((seed, minute)))]
        if marks:
            seen.append(abs(float(np.median(marks)) - float(day.deep[:240].mean())))
    assert np.mean(seen) > 4.0


class Tiny:
    """A world written elsewhere, as docs/lakesim.md describes one."""

    def __init__(self, seed: int) -> None:
        self.seed = seed

    def seen(self, minute: int) -> Seen:
        return Seen(
            surface_degc=10.0, sun_deg=30.0, cloud=0.2, wind_mps=2.0, secchi_m=4.0, bottom_m=20.0
        )

    def marks(self, minute: int, rng: np.random.Generator) -> list[float]:
        return [6.0] if minute % 30 == 0 else []

    def rates(self, minute: int, shown: Sequence[Shown]) -> list[float]:
        return [0.05 if one.recipe.colour == "pink" else 0.005 for one in shown]

    def fate(self, minute: int, shown: Shown) -> Fate:
        return Fate(hooked=1.0, landed=0.5)


def test_a_world_from_elsewhere_drops_in_and_a_stopped_run_goes_on(tmp_path, monkeypatch, capsys):
    monkeypatch.syspath_prepend(str(tmp_path.parent))
    path = f"{Tiny.__module__}:Tiny"
    asked = ["--world", path, "--days", "2", "--policies", "fixed,oracle", "--jobs", "1",
             "--out", str(tmp_path)]
    assert bench.main(asked) == 0
    said = capsys.readouterr().out
    assert "| fixed |" in said
    assert (tmp_path / f"{Tiny.__module__}.Tiny.svg").stat().st_size > 1000
    file = tmp_path / f"{Tiny.__module__}.Tiny.csv"
    whole = file.read_text().splitlines()
    assert len(whole) == 5
    # Killed in the middle of a line: that day is fished again, the others are not.
    file.write_text("\n".join([*whole[:3], whole[3][: len(whole[3]) // 3]]) + "\n")
    fished = []
    monkeypatch.setattr(bench, "fish_day", lambda *item: fished.append(item) or bench.Row(
        world=item[0], seed=item[1], policy=item[2], hits=1, hooked=1, landed=1, changes=0,
        decide_ms=0.0,
    ))
    assert bench.main(asked) == 0
    assert len(fished) == 2


def test_advice_finds_the_one_colour_that_they_want():
    class Pink(Tiny):
        """Nothing but pink."""

    # Not each day: where only a colour is wanted, early hits are easily laid to another dial.
    base = sum(play(Pink(s), Fixed(), s).hits for s in range(6))
    found = sum(play(Pink(s), Advisor(), s).hits for s in range(6))
    assert found > 1.8 * base


@pytest.mark.parametrize(("path", "said"), [
    ("nowhere:World", "cannot be loaded"), ("math:pi", "no method seen"),
    ("coldwake_core.lakesim.standard:Nothing", "cannot be loaded"),
    ("nonsense", "cannot be loaded"),
])
def test_what_is_no_world_is_told(path, said):
    with pytest.raises(SystemExit, match=said):
        bench.load_world(path)


def rows(policy: str, hits: Sequence[int]) -> list[bench.Row]:
    return [
        bench.Row(world="w", seed=i, policy=policy, hits=h, hooked=h, landed=0, changes=2,
                  decide_ms=1.0)
        for i, h in enumerate(hits)
    ]


def test_ratios_are_of_means_and_their_interval_holds_them():
    both = rows("fixed", [2, 4, 6, 8] * 20) + rows("advisor", [6, 8, 12, 14] * 20)
    ratio, low, high = bench.ratio_of(both, "advisor", "fixed")
    assert ratio == pytest.approx(10.0 / 5.0)
    # Bootstrap in pairs: the standard error of the ratio here is about 0.04 (delta method).
    assert 1.85 < low < 2.0 < high < 2.15
    line = bench.lines_of(both, ["fixed"])[0]
    assert line.hits == 5.0
    # Standard error of the mean: sqrt(5 / 80) = 0.25.
    assert line.low == pytest.approx(5.0 - 1.96 * 0.25, abs=0.1)
    assert line.changes == 2.0


def test_claims_are_held_against_the_truth_by_tenths():
    claims = [Claim(probability=0.72, true=i < 7, taken=True) for i in range(10)]
    claims += [Claim(probability=1.0, true=True, taken=False)]
    tenths = tenths_of(claims)
    assert [(t.low, t.count) for t in tenths] == [(0.7, 10), (0.9, 1)]
    assert tenths[0].true == pytest.approx(0.7)
    assert tenths[0].stated == pytest.approx(0.72)


def test_what_is_true_was_held_more_probable_than_what_is_not():
    claims = claims_of("coldwake_core.lakesim.standard:Standard", range(950, 952))
    assert len(claims) > 500
    true = np.mean([c.probability for c in claims if c.true])
    false = np.mean([c.probability for c in claims if not c.true])
    assert true > false + 0.05


class Round:
    """Turns round every so many minutes, or never."""

    name = "round"

    def __init__(self, every: int) -> None:
        self.every = every

    def begin(self, aboard: Aboard, world: World) -> None:
        self.aboard = aboard

    def decide(self, aboard: Aboard) -> Change | None:
        turn = self.every and aboard.minute % self.every == 0
        return Change(kind="turn", turn_round=True) if turn else None


def test_who_turns_round_meets_the_same_places_again_after_the_minutes_of_the_turn():
    on, back = Round(0), Round(20)
    for policy in (on, back):
        play(Standard(7), policy, 7, until_min=50)
    lap = on.aboard.lap_min
    assert on.aboard.places[30] == pytest.approx(30.0 / lap % 1.0)
    # Nineteen minutes on, two to turn, then back by the way it came.
    assert back.aboard.places[19] == back.aboard.places[21]
    assert back.aboard.places[25] == pytest.approx(back.aboard.places[15])


def test_school_that_is_passed_again_and_again_is_scared_and_comes_back():
    day = Standard(11)
    centre, _, size = max(day.schools, key=lambda school: school[2])
    fresh = day.crowd_at(centre)
    assert fresh == pytest.approx(size)
    for minute in range(20):
        day.placed(minute, centre)
    scared = day.crowd_at(centre)
    # A twentieth goes each minute and a fortieth of those gone come back: under three quarters.
    assert scared < 0.75 * fresh
    for minute in range(20, 200):
        day.placed(minute, (centre + 0.5) % 1.0)
    assert scared < 0.95 * fresh < day.crowd_at(centre) <= fresh
    # What was met in a minute stays as it was, whatever is asked later.
    assert day.crowd(19) > day.crowd(25)


def test_advice_in_a_world_without_a_lap_never_turns():
    class Watched(Advisor):
        turned = 0

        def decide(self, aboard: Aboard) -> Change | None:
            change = super().decide(aboard)
            Watched.turned += change is not None and change.turn_round
            return change

    play(Tiny(1), Watched(), 1, until_min=240)
    assert Watched.turned == 0
    for seed in (901, 902, 903):
        if not Watched.turned:
            play(Standard(seed), Watched(), seed, until_min=300)
    assert Watched.turned > 0
