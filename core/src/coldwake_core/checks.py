"""Checks at the door of the core: validate first, never clamp in silence."""

from __future__ import annotations

import math
from collections.abc import Collection

from .errors import InvalidInputError

_LARGEST = 1e300
"""Beyond any quantity here; NaN and infinity fail the comparison with it."""


def require_number(
    name: str,
    value: object,
    *,
    low: float = -math.inf,
    high: float = math.inf,
    above: float | None = None,
    unit: str = "",
) -> float:
    """Return ``value`` as a float when it is a finite number in range.

    Parameters
    ----------
    name : str
        Name of the input, for the message.
    value : object
        What came in.
    low, high : float
        Inclusive bounds, in the unit of the value.
    above : float, optional
        Exclusive lower bound.
    unit : str
        Unit shown in the message.

    Returns
    -------
    float

    Raises
    ------
    InvalidInputError
        If it is no number (a bool is none), not finite, or out of range.
    """
    # Compare before converting: a huge int overflows float().
    if (
        isinstance(value, int | float) and not isinstance(value, bool)
        and -_LARGEST <= value <= _LARGEST
    ):
        number = float(value)
        if low <= number <= high and (above is None or number > above):
            return number
    bounds = ["a finite number"]
    if above is not None:
        bounds.append(f"> {above:g} {unit}".rstrip())
    elif low > -math.inf:
        bounds.append(f">= {low:g} {unit}".rstrip())
    if high < math.inf:
        bounds.append(f"<= {high:g} {unit}".rstrip())
    raise InvalidInputError(
        name, value, " and ".join(bounds),
        low=above if above is not None else low if low > -math.inf else None,
        high=high if high < math.inf else None,
        reason="missing" if value is None else "",
    )


def require_text(name: str, value: object, *, longest: int = 200, empty: bool = False) -> str:
    """Return ``value`` when it is text of at most ``longest`` characters.

    Parameters
    ----------
    name : str
        Name of the input, for the message.
    value : object
        What came in.
    longest : int
        Greatest number of characters.
    empty : bool
        Whether an empty text will do.

    Returns
    -------
    str

    Raises
    ------
    InvalidInputError
        If it is no text, empty, too long or holds control characters.
    """
    requirement = f"text of {0 if empty else 1} to {longest} characters"
    if not isinstance(value, str) or len(value) > longest or (not empty and not value.strip()):
        raise InvalidInputError(name, value, requirement)
    if any(ord(ch) < 32 and ch not in "\n\t" for ch in value):
        raise InvalidInputError(name, value, requirement + " without control characters")
    return value


def require_choice(name: str, value: object, choices: Collection[str]) -> str:
    """Return ``value`` when it is one of ``choices``.

    Parameters
    ----------
    name : str
        Name of the input, for the message.
    value : object
        What came in.
    choices : collection of str
        What is allowed.

    Returns
    -------
    str

    Raises
    ------
    InvalidInputError
        If it is none of them.
    """
    if not isinstance(value, str) or value not in choices:
        raise InvalidInputError(name, value, "one of " + ", ".join(sorted(choices)))
    return value
