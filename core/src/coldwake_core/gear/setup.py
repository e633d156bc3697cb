"""A rod as it is rigged: rod, line and place put together, and the rig that the solver sees."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final, Literal

from ..checks import require_number
from ..constants import YARD_M
from ..errors import InvalidInputError
from ..lines.bodies import Ball, TowedBody
from ..lines.downrigger import CLIP_ABOVE_BALL_M, ClippedLine, DownriggerRig
from ..lines.linerig import LineRig, Sinker
from ..lines.materials import LineMaterial, material
from ..lines.rigs import Rig
from .pieces import SpeedRange
from .tackle import Outfit

SHORTEST_SETBACK_M = 1.0
LONGEST_SETBACK_M = 100.0 * YARD_M

Tip = Literal["low", "level", "high"]
TIP_RAISED_M: Final = 1.0
"""Rise of the tip of an 8 ft rod taken from its holder and held up (judged)."""
TIP_LOW_M: Final = 0.15
"""Height of a rod tip pointed at the water (judged)."""

RigKind = Literal["flat", "weighted", "dropper", "leadcore", "downrigger", "stacked", "slider"]


@dataclass(frozen=True, slots=True, kw_only=True)
class RodSetup:
    """What is on a rod and where it stands.

    Parameters
    ----------
    rod_id, place_id, line_id, lure_id : str
        Keys into the outfit.
    attractor_id : str or None
        Attractor ahead of the lure.
    leader_m : float
        From attractor to lure, m.
    setback_m : float
        From release clip to lure, m; 0 where there is no clip.
    weight_kg : float
        Weight on the line, kg; 0 for none.
    weight_ahead_m : float
        Line from attractor (or lure) up to it, m: the bumper of a dropper rig.
    drop_m : float
        Drop line from a slider to the weight, m; 0 for a weight in line.
    above_ball_m : float
        Cable between ball and clip of a second line on it, m; 0 for the ball's own line.
    slider_kg : float
        Weight with which that line slid down the cable by itself, kg; 0 where it was clipped.
    tip : Tip
        Rod tip held high, in its holder, or down at the water.
    snubber : bool
        Whether a rubber snubber sits ahead of the attractor.
    tow_point : str
        Tow point of the attractor in use; empty where it has one only.
    leader_id, release_id, bait_id, scent_id, snubber_id : str or None
        Which leader, release clip, bait, scent and snubber, where that is said.
    """

    rod_id: str
    place_id: str
    line_id: str
    lure_id: str
    attractor_id: str | None = None
    leader_m: float = 0.0
    setback_m: float = 0.0
    weight_kg: float = 0.0
    weight_ahead_m: float = 0.0
    drop_m: float = 0.0
    above_ball_m: float = 0.0
    slider_kg: float = 0.0
    tip: Tip = "level"
    snubber: bool = False
    tow_point: str = ""
    leader_id: str | None = None
    release_id: str | None = None
    bait_id: str | None = None
    scent_id: str | None = None
    snubber_id: str | None = None

    @property
    def has_snubber(self) -> bool:
        """Whether a snubber sits ahead of the attractor, named or not."""
        return self.snubber or self.snubber_id is not None

    def check(self) -> None:
        """Raise InvalidInputError unless lengths and weights are usable."""
        require_number("leader_m", self.leader_m, low=0.0, high=10.0, unit="m")
        require_number("setback_m", self.setback_m, low=0.0, high=LONGEST_SETBACK_M, unit="m")
        require_number("weight_kg", self.weight_kg, low=0.0, high=1.0, unit="kg")
        require_number("weight_ahead_m", self.weight_ahead_m, low=0.0, high=30.0, unit="m")
        require_number("drop_m", self.drop_m, low=0.0, high=3.0, unit="m")
        require_number("above_ball_m", self.above_ball_m, low=0.0, high=60.0, unit="m")
        require_number("slider_kg", self.slider_kg, low=0.0, high=1.0, unit="kg")
        if self.weight_kg == 0.0 and (self.drop_m > 0.0 or self.weight_ahead_m > 0.0):
            raise InvalidInputError("weight_kg", self.weight_kg, "> 0 where a weight is placed")
        if self.weight_kg > 0.0 and self.weight_ahead_m <= 0.0:
            raise InvalidInputError(
                "weight_ahead_m", self.weight_ahead_m, "> 0: how far ahead of the attractor or lure"
            )
        if self.slider_kg > 0.0 and self.above_ball_m <= 0.0:
            raise InvalidInputError(
                "above_ball_m", self.above_ball_m, "> 0: where on the cable the slider stops"
            )


def rig_kind(outfit: Outfit, setup: RodSetup) -> RigKind:
    """Return how a rod is fished.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod.

    Returns
    -------
    RigKind
    """
    line = outfit.line(setup.line_id)
    if line.kind == "downrigger":
        if setup.above_ball_m <= 0.0:
            return "downrigger"
        return "slider" if setup.slider_kg > 0.0 else "stacked"
    if line.kind == "leadcore":
        return "leadcore"
    if setup.weight_kg > 0.0:
        return "dropper" if setup.drop_m > 0.0 else "weighted"
    return "flat"


def same_cable(outfit: Outfit, setup: RodSetup, others: Iterable[RodSetup]) -> tuple[RodSetup, ...]:
    """Return the setups that ride the same downrigger cable, this one left out.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod.
    others : iterable of RodSetup
        What is on the other rods.

    Returns
    -------
    tuple of RodSetup
        In the order of their clips, the lowest first.
    """
    if outfit.line(setup.line_id).kind != "downrigger":
        return ()
    mates = [
        other for other in others
        if other.rod_id != setup.rod_id and other.place_id == setup.place_id
        and outfit.line(other.line_id).kind == "downrigger"
    ]
    return tuple(sorted(mates, key=lambda mate: (mate.above_ball_m, mate.rod_id)))


def build_rig(outfit: Outfit, setup: RodSetup, mates: Iterable[RodSetup] = ()) -> Rig:
    """Return the rig of a rod.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod.
    mates : iterable of RodSetup
        Other lines that are out on the same cable.

    Returns
    -------
    LineRig or DownriggerRig

    Raises
    ------
    UnknownItemError
        If a key is not aboard.
    InvalidInputError
        If line and place do not go together.

    Notes
    -----
    Attractor and lure are taken as one body at the end of the line: the leader between them is a
    few feet of a hundred.
    """
    outfit.rod(setup.rod_id)
    _check_small_things(outfit, setup)
    place, line = outfit.place(setup.place_id), outfit.line(setup.line_id)
    bodies, main = _bodies(outfit, setup), material(line.material_id, field="line_id")
    if line.kind == "downrigger":
        if place.kind != "downrigger" or place.cable_material_id is None:
            raise InvalidInputError("place_id", place.id, "a downrigger for this line")
        if setup.weight_kg > 0.0:
            raise InvalidInputError("weight_kg", setup.weight_kg, "0: the ball is the weight")
        return DownriggerRig(
            cable=material(place.cable_material_id), cable_length_m=place.cable_length_m,
            ball=Ball(mass_kg=place.ball_kg, shape=place.ball_shape),
            boom_height_m=place.tip_height_m,
            clipped=_clipped(outfit, setup),
            mates=tuple(_clipped(outfit, mate) for mate in mates),
        )
    if place.kind == "downrigger":
        raise InvalidInputError("place_id", place.id, "a rod holder or board for this line")
    if setup.above_ball_m > 0.0:
        raise InvalidInputError("above_ball_m", setup.above_ball_m, "0: this line has no cable")
    stretches: tuple[tuple[LineMaterial, float], ...] = ((main, line.length_m),)
    if line.kind == "leadcore":
        stretches = (
            (material(line.leader_material_id or ""), line.leader_length_m),
            (line.core(), line.core_length_m),
            (main, line.length_m),
        )
    sinker = None
    if setup.weight_kg > 0.0:
        sinker = Sinker(
            ball=Ball(mass_kg=setup.weight_kg), ahead_m=setup.weight_ahead_m, drop_m=setup.drop_m
        )
    return LineRig(
        stretches=stretches, bodies=bodies, sinker=sinker,
        tip_height_m=_tip_height_m(place.tip_height_m, setup.tip),
    )


def _check_small_things(outfit: Outfit, setup: RodSetup) -> None:
    """What weighs and drags next to nothing still has to be aboard."""
    if setup.leader_id is not None:
        outfit.leader(setup.leader_id)
    if setup.release_id is not None:
        outfit.release(setup.release_id)
    if setup.bait_id is not None:
        outfit.bait(setup.bait_id)
    if setup.scent_id is not None:
        outfit.scent(setup.scent_id)
    if setup.snubber_id is not None:
        outfit.snubber(setup.snubber_id)
    if setup.tow_point:
        points = [] if setup.attractor_id is None else [
            point.name for point in outfit.attractor(setup.attractor_id).tow_points
        ]
        if setup.tow_point not in points:
            raise InvalidInputError(
                "tow_point", setup.tow_point,
                "one of " + ", ".join(points) if points else "left out: this rod has no such blade",
            )


def _tip_height_m(level_m: float, tip: Tip) -> float:
    if tip == "high":
        return level_m + TIP_RAISED_M
    return min(TIP_LOW_M, level_m) if tip == "low" else level_m


def _bodies(outfit: Outfit, setup: RodSetup) -> tuple[TowedBody, ...]:
    bodies: tuple[TowedBody, ...] = (outfit.lure(setup.lure_id).body(),)
    if setup.attractor_id is not None:
        bodies = (outfit.attractor(setup.attractor_id).body(), *bodies)
    return bodies


def _clipped(outfit: Outfit, setup: RodSetup) -> ClippedLine:
    require_number(
        "setback_m", setup.setback_m, low=SHORTEST_SETBACK_M, high=LONGEST_SETBACK_M, unit="m"
    )
    return ClippedLine(
        line=material(outfit.line(setup.line_id).material_id, field="line_id"),
        setback_m=setup.setback_m, bodies=_bodies(outfit, setup),
        above_ball_m=setup.above_ball_m or CLIP_ABOVE_BALL_M,
        slider=Ball(mass_kg=setup.slider_kg) if setup.slider_kg > 0.0 else None,
    )


def working_range(outfit: Outfit, setup: RodSetup) -> SpeedRange:
    """Return the speeds at which everything on a rod works.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod.

    Returns
    -------
    SpeedRange
        Overlap of lure and attractor; when they have none, the attractor's, which suffers first.
    """
    lure = outfit.lure(setup.lure_id).works_at()
    if setup.attractor_id is None:
        return lure
    blade = outfit.attractor(setup.attractor_id).works_at(setup.tow_point)
    low, high = max(lure.low_mps, blade.low_mps), min(lure.high_mps, blade.high_mps)
    return SpeedRange(low_mps=low, high_mps=high) if low < high else blade


def recipe_words(outfit: Outfit, setup: RodSetup) -> str:
    """Return the recipe of a rod in a few words.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod.

    Returns
    -------
    str
    """
    lure = outfit.lure(setup.lure_id)
    words = f"{lure.name}, {lure.colour}"
    if setup.attractor_id is not None:
        words = f"{outfit.attractor(setup.attractor_id).name} + {words}"
    return words
