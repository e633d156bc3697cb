"""A school found and cast to: the weight, the count-down, the retrieve, and what it brought.

The boat stands or drifts, the rod is none of those that troll: its bites are counted apart, so that
trolled and cast fish are never one.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any, Final, Literal

from ..checks import require_number
from ..constants import FOOT_M
from ..trade import Species
from .payloads import check_photo
from .state import Casting, LandedFish, TripState

Retrieve = Literal["slow", "steady", "fast", "jerked"]
CAST_ROD: Final = "cast"
"""What a fish caught by casting was caught on."""
SINKS_MPS: Final = 1.0 * FOOT_M
"""How fast a weighted lure sinks on a slack line: a foot a second (common practice)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class CastingBegun:
    """A school is cast to.

    Parameters
    ----------
    weight_kg : float
        Weight of the lure, kg.
    count_s : float
        How long it is let sink, s.
    retrieve : {'slow', 'steady', 'fast', 'jerked'}
        How it is wound in.
    """

    weight_kg: float
    count_s: float
    retrieve: Retrieve = "slow"

    def check(self) -> None:
        """Raise InvalidInputError unless weight and count could be a cast's."""
        require_number("weight_kg", self.weight_kg, above=0.0, high=0.5, unit="kg")
        require_number("count_s", self.count_s, low=0.0, high=120.0, unit="s")


@dataclass(frozen=True, slots=True, kw_only=True)
class CastBite:
    """What a cast brought: a hit, a fish on, landed or lost."""

    what: Literal["hit", "hooked", "landed", "lost"]
    kept: bool = False
    length_m: float | None = None
    species: Species | None = None
    photo_id: str | None = None

    def check(self) -> None:
        """Raise InvalidInputError unless the length is a fish's and the photo has an id."""
        check_photo(self.photo_id)
        if self.length_m is not None:
            require_number("length_m", self.length_m, low=0.03, high=2.0, unit="m")


def sunk_m(count_s: float, bottom_m: float) -> float:
    """Return about how deep a lure is after a count-down.

    Parameters
    ----------
    count_s : float
        Seconds on a slack line.
    bottom_m : float
        Depth of the water, m.

    Returns
    -------
    float
        m, no deeper than the bottom: a foot a second (common practice), less in a current.
    """
    return min(count_s * SINKS_MPS, bottom_m)


def _begun(state: TripState, at_s: float, item: CastingBegun, _: str) -> None:
    _ended(state, at_s, None, "")
    state.castings.append(Casting(at_s, item.weight_kg, item.count_s, item.retrieve))


def _ended(state: TripState, at_s: float, _: Any, __: str) -> None:
    if state.castings and state.castings[-1].end_s is None:
        state.castings[-1] = replace(state.castings[-1], end_s=at_s)


def _bite(state: TripState, at_s: float, item: CastBite, _: str) -> None:
    if not state.castings:
        return
    last = state.castings[-1]
    hits, hooked = last.hits, last.hooked
    # What is landed was hooked, and what is hooked was hit, tapped or not.
    if item.what == "hit" or (item.what == "hooked" and hits == hooked):
        hits += 1
    if item.what == "hooked":
        hooked += 1
    landed = last.landed + (item.what == "landed")
    lost = last.lost + (item.what == "lost")
    hooked = max(hooked, landed + lost)
    state.castings[-1] = replace(
        last, hits=max(hits, hooked), hooked=hooked, landed=landed, lost=lost
    )
    if item.what == "landed":
        state.landed.append(LandedFish(
            at_s=at_s, rod_id=CAST_ROD, kept=item.kept, length_m=item.length_m, on_bait=False,
            species=item.species or state.species, photo_id=item.photo_id,
        ))


APPLY_CASTING: Final[dict[str, Callable[[TripState, float, Any, str], None]]] = {
    "casting_begun": _begun, "casting_ended": _ended, "cast_bite": _bite,
}
