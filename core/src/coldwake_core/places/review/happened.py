"""What happened on a trip, and where: for maps and other programs."""

from __future__ import annotations

from bisect import bisect_right
from dataclasses import dataclass
from typing import Final

from ...chart.grid import GeoPoint
from ...record.state import TripState
from ...record.whereabouts import place_at

WITHIN_S: Final = 300.0
"""Five minutes from a place that was noted a bite has none on a map (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Happening:
    """Something that happened where the boat's place is known.

    Parameters
    ----------
    at_s : float
        When, seconds since 1970-01-01 UTC.
    kind : str
        'hit', 'hooked', 'landed', 'lost', 'mark', or the kind of a note.
    place : GeoPoint
        Where the boat was; the lure trails it.
    doubt_m : float
        Radius of the circle that holds it four times in five, m; 0 for a place that was noted.
    text : str
        Of which rod, how deep, or what was noted.
    """

    at_s: float
    kind: str
    place: GeoPoint
    doubt_m: float
    text: str


def happened(state: TripState) -> tuple[Happening, ...]:
    """Return what happened at places that are known.

    Parameters
    ----------
    state : TripState
        The trip.

    Returns
    -------
    tuple of Happening
        In order of time; what happened without a place near in time is left out.
    """
    names = {rod.id: rod.name for rod in state.outfit.rods}
    told = [(at_s, kind, names.get(rod_id, rod_id)) for at_s, rod_id, kind in state.bites]
    told += [(m.at_s, "mark", f"{m.mark.depth_m:.1f} m") for m in state.marks]
    told += [(n.at_s, n.kind, n.text) for n in state.notes if n.place is None]
    found = [
        Happening(
            at_s=n.at_s, kind=n.kind, text=n.text, doubt_m=0.0,
            place=GeoPoint(latitude_deg=n.place[0], longitude_deg=n.place[1]),
        )
        for n in state.notes if n.place is not None
    ]
    for at_s, kind, text in told:
        near = place_at(state, at_s, speed_mps=_speed_at(state, at_s), within_s=WITHIN_S)
        if near is not None:
            place, doubt = near
            found.append(Happening(at_s=at_s, kind=kind, place=place, doubt_m=doubt, text=text))
    return tuple(sorted(found, key=lambda one: one.at_s))


def _speed_at(state: TripState, at_s: float) -> float:
    index = bisect_right(state.speeds, at_s, key=lambda speed: speed[0])
    return state.speeds[index - 1][1] if index else 0.0
