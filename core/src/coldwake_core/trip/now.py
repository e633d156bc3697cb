"""The open trip as it stands: an immutable picture that every place of the app looks at."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from ..errors import InvalidInputError
from ..record.old import Unread
from ..record.state import TripState
from ..record.trip import Trip
from .lines import LineSolver


@dataclass(frozen=True, slots=True, kw_only=True)
class Now:
    """A trip in one state of its record.

    Parameters
    ----------
    state : TripState
        What its events add up to. Nobody who looks at it changes it.
    lines : LineSolver
        Solves its lines.
    faulty : mapping of str to InvalidInputError
        Rods that cannot be shown as the record has them, and why.
    unread : tuple of Unread
        What in the record cannot be read.
    memo : dict
        What was worked out of this trip once, with what it was worked out from.
    """

    state: TripState
    lines: LineSolver
    faulty: Mapping[str, InvalidInputError]
    unread: tuple[Unread, ...]
    memo: dict[str, Any] = field(default_factory=dict, compare=False, repr=False)

    @property
    def trip(self) -> Trip:
        """What the trip started with."""
        return self.lines.trip

    @property
    def speed_mps(self) -> float:
        """Speed through water, m/s."""
        return self.lines.speed_mps

    def tried(self, state: TripState) -> Now:
        """Return the picture of a state that is only tried, with the same solutions.

        Parameters
        ----------
        state : TripState
            The state.

        Returns
        -------
        Now
        """
        return Now(
            state=state, lines=LineSolver(self.trip, state, self.lines.solutions), faulty={},
            unread=(), memo=self.memo,
        )
