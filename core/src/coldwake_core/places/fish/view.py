"""What the Fish view shows: plain data, the same on the server and in the browser."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ...advice.candidates import Comparison
from ...advice.cures import FunnelView
from ...advice.limits import LimitNow
from ...advice.method import Method
from ...advice.put_off import PutOff
from ...advice.situation import Move, RunnerUp
from ...boat.current import Current, PassSpeeds
from ...boat.wind import Wind
from ...evidence.verdict import JudgedMove
from ...gear.beat import Beat
from ...gear.inspection import CheckItem
from ...gear.pieces import SpeedRange
from ...gear.setup import RigKind, RodSetup
from ...gear.tackle import Shape
from ...gear.window import SpeedWindow, Verdict
from ...record.old import Unread
from ...record.state import RodStatus
from ...trip.keep_out import KeepOut
from ...trip.numbers import LineNumber, ReadingView, RodLine
from .bites import BiteView, CastingView, PassView


@dataclass(frozen=True, slots=True, kw_only=True)
class RodTally:
    """The funnel of one rod."""

    hits: int
    hooked: int
    landed: int
    kept: int
    lost: int


@dataclass(frozen=True, slots=True, kw_only=True)
class SpeedPair:
    """Two speeds through water, m/s."""

    first_mps: float
    second_mps: float


@dataclass(frozen=True, slots=True, kw_only=True)
class RodView:
    """One rod, in its order from port to starboard.

    Parameters
    ----------
    id, name : str
        Key and plain name.
    shape : Shape
        Its mark.
    kind : RigKind or None
        How it is fished; None when it is not rigged.
    place_name : str
        Where it stands.
    side_m, tip_height_m : float
        Lateral place and height of its tip, m.
    recipe : str
        What it wears, in a few words.
    status : RodStatus
        In, fishing or fish on.
    works : SpeedRange or None
        Speeds at which it works.
    verdict : Verdict or None
        Whether it works now.
    soak_since_s, bait_since_s : float or None
        Clocks, seconds since 1970-01-01 UTC; none for bait where nothing is baited.
    tally : RodTally
        Its funnel.
    setup : RodSetup or None
        What is on it.
    line : RodLine or None
        Where its lure is; None while it is in.
    last_setting_m : float or None
        The number to reset to, m.
    wanted_depth_m : float or None
        Depth it was set for, m.
    readings : tuple of ReadingView
        Depths seen with this very tackle.
    aft_m : float
        Its tip behind the transom, m.
    beat : Beat or None
        Its tip's beat, counted beside the boat.
    again : str or None
        Why its lure should be looked at again beside the boat.
    beats_per_10s : float or None
        What it should beat at the speed now.
    on_board : bool
        Whether its line runs from a planer board.
    bottom_tap : bool
        Whether it is meant to touch the bottom.
    long_fight_s : float or None
        How long a fish has been on where that is so long that the user is asked, s.
    has_tip, on_cable : bool
        Whether its tip can be moved, and whether its line rides a downrigger's cable.
    look_item : CheckItem
        What to look at first beside the boat.
    pair_mps : SpeedPair
        The two speeds through water that one GPS speed is: against the current and with it, or
        with the wind behind and into it, m/s.
    begin : RodSetup or None
        What it can begin with where it was never rigged.
    fault : str or None
        Why it cannot be shown as the record has it; its number or rig set anew mends it.
    """

    id: str
    name: str
    shape: Shape
    kind: RigKind | None
    place_name: str
    side_m: float
    tip_height_m: float
    recipe: str
    status: RodStatus
    works: SpeedRange | None
    verdict: Verdict | None
    soak_since_s: float | None
    bait_since_s: float | None
    tally: RodTally
    setup: RodSetup | None
    line: RodLine | None
    last_setting_m: float | None
    wanted_depth_m: float | None
    readings: tuple[ReadingView, ...] = ()
    aft_m: float = 0.0
    beat: Beat | None = None
    again: str | None = None
    beats_per_10s: float | None = None
    on_board: bool = False
    bottom_tap: bool = False
    long_fight_s: float | None = None
    has_tip: bool = False
    on_cable: bool = False
    look_item: CheckItem = "tracks_true"
    pair_mps: SpeedPair = SpeedPair(first_mps=0.0, second_mps=0.0)
    begin: RodSetup | None = None
    fault: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class MarkView:
    """A mark: whether it still speaks for where fish are, and the depth to run a lure for it, m.

    ``cone_m`` is how wide the sonar sees there and ``in_cone_s`` how long a fish stays in it.
    ``here`` is whether the water here is deep enough for it: one made over deeper water belongs
    there.
    """

    event_id: str
    at_s: float
    depth_m: float
    count: int
    recent: bool
    run_at_m: float
    here: bool
    cone_m: float = 0.0
    in_cone_s: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class TemperaturePoint:
    """A temperature with its depth, m, and time, seconds since 1970-01-01 UTC."""

    at_s: float
    temperature_degc: float
    depth_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PhaseSpan:
    """A phase of the day on the ribbon: from when to when, and its method's name."""

    from_s: float
    to_s: float
    name: str


@dataclass(frozen=True, slots=True, kw_only=True)
class EarlierView:
    """Earlier days like this one, and how much they count.

    Parameters
    ----------
    days : tuple of str
        Their names, the likest first.
    like : float
        How many days just like this one they are worth.
    share : str
        How much of that counts: "none", "half" or "full", as chosen.
    """

    days: tuple[str, ...]
    like: float
    share: str


@dataclass(frozen=True, slots=True, kw_only=True)
class DayOnFish:
    """The plan behind the day, where the trip took one along.

    Parameters
    ----------
    until_s : float or None
        When this phase ends; None outside the phases.
    next_name, next_from_s : str, float or None
        The one after it, and when it begins.
    colours, colour_school : str
        What to show now, and whose view that is.
    off_degc : float or None
        The latest surface read less the one planned, degrees Celsius.
    departure : str
        What follows from it, in words; empty until something was read.
    slid_to_s : float or None
        When the phase that slides begins now.
    planned, expected : tuple of TemperaturePoint
        Surface as it was planned, and as it is expected from here on.
    phases : tuple of PhaseSpan
        The phases as the day stands.
    """

    until_s: float | None
    next_name: str | None
    next_from_s: float | None
    colours: str
    colour_school: str
    off_degc: float | None
    departure: str
    slid_to_s: float | None
    planned: tuple[TemperaturePoint, ...]
    expected: tuple[TemperaturePoint, ...]
    phases: tuple[PhaseSpan, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class LayerView:
    """A layer of water: its upper and lower depth, m."""

    top_m: float
    base_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class ComfortView:
    """Where the species is at ease: temperatures, and the layers that have them if known.

    Parameters
    ----------
    low_degc, high_degc : float
        The band, degrees Celsius.
    layers : tuple of LayerView
        From the top down; none where the profile does not tell.
    """

    low_degc: float
    high_degc: float
    layers: tuple[LayerView, ...]
    forecast: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class BottomPoint:
    """The bottom on the track: distance ahead of the boat (negative behind) and depth, m."""

    ahead_m: float
    bottom_m: float


Sure = Literal["meets", "likely", "may", "near"]


@dataclass(frozen=True, slots=True, kw_only=True)
class BottomCall:
    """A lure or ball that meets the bottom, or one meant to touch it that does not.

    Parameters
    ----------
    rod_id : str
        The rod.
    part : {'lure', 'ball'}
        What meets it.
    act : {'raise', 'let_down', 'bring_in'}
        What to do.
    in_s, in_m : float
        How soon, s and m of its own way; 0 is now.
    by_m : float
        How far to move it, m.
    bottom_m : float
        The bottom there, m.
    number : LineNumber or None
        The number that does it.
    chance : float
        Probability that it touches, from what is in doubt of place and depth.
    sure : Sure
        The same in words: it meets the bottom, is likely to, may touch, or comes near.
    urgency : {'soon', 'ahead', 'later'}
        Whether it is to be done at once, to be said, or too far off to be worth a word.
    """

    rod_id: str
    part: Literal["lure", "ball"]
    act: Literal["raise", "let_down", "bring_in"]
    in_s: float
    in_m: float
    by_m: float
    bottom_m: float
    number: LineNumber | None
    chance: float
    sure: Sure
    urgency: Literal["soon", "ahead", "later"]


@dataclass(frozen=True, slots=True, kw_only=True)
class AheadView:
    """The bottom along the track.

    Parameters
    ----------
    source : {'chart', 'sounding'}
        Where the bottom is known from; a sounding is taken as level all round.
    age_s : float
        Age of the fix or sounding, s.
    ground_mps : float
        Speed over ground, m/s.
    level_m : float
        What soundings add to the chart's depths today, m.
    profile : tuple of BottomPoint
        From behind the last lure to as far ahead as is looked.
    calls : tuple of BottomCall
        The soonest first.
    known : bool
        Whether place or sounding are fresh enough to say what is under the boat: profile and calls
        are empty otherwise.
    place_doubt_m : float or None
        Radius of the circle that holds the boat four times in five, m; None by a sounding.
    """

    source: Literal["chart", "sounding"]
    age_s: float
    ground_mps: float
    level_m: float
    profile: tuple[BottomPoint, ...]
    calls: tuple[BottomCall, ...]
    known: bool
    place_doubt_m: float | None


RibbonKind = Literal["hit", "hooked", "landed", "lost", "move_taken", "move_refused"]


@dataclass(frozen=True, slots=True, kw_only=True)
class RibbonMark:
    """Something on the ribbon of the day."""

    at_s: float
    kind: RibbonKind
    rod_id: str | None
    text: str


@dataclass(frozen=True, slots=True, kw_only=True)
class WindView:
    """The wind, and what it does to boat and lines at the speed of the moment.

    Parameters
    ----------
    wind : Wind
        As it was noted.
    course_deg : float or None
        Course over ground held now, degrees from north; None without a fix that is fresh enough.
    heading_deg : float or None
        Where the hull points to hold that course, degrees from north.
    leeway_deg : float or None
        How far the lines stream to starboard of straight astern on that course, degrees.
    across_deg : float
        The same, to windward, on a course straight across the wind.
    into_mps, with_mps : float or None
        What to steer by GPS into the wind and with it, by the user's own look, m/s.
    """

    wind: Wind
    course_deg: float | None
    heading_deg: float | None
    leeway_deg: float | None
    across_deg: float
    into_mps: float | None
    with_mps: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class FishView:
    """The whole Fish view.

    Parameters
    ----------
    now_s : float
        The moment it is computed for, seconds since 1970-01-01 UTC.
    speed_mps : float
        Speed through water, m/s.
    bottom_m : float
        Depth of the bottom, m.
    marks_school : {'above', 'level'}
        Whose way with marks is gone.
    advice_school : {'weighed', 'habits'}
        Who advises: what the day has shown, weighed, or the schools' habits.
    above_mark_m : float
        How far above marks the user runs lures, m.
    rods : tuple of RodView
        Port to starboard.
    current : Current or None
        The current; None where none was noted.
    passes : PassSpeeds or None
        What to steer by GPS up and down it; None without one, or where it is faster than the boat.
    wind : WindView or None
        The wind; None where none was noted.
    window : SpeedWindow or None
        The shared window of the rods that are out.
    surface_degc : float or None
        Latest surface temperature.
    surface_age_s : float or None
        Age of that reading, s.
    surface_old : bool
        Whether it is so old that its age belongs beside it.
    profile : tuple of TemperaturePoint
        Latest temperature at each depth.
    comfort : ComfortView
        The species' band.
    marks : tuple of MarkView
        All marks, the latest last.
    method : Method or None
        Method of the hour; None until a surface temperature is known.
    move : Move or None
        The next move; None when the right thing is to go on fishing.
    others : tuple of RunnerUp
        What else was weighed, the best first, three at most.
    put_off : tuple of PutOff
        Moves that stay away because they were put off, the latest first.
    comparison : Comparison or None
        Best rod against the one that lags.
    funnel : FunnelView or None
        Where fish are lost between hit and net; None before the first hit.
    earlier : EarlierView or None
        What earlier days are taken into account; None where there are none.
    bites : tuple of BiteView
        The latest bites, as long as it is asked what they were like.
    passing : PassView or None
        The latest pass through fish.
    casting : CastingView or None
        The school that is cast to now.
    turning : {'port', 'starboard'} or None
        Where the boat turns, as it was told.
    turn_hint : str or None
        What bites inside and outside of turns say of speed and depth.
    judged : tuple of JudgedMove
        Moves taken and what can be said of them, the latest first.
    temperatures : tuple of TemperaturePoint
        Surface temperatures of the day.
    ribbon : tuple of RibbonMark
        Bites and moves of the day.
    undo_event_id, undo_event_type : str or None
        What *undo* would take back.
    ended : bool
        Whether the trip is over.
    ahead : AheadView or None
        The bottom along the track, and who meets it; None without chart, place or sounding.
    clearance_m : float
        How far off the bottom the user wants lures and balls, m.
    unread : tuple of Unread
        What the record holds that this version does not understand; it is kept as it is.
    day : DayOnFish or None
        The plan behind the day; None where the trip took none along.
    limit : LimitNow or None
        The day's fish against what the user noted of the rules; None where nothing was noted.
    keep_out : tuple of KeepOut
        Closed water and hazards that the boat is in or comes near, the nearest first.
    """

    now_s: float
    speed_mps: float
    bottom_m: float
    above_mark_m: float
    marks_school: str
    advice_school: str
    rods: tuple[RodView, ...]
    current: Current | None
    passes: PassSpeeds | None
    wind: WindView | None
    window: SpeedWindow | None
    surface_degc: float | None
    surface_age_s: float | None
    surface_old: bool
    profile: tuple[TemperaturePoint, ...]
    comfort: ComfortView
    marks: tuple[MarkView, ...]
    method: Method | None
    move: Move | None
    others: tuple[RunnerUp, ...]
    put_off: tuple[PutOff, ...]
    comparison: Comparison | None
    funnel: FunnelView | None
    earlier: EarlierView | None
    bites: tuple[BiteView, ...]
    passing: PassView | None
    casting: CastingView | None
    turning: str | None
    turn_hint: str | None
    judged: tuple[JudgedMove, ...]
    temperatures: tuple[TemperaturePoint, ...]
    ribbon: tuple[RibbonMark, ...]
    undo_event_id: str | None
    undo_event_type: str | None
    ended: bool
    ahead: AheadView | None
    clearance_m: float
    unread: tuple[Unread, ...]
    keep_out: tuple[KeepOut, ...]
    day: DayOnFish | None = None
    limit: LimitNow | None = None
