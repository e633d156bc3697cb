"""The electrolysis test."""

from __future__ import annotations

import pytest
from trip_cases import at, event, session

from coldwake_core.errors import InvalidInputError, UnknownItemError
from coldwake_core.gear.voltage import read_voltage
from coldwake_core.places.rig.bench import check_spread


@pytest.mark.parametrize(
    ("volts", "verdict"),
    # Common practice: slightly positive, about +0.5 to +0.8 V; negative is the one to mend.
    [(-0.2, "negative"), (0.1, "low"), (0.5, "good"), (0.8, "good"), (1.4, "high")],
)
def test_reading_gets_its_verdict(volts: float, verdict: str):
    assert read_voltage(volts).verdict == verdict


def test_negative_names_the_usual_cause():
    assert "reversed leads" in read_voltage(-0.4).words


def test_history_is_kept_the_latest_first_and_both_schools_speak():
    trip = session(
        event("voltage_read", 1, place_id="rigger-port", volts=-0.3),
        event("voltage_read", 5, place_id="rigger-port", volts=0.6),
    )
    check = check_spread(trip.now)
    assert [(v.at_s, v.reading.verdict) for v in check.voltages] == [
        (at(5), "good"),
        (at(1), "negative"),
    ]
    assert "One school" in check.voltage_schools
    assert "another" in check.voltage_schools


def test_rod_holder_has_no_cable_to_measure():
    with pytest.raises(InvalidInputError, match="downrigger"):
        session(event("voltage_read", 1, place_id="port-bow", volts=0.5))
    with pytest.raises(UnknownItemError, match="place_id"):
        session(event("voltage_read", 1, place_id="mast", volts=0.5))


@pytest.mark.parametrize("volts", [230.0, -40.0, float("nan")])
def test_what_no_cable_shows_is_refused(volts: float):
    with pytest.raises(InvalidInputError, match="volts"):
        session(event("voltage_read", 1, place_id="rigger-port", volts=volts))
