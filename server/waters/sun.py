"""The light of a day, by a library."""

from __future__ import annotations

from datetime import date, datetime, timedelta, timezone

from astral import Observer
from astral.sun import dawn, dusk, elevation, noon, sunrise, sunset

from coldwake_core.record.trip import Sun


def sun_of_day(
    *, latitude_deg: float, longitude_deg: float, day: date, utc_offset_min: int
) -> Sun:
    """Return civil twilight and day of a date at a place.

    Where a time does not come that day, it is set twelve hours either side of noon, so that the
    ribbon of the day still has two ends. A sun that does not rise rises and sets at noon: a day of
    no length.
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

    up_h = 12.0 if elevation(observer, datetime.fromtimestamp(middle, zone)) > 0.0 else 0.0
    return Sun(
        first_light_s=moment(dawn, -12.0), sunrise_s=moment(sunrise, -up_h),
        sunset_s=moment(sunset, up_h), dark_s=moment(dusk, 12.0),
    )
