"""What can be typed and what cannot: the last that is taken and the first that is not."""

from __future__ import annotations

from dataclasses import replace

import pytest
from tackle import demo_outfit

from coldwake_core.decode import decode
from coldwake_core.errors import InvalidInputError
from coldwake_core.gear.beat import Beat, predicted_rate_hz, speed_from_beat
from coldwake_core.gear.pieces import FASTEST_MPS, SpeedRange
from coldwake_core.gear.setup import RodSetup
from coldwake_core.gear.tackle import LineSpec, Outfit, Place
from coldwake_core.lines.plugfit import DivePoint
from coldwake_core.record.payloads import (
    DEEPEST_M,
    ClearanceChosen,
    Landed,
    LineSet,
    MarkSeen,
    OffsetChosen,
    PositionFixed,
)

SETUP = RodSetup(rod_id="r", place_id="p", line_id="l", lure_id="x")
WEIGHTED = replace(SETUP, weight_kg=0.1, weight_ahead_m=1.0)
RIGGER = Place(
    id="p", name="rigger", kind="downrigger", side_m=1.0, tip_height_m=1.0,
    cable_material_id="cable-steel-150", cable_length_m=60.0, ball_kg=4.0,
)  # fmt: skip
LEADCORE = LineSpec(
    id="l", name="core", kind="leadcore", material_id="mono-15", length_m=50.0,
    core_material_id="leadcore-18", core_length_m=90.0, leader_material_id="fluoro-12",
    leader_length_m=6.0,
)  # fmt: skip
OUTFIT = decode(Outfit, demo_outfit())
FIX = PositionFixed(latitude_deg=44.0, longitude_deg=-120.0, course_deg=90.0)


def over(value: float) -> float:
    return value + 0.001 * max(abs(value), 1.0)


# The thing, the field, its lowest and highest; ``above`` where the lowest itself is not taken.
LIMITS = [
    (SETUP, "leader_m", 0.0, 10.0, False),
    (SETUP, "setback_m", 0.0, 91.44, False),
    (WEIGHTED, "weight_kg", None, 1.0, False),
    (WEIGHTED, "weight_ahead_m", 0.0, 30.0, True),
    (WEIGHTED, "drop_m", 0.0, 3.0, False),
    (SETUP, "above_ball_m", 0.0, 60.0, False),
    (replace(SETUP, above_ball_m=3.0), "slider_kg", 0.0, 1.0, False),
    (RIGGER, "side_m", -60.0, 60.0, False),
    (RIGGER, "tip_height_m", 0.0, 6.0, False),
    (RIGGER, "aft_m", -15.0, 15.0, False),
    (RIGGER, "ball_kg", 0.2, 15.0, True),
    (LEADCORE, "length_m", 0.0, 500.0, True),
    (LEADCORE, "core_length_m", 0.0, 400.0, True),
    (LEADCORE, "leader_length_m", 0.0, 60.0, True),
    (LEADCORE, "count", 0, 99, False),
    (OUTFIT, "boat_length_m", 1.5, 20.0, False),
    (SpeedRange(low_mps=0.5, high_mps=1.0), "high_mps", 0.5, FASTEST_MPS, True),
    (DivePoint(out_m=30.0, depth_m=0.5), "out_m", 1.0, 300.0, True),
    (DivePoint(out_m=300.0, depth_m=2.0), "depth_m", 0.0, 60.0, True),
    (DivePoint(out_m=30.0, depth_m=2.0), "speed_mps", 0.2, 4.0, False),
    (LineSet(rod_id="r", setting_m=10.0), "setting_m", 0.0, 500.0, True),
    (MarkSeen(depth_m=5.0, count=3), "count", 1, 500, False),
    (MarkSeen(depth_m=5.0, count=3), "depth_m", 0.0, DEEPEST_M, True),
    (OffsetChosen(above_mark_m=0.5), "above_mark_m", -5.0, 10.0, False),
    (ClearanceChosen(clearance_m=1.0), "clearance_m", 0.0, 10.0, False),
    (FIX, "latitude_deg", -85.0, 85.0, False),
    (FIX, "longitude_deg", -180.0, 180.0, False),
    (FIX, "course_deg", 0.0, 360.0, False),
    (Landed(rod_id="r", kept=True, length_m=0.5), "length_m", 0.03, 2.0, False),
]


@pytest.mark.parametrize(
    ("thing", "field", "low", "high", "above"),
    LIMITS,
    ids=[f"{type(row[0]).__name__}.{row[1]}" for row in LIMITS],
)
def test_limits_are_taken_and_what_lies_beyond_is_named(thing, field, low, high, above):
    replace(thing, **{field: high}).check()
    beyond = [high + 1 if isinstance(high, int) else over(high)]
    if low is not None:
        inside = low + 1e-3 * max(abs(low), 1.0) if above else low
        replace(thing, **{field: inside}).check()
        beyond.append(low if above else (low - 1 if isinstance(low, int) else -over(-low)))
    for value in beyond:
        with pytest.raises(InvalidInputError) as caught:
            replace(thing, **{field: value}).check()
        assert caught.value.field == field or field in str(caught.value)


def test_slider_needs_a_place_on_the_cable_and_a_weight_one_on_the_line():
    with pytest.raises(InvalidInputError, match="above_ball_m"):
        replace(SETUP, slider_kg=0.1).check()
    replace(SETUP, slider_kg=0.1, above_ball_m=2.0).check()
    with pytest.raises(InvalidInputError, match="weight_ahead_m"):
        replace(SETUP, weight_kg=0.1).check()
    with pytest.raises(InvalidInputError, match="weight_kg"):
        replace(SETUP, drop_m=0.3).check()


def test_limits_of_a_count_beside_the_boat():
    beat = Beat(beats=24, seconds=10.0, speed_mps=0.6)
    assert speed_from_beat(beat, beats=500, seconds=300.0).speed_mps > 0.0
    for beats, seconds in ((501, 300.0), (20, 300.1), (151, 10.0)):
        with pytest.raises(InvalidInputError):
            speed_from_beat(beat, beats=beats, seconds=seconds)
    assert predicted_rate_hz(beat, 10.0) == pytest.approx(40.0)
    with pytest.raises(InvalidInputError):
        predicted_rate_hz(beat, 10.1)
