"""What a trip starts with: the water, the species, the outfit aboard."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from typing import Literal

from ..chart.features import KEEP_OUT, MOST_FEATURES, Feature
from ..chart.grid import DepthGrid, GeoPoint
from ..checks import require_choice, require_number, require_text
from ..errors import InvalidInputError
from ..gear.setup import RodSetup
from ..gear.tackle import Outfit
from ..rig_rules.law import WaterRules
from ..trade import Species
from .earlier import MOST_DAYS, EarlierDay
from .payloads import check_depth
from .planned import DayPlan


@dataclass(frozen=True, slots=True, kw_only=True)
class Sun:
    """The light of the day, seconds since 1970-01-01 UTC.

    Parameters
    ----------
    first_light_s, sunrise_s, sunset_s, dark_s : float
        Begin and end of civil twilight and of day.
    """

    first_light_s: float
    sunrise_s: float
    sunset_s: float
    dark_s: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PastReading:
    """A depth seen with a tackle, on this trip or on an earlier one.

    Parameters
    ----------
    id : str
        The event that recorded it.
    setup : RodSetup
        What was out.
    setting_m : float
        The number that was set, m.
    speed_mps : float
        Speed through water, m/s.
    depth_m : float
        The depth seen, m.
    of : {'lure', 'ball'}
        What was seen there: a lure by touch, a ball on the sonar.
    mates : tuple of RodSetup
        Other lines that were out on the same cable.
    place : GeoPoint or None
        Where the boat was, if it knew.
    course_deg : float
        Its course there, degrees from north.
    """

    id: str
    setup: RodSetup
    setting_m: float
    speed_mps: float
    depth_m: float
    of: Literal["lure", "ball"] = "lure"
    mates: tuple[RodSetup, ...] = ()
    place: GeoPoint | None = None
    course_deg: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Trip:
    """A trip, apart from its events.

    Parameters
    ----------
    id, name, water_name : str
        Key, plain name, name of the water.
    species : Species
        What is fished for.
    started_at_s : float
        Start, seconds since 1970-01-01 UTC.
    utc_offset_min : int
        Local time less UTC, minutes.
    bottom_m : float
        Depth of the water until a sounding says better, m.
    outfit : Outfit
        What is aboard.
    sun : Sun
        The light of the day.
    clock_shift_s : float
        What to take from the wall clock to get the trip's own: 0 on the water, something else for
        a trip that is replayed or practised, s.
    rest_after_s : float or None
        How long after the latest event the trip's clock stands still, s: a demo rests when nobody
        acts; None on the water.
    clock_pace, clock_set_s : float
        How fast the trip's clock goes, and the moment of the wall clock at which the shift held: a
        practised trip goes faster, or stands while its pace is 0.
    is_practice : bool
        Whether its fish are made up: it stands in no season.
    readings : tuple of PastReading
        Depths seen on earlier trips with this outfit.
    chart : DepthGrid or None
        Depth chart of the water.
    keep_out : tuple of Feature
        Closed water and hazards, as its user entered them.
    rules : WaterRules or None
        What the user entered as the water's rules.
    plan : DayPlan or None
        The day as it was planned.
    earlier : tuple of EarlierDay
        What earlier days like this one have taught.
    """

    id: str
    name: str
    water_name: str
    species: Species
    started_at_s: float
    utc_offset_min: int
    bottom_m: float
    outfit: Outfit
    sun: Sun
    clock_shift_s: float = 0.0
    rest_after_s: float | None = None
    clock_pace: float = 1.0
    clock_set_s: float = 0.0
    is_practice: bool = False
    readings: tuple[PastReading, ...] = ()
    chart: DepthGrid | None = None
    keep_out: tuple[Feature, ...] = ()
    rules: WaterRules | None = None
    plan: DayPlan | None = None
    earlier: tuple[EarlierDay, ...] = ()

    def check(self) -> None:
        """Raise InvalidInputError unless name, depth and time zone can be."""
        require_text("name", self.name, longest=120)
        require_text("water_name", self.water_name, longest=120)
        check_depth("bottom_m", self.bottom_m)
        if len(self.earlier) > MOST_DAYS:
            raise InvalidInputError("earlier", len(self.earlier), f"at most {MOST_DAYS} days")
        if len(self.keep_out) > MOST_FEATURES:
            raise InvalidInputError("keep_out", len(self.keep_out), f"at most {MOST_FEATURES}")
        for i, feature in enumerate(self.keep_out):
            require_choice(f"keep_out[{i}].kind", feature.kind, KEEP_OUT)
        require_number("utc_offset_min", self.utc_offset_min, low=-840, high=840, unit="min")
        require_number("clock_pace", self.clock_pace, low=0.0, high=120.0)

    def local_hour(self, at_s: float) -> float:
        """Return the local clock time of a moment.

        Parameters
        ----------
        at_s : float
            Seconds since 1970-01-01 UTC.

        Returns
        -------
        float
            Hours since local midnight, 0 to 24.
        """
        local = self._local(at_s)
        return local.hour + local.minute / 60.0 + local.second / 3600.0

    def local_month(self, at_s: float) -> int:
        """Return the month, 1-12, at the water.

        Parameters
        ----------
        at_s : float
            Seconds since 1970-01-01 UTC.

        Returns
        -------
        int
        """
        return self._local(at_s).month

    def local_day(self, at_s: float) -> date:
        """Return the day by the calendar at the water.

        Parameters
        ----------
        at_s : float
            Seconds since 1970-01-01 UTC.

        Returns
        -------
        date
        """
        return self._local(at_s).date()

    def _local(self, at_s: float) -> datetime:
        return datetime.fromtimestamp(at_s, UTC) + timedelta(minutes=self.utc_offset_min)
