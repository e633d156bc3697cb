"""A line's number, its depth, and depths that were seen against it: plain data."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..gear.window import Verdict
from ..sonar.cone import SonarView

NumberKind = Literal["line_out", "colours", "counter"]


@dataclass(frozen=True, slots=True, kw_only=True)
class LineNumber:
    """The number to put on reel or counter.

    Parameters
    ----------
    kind : {'line_out', 'colours', 'counter'}
        How it is counted.
    setting_m : float
        The number as a length, m.
    colours : int
        Whole colours of leadcore out.
    rest_m : float
        Leadcore beyond them, m.
    backing_m : float
        Backing beyond the core, m.
    above_ball_m : float
        Cable between ball and clip of a second line on it, m.
    by_itself : bool
        Whether that line slid down with a weight of its own.
    """

    kind: NumberKind
    setting_m: float
    colours: int = 0
    rest_m: float = 0.0
    backing_m: float = 0.0
    above_ball_m: float = 0.0
    by_itself: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class RodLine:
    """Where a rod's lure is at a speed.

    Parameters
    ----------
    rod_id : str
        The rod.
    number : LineNumber
        The number that puts it there.
    depth_m : float
        Depth of the lure, m.
    doubt_m : float or None
        Half-width of the 80 % band of its depth, m; None where it was not asked.
    shallow_m, deep_m : float or None
        The band itself, m: lopsided near the surface and where a ball hangs straight down.
    trail_m : float
        Behind the rod tip, m.
    at_surface : bool
        Whether it floats or skips.
    ball_depth_m : float or None
        Depth of the ball, m.
    verdict : Verdict
        Whether what it carries works at the speed.
    clearance_m : float or None
        Lowest part (lure or ball) above the bottom, m; negative would be in it.
    paths : tuple
        Lines of [behind the tip, below the surface] points, m.
    ball_trail_m : float or None
        Ball or weight behind the tip, m.
    clip_above_ball_m : float or None
        Where to clip a second line with the counter left alone, m above the ball.
    countdown_s : float or None
        How long a sinking plug falls at rest to the depth, s.
    strumming : float
        By how much strumming raises the normal drag of its line or cable, on the mean; 0 where
        nothing strums.
    sonar : SonarView or None
        What the boat's sonar makes of a downrigger's ball; None where there is none.
    beyond_law : bool
        Whether its ball goes faster than its drag is known for, and so runs deeper than this.
    """

    rod_id: str
    number: LineNumber
    depth_m: float
    doubt_m: float | None
    shallow_m: float | None
    deep_m: float | None
    trail_m: float
    at_surface: bool
    verdict: Verdict
    clearance_m: float | None
    paths: tuple[tuple[tuple[float, float], ...], ...]
    ball_depth_m: float | None = None
    ball_trail_m: float | None = None
    clip_above_ball_m: float | None = None
    countdown_s: float | None = None
    strumming: float = 0.0
    sonar: SonarView | None = None
    beyond_law: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class NumberAtSpeed:
    """The number for a depth at one of several speeds.

    Parameters
    ----------
    speed_mps : float
        Speed through water, m/s.
    line : RodLine or None
        The number and where it leaves the lure; None where the depth cannot be reached.
    limit_m : float or None
        The nearest depth that can be, m.
    """

    speed_mps: float
    line: RodLine | None
    limit_m: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadingView:
    """A depth that was seen, against what is expected.

    Parameters
    ----------
    id : str
        The event that recorded it.
    of : {'lure', 'ball'}
        What was seen.
    number : LineNumber
        The number that was set.
    speed_mps : float
        Speed through water, m/s.
    seen_m : float
        The depth seen, m.
    expected_m, physics_m : float or None
        Expected now, and before any reading, m; None while it is set aside.
    contradicts : bool
        Whether it is grossly against physics.
    aside : bool
        Whether it is set aside.
    """

    id: str
    of: Literal["lure", "ball"]
    number: LineNumber
    speed_mps: float
    seen_m: float
    expected_m: float | None
    physics_m: float | None
    contradicts: bool
    aside: bool
