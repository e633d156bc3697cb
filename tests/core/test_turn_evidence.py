"""What a turn says of the speed that fish want: inside lines slow, outside ones speed up."""

from __future__ import annotations

import math
import statistics
from dataclasses import replace
from itertools import pairwise
from typing import Any

import pytest
from tackle import demo_outfit
from trip_cases import at, event, session

from coldwake_core.decode import encode
from coldwake_core.evidence.recipe import Recipe
from coldwake_core.tow.manoeuvre import Towed, chain, unfold
from coldwake_core.tow.turns import USUAL_RADIUS_M, turn_speed_share
from coldwake_core.trip.learnt import learnt, taught
from coldwake_core.trip.pieces import steps_of

SPEED = 0.8
RECIPE = Recipe(
    depth_m=1.0, speed_mps=SPEED, setback_m=24.0, leader_m=None, flash=0.3, thump=0.3,
    colour="silver", lure="Floating minnow 9",
)


def unfolded(side_m: float, trail_m: float) -> tuple[float, float]:
    """Mean speeds of a lure in an S-turn as it unfolds, in its bends inside and outside."""
    shots = unfold(
        {"a": Towed(aft_m=0.0, side_m=side_m, links_m=chain(trail_m, 0.3))}, kind="s_turn",
        toward="port", radius_m=USUAL_RADIUS_M, speed_mps=1.0,
    )
    inside, outside = [], []
    for before, after in pairwise(shots):
        bent = after.turned_deg - before.turned_deg
        if abs(bent) > 1e-6:
            to_port = bent < 0.0
            (inside if to_port == (side_m < 0.0) else outside).append(after.speeds_mps["a"])
    return statistics.fmean(inside), statistics.fmean(outside)


@pytest.mark.parametrize("trail_m", [8.0, 25.0, 45.0, 60.0])
@pytest.mark.parametrize("side_m", [-2.4, -1.1, 1.1, 2.4])
def test_speed_in_a_turn_is_near_that_of_lines_pulled_round_it(side_m, trail_m):
    inside, outside = (
        turn_speed_share(outward_m=out, trail_m=trail_m) for out in (-abs(side_m), abs(side_m))
    )
    assert (inside, outside) == pytest.approx(unfolded(side_m, trail_m), abs=0.08)


def test_the_tips_circle_sets_the_speed_and_at_its_centre_nothing_moves():
    assert turn_speed_share(outward_m=6.0, trail_m=0.0) == pytest.approx(1.2)
    assert turn_speed_share(outward_m=-6.0, trail_m=0.0) == pytest.approx(0.8)
    assert turn_speed_share(outward_m=-USUAL_RADIUS_M - 1.0, trail_m=5.0) == 0.0
    # A trail of half of sixty metres loses half of an eighth.
    assert turn_speed_share(outward_m=0.0, trail_m=30.0) == pytest.approx(0.94)
    assert turn_speed_share(outward_m=0.0, trail_m=300.0) == pytest.approx(0.88)


def fished(*more: dict[str, Any]) -> Any:
    """The same plug from a pole 6 m out to each side."""
    outfit = demo_outfit()
    for place in outfit["places"]:
        if place["id"].endswith("-bow"):
            place["side_m"] = math.copysign(6.0, place["side_m"])
    plug = encode(session().state.rods["rod-1"].setup)
    return session(
        event("speed_changed", 0, speed_mps=SPEED),
        event("rod_rigged", 0.5, **{**plug, "rod_id": "rod-6", "place_id": "starboard-bow"}),
        event("line_set", 1, rod_id="rod-1", setting_m=24.0),
        event("line_set", 1, rod_id="rod-6", setting_m=24.0),
        *more, outfit=outfit,
    )


def leaning(*more: dict[str, Any]) -> float:
    """By how much the day's model has faster ahead of slower, log of the rate."""
    model = learnt(fished(*more).now, at(62))
    fast, slow = (model.terms(replace(RECIPE, speed_mps=SPEED * k)) for k in (1.14, 0.76))
    return model.difference(fast, slow)[0]


TURNED = (22, 32, 42, 52)
HITS = [event("hit", minute + 0.4, rod_id="rod-1") for minute in TURNED]


def turns(toward: str, ended: float | None = None) -> list[dict[str, Any]]:
    told = [event("turn_begun", minute, toward=toward) for minute in TURNED]
    if ended is not None:
        told += [event("turn_ended", minute + ended) for minute in TURNED]
    return told


def test_hits_on_the_inside_say_slower_and_on_the_outside_faster():
    straight = leaning(*HITS)
    assert leaning(*HITS, *turns("port")) < straight - 0.05
    assert leaning(*HITS, *turns("starboard")) > straight + 0.05


def test_a_hit_after_the_bend_is_none_of_the_turn():
    dry, straight = leaning(*turns("port")) - leaning(), leaning(*HITS)
    # Straight again after a quarter of a minute; the bites came at 0.4. So a dry turn is all it is.
    assert leaning(*HITS, *turns("port", 0.25)) - straight == pytest.approx(0.25 * dry, abs=0.06)
    # A turn that nobody ended counts for a minute, also when the next one ends it.
    late = [event("hit", minute + 1.5, rod_id="rod-1") for minute in TURNED]
    assert leaning(*late, *turns("port")) - straight == pytest.approx(dry, abs=0.06)


def test_a_turn_takes_no_minute_from_what_was_fished_nor_counts_one_twice():
    overlapping = [*turns("port"), event("turn_begun", 22.5, toward="starboard")]
    for told in ([], turns("port", 0.25), turns("starboard"), overlapping):
        lessons = taught(fished(*HITS, *told).now, at(60))
        assert sum(item.minutes for item in lessons) == pytest.approx(2 * 59.0, abs=10.0)
    # To hold all, also what fished under ten minutes, the record is asked in pieces.
    steps = steps_of(fished(*HITS, *overlapping).now, at(60))
    pieces = [piece for found, _ in steps for piece in found]
    assert math.fsum(piece.minutes for piece in pieces) == pytest.approx(2 * 59.0)
    assert sum(piece.hits for piece in pieces) == len(HITS)


def test_a_lure_behind_a_clip_trails_by_its_setback():
    rigger = next(p for p in demo_outfit()["places"] if p["id"] == "rigger-port")
    opened = fished(
        event("line_set", 1, rod_id="rod-3", setting_m=9.0), event("turn_begun", 22, toward="port")
    )
    setup = opened.state.rods["rod-3"].setup
    assert setup.place_id == "rigger-port"
    assert abs(setup.setback_m - 9.0) > 5.0
    speeds = {
        piece.speed_mps for pieces, _ in steps_of(opened.now, at(30)) for piece in pieces
        if piece.rod_id == "rod-3"
    }
    # To port the port rigger is inside.
    share = turn_speed_share(outward_m=-abs(rigger["side_m"]), trail_m=setup.setback_m)
    assert speeds == {SPEED, round(SPEED * share, 2)}
