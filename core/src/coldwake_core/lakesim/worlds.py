"""The worlds that can be practised on, by the names that people choose them by."""

from __future__ import annotations

from typing import Final

from ..errors import InvalidInputError
from .other import OtherLaws, Reversed
from .river import River
from .standard import Standard

WORLDS: Final[dict[str, type[Standard]]] = {
    "lake": Standard, "other": OtherLaws, "reversed": Reversed, "river": River,
}
"""A lake as the advisor was tried on; fish of other laws; a lake where the rule book is wrong;
stripers of a river."""


def world_of(name: object, seed: int) -> Standard:
    """Return a day of a world.

    Parameters
    ----------
    name : str
        One of WORLDS.
    seed : int
        Which day.

    Returns
    -------
    Standard

    Raises
    ------
    InvalidInputError
        If there is no such world.
    """
    if not isinstance(name, str) or name not in WORLDS:
        raise InvalidInputError("world", name, "one of " + ", ".join(WORLDS))
    return WORLDS[name](seed)
