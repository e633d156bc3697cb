"""The light of a day, by a library."""

from __future__ import annotations

from datetime import date, datetime, timedelta, timezone

from astral import Observer
from astral.sun import dawn, dusk, noon, sunrise, sunset

from coldwake_core.record.trip import Sun


def sun_of_day(
    *, latitude_deg: float, longitude_deg: float, day: date, utc_offset_min: int
) -> Sun:
    """Return civil twilight and day of a date at a place.

    Where the sun does not rise or set that day, the missing times are set twelve hours either
    side of noon, so that the ribbon of the day still has two ends.
    """
    zone = timezone(timedelta(minutes=utc_offset_min))
    observer = Observer(latitude=latitude_deg, longitude=longitude_deg)
    middle = noon(observer, date=day, tzinfo=zone).timestamp()

    def moment(function: object, fallback_h: float) -> float:
        try:
            found: datetime = function(observer, date=day, tzinfo=zone)  # type: ignore[operator]
        except ValueError:
            return middle + fallback_h * 3600.0
        return found.timestamp()

    return Sun(
        first_light_s=moment(dawn, -12.0), sunrise_s=moment(sunrise, -12.0),
        sunset_s=moment(sunset, 12.0), dark_s=moment(dusk, 12.0),
    )
