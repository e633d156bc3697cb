"""Errors of the core: each names the field, says what was wrong and what would be right."""

from __future__ import annotations

from typing import Any


class CoreError(Exception):
    """Base of all errors of the core.

    Attributes
    ----------
    code : str
        Machine code of the error.
    field : str
        Name of the offending input, dotted when nested; empty when none.
    message : str
        A sentence for a person, with the remedy.
    reason : str
        What kind of wrong it is where a screen words it anew: "bottom", "reel", "clip", "missing",
        "no_number"; empty otherwise.
    """

    code = "core_error"
    reason = ""

    def __init__(self, message: str, *, field: str = "") -> None:
        super().__init__(message)
        self.message = message
        self.field = field


class InvalidInputError(CoreError):
    """An input that cannot be meant: the message names it, its value and what it must be.

    ``low`` and ``high`` are the bounds it missed, in SI, so that a screen can say them in the
    reader's own units.
    """

    code = "invalid_input"

    def __init__(
        self, name: str, value: object, requirement: str, *, low: float | None = None,
        high: float | None = None, reason: str = "",
    ) -> None:
        shown = repr(value)
        if len(shown) > 60:
            shown = shown[:57] + "..."
        super().__init__(f"{name} ({shown}) must be {requirement}", field=name)
        self.value = value
        self.requirement = requirement
        self.low = low
        self.high = high
        self.reason = reason


class UnknownItemError(InvalidInputError):
    """A reference to something that is not aboard."""

    code = "unknown_item"


class NoSolutionError(CoreError):
    """The input is sound, but nothing answers it; ``limit`` is the nearest that can be had."""

    code = "no_solution"

    def __init__(self, message: str, *, field: str, limit: float) -> None:
        super().__init__(message, field=field)
        self.limit = limit


class TooDeepError(NoSolutionError):
    """The line does not reach so deep at this speed; ``limit`` is the deepest, m."""

    code = "too_deep"


class TooShallowError(NoSolutionError):
    """The line cannot be held so shallow at this speed; ``limit`` is the shallowest, m."""

    code = "too_shallow"


def error_json(error: CoreError) -> dict[str, Any]:
    """Return the JSON form of an error of the core.

    Parameters
    ----------
    error : CoreError
        What was raised.

    Returns
    -------
    dict
        code, field, message and reason; limit, low and high, in SI, where there are such.
    """
    return {
        "code": error.code, "field": error.field, "message": error.message,
        "reason": error.reason,
        **{name: getattr(error, name, None) for name in ("limit", "low", "high")},
    }
