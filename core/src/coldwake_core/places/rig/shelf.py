"""What aboard could hang on a rod, each with what it is drawn from: the box, opened at one rod."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ...gear.pieces import Attractor, Lure, SpeedRange, own_range
from ...gear.setup import RodSetup
from ...trip.now import Now
from .chain import lure_outline


@dataclass(frozen=True, slots=True, kw_only=True)
class ShelfPiece:
    """A lure or an attractor that is aboard.

    Parameters
    ----------
    piece : {'lure', 'attractor'}
        What it is.
    id, name : str
        Its id, and what it is called, with its colour or finish.
    outline : str
        What it is drawn as: an attractor's style, a lure's `lure_outline`.
    length_m, width_m : float
        Its measures, m.
    lip, hook : str
        A plug's lip and a lure's hooks.
    hook_from_tail_m : float
        How far the last hook's bend sits ahead of the lure's end, m.
    works : SpeedRange
        Speeds through water at which it works, its own where it was looked at beside the boat.
    at_speed : bool
        Whether the boat's speed lies in that range.
    is_on : bool
        Whether it is what the rod wears.
    free : int
        How many no rod wears.
    """

    piece: Literal["lure", "attractor"]
    id: str
    name: str
    outline: str
    length_m: float
    width_m: float
    lip: str = ""
    hook: str = ""
    hook_from_tail_m: float = 0.0
    works: SpeedRange
    at_speed: bool
    is_on: bool
    free: int


def shelf(now: Now, setup: RodSetup) -> tuple[ShelfPiece, ...]:
    """Return what aboard could hang on a rod: lures first, then attractors.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    setup : RodSetup
        What is, or would be, on the rod.

    Returns
    -------
    tuple of ShelfPiece
        Of each what is on first, then the likest to it: of its own kind, then of its own name,
        then the nearest in length. What this rod wears itself does not make a piece any less free.

    Raises
    ------
    InvalidInputError
        If a piece of the setup is not aboard.
    """
    outfit = now.state.outfit
    lure = outfit.lure(setup.lure_id)
    blade = None if setup.attractor_id is None else outfit.attractor(setup.attractor_id)
    others = [
        rod.setup for rod in now.state.rods.values()
        if rod.setup is not None and rod.rod_id != setup.rod_id
    ]

    def of_lure(piece: Lure) -> ShelfPiece:
        works = own_range(piece.own) or piece.works
        return ShelfPiece(
            piece="lure", id=piece.id, name=f"{piece.name}, {piece.colour}",
            outline=lure_outline(piece), length_m=piece.length_m, width_m=piece.width_m,
            lip=piece.lip, hook=piece.hook, hook_from_tail_m=piece.hook_from_tail_m,
            works=works, at_speed=_holds(works, now.speed_mps), is_on=piece.id == lure.id,
            free=max(piece.count - sum(other.lure_id == piece.id for other in others), 0),
        )

    def of_blade(piece: Attractor) -> ShelfPiece:
        works = piece.works_at()
        return ShelfPiece(
            piece="attractor", id=piece.id,
            name=f"{piece.name}, {piece.finish}" if piece.finish else piece.name,
            outline=piece.style, length_m=piece.length_m, width_m=piece.width_m,
            works=works, at_speed=_holds(works, now.speed_mps),
            is_on=blade is not None and piece.id == blade.id,
            free=max(piece.count - sum(other.attractor_id == piece.id for other in others), 0),
        )

    def far_lure(piece: Lure) -> tuple[object, ...]:
        return (
            piece.id != lure.id, lure_outline(piece) != lure_outline(lure), piece.name != lure.name,
            abs(piece.length_m - lure.length_m), piece.name, piece.colour,
        )

    def far_blade(piece: Attractor) -> tuple[object, ...]:
        if blade is None:
            return piece.style, piece.length_m, piece.name
        return (
            piece.id != blade.id, piece.style != blade.style,
            abs(piece.length_m - blade.length_m), piece.name,
        )

    return (
        *(of_lure(piece) for piece in sorted(outfit.lures, key=far_lure)),
        *(of_blade(piece) for piece in sorted(outfit.attractors, key=far_blade)),
    )


def _holds(works: SpeedRange, speed_mps: float) -> bool:
    return works.low_mps <= speed_mps <= works.high_mps
