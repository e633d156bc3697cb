"""Where the rods stand before they wear anything."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ..gear.setup import RodSetup
from ..gear.tackle import LineSpec, Place
from ..trip.now import Now


@dataclass(frozen=True, slots=True)
class Stand:
    """A rod with its place and reel, before it wears anything; ``rigged`` is what it has on now."""

    rod_id: str
    place: Place
    line: LineSpec
    rigged: RodSetup | None = None

    @property
    def weighted(self) -> RodSetup | None:
        """How a weight is tied on its line, which stays as it is; None without one."""
        return self.rigged if self.rigged is not None and self.rigged.weight_kg > 0.0 else None


def stands_of(
    now: Now, rod_ids: Sequence[str] | None
) -> tuple[list[Stand], list[str]]:
    """Return where the rods stand and with which reel: as they are rigged, the others as it goes.

    Parameters
    ----------
    now : Now
        The trip.
    rod_ids : sequence of str or None
        Rods to use; all of them when None.

    Returns
    -------
    (list of Stand, list of str)
        Port to starboard, and what has to be said of rods left over.

    Raises
    ------
    UnknownItemError
        If a rod is not aboard.
    """
    outfit, state = now.state.outfit, now.state
    asked = [outfit.rod(rod_id) for rod_id in rod_ids] if rod_ids is not None else outfit.rods
    reels = {line.id: line.count for line in outfit.lines}
    places = {place.id: place for place in outfit.places}
    stands, bare, riders = [], [], []
    for rod in asked:
        setup = state.rods[rod.id].setup
        if setup is not None and setup.above_ball_m > 0.0:
            # One counter serves a cable: a second line is clipped to suit once the first is down.
            riders.append(rod.name)
            continue
        if setup is None or setup.place_id not in places or reels.get(setup.line_id, 0) < 1:
            bare.append(rod)
            continue
        place = places.pop(setup.place_id)
        reels[setup.line_id] -= 1
        stands.append(Stand(rod.id, place, outfit.line(setup.line_id), setup))
    left = []
    for rod in bare:
        found = _free(outfit.lines, places.values(), reels)
        if found is None:
            left.append(rod.name)
            continue
        place, line = found
        del places[place.id]
        reels[line.id] -= 1
        stands.append(Stand(rod.id, place, line))
    stands.sort(key=lambda stand: (stand.place.side_m, stand.rod_id))
    words = [f"{', '.join(left)}: no place or reel left."] if left else []
    if riders:
        words.append(
            f"{', '.join(riders)}: rides another line's cable; clip it by its number on Fish "
            "once that cable is down."
        )
    return stands, words


def _free(
    lines: Sequence[LineSpec], places: Iterable[Place], reels: dict[str, int]
) -> tuple[Place, LineSpec] | None:
    for place in places:
        wanted = ("downrigger",) if place.kind == "downrigger" else ("flat", "leadcore")
        for line in lines:
            if line.kind in wanted and reels[line.id] > 0:
                return place, line
    return None
