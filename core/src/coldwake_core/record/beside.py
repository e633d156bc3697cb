"""What is looked at and brought aboard beside the boat: auditions, checks, tackle."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..errors import InvalidInputError
from ..gear.inspection import CheckItem
from ..gear.pieces import Attractor, Lure, SpeedRange
from ..gear.small import Bait, Board, Leader, Release, Scent, Snubber, Weight
from ..gear.tackle import OUTFIT_LISTS, LineSpec, Place, Rod

Outcome = Literal["ok", "fault", "skipped"]
LookAgainWhy = Literal["turn", "wind", "waves", "bent"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Auditioned:
    """A piece's own range: the slowest and fastest speed at which it still works well.

    ``low_mps`` and ``high_mps`` are speeds through water, m/s; ``tow_point`` is the attractor's.
    """

    piece: Literal["attractor", "lure"]
    piece_id: str
    low_mps: float
    high_mps: float
    tow_point: str = ""

    def check(self) -> None:
        """Raise InvalidInputError unless it is a range of speeds."""
        self.range().check()

    def range(self) -> SpeedRange:
        """Return the range.

        Returns
        -------
        SpeedRange
        """
        return SpeedRange(low_mps=self.low_mps, high_mps=self.high_mps)


@dataclass(frozen=True, slots=True, kw_only=True)
class Checked:
    """Something looked at, on a rod or, without ``rod_id``, on the boat."""

    item: CheckItem
    outcome: Outcome
    rod_id: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class LookAgain:
    """A reason to look at lures again: all that are out, or one rod's."""

    why: LookAgainWhy
    rod_id: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class TackleBrought:
    """Things brought aboard during the trip; known keys are replaced."""

    rods: tuple[Rod, ...] = ()
    places: tuple[Place, ...] = ()
    lines: tuple[LineSpec, ...] = ()
    attractors: tuple[Attractor, ...] = ()
    lures: tuple[Lure, ...] = ()
    weights: tuple[Weight, ...] = ()
    releases: tuple[Release, ...] = ()
    leaders: tuple[Leader, ...] = ()
    baits: tuple[Bait, ...] = ()
    scents: tuple[Scent, ...] = ()
    snubbers: tuple[Snubber, ...] = ()
    boards: tuple[Board, ...] = ()

    def check(self) -> None:
        """Raise InvalidInputError unless something is brought, and nothing twice."""
        if not any(getattr(self, name) for name in OUTFIT_LISTS):
            raise InvalidInputError("payload", "{}", "something to bring aboard")
        for name in OUTFIT_LISTS:
            ids = [item.id for item in getattr(self, name)]
            if len(set(ids)) < len(ids):
                raise InvalidInputError(name, ids, "each key only once")
