"""Pieces of tackle: attractors, lures, and the small things, with what the computation needs."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal

from ..checks import require_choice, require_number, require_text
from ..constants import MPH_MPS
from ..errors import InvalidInputError
from ..lines.bodies import (
    Lip,
    TowedBody,
    blade_body,
    plug_body,
    sinking_speed_mps,
    soft_body,
    spoon_body,
)
from ..lines.plugfit import DivePoint, FittedPlug, fit_plug
from ..water.fresh import Water
from .beat import Beat

LureKind = Literal["plug", "spoon", "soft"]
AttractorStyle = Literal["dodger", "tow_points", "spinning", "willow_leaf", "blade_string", "disc"]
Hook = Literal["none", "single", "double_single", "treble", "two_trebles"]
SWINGING: Final = ("dodger", "tow_points")
"""Attractors that sway from side to side; the others turn, flutter or keep their course."""
SLOWEST_MPS: Final = 0.1 * MPH_MPS
"""Below this nothing is trolled any more, it drifts."""
FASTEST_MPS: Final = 4.5
"""About 10 mph: nobody trolls faster, and the models stop well before it."""
TREBLES: Final = ("treble", "two_trebles")


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
class OwnRange:
    """A piece's own range, as its user saw it beside the boat.

    Parameters
    ----------
    works : SpeedRange
        Slowest and fastest speed at which this very piece still worked well.
    at_s : float
        When it was looked at, seconds since 1970-01-01 UTC.
    tow_point : str
        Tow point of the blade it was seen with; empty where it has one only.
    beat : Beat or None
        The tip's beat counted with it.
    """

    works: SpeedRange
    at_s: float
    tow_point: str = ""
    beat: Beat | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class TowPoint:
    """One of a blade's tow points: each gives another swing.

    Parameters
    ----------
    name : str
        What the user calls it.
    works : SpeedRange
        Speeds through water at which the blade works on it.
    """

    name: str
    works: SpeedRange

    def check(self) -> None:
        """Raise InvalidInputError unless it has a name."""
        require_text("name", self.name, longest=30)


def own_range(own: tuple[OwnRange, ...], tow_point: str = "") -> SpeedRange | None:
    """Return the range seen beside the boat, the latest one.

    Parameters
    ----------
    own : tuple of OwnRange
        What was seen.
    tow_point : str
        Tow point in use.

    Returns
    -------
    SpeedRange or None
        None where this piece was never looked at so.
    """
    seen = own_seen(own, tow_point)
    return None if seen is None else seen.works


def own_seen(own: tuple[OwnRange, ...], tow_point: str = "") -> OwnRange | None:
    """Return what was seen of a piece beside the boat, the latest.

    Parameters
    ----------
    own : tuple of OwnRange
        What was seen.
    tow_point : str
        Tow point in use.

    Returns
    -------
    OwnRange or None
        None where this piece was never looked at so.
    """
    seen = [item for item in own if item.tow_point == tow_point]
    return max(seen, key=lambda item: item.at_s) if seen else None


def _check_common(piece: Attractor | Lure) -> None:
    require_text("id", piece.id, longest=40)
    require_text("name", piece.name, longest=60)
    require_number("count", piece.count, low=0, high=99)
    for name in ("flash", "thump"):
        value = getattr(piece, name)
        if value is not None:
            require_number(name, value, low=0.0, high=1.0)


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
    style : AttractorStyle
        What kind of attractor it is.
    finish : str
        Colour or finish in words.
    uv, glow : bool
        Whether it answers to ultraviolet light, or glows.
    flash, thump : float or None
        0 to 1 on the mood ladder; None takes the style's usual place on it.
    tow_points : tuple of TowPoint
        Its choice of tow points, from tight to wide; empty for a single one.
    own : tuple of OwnRange
        Its own ranges, seen beside the boat.
    count : int
        How many are aboard.
    """

    id: str
    name: str
    length_m: float
    width_m: float
    mass_kg: float
    works: SpeedRange
    gives_action: bool
    style: AttractorStyle = "dodger"
    finish: str = ""
    uv: bool = False
    glow: bool = False
    flash: float | None = None
    thump: float | None = None
    tow_points: tuple[TowPoint, ...] = ()
    own: tuple[OwnRange, ...] = ()
    count: int = 1

    def check(self) -> None:
        """Raise InvalidInputError unless it has a body."""
        _check_common(self)
        require_text("finish", self.finish, longest=60, empty=True)
        names = [point.name for point in self.tow_points]
        if len(set(names)) < len(names):
            raise InvalidInputError("tow_points", names, "each of another name")
        self.body()

    def works_at(self, tow_point: str = "") -> SpeedRange:
        """Return the speeds at which it works: its own range before the tow point's.

        Parameters
        ----------
        tow_point : str
            Tow point in use.

        Returns
        -------
        SpeedRange
        """
        seen = own_range(self.own, tow_point)
        if seen is not None:
            return seen
        return next((p.works for p in self.tow_points if p.name == tow_point), self.works)

    def body(self) -> TowedBody:
        """Return its body.

        Returns
        -------
        TowedBody
        """
        make = blade_body if self.style in SWINGING else spoon_body
        return make(length_m=self.length_m, width_m=self.width_m, mass_kg=self.mass_kg)


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
    uv, glow : bool
        Whether it answers to ultraviolet light, or glows.
    hook : Hook
        Its hooks.
    hook_from_tail_m : float
        How far the last hook's bend sits ahead of the lure's end, m.
    bait_room_m : float
        Longest bait that fits, m; 0 where that is not known.
    flash, thump : float or None
        0 to 1 on the mood ladder; None takes its kind's usual place on it.
    own : tuple of OwnRange
        Its own ranges, seen beside the boat.
    count : int
        How many are aboard.
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
    uv: bool = False
    glow: bool = False
    hook: Hook = "single"
    hook_from_tail_m: float = 0.0
    bait_room_m: float = 0.0
    flash: float | None = None
    thump: float | None = None
    own: tuple[OwnRange, ...] = ()
    count: int = 1

    def check(self) -> None:
        """Raise InvalidInputError unless it has a body."""
        _check_common(self)
        require_text("colour", self.colour, longest=60, empty=True)
        require_choice("kind", self.kind, ("plug", "spoon", "soft"))
        require_number("hook_from_tail_m", self.hook_from_tail_m, low=0.0, high=1.0, unit="m")
        require_number("bait_room_m", self.bait_room_m, low=0.0, high=0.5, unit="m")
        if self.points and self.kind != "plug":
            raise InvalidInputError("points", len(self.points), "left out: only plugs have them")
        self.body()

    def works_at(self) -> SpeedRange:
        """Return the speeds at which it works: its own range before the catalogue's.

        Returns
        -------
        SpeedRange
        """
        return own_range(self.own) or self.works

    def body(self) -> TowedBody:
        """Return its body.

        Returns
        -------
        TowedBody
        """
        if self.points:
            return self._fitted().body
        if self.kind == "plug":
            return plug_body(
                length_m=self.length_m, mass_kg=self.mass_kg, lip=self.lip, width_m=self.width_m
            )
        if self.kind == "spoon":
            return spoon_body(length_m=self.length_m, width_m=self.width_m, mass_kg=self.mass_kg)
        return soft_body(length_m=self.length_m, width_m=self.width_m, mass_kg=self.mass_kg)

    @property
    def lift_spread(self) -> float | None:
        """Relative spread left in a fitted plug's lip force; None where nothing was fitted."""
        if not self.points:
            return None
        return self._fitted().lip_spread

    def _fitted(self) -> FittedPlug:
        return fit_plug(
            length_m=self.length_m, mass_kg=self.mass_kg, lip=self.lip, points=self.points,
            width_m=self.width_m,
        )

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
        speed = sinking_speed_mps(
            length_m=self.length_m, mass_kg=self.mass_kg, width_m=self.width_m, water=water
        )
        return depth_m / speed if speed > 0.02 else None
