"""What a move is chosen from, and what a move is."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..evidence.rates import Exposure
from ..gear.pieces import SpeedRange
from ..gear.setup import RodSetup
from ..gear.tackle import Outfit
from ..gear.window import SpeedWindow
from ..record.payloads import MoveAnswered
from ..record.state import TripState
from .marks import MarkedBand
from .method import Method

Basis = Literal["school", "marks", "evidence", "working_range"]


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
        What speaks: a school, marks, evidence or the gear's own range.
    source : str
        Whose rule, or which evidence.
    cost_min : float
        Minutes it takes.
    judge_after_min : float
        Minutes of fishing before it can be judged.
    probability : float or None
        Where evidence speaks, how probable it is.
    """

    answer: MoveAnswered
    reason: str
    basis: Basis
    source: str
    cost_min: float
    judge_after_min: float
    probability: float | None = None


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
    """

    outfit: Outfit
    state: TripState
    now_s: float
    speed_mps: float
    rods: tuple[RodNow, ...]
    window: SpeedWindow | None
    method: Method | None
    bands: tuple[MarkedBand, ...]
