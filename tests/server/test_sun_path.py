"""The library that gives the sun's path, against the published example of the solar position."""

from __future__ import annotations

from datetime import datetime, timedelta, timezone

import pytest
from astral import Observer
from astral.sun import azimuth, elevation


def test_sun_stands_where_the_published_example_has_it():
    # Reda & Andreas (2004), Solar Energy 76, 577-589: zenith 50.11162, azimuth 194.34024 degrees.
    place = Observer(latitude=39.742476, longitude=-105.1786, elevation=1830.14)
    when = datetime(2003, 10, 17, 12, 30, 30, tzinfo=timezone(timedelta(hours=-7)))
    assert 90.0 - elevation(place, when) == pytest.approx(50.11162, abs=0.01)
    assert azimuth(place, when) == pytest.approx(194.34024, abs=0.01)
