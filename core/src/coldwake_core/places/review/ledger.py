"""The ledger of a day: what each kind of rig cost in minutes, and what it earned."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

from ...advice.cures import funnels, kind_aboard
from ...gear.setup import RigKind
from ...record.state import Stint
from ...trip.keep_out import LinesInside, lines_inside
from ...trip.now import Now

LONGEST_RESET_S: Final = 1800.0
"""A line that was in for longer was not being reset: it was left in (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Handled:
    """A kind of rig on one day, as it adds up with other days.

    Parameters
    ----------
    kind : RigKind
        Which.
    rod_minutes : float
        How long its lines were in the water, min.
    resets_min : tuple of float
        What each reset took, min.
    tangles : int
        How often one of them had to be cleared.
    hits, hooked, landed, lost : int
        Its funnel.
    """

    kind: RigKind
    rod_minutes: float
    resets_min: tuple[float, ...]
    tangles: int
    hits: int
    hooked: int
    landed: int
    lost: int


@dataclass(frozen=True, slots=True, kw_only=True)
class LedgerRow:
    """A kind of rig.

    Parameters
    ----------
    kind : RigKind
        Which.
    rod_minutes : float
        How long its lines were in the water, min.
    resets : int
        How often a line was put out again within half an hour.
    reset_min : float or None
        The middle time that took, min; None where none was.
    tangles : int
        How often one of them had to be cleared.
    hits, hooked, landed, lost : int
        Its funnel.
    """

    kind: RigKind
    rod_minutes: float
    resets: int
    reset_min: float | None
    tangles: int
    hits: int
    hooked: int
    landed: int
    lost: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Ledger:
    """A day's ledger.

    Parameters
    ----------
    rows : tuple of LedgerRow
        By kind, what fished longest first.
    in_water : float or None
        Share of the time from the first line out to the last in that a line was in the water,
        over all rods that fished; None where none did.
    inside : tuple of LinesInside
        When lines were out in closed water.
    """

    rows: tuple[LedgerRow, ...]
    in_water: float | None
    inside: tuple[LinesInside, ...]


def ledger(now: Now, now_s: float) -> Ledger:
    """Return the ledger of a trip.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    Ledger
    """
    by_rod = _by_rod(now)
    return Ledger(
        rows=added_up(handled(now, now_s)), in_water=_in_water(by_rod, now_s),
        inside=lines_inside(now),
    )


def _by_rod(now: Now) -> dict[str, list[Stint]]:
    by_rod: dict[str, list[Stint]] = defaultdict(list)
    for stint in now.state.stints:
        by_rod[stint.rod_id].append(stint)
    return by_rod


def handled(now: Now, now_s: float) -> tuple[Handled, ...]:
    """Return what each kind of rig cost and earned on a trip.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    tuple of Handled
        By kind, what fished longest first.

    Notes
    -----
    A reset is the time from the end of a stretch of fishing to the next of the same rod, by the
    kind that went out again; a change of number on a line that stays in the water is none.
    """
    state = now.state
    minutes: dict[RigKind, float] = defaultdict(float)
    resets: dict[RigKind, list[float]] = defaultdict(list)
    for stints in _by_rod(now).values():
        for i, stint in enumerate(stints):
            kind = kind_aboard(state, stint.setup)
            if kind is None:
                continue
            minutes[kind] += stint.minutes(now_s)
            before_s = stints[i - 1].end_s if i else None
            gap = None if before_s is None else stint.start_s - before_s
            if gap is not None and 0.0 < gap <= LONGEST_RESET_S:
                resets[kind].append(gap / 60.0)
    tangles = Counter(kind_aboard(state, setup) for _, setup in state.tangles)
    earned = funnels(state)
    rows = []
    for kind in sorted(minutes, key=lambda k: -minutes[k]):
        funnel = earned.get(kind)
        rows.append(Handled(
            kind=kind, rod_minutes=minutes[kind], resets_min=tuple(resets[kind]),
            tangles=tangles[kind],
            hits=funnel.hits if funnel else 0, hooked=funnel.hooked if funnel else 0,
            landed=funnel.landed if funnel else 0, lost=funnel.lost if funnel else 0,
        ))
    return tuple(rows)


def added_up(days: Iterable[Handled]) -> tuple[LedgerRow, ...]:
    """Return the ledger's rows over one day or many.

    Parameters
    ----------
    days : iterable of Handled
        Of all days, in any order.

    Returns
    -------
    tuple of LedgerRow
        By kind, what fished longest first.
    """
    by_kind: dict[RigKind, list[Handled]] = defaultdict(list)
    for one in days:
        by_kind[one.kind].append(one)
    rows = []
    for kind, found in by_kind.items():
        resets = [minutes for one in found for minutes in one.resets_min]
        rows.append(LedgerRow(
            kind=kind, rod_minutes=sum(one.rod_minutes for one in found), resets=len(resets),
            reset_min=_middle(resets), tangles=sum(one.tangles for one in found),
            hits=sum(one.hits for one in found), hooked=sum(one.hooked for one in found),
            landed=sum(one.landed for one in found), lost=sum(one.lost for one in found),
        ))
    return tuple(sorted(rows, key=lambda row: -row.rod_minutes))


def _middle(values: list[float]) -> float | None:
    """The median; None of nothing."""
    if not values:
        return None
    order, half = sorted(values), len(values) // 2
    return order[half] if len(order) % 2 else 0.5 * (order[half - 1] + order[half])


def _in_water(by_rod: dict[str, list[Stint]], now_s: float) -> float | None:
    stints = [stint for rod in by_rod.values() for stint in rod]
    if not stints:
        return None
    first = min(stint.start_s for stint in stints)
    last = max(now_s if s.end_s is None else min(s.end_s, now_s) for s in stints)
    whole = (last - first) / 60.0 * len(by_rod)
    return sum(s.minutes(now_s) for s in stints) / whole if whole > 0.0 else None
