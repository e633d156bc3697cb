"""Days in short: kept, and worked out anew where something has come since."""

from __future__ import annotations

import time
from collections import Counter
from collections.abc import Callable, Sequence
from typing import Any, Final, TypeVar

from django.db.models import OuterRef, Subquery

from coldwake_core.decode import encode
from coldwake_core.places.review.ledger import Handled
from coldwake_core.season.digest import Caught, DayDigest, Spell, digest
from common.faults import write_down
from trips.models import Event, Trip
from trips.queries import trip_now, trip_now_s

from .models import Digest

VERSION: Final = 2
"""Raised when digests of before say less than those of now."""
PATIENCE_S: Final = 0.25
"""So long one request works out days anew; the rest waits for the next, which tells how many."""


def digests_of(trips: Sequence[Trip]) -> tuple[dict[Any, DayDigest], int]:
    """Return the trips' days in short, and how many wait to be worked out.

    A trip that is open is worked out each time: lines that are out count until now. Each
    answer works out at least one ended day that is not kept, so that none waits for ever.
    """
    return _known(trips, lambda row: _read(row.document), lambda made: made)


def days_of(trips: Sequence[Trip]) -> tuple[dict[Any, dict[str, Any]], int]:
    """Return what the list of days shows of the trips, and how many wait to be worked out."""
    return _known(trips, _numbers, numbers_of, "document")


Found = TypeVar("Found")


def _known(
    trips: Sequence[Trip], read: Callable[[Digest], Found], show: Callable[[DayDigest], Found],
    *unread: str,
) -> tuple[dict[Any, Found], int]:
    kept = {row.trip_id: row for row in Digest.objects.filter(trip__in=trips).defer(*unread)}
    # The last of each by the index of (trip, seq): a season's events are not counted through.
    newest = Event.objects.filter(trip=OuterRef("pk")).order_by("-seq").values("seq")[:1]
    last = dict(
        Trip.objects.filter(pk__in=[trip.pk for trip in trips])
        .annotate(last=Subquery(newest)).values_list("pk", "last")
    )
    found: dict[Any, Found] = {}
    waiting = 0
    until = None
    for trip in trips:
        row, seq = kept.get(trip.pk), last.get(trip.pk) or 0
        if row is not None and trip.is_ended and (row.seq, row.version) == (seq, VERSION):
            found[trip.pk] = read(row)
        elif not trip.is_ended or until is None or time.monotonic() < until:
            found[trip.pk] = show(_anew(trip, seq))
            # Not counted: what an open trip takes, which it takes of every answer.
            if trip.is_ended and until is None:
                until = time.monotonic() + PATIENCE_S
        else:
            waiting += 1
    return found, waiting


def _numbers(row: Digest) -> dict[str, Any]:
    """What is shown of a day; kept where an earlier version has not."""
    if row.numbers is None:
        row.numbers = numbers_of(_read(row.document))
        row.save(update_fields=["numbers"])
    found: dict[str, Any] = row.numbers
    return found


def numbers_of(short: DayDigest) -> dict[str, Any]:
    """Return what the list of days shows of a day."""
    return {
        "minutes": sum(s.minutes for s in short.spells),
        "hits": sum(s.hits for s in short.spells) + short.cast_hits,
        "landed": len(short.caught), "kept": sum(fish.kept for fish in short.caught),
        "cast_landed": short.cast_landed, "warm_first_degc": short.warm_first_degc,
        "warm_last_degc": short.warm_last_degc, "marks_m": short.marks_m,
        "fished_m": _usual_depth(short), "best": _best_of(short),
    }


def _usual_depth(short: DayDigest) -> float | None:
    """How deep the hits were, or, where none was, what fished: the middle by minutes, m."""
    rows = sorted(
        (s.depth_m, float(s.hits) if any(x.hits for x in short.spells) else s.minutes)
        for s in short.spells
    )
    half, seen = 0.5 * sum(weight for _, weight in rows), 0.0
    for depth, weight in rows:
        seen += weight
        if weight and seen >= half:
            return depth
    return None


def _best_of(short: DayDigest) -> str:
    hits: Counter[str] = Counter()
    for spell in short.spells:
        if spell.hits:
            hits[f"{spell.colour} {spell.lure}".strip()] += spell.hits
    return hits.most_common(1)[0][0] if hits else ""


def _read(document: dict[str, Any]) -> DayDigest:
    """What was written here is read without looking at each number again: they are a season."""
    rest = {k: v for k, v in document.items() if k not in ("spells", "caught", "handled")}
    return DayDigest(
        spells=tuple(Spell(**row) for row in document["spells"]),
        caught=tuple(Caught(**row) for row in document["caught"]),
        handled=tuple(
            Handled(**{**row, "resets_min": tuple(row["resets_min"])})
            for row in document["handled"]
        ),
        **rest,
    )


def _anew(trip: Trip, seq: int) -> DayDigest:
    try:
        now_s = trip_now_s(trip)
        if trip.is_ended:
            last_s = trip.events.order_by("-at_s").values_list("at_s", flat=True).first()
            now_s = trip.started_at.timestamp() if last_s is None else last_s
        made = digest(trip_now(trip), now_s)
    except Exception as error:  # One old record must not hide a season.
        write_down(error, "a day could not be put in short")
        made = DayDigest(
            spells=(), caught=(), warm_first_degc=None, warm_last_degc=None, marks_m=None
        )
    Digest.objects.update_or_create(
        trip_id=trip.pk, defaults={
            "seq": seq, "version": VERSION, "document": encode(made),
            "numbers": numbers_of(made),
        }
    )
    return made
