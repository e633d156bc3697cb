"""The photos of a trip, each with what it was taken of."""

from __future__ import annotations

from dataclasses import dataclass

from ...record.state import TripState
from ...trade import Species


@dataclass(frozen=True, slots=True, kw_only=True)
class Photo:
    """A photo, as the record tells of it.

    Parameters
    ----------
    photo_id : str
        Under which the picture itself is kept.
    at_s : float
        When it was noted, seconds since 1970-01-01 UTC.
    rod_id : str or None
        The rod whose fish it is; None for something else.
    species : Species or None
        Of the fish.
    kept : bool or None
        Whether the fish was kept.
    length_m : float or None
        Its length, where it was measured, m.
    text : str
        What was noted with it.
    """

    photo_id: str
    at_s: float
    rod_id: str | None = None
    species: Species | None = None
    kept: bool | None = None
    length_m: float | None = None
    text: str = ""


def photos(state: TripState) -> tuple[Photo, ...]:
    """Return the photos of a trip.

    Parameters
    ----------
    state : TripState
        State of the trip.

    Returns
    -------
    tuple of Photo
        In order of time; what was taken back has none.
    """
    found = [
        Photo(
            photo_id=fish.photo_id, at_s=fish.at_s, rod_id=fish.rod_id, species=fish.species,
            kept=fish.kept, length_m=fish.length_m,
        )
        for fish in state.landed if fish.photo_id is not None
    ]
    found += [
        Photo(photo_id=note.photo_id, at_s=note.at_s, text=note.text)
        for note in state.notes if note.photo_id is not None
    ]
    return tuple(sorted(found, key=lambda photo: photo.at_s))
