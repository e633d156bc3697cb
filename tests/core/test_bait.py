"""What a stretch on a baited hook is worth: bait that is gone earns little."""

from __future__ import annotations

import math

import pytest
from scipy.integrate import quad
from tackle import demo_rigged_events
from trip_cases import at, event, session

from coldwake_core.constants import MPH_MPS
from coldwake_core.evidence.bait import BAIT_HALF_MIN, BARE_SHARE, baited_minutes
from coldwake_core.trip.learnt import learnt


def baited_setup():
    return next(
        e["payload"] for e in demo_rigged_events() if e["payload"]["rod_id"] == "rod-4"
    )


def by_hand(first_min, last_min, looks_min, hits_min):
    """The same integral by numbers."""
    def worth(t):
        seen = [look for look in looks_min if look <= t]
        if not seen:
            return 1.0
        bites = sum(1 for hit in hits_min if seen[-1] <= hit <= t)
        on = 0.5 ** ((t - seen[-1]) / BAIT_HALF_MIN + bites)
        return BARE_SHARE + (1.0 - BARE_SHARE) * on

    cuts = sorted(t for t in (*looks_min, *hits_min) if first_min < t < last_min)
    return quad(worth, first_min, last_min, points=cuts or None, epsabs=1e-9)[0]


@pytest.mark.parametrize(("looks", "hits"), [
    ([0.0], []), ([0.0, 25.0, 50.0], []), ([0.0], [40.0, 41.0]), ([10.0], [5.0]),
    ([-200.0], []), ([0.0, 60.0], [30.0]), ([], [10.0]),
])
def test_stretch_is_the_integral_of_the_chance_that_bait_is_on(looks, hits):
    found = baited_minutes(
        start_s=0.0, end_s=90.0 * 60.0, looks=[60.0 * t for t in looks],
        hits=[60.0 * t for t in hits],
    )
    assert found == pytest.approx(by_hand(0.0, 90.0, looks, hits), rel=1e-6)
    assert BARE_SHARE * 90.0 <= found <= 90.0


def test_bait_half_gone_after_its_half_time_and_all_of_it_in_the_end():
    long = baited_minutes(start_s=1e5, end_s=1e5 + 60.0, looks=[0.0], hits=[])
    assert long == pytest.approx(BARE_SHARE, abs=0.001)
    half = baited_minutes(
        start_s=60.0 * BAIT_HALF_MIN, end_s=60.0 * BAIT_HALF_MIN + 1.0, looks=[0.0], hits=[]
    )
    assert half * 60.0 == pytest.approx(BARE_SHARE + 0.5 * (1.0 - BARE_SHARE), rel=1e-3)


def test_day_blames_a_bait_nobody_looked_at_less_than_one_that_was():
    """Three dry hours: the rod whose bait was looked at has shown more, so it is blamed more."""
    def believed(*looks):
        held = session(
            event("speed_changed", 0, speed_mps=1.2 * MPH_MPS),
            event("rod_rigged", 1, **{**baited_setup(), "bait_id": "corn"}),
            event("line_set", 2, rod_id="rod-4", setting_m=9.0),
            *(event("bait_checked", minute, rod_id="rod-4") for minute in looks),
        )
        model = learnt(held.now, at(182))
        start = model._dials["depth"][0]
        return math.fsum(model.mean[start:start + 5])

    assert believed(25, 50, 75, 100, 125, 150, 175) < believed() < 0.0
