"""A river's day: ground speeds for each phase, and what stands over the bars."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ...advice.phases import Phase
from ...boat.current import Current, PassSpeeds, pass_speeds
from ...checks import require_number
from ...constants import FOOT_M
from ...record.planned import DayPlan

FELL_M: Final = 0.05
"""A fall that is noticed: two inches (judged)."""
RIPPLE_MPS: Final = 2.0
"""Wind from which flat water ripples, so that glassy water says it is shallow (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class RiverDay:
    """What is known of a river for a day.

    Parameters
    ----------
    current_mps : float
        Its current, m/s.
    fell_m : float
        How far it fell since the level of the chart was noted, m; less than nothing if it rose.
    """

    current_mps: float = 0.0
    fell_m: float = 0.0

    def check(self) -> None:
        """Raise InvalidInputError unless it is a river a boat could troll."""
        require_number("current_mps", self.current_mps, low=0.0, high=4.0, unit="m/s")
        require_number("fell_m", self.fell_m, low=-10.0, high=10.0, unit="m")


@dataclass(frozen=True, slots=True, kw_only=True)
class Shallow:
    """A bar or a neck: its name, what it is, and the water over it today, m."""

    name: str
    kind: str
    depth_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PhaseGround:
    """Ground speeds of a phase; None where the current is faster than the lures may go.

    Parameters
    ----------
    start_s : float
        The phase, by its start, seconds since 1970-01-01 UTC.
    slow, fast : PassSpeeds or None
        For its slowest and its fastest, up and down the current.
    """

    start_s: float
    slow: PassSpeeds | None
    fast: PassSpeeds | None


@dataclass(frozen=True, slots=True, kw_only=True)
class RiverView:
    """A river's day.

    Parameters
    ----------
    ground : tuple of PhaseGround
        Ground speeds, phase by phase.
    shallows : tuple of Shallow
        Bars and necks with the water over them, the shallowest first.
    words : tuple of str
        What the level and the wind say, each in a sentence.
    """

    ground: tuple[PhaseGround, ...]
    shallows: tuple[Shallow, ...]
    words: tuple[str, ...]


def river_view(
    river: RiverDay, plan: DayPlan, phases: Sequence[Phase], shallows: Sequence[Shallow]
) -> RiverView:
    """Return a river's day.

    Parameters
    ----------
    river : RiverDay
        Current and fall.
    plan : DayPlan
        For its wind.
    phases : sequence of Phase
        The day's.
    shallows : sequence of Shallow
        Bars and necks with the water over them by the chart at the noted level, m.

    Returns
    -------
    RiverView

    Notes
    -----
    Ground speed is the speed through water less the current going up, and with it going down. What
    fell is taken off the water over each bar.
    """
    river.check()
    today = sorted(
        (
            Shallow(name=s.name, kind=s.kind, depth_m=max(s.depth_m - river.fell_m, 0.0))
            for s in shallows
        ),
        key=lambda s: s.depth_m,
    )
    return RiverView(
        ground=tuple(
            PhaseGround(
                start_s=phase.start_s, slow=_ground(phase.method.speed_low_mps, river),
                fast=_ground(phase.method.speed_high_mps, river),
            )
            for phase in phases
        ),
        shallows=tuple(today), words=_words(river, plan, today),
    )


def _ground(through_mps: float, river: RiverDay) -> PassSpeeds | None:
    if river.current_mps >= through_mps:
        return None
    return pass_speeds(
        through_water_mps=through_mps, current=Current(speed_mps=river.current_mps, toward_deg=0.0)
    )


def _words(river: RiverDay, plan: DayPlan, shallows: Sequence[Shallow]) -> tuple[str, ...]:
    words = []
    if river.fell_m >= FELL_M:
        words.append(
            "It fell: falling water overnight loads the bars. Begin on their drop, just off the "
            "top (common practice)."
        )
    elif river.fell_m <= -FELL_M:
        words.append("It rose: fish spread over what was bar; look for new edges.")
    if any(s.kind == "neck" for s in shallows):
        words.append("Where bars neck down to a V, the tighter, the more fish (common practice).")
    dry = [s.name for s in shallows if s.depth_m < 2.0 * FOOT_M]
    if dry:
        words.append(f"Under two feet of water today: {', '.join(dry)}. Mind the motor.")
    if any(hour.wind_mps < RIPPLE_MPS for hour in plan.hours):
        words.append(
            "In light wind read the surface: rippled water is the deep, flat calm water the "
            "shallow bar (common practice)."
        )
    return tuple(words)
