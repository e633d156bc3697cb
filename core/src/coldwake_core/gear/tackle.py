"""Tackle aboard: rods, places, lines, attractors and lures, with what the computation needs."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal, TypeVar

from ..checks import require_choice, require_number, require_text
from ..errors import InvalidInputError, UnknownItemError
from ..lines.bodies import (
    BallShape,
    Lip,
    TowedBody,
    plate_body,
    plug_body,
    sinking_speed_mps,
    soft_body,
)
from ..lines.materials import material
from ..lines.plugfit import DivePoint, fit_plug
from ..water.fresh import Water

Shape = Literal["circle", "triangle", "square", "diamond", "pentagon", "hexagon", "star", "cross"]
LineKind = Literal["flat", "leadcore", "downrigger"]
PlaceKind = Literal["holder", "downrigger", "board"]
LureKind = Literal["plug", "spoon", "soft"]

LONGEST_LINE_M: Final = 500.0
FASTEST_MPS: Final = 4.5
"""About 10 mph: nobody trolls faster, and the models stop well before it."""


@dataclass(frozen=True, slots=True, kw_only=True)
class SpeedRange:
    """Speeds through water at which something works, m/s.

    Parameters
    ----------
    low_mps, high_mps : float
        Slowest and fastest, m/s.
    """

    low_mps: float
    high_mps: float

    def check(self) -> None:
        """Raise InvalidInputError unless 0 <= low < high."""
        require_number("low_mps", self.low_mps, low=0.0, high=FASTEST_MPS, unit="m/s")
        require_number("high_mps", self.high_mps, above=self.low_mps, high=FASTEST_MPS, unit="m/s")


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

    def check(self) -> None:
        """Raise InvalidInputError unless this could be on a reel."""
        require_text("id", self.id, longest=40)
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


@dataclass(frozen=True, slots=True, kw_only=True)
class Attractor:
    """A blade or string of blades ahead of a lure.

    Parameters
    ----------
    id, name : str
        Key and plain name.
    length_m, width_m, mass_kg : float
        Measures, m and kg.
    works : SpeedRange
        Speeds through water at which it works.
    gives_action : bool
        Whether it moves the lure behind it.
    """

    id: str
    name: str
    length_m: float
    width_m: float
    mass_kg: float
    works: SpeedRange
    gives_action: bool

    def check(self) -> None:
        """Raise InvalidInputError unless it has a body."""
        require_text("id", self.id, longest=40)
        self.body()

    def body(self) -> TowedBody:
        """Return its body.

        Returns
        -------
        TowedBody
        """
        return plate_body(length_m=self.length_m, width_m=self.width_m, mass_kg=self.mass_kg)


@dataclass(frozen=True, slots=True, kw_only=True)
class Lure:
    """A lure.

    Parameters
    ----------
    id, name, colour : str
        Key, plain name and colour in words.
    kind : {'plug', 'spoon', 'soft'}
        How it makes force.
    length_m, width_m, mass_kg : float
        Measures, m and kg.
    works : SpeedRange
        Speeds through water at which it works.
    own_action : bool
        Whether it moves by itself.
    lip : Lip
        Diving lip of a plug.
    takes_bait : bool
        Whether it carries bait that has to be looked at.
    points : tuple of DivePoint, length 0 to 5
        What depths a plug is said to reach; it is fitted to them.
    is_fly : bool
        Whether it is a fly, which is fished without action.
    """

    id: str
    name: str
    colour: str
    kind: LureKind
    length_m: float
    width_m: float
    mass_kg: float
    works: SpeedRange
    own_action: bool
    lip: Lip = "none"
    takes_bait: bool = False
    points: tuple[DivePoint, ...] = ()
    is_fly: bool = False

    def check(self) -> None:
        """Raise InvalidInputError unless it has a body."""
        require_text("id", self.id, longest=40)
        require_choice("kind", self.kind, ("plug", "spoon", "soft"))
        if self.points and self.kind != "plug":
            raise InvalidInputError("points", len(self.points), "left out: only plugs have them")
        self.body()

    def body(self) -> TowedBody:
        """Return its body.

        Returns
        -------
        TowedBody
        """
        if self.points:
            return fit_plug(
                length_m=self.length_m, mass_kg=self.mass_kg, lip=self.lip, points=self.points
            ).body
        if self.kind == "plug":
            return plug_body(length_m=self.length_m, mass_kg=self.mass_kg, lip=self.lip)
        if self.kind == "spoon":
            return plate_body(length_m=self.length_m, width_m=self.width_m, mass_kg=self.mass_kg)
        return soft_body(length_m=self.length_m, width_m=self.width_m, mass_kg=self.mass_kg)

    @property
    def lift_spread(self) -> float | None:
        """Relative spread left in a fitted plug's lip force; None where nothing was fitted."""
        if not self.points:
            return None
        return fit_plug(
            length_m=self.length_m, mass_kg=self.mass_kg, lip=self.lip, points=self.points
        ).lip_spread

    def countdown_s(self, depth_m: float, water: Water) -> float | None:
        """Return how long to let a sinking plug fall at rest to reach a depth.

        Parameters
        ----------
        depth_m : float
            Wanted depth, m.
        water : Water
            Density and viscosity.

        Returns
        -------
        float or None
            Seconds on a slack line; None for what is no plug or does not sink.
        """
        if self.kind != "plug":
            return None
        speed = sinking_speed_mps(length_m=self.length_m, mass_kg=self.mass_kg, water=water)
        return depth_m / speed if speed > 0.02 else None


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
    """

    boat_name: str
    boat_length_m: float
    rods: tuple[Rod, ...]
    places: tuple[Place, ...]
    lines: tuple[LineSpec, ...]
    attractors: tuple[Attractor, ...]
    lures: tuple[Lure, ...]

    def check(self) -> None:
        """Raise InvalidInputError unless keys are unique and the boat is one."""
        require_number("boat_length_m", self.boat_length_m, low=1.5, high=20.0, unit="m")
        for name in ("rods", "places", "lines", "attractors", "lures"):
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


_Item = TypeVar("_Item", Rod, Place, LineSpec, Attractor, Lure)


def _find(items: tuple[_Item, ...], item_id: str, field: str) -> _Item:
    for item in items:
        if item.id == item_id:
            return item
    known = ", ".join(item.id for item in items)
    raise UnknownItemError(field, item_id, f"one that is aboard: {known}")
