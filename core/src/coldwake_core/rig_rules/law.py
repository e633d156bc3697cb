"""Rules of a water as its user entered them. The program never claims to be the law."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Literal

from ..checks import require_number, require_text
from ..errors import InvalidInputError

HookRule = Literal["any", "single", "single_barbless"]


@dataclass(frozen=True, slots=True, kw_only=True)
class WaterRules:
    """What a user read of a water's rules, with the day and where.

    Parameters
    ----------
    entered_on : str
        The day it was entered, as YYYY-MM-DD.
    origin : str
        Where the user read it.
    hooks : {'any', 'single', 'single_barbless'}
        Hooks that may be used.
    bait : bool
        Whether bait may be used.
    rods_most : int or None
        Most rods that may be out on this boat; None where nothing is said.
    """

    entered_on: str
    origin: str
    hooks: HookRule = "any"
    bait: bool = True
    rods_most: int | None = None

    def check(self) -> None:
        """Raise InvalidInputError unless day and origin are given."""
        require_text("origin", self.origin, longest=200)
        try:
            date.fromisoformat(self.entered_on)
        except ValueError:
            raise InvalidInputError(
                "entered_on", self.entered_on, "a day such as 2026-04-14"
            ) from None
        if self.rods_most is not None:
            require_number("rods_most", self.rods_most, low=1, high=30)
