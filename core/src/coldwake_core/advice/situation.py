"""What a move is chosen from, and what a move is."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Literal

from ..evidence.day_model import DayModel
from ..evidence.rates import Exposure
from ..gear.pieces import SpeedRange
from ..gear.setup import RodSetup
from ..gear.tackle import Outfit
from ..gear.window import SpeedWindow
from ..record.payloads import MoveAnswered
from ..record.state import TripState
from ..rig_rules.law import WaterRules
from ..trade import Species
from .marks import MarkedBand
from .method import Method

Basis = Literal["school", "marks", "evidence", "working_range", "trial"]


@dataclass(frozen=True, slots=True, kw_only=True)
class RodNow:
    """What the choice of a move needs to know of a rod that is fishing.

    Parameters
    ----------
    rod_id, name : str
        Key and plain name.
    setup : RodSetup
        What is on it.
    setting_m, depth_m : float
        The number set and the depth it runs at now, m.
    kind : str
        How the line is fished.
    works : SpeedRange
        Speeds at which it works.
    reachable : dict of float to float
        Numbers for depths asked about, m to m; a depth it cannot reach is left out.
    exposure : Exposure
        Hits and minutes on this recipe.
    trial_depths : tuple of float
        Depths at which it could be tried, m.
    lengths : dict of float to float
        Of a line of its own depth: how far it could be let out, and how deep it would run, m to m.
    """

    rod_id: str
    name: str
    setup: RodSetup
    setting_m: float
    depth_m: float
    kind: str
    works: SpeedRange
    reachable: dict[float, float]
    exposure: Exposure
    trial_depths: tuple[float, ...] = ()
    lengths: dict[float, float] = field(default_factory=dict)


@dataclass(frozen=True, slots=True, kw_only=True)
class Move:
    """One suggested change.

    Parameters
    ----------
    answer : MoveAnswered
        What taking or refusing it records, with the change it makes.
    reason : str
        Why, in a sentence.
    basis : Basis
        What speaks: a school, marks, evidence, the gear's own range, or that it was never tried.
    source : str
        Whose rule, or which evidence.
    cost_min : float
        Minutes it takes.
    judge_after_min : float
        Minutes of fishing before it can be judged.
    probability : float or None
        Where evidence speaks, how probable it is.
    gain_hits : float or None
        Hits expected to be gained while it lasts, its cost taken off; None where nobody asked.
    lasts_min : float or None
        How long it is thought to last, min.
    """

    answer: MoveAnswered
    reason: str
    basis: Basis
    source: str
    cost_min: float
    judge_after_min: float
    probability: float | None = None
    gain_hits: float | None = None
    lasts_min: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class RunnerUp:
    """A change that was weighed and not chosen.

    Parameters
    ----------
    answer : MoveAnswered
        What it would be.
    gain_hits : float
        Hits it was expected to gain or lose, its cost taken off.
    probability : float
        That it earns more a minute than what is out.
    """

    answer: MoveAnswered
    gain_hits: float
    probability: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Advice:
    """The next move, and what else was weighed.

    Parameters
    ----------
    move : Move or None
        The move; None where the best is to go on fishing.
    others : tuple of RunnerUp
        The best of the others, three at most.
    """

    move: Move | None
    others: tuple[RunnerUp, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Spot:
    """A place farther off where fish were met today, and a way there that is clear.

    Parameters
    ----------
    toward_deg : float
        Where it lies, degrees.
    way : tuple of float
        Fish on the way there against what the day met elsewhere, minute by minute.
    there : tuple of float
        The same of the minutes at the place.
    shallowest_m : float or None
        The least depth on the way by the chart, m; None by the boat's own track.
    since_min : float
        How long ago it was passed, min.
    marks, hits : int
        What was met there then.
    """

    toward_deg: float
    way: tuple[float, ...]
    there: tuple[float, ...]
    shallowest_m: float | None
    since_min: float
    marks: int
    hits: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Ways:
    """What the way on and the way back hold.

    Parameters
    ----------
    ahead, back : tuple of float
        Fish against what the day met elsewhere, minute by minute, the nearest first.
    back_deg : float
        Which way the way back goes, degrees.
    spots : tuple of Spot
        Places farther off where fish were met.
    """

    ahead: tuple[float, ...]
    back: tuple[float, ...]
    back_deg: float
    spots: tuple[Spot, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Situation:
    """Everything a move is chosen from.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    state : TripState
        The trip now.
    now_s : float
        Seconds since 1970-01-01 UTC.
    speed_mps : float
        Speed through water, m/s.
    rods : tuple of RodNow
        Rods that are fishing.
    window : SpeedWindow or None
        The shared window.
    method : Method or None
        Method of the hour; None without a surface temperature.
    bands : tuple of MarkedBand
        Recent marks, most fish first.
    model : DayModel
        What the day has taught so far.
    minutes_left : float
        Minutes until dark.
    depths_at : callable
        Depths of the rods that fish, m by rod, at another speed, m/s.
    lowest_m : float
        The lowest that a lure may run over the bottom here and ahead, m.
    bed_m : float
        How deep the water usually was that was fished of late, m.
    species : {'trout', 'kokanee', 'striper'}
        What is fished for.
    water_rules : WaterRules or None
        What the user entered as the rules of this water.
    ways : Ways or None
        What lies ahead and behind; None where the boat's places are not known.
    """

    outfit: Outfit
    state: TripState
    now_s: float
    speed_mps: float
    rods: tuple[RodNow, ...]
    window: SpeedWindow | None
    method: Method | None
    bands: tuple[MarkedBand, ...]
    model: DayModel
    minutes_left: float
    depths_at: Callable[[float], Mapping[str, float]]
    lowest_m: float
    bed_m: float
    species: Species
    water_rules: WaterRules | None = None
    ways: Ways | None = None
