"""Tackle aboard: rods, places, lines, attractors and lures, with what the computation needs."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any, Final, Literal, TypeVar

from ..checks import require_number, require_text
from ..constants import COLOUR_M
from ..errors import InvalidInputError, UnknownItemError
from ..lines.bodies import BallShape
from ..lines.materials import LineMaterial, material
from ..sonar.cone import Sounder
from .pieces import Attractor, Lure
from .small import Bait, Board, Leader, Release, Scent, Snubber, Weight

Shape = Literal["circle", "triangle", "square", "diamond", "pentagon", "hexagon", "star", "cross"]
LineKind = Literal["flat", "leadcore", "downrigger"]
PlaceKind = Literal["holder", "downrigger", "board"]

LONGEST_LINE_M: Final = 500.0
USUAL_SOUNDER: Final = Sounder()


@dataclass(frozen=True, slots=True, kw_only=True)
class Rod:
    """A rod. What is on it and where it stands are other things.

    Parameters
    ----------
    id, name : str
        Key and plain name.
    shape : Shape
        Its mark on every screen, beside its colour.
    """

    id: str
    name: str
    shape: Shape

    def check(self) -> None:
        """Raise InvalidInputError unless id and name are usable."""
        require_text("id", self.id, longest=40)
        require_text("name", self.name, longest=60)


@dataclass(frozen=True, slots=True, kw_only=True)
class Place:
    """A place on the boat where a rod stands.

    Parameters
    ----------
    id, name : str
        Key and plain name.
    kind : {'holder', 'downrigger', 'board'}
        What stands there; a board place is a clip's place on the tow line of a planer board.
    side_m : float
        Lateral place of the rod tip, boom end or clip, m, starboard positive.
    tip_height_m : float
        Height of the rod tip or boom end above the water, m.
    aft_m : float
        Distance of the tip behind the transom, m; negative ahead of it.
    cable_material_id : str or None
        Cable of a downrigger.
    cable_length_m : float
        Cable on its spool, m.
    ball_kg : float
        Mass of its ball, kg.
    ball_shape : BallShape
        Shape of its ball.
    """

    id: str
    name: str
    kind: PlaceKind
    side_m: float
    tip_height_m: float
    aft_m: float = 0.0
    cable_material_id: str | None = None
    cable_length_m: float = 0.0
    ball_kg: float = 0.0
    ball_shape: BallShape = "round"

    def check(self) -> None:
        """Raise InvalidInputError unless this could be a place on a small boat."""
        require_text("id", self.id, longest=40)
        require_text("name", self.name, longest=60)
        require_number("side_m", self.side_m, low=-60.0, high=60.0, unit="m")
        require_number("tip_height_m", self.tip_height_m, low=0.0, high=6.0, unit="m")
        require_number("aft_m", self.aft_m, low=-15.0, high=15.0, unit="m")
        if self.kind == "downrigger":
            if self.cable_material_id is None:
                raise InvalidInputError("cable_material_id", None, "the cable of the downrigger")
            material(self.cable_material_id, field="cable_material_id")
            require_number(
                "cable_length_m", self.cable_length_m, above=self.tip_height_m,
                high=LONGEST_LINE_M, unit="m",
            )
            require_number("ball_kg", self.ball_kg, above=0.2, high=15.0, unit="kg")


@dataclass(frozen=True, slots=True, kw_only=True)
class LineSpec:
    """A line on a reel.

    Parameters
    ----------
    id, name : str
        Key and plain name.
    kind : {'flat', 'leadcore', 'downrigger'}
        How it is fished.
    material_id : str
        The line; for leadcore the backing behind the core.
    length_m : float
        Its length, m.
    core_material_id : str or None
        Leadcore.
    core_length_m : float
        Leadcore on the reel, m.
    leader_material_id : str or None
        Leader between core and lure.
    leader_length_m : float
        Its length, m.
    colour_mass_kg : float
        What one colour of the leadcore weighs dry, kg, if it was weighed; 0 if not.
    count : int
        How many reels of it are aboard.
    """

    id: str
    name: str
    kind: LineKind
    material_id: str
    length_m: float
    core_material_id: str | None = None
    core_length_m: float = 0.0
    leader_material_id: str | None = None
    leader_length_m: float = 0.0
    colour_mass_kg: float = 0.0
    count: int = 1

    def check(self) -> None:
        """Raise InvalidInputError unless this could be on a reel."""
        require_text("id", self.id, longest=40)
        require_text("name", self.name, longest=60)
        require_number("count", self.count, low=0, high=99)
        material(self.material_id, field="material_id")
        require_number("length_m", self.length_m, above=0.0, high=LONGEST_LINE_M, unit="m")
        if self.kind == "leadcore":
            core = material(self.core_material_id or "", field="core_material_id")
            if core.core_diameter_m <= 0.0:
                raise InvalidInputError(
                    "core_material_id", self.core_material_id, "a line with a lead core"
                )
            material(self.leader_material_id or "", field="leader_material_id")
            require_number("core_length_m", self.core_length_m, above=0.0, high=400.0, unit="m")
            require_number("leader_length_m", self.leader_length_m, above=0.0, high=60.0, unit="m")
        if self.colour_mass_kg != 0.0:
            require_number("colour_mass_kg", self.colour_mass_kg, above=0.0, high=1.0, unit="kg")
            if self.kind != "leadcore":
                raise InvalidInputError(
                    "colour_mass_kg", self.colour_mass_kg, "0: only leadcore has colours"
                )
            self.core()

    def core(self) -> LineMaterial:
        """Return the leadcore on the reel, with its own weight where it was measured.

        Returns
        -------
        LineMaterial

        Raises
        ------
        InvalidInputError
            If a colour of it cannot weigh so much.
        """
        core = material(self.core_material_id or "", field="core_material_id")
        if self.colour_mass_kg == 0.0:
            return core
        try:
            return core.with_mass(self.colour_mass_kg / COLOUR_M)
        except InvalidInputError as error:
            low, high = (error.low or 0.0) * COLOUR_M, (error.high or 0.0) * COLOUR_M
            raise InvalidInputError(
                "colour_mass_kg", self.colour_mass_kg,
                f"between {low:.3f} and {high:.3f} kg: its sheath alone weighs the one, solid lead "
                "of its size the other; weigh one colour, dry",
                low=low, high=high, reason="colour_mass",
            ) from error


@dataclass(frozen=True, slots=True, kw_only=True)
class Outfit:
    """Everything aboard that a trip can refer to.

    Parameters
    ----------
    boat_name : str
        Plain name of the boat.
    boat_length_m : float
        Its length, m.
    rods, places, lines, attractors, lures : tuple
        What is aboard; keys are unique within each.
    weights, releases, leaders, baits, scents, snubbers, boards : tuple
        The small things.
    sounder : Sounder
        Where the boat's sonar looks from.
    """

    boat_name: str
    boat_length_m: float
    rods: tuple[Rod, ...]
    places: tuple[Place, ...]
    lines: tuple[LineSpec, ...]
    attractors: tuple[Attractor, ...]
    lures: tuple[Lure, ...]
    weights: tuple[Weight, ...] = ()
    releases: tuple[Release, ...] = ()
    leaders: tuple[Leader, ...] = ()
    baits: tuple[Bait, ...] = ()
    scents: tuple[Scent, ...] = ()
    snubbers: tuple[Snubber, ...] = ()
    boards: tuple[Board, ...] = ()
    sounder: Sounder = USUAL_SOUNDER

    def check(self) -> None:
        """Raise InvalidInputError unless keys are unique and the boat is one."""
        require_text("boat_name", self.boat_name, longest=120)
        require_number("boat_length_m", self.boat_length_m, low=1.5, high=20.0, unit="m")
        self.sounder.check()
        for name in OUTFIT_LISTS:
            ids = [item.id for item in getattr(self, name)]
            for index, item_id in enumerate(ids):
                if item_id in ids[:index]:
                    raise InvalidInputError(f"{name}[{index}].id", item_id, "used only once")

    def rod(self, rod_id: str) -> Rod:
        """Return a rod; raises UnknownItemError when it is not aboard."""
        return _find(self.rods, rod_id, "rod_id")

    def place(self, place_id: str) -> Place:
        """Return a place; raises UnknownItemError when it is not on this boat."""
        return _find(self.places, place_id, "place_id")

    def line(self, line_id: str) -> LineSpec:
        """Return a line; raises UnknownItemError when it is not aboard."""
        return _find(self.lines, line_id, "line_id")

    def attractor(self, attractor_id: str) -> Attractor:
        """Return an attractor; raises UnknownItemError when it is not aboard."""
        return _find(self.attractors, attractor_id, "attractor_id")

    def lure(self, lure_id: str) -> Lure:
        """Return a lure; raises UnknownItemError when it is not aboard."""
        return _find(self.lures, lure_id, "lure_id")

    def leader(self, leader_id: str) -> Leader:
        """Return a leader; raises UnknownItemError when it is not aboard."""
        return _find(self.leaders, leader_id, "leader_id")

    def release(self, release_id: str) -> Release:
        """Return a release; raises UnknownItemError when it is not aboard."""
        return _find(self.releases, release_id, "release_id")

    def bait(self, bait_id: str) -> Bait:
        """Return a bait; raises UnknownItemError when it is not aboard."""
        return _find(self.baits, bait_id, "bait_id")

    def scent(self, scent_id: str) -> Scent:
        """Return a scent; raises UnknownItemError when it is not aboard."""
        return _find(self.scents, scent_id, "scent_id")

    def snubber(self, snubber_id: str) -> Snubber:
        """Return a snubber; raises UnknownItemError when it is not aboard."""
        return _find(self.snubbers, snubber_id, "snubber_id")

    def with_items(self, name: str, items: tuple[Any, ...]) -> Outfit:
        """Return the outfit with items brought aboard: new ones added, known ones replaced.

        Parameters
        ----------
        name : str
            One of OUTFIT_LISTS.
        items : tuple
            What is brought.

        Returns
        -------
        Outfit
        """
        brought = {item.id: item for item in items}
        kept = tuple(brought.pop(item.id, item) for item in getattr(self, name))
        changes: dict[str, Any] = {name: (*kept, *brought.values())}
        return replace(self, **changes)


OUTFIT_LISTS: Final = (
    "rods", "places", "lines", "attractors", "lures", "weights", "releases", "leaders", "baits",
    "scents", "snubbers", "boards",
)
_Item = TypeVar(
    "_Item", Rod, Place, LineSpec, Attractor, Lure, Leader, Release, Bait, Scent, Snubber
)


def _find(items: tuple[_Item, ...], item_id: str, field: str) -> _Item:
    for item in items:
        if item.id == item_id:
            return item
    known = ", ".join(item.id for item in items[:20]) or "there is none"
    raise UnknownItemError(field, item_id, f"one that is aboard: {known}")
