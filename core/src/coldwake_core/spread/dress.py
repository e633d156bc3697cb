"""Looks: what a rod could wear, and how well that suits the fish and the method of the hour."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from ..advice.method import Method
from ..constants import INCH_M, OUNCE_KG
from ..gear.common import GUST_MPS
from ..gear.pieces import TREBLES, Attractor, Lure, SpeedRange
from ..gear.tackle import Outfit
from ..rig_rules.law import WaterRules
from ..rig_rules.swim import LIGHT_LURE_KG, SMALL_BLADE_M

LureClass = Literal["soft", "swimming_soft", "fly", "thin_spoon", "heavy_spoon", "plug", "big_plug"]
BladeClass = Literal["none", "disc", "subtle", "dodger", "loud"]
HEAVY_SPOON_KG: Final = 0.35 * OUNCE_KG
BIG_PLUG_M: Final = 4.0 * INCH_M
EARNED: Final = 1.0
"""What having earned hits is worth beside the rule book, which gives at most as much (judged)."""
EARNED_STEP: Final = 0.05
MOST_EARNED: Final = 12
MOST_LOOKS: Final = 24
MOST_OF_A_CLASS: Final = 4

_SUITS: Final[dict[str, dict[tuple[str, str], float]]] = {
    "kokanee": {
        ("soft", "dodger"): 1.0, ("swimming_soft", "dodger"): 0.95, ("plug", "dodger"): 0.6,
        ("swimming_soft", "subtle"): 0.7, ("soft", "disc"): 0.5, ("thin_spoon", "none"): 0.35,
    },
    "trout": {
        ("thin_spoon", "none"): 0.85, ("plug", "none"): 0.8, ("fly", "none"): 0.75,
        ("soft", "dodger"): 0.7, ("soft", "loud"): 0.6, ("soft", "disc"): 0.6,
        ("swimming_soft", "dodger"): 0.65, ("swimming_soft", "subtle"): 0.65,
        ("heavy_spoon", "none"): 0.6, ("thin_spoon", "subtle"): 0.5, ("swimming_soft", "none"): 0.5,
    },
    "striper": {
        ("big_plug", "none"): 1.0, ("heavy_spoon", "none"): 0.4, ("plug", "none"): 0.35,
    },
}
_OTHERWISE: Final = 0.1
_METHOD_LIKES: Final[dict[str, dict[str, float]]] = {
    "cover_water": {"thin_spoon": 0.4, "heavy_spoon": 0.4, "fly": 0.3},
    "stay_slow": {"soft": 0.3, "swimming_soft": 0.3},
    "trout_warming": {"fly": 0.3, "plug": 0.2, "soft": 0.3},
    "trout_comfort": {"plug": 0.2, "thin_spoon": 0.2, "fly": 0.2},
    "trout_deep": {"thin_spoon": 0.2, "soft": 0.2},
    "trout_hot": {"thin_spoon": 0.2, "soft": 0.2},
}
"""How a look suits a species and a method: the order is common practice, the figures are judged."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Dress:
    """What a rod could wear.

    Parameters
    ----------
    lure_id : str
        The lure.
    attractor_id : str or None
        What is ahead of it.
    tow_point : str
        Tow point of the attractor.
    works : SpeedRange
        Speeds at which both work.
    kind : str
        Classes of lure and attractor, such as "soft behind dodger".
    score : float
        How well it suits, from 0.
    """

    lure_id: str
    attractor_id: str | None
    tow_point: str
    works: SpeedRange
    kind: str
    score: float

    def works_at(self, speed_mps: float) -> bool:
        """Return whether it works at a speed, with room for gusts.

        Parameters
        ----------
        speed_mps : float
            Speed through water, m/s.

        Returns
        -------
        bool
        """
        return (
            self.works.low_mps + GUST_MPS - 1e-3 <= speed_mps
            and speed_mps <= self.works.high_mps - GUST_MPS + 1e-3
        )


def lure_class(lure: Lure) -> LureClass:
    """Return what class of lure it is.

    Parameters
    ----------
    lure : Lure
        The lure.

    Returns
    -------
    LureClass
    """
    if lure.is_fly:
        return "fly"
    if lure.kind == "soft":
        return "swimming_soft" if lure.own_action else "soft"
    if lure.kind == "spoon":
        return "heavy_spoon" if lure.mass_kg >= HEAVY_SPOON_KG else "thin_spoon"
    return "big_plug" if lure.length_m >= BIG_PLUG_M else "plug"


def blade_class(blade: Attractor | None) -> BladeClass:
    """Return what class of attractor it is.

    Parameters
    ----------
    blade : Attractor or None
        The attractor.

    Returns
    -------
    BladeClass
    """
    if blade is None:
        return "none"
    if blade.style == "disc":
        return "disc"
    if blade.style == "blade_string":
        return "loud"
    return "dodger" if blade.style in ("dodger", "tow_points") else "subtle"


@dataclass(frozen=True, slots=True, kw_only=True)
class Earned:
    """A look that earned hits on days like the one that comes.

    Parameters
    ----------
    lure, colour, attractor : str
        Names as the box gives them; an empty attractor is none.
    """

    lure: str
    colour: str
    attractor: str = ""


def looks_for(
    outfit: Outfit, *, species: str, method: Method | None, rules: WaterRules | None = None,
    earned: Sequence[Earned] = (),
) -> list[Dress]:
    """Return every look that the box allows, the best first.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    species : str
        What is fished for.
    method : Method or None
        Method of the hour.
    rules : WaterRules or None
        What the user entered as the rules of the water.
    earned : sequence of Earned
        What earned hits on days like this, the best first: it goes before what only suits.

    Returns
    -------
    list of Dress
    """
    worth = {one: EARNED - EARNED_STEP * i for i, one in reversed(list(enumerate(earned)))}
    blades: list[_Worn] = [
        (blade, point, blade.works_at(point), blade_class(blade))
        for blade in outfit.attractors if blade.count > 0
        for point in ([p.name for p in blade.tow_points] or [""])
    ]
    likes = _METHOD_LIKES.get(method.id, {}) if method is not None else {}
    found = []
    for lure in outfit.lures:
        if lure.count < 1 or (
            rules is not None and rules.hooks != "any" and lure.hook in TREBLES
        ):
            continue
        kind, own = lure_class(lure), lure.works_at()
        for blade, tow_point, other, worn in _ahead_of(lure, blades):
            low, high = own.low_mps, own.high_mps
            if other is not None:
                low, high = max(low, other.low_mps), min(high, other.high_mps)
            if low >= high:
                continue
            found.append(Dress(
                lure_id=lure.id, attractor_id=None if blade is None else blade.id,
                tow_point=tow_point, works=SpeedRange(low_mps=low, high_mps=high),
                kind=kind if worn == "none" else f"{kind} behind {worn}",
                score=_SUITS[species].get((kind, worn), _OTHERWISE) + likes.get(kind, 0.0)
                + worth.get(Earned(
                    lure=lure.name, colour=lure.colour,
                    attractor="" if blade is None else blade.name,
                ), 0.0),
            ))
    return sorted(
        found, key=lambda k: (-k.score, k.lure_id, k.attractor_id or "", k.tow_point)
    )


_Worn = tuple[Attractor | None, str, SpeedRange | None, str]


def _ahead_of(lure: Lure, blades: Sequence[_Worn]) -> Iterator[_Worn]:
    """What may go ahead of a lure: what cannot move by itself needs something that moves it."""
    if lure.own_action or lure.is_fly:
        yield None, "", None, "none"
    if lure.is_fly:
        return
    for worn in blades:
        blade = worn[0]
        assert blade is not None
        if not (lure.own_action or blade.gives_action):
            continue
        small = blade.gives_action and blade.length_m <= SMALL_BLADE_M + 1e-6
        if not (small and lure.mass_kg > LIGHT_LURE_KG):
            yield worn


def suits_line(kind: str, line_kind: str, blade_m: float) -> float:
    """Return what a line adds to, or takes from, a look.

    Parameters
    ----------
    kind : str
        Class of the look.
    line_kind : str
        How the line is fished: flat, weighted (in line or on a dropper), leadcore, downrigger.
    blade_m : float
        Length of its attractor, m; 0 for none.

    Returns
    -------
    float

    Notes
    -----
    Flies belong on top lines, swinging blades on weighted ones: the 4 in dodger on a downrigger,
    the 5 in on leadcore (common practice; the figures are judged).
    """
    if kind == "fly":
        return 0.0 if line_kind == "flat" else -0.4
    if "dodger" not in kind:
        return 0.0
    if line_kind == "flat":
        return -0.3
    if line_kind == "weighted":
        return 0.0
    usual = (4.0 if line_kind == "downrigger" else 5.0) * INCH_M
    return -0.1 if abs(blade_m - usual) > 0.5 * INCH_M else 0.0


def best_at(looks: list[Dress], speed_mps: float) -> list[Dress]:
    """Return the looks worth weighing at a speed: the best, and not all of one class.

    Parameters
    ----------
    looks : list of Dress
        The best first.
    speed_mps : float
        Speed through water, m/s.

    Returns
    -------
    list of Dress, length 0 to MOST_LOOKS
    """
    kept: list[Dress] = []
    of_class: dict[str, int] = {}
    for look in looks:
        if look.works_at(speed_mps) and of_class.get(look.kind, 0) < MOST_OF_A_CLASS:
            of_class[look.kind] = of_class.get(look.kind, 0) + 1
            kept.append(look)
            if len(kept) == MOST_LOOKS:
                break
    return kept
