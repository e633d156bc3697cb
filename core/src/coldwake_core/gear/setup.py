"""A rod as it is rigged: rod, line and place put together, and the rig that the solver sees."""

from __future__ import annotations

from dataclasses import dataclass

from ..checks import require_number
from ..constants import YARD_M
from ..errors import InvalidInputError
from ..lines.bodies import Ball, TowedBody
from ..lines.downrigger import DownriggerRig
from ..lines.linerig import LineRig
from ..lines.materials import LineMaterial, material
from ..lines.rigs import Rig
from .tackle import Outfit, SpeedRange

SHORTEST_SETBACK_M = 1.0
LONGEST_SETBACK_M = 100.0 * YARD_M


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
    """

    rod_id: str
    place_id: str
    line_id: str
    lure_id: str
    attractor_id: str | None = None
    leader_m: float = 0.0
    setback_m: float = 0.0

    def check(self) -> None:
        """Raise InvalidInputError unless the lengths are usable."""
        require_number("leader_m", self.leader_m, low=0.0, high=10.0, unit="m")
        require_number("setback_m", self.setback_m, low=0.0, high=LONGEST_SETBACK_M, unit="m")


def build_rig(outfit: Outfit, setup: RodSetup) -> Rig:
    """Return the rig of a rod.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod.

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
    place, line, lure = (
        outfit.place(setup.place_id), outfit.line(setup.line_id), outfit.lure(setup.lure_id),
    )
    bodies: tuple[TowedBody, ...] = (lure.body(),)
    if setup.attractor_id is not None:
        bodies = (outfit.attractor(setup.attractor_id).body(), *bodies)
    main = material(line.material_id, field="line_id")
    if line.kind == "downrigger":
        if place.kind != "downrigger" or place.cable_material_id is None:
            raise InvalidInputError("place_id", place.id, "a downrigger for this line")
        require_number(
            "setback_m", setup.setback_m, low=SHORTEST_SETBACK_M, high=LONGEST_SETBACK_M, unit="m"
        )
        return DownriggerRig(
            cable=material(place.cable_material_id), cable_length_m=place.cable_length_m,
            ball=Ball(mass_kg=place.ball_kg), boom_height_m=place.tip_height_m, line=main,
            setback_m=setup.setback_m, bodies=bodies,
        )
    if place.kind != "holder":
        raise InvalidInputError("place_id", place.id, "a rod holder for this line")
    stretches: tuple[tuple[LineMaterial, float], ...] = ((main, line.length_m),)
    if line.kind == "leadcore":
        stretches = (
            (material(line.leader_material_id or ""), line.leader_length_m),
            (material(line.core_material_id or ""), line.core_length_m),
            (main, line.length_m),
        )
    return LineRig(stretches=stretches, bodies=bodies, tip_height_m=place.tip_height_m)


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
    lure = outfit.lure(setup.lure_id).works
    if setup.attractor_id is None:
        return lure
    blade = outfit.attractor(setup.attractor_id).works
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
