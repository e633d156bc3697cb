"""The boat followed by a receiver: which of its many fixes say something new."""

from __future__ import annotations

import math
from collections import deque
from dataclasses import dataclass
from typing import Final

from ..chart.grid import GeoPoint, moved, offset_m
from ..checks import require_number

ROUGH_M: Final = 40.0
"""A fix that is worse than this says too little of where lures go (judged)."""
OFF_M: Final = 10.0
"""So far off the reckoned place the boat goes another way (judged: a turn shows in seconds)."""
RENEWED_S: Final = 60.0
"""As long as it goes straight on it is told anew after this, so that its doubt stays small."""
BASE_M: Final = 8.0
"""A course is taken over as much way, where the receiver tells none."""
UNDER_WAY_MPS: Final = 0.4
"""Slower than this a receiver's own course is noise (judged)."""
FASTEST_MPS: Final = 25.0
"""No fix lies farther from the one before than a fast boat goes; one that does is a jump."""
AGREEING: Final = 3
"""So many fixes that agree with each other after a jump were no jump."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Fix:
    """What a receiver tells.

    Parameters
    ----------
    at_s : float
        When, seconds since 1970-01-01 UTC.
    place : GeoPoint
        Where.
    accuracy_m : float
        How far off it may be by the receiver's own word, m.
    course_deg : float or None
        Course over ground, degrees from north.
    speed_mps : float or None
        Speed over ground, m/s.
    """

    at_s: float
    place: GeoPoint
    accuracy_m: float
    course_deg: float | None = None
    speed_mps: float | None = None


class Follower:
    """Hears every fix of a receiver and tells the few that say something new.

    Parameters
    ----------
    renewed_s : float
        After how long a boat that goes straight on is told anew, s.

    Notes
    -----
    Dead-reckoning thinning, as position reports of ships are spaced: a fix is recorded when the
    boat is not where it would be if it had gone straight on since the one recorded before, and
    each time ``renewed_s`` has gone by. A jump is heard only once three fixes agree on it.
    """

    def __init__(self, renewed_s: float = RENEWED_S) -> None:
        self._renewed_s = renewed_s
        self._told: tuple[Fix, float, float] | None = None
        self._heard: deque[Fix] = deque(maxlen=40)
        self._jumped: list[Fix] = []

    def hear(self, fix: Fix) -> tuple[Fix, float] | None:
        """Return what to record of a fix.

        Parameters
        ----------
        fix : Fix
            As it came.

        Returns
        -------
        (Fix, float) or None
            The fix and the course over ground, degrees from north; None where it says nothing new,
            is too rough, older than the last, or a jump.

        Raises
        ------
        InvalidInputError
            If a number of it cannot be.
        """
        require_number("at_s", fix.at_s, low=0.0)
        require_number("latitude_deg", fix.place.latitude_deg, low=-85.0, high=85.0)
        require_number("longitude_deg", fix.place.longitude_deg, low=-180.0, high=180.0)
        require_number("accuracy_m", fix.accuracy_m, low=0.0, unit="m")
        if fix.course_deg is not None:
            require_number("course_deg", fix.course_deg, low=0.0, high=360.0, unit="degrees")
        if fix.speed_mps is not None:
            require_number("speed_mps", fix.speed_mps, low=0.0, unit="m/s")
        if fix.accuracy_m > ROUGH_M or (fix.place.latitude_deg, fix.place.longitude_deg) == (0, 0):
            return None
        if self._heard and fix.at_s <= self._heard[-1].at_s:
            return None
        if not self._is_near(fix):
            return None
        self._heard.append(fix)
        way = self._way(fix)
        if way is None:
            return None
        course, speed = way
        if self._told is not None:
            told, told_course, told_speed = self._told
            age = fix.at_s - told.at_s
            reckoned = moved(told.place, course_deg=told_course, distance_m=told_speed * age)
            off = math.hypot(*offset_m(reckoned, fix.place))
            if off <= max(OFF_M, fix.accuracy_m) and age < self._renewed_s:
                return None
        self._told = fix, course, speed
        return fix, course

    def _is_near(self, fix: Fix) -> bool:
        if not self._heard or _could_go(self._heard[-1], fix):
            self._jumped.clear()
            return True
        if self._jumped and not _could_go(self._jumped[-1], fix):
            self._jumped.clear()
        self._jumped.append(fix)
        if len(self._jumped) < AGREEING:
            return False
        # The receiver was right, and what was heard before it was wrong.
        self._heard.clear()
        self._jumped.clear()
        self._told = None
        return True

    def _way(self, fix: Fix) -> tuple[float, float] | None:
        """Course and speed over ground; None until the boat has made some way."""
        for before in reversed(self._heard):
            east, north = offset_m(before.place, fix.place)
            way = math.hypot(east, north)
            if way >= max(BASE_M, before.accuracy_m):
                course: float | None = math.degrees(math.atan2(east, north)) % 360.0
                speed = way / (fix.at_s - before.at_s)
                break
        else:
            course, speed = None, 0.0
        if fix.speed_mps is not None:
            speed = fix.speed_mps
        if fix.course_deg is not None and speed >= UNDER_WAY_MPS:
            course = fix.course_deg % 360.0
        return None if course is None else (course, speed)


def _could_go(before: Fix, fix: Fix) -> bool:
    way = math.hypot(*offset_m(before.place, fix.place))
    return way <= before.accuracy_m + fix.accuracy_m + FASTEST_MPS * (fix.at_s - before.at_s)
