"""Kinds of tackle in a locker, and where each goes in an outfit."""

from __future__ import annotations

from typing import Any, Final, Literal

from ..checks import require_choice
from ..decode import decode
from .pieces import Attractor, Lure
from .small import Bait, Board, Leader, Release, Scent, Snubber, Weight
from .tackle import LineSpec

PieceKind = Literal[
    "line", "attractor", "lure", "weight", "release", "leader", "snubber", "board", "bait",
    "scent",
]
Piece = (
    LineSpec | Attractor | Lure | Weight | Release | Leader | Snubber | Board | Bait | Scent
)
PIECES: Final[dict[str, tuple[type[Any], str]]] = {
    "line": (LineSpec, "lines"),
    "attractor": (Attractor, "attractors"),
    "lure": (Lure, "lures"),
    "weight": (Weight, "weights"),
    "release": (Release, "releases"),
    "leader": (Leader, "leaders"),
    "snubber": (Snubber, "snubbers"),
    "board": (Board, "boards"),
    "bait": (Bait, "baits"),
    "scent": (Scent, "scents"),
}


def decode_piece(kind: object, data: object, *, field: str = "data") -> Piece:
    """Return a piece of tackle from JSON data.

    Parameters
    ----------
    kind : str
        One of PIECES.
    data : object
        What came in.
    field : str
        Name of the input, for the message.

    Returns
    -------
    Piece

    Raises
    ------
    InvalidInputError
        If the kind is none or a field cannot be.
    """
    name = require_choice("kind", kind, PIECES)
    piece: Piece = decode(PIECES[name][0], data, field=field)
    return piece


def piece_list(kind: str) -> str:
    """Return the list of an outfit that a kind of piece goes in.

    Parameters
    ----------
    kind : str
        One of PIECES.

    Returns
    -------
    str
    """
    return PIECES[kind][1]
