"""Where fish are lost between hit and net, and what is done about it (common practice)."""

from __future__ import annotations

from bisect import bisect_right
from collections import Counter, defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

from ..errors import CoreError
from ..evidence.funnel import Funnel, FunnelVerdict, judge_funnel, lands_less
from ..gear.setup import RigKind, RodSetup, rig_kind
from ..record.state import Stint, TripState
from ..trade import Species

LEVERED: Final[tuple[RigKind, ...]] = ("weighted", "dropper")
"""Rigs with a weight on the line that a fish can lever against (common practice)."""
SURE: Final = 0.9
HOOKING: Final = (
    "Look at the hook's place: farther back, or a stinger behind it.",
    "Shorten the bait until nothing hangs past the hook.",
    "Sharpen the points, or change the hook.",
    "Go a little slower.",
)
LANDING: Final = (
    "Ease the drag: it should give before the hook does.",
    "Do not horse it: the boat goes on slowly, the rod stays bent.",
    "The net goes under a fish that lies on its side, not after one that swims.",
)
KOKANEE: Final = (
    "Very light drag: their mouths tear.",
    "Rod tip under water near the boat; the net only when the fish lies on its side.",
)
LEVER: Final = "More come off where a weight rides on the line: try a clip or a ball instead."


@dataclass(frozen=True, slots=True, kw_only=True)
class FunnelView:
    """From hit to net.

    Parameters
    ----------
    hits, hooked, landed, lost : int
        Of all rods.
    verdict : FunnelVerdict
        Where fish are lost, if it can be told.
    probability : float
        Of what the verdict says; 0 where it is too early.
    words : str
        The same in a sentence.
    cures : tuple of str
        What is done about it.
    """

    hits: int
    hooked: int
    landed: int
    lost: int
    verdict: FunnelVerdict
    probability: float
    words: str
    cures: tuple[str, ...]


def funnel_view(state: TripState, species: Species) -> FunnelView | None:
    """Return what the trip's funnel says.

    Parameters
    ----------
    state : TripState
        The trip.
    species : {'trout', 'kokanee', 'striper'}
        What is fished for.

    Returns
    -------
    FunnelView or None
        None before the first hit.

    Notes
    -----
    A fish that is on is hooked, and neither landed nor lost. A weight is blamed only where rigs
    with one lose more than those beside them without; by what the rod wore at the bite.
    """
    by_kind = funnels(state)
    whole = _sum(by_kind.values())
    if not whole.hits:
        return None
    judged = judge_funnel(whole)
    cures: tuple[str, ...] = ()
    probability = 0.0
    words = f"{whole.hits} hits, {whole.hooked} hooked, {whole.landed} landed: too early to tell."
    if judged.verdict == "few_hooked":
        cures, probability = HOOKING, judged.few_hooked
        words = f"Only {whole.hooked} of {whole.hits} hits hooked: it is the hook, not the fish."
    elif judged.verdict == "few_landed":
        cures = (*(KOKANEE if species == "kokanee" else ()), *LANDING)
        probability = judged.few_landed
        words = f"{whole.lost} of {whole.landed + whole.lost} fish came off on the way."
        levered = _sum(funnel for kind, funnel in by_kind.items() if kind in LEVERED)
        free = _sum(funnel for kind, funnel in by_kind.items() if kind not in LEVERED)
        if levered.lost and lands_less(levered, free) >= SURE:
            cures = (LEVER, *cures)
    elif judged.verdict == "good":
        probability = 1.0 - max(judged.few_hooked, judged.few_landed)
        words = f"{whole.landed} of {whole.landed + whole.lost} fish landed: well done, as it is."
    return FunnelView(
        hits=whole.hits, hooked=whole.hooked, landed=whole.landed, lost=whole.lost,
        verdict=judged.verdict, probability=probability, words=words, cures=cures,
    )


def funnels(state: TripState) -> dict[RigKind | None, Funnel]:
    """Return the funnel of each kind of rig, by what the rod wore at the bite.

    Parameters
    ----------
    state : TripState
        The trip.

    Returns
    -------
    dict of RigKind or None to Funnel
        None for a rod that was not fishing by the record, or wore what is no longer aboard.
    """
    by_rod: dict[str, list[Stint]] = defaultdict(list)
    for stint in state.stints:
        by_rod[stint.rod_id].append(stint)
    counts: dict[RigKind | None, Counter[str]] = defaultdict(Counter)
    for at_s, rod_id, what in state.bites:
        begun = bisect_right(by_rod[rod_id], at_s, key=lambda stint: stint.start_s)
        kind = kind_aboard(state, by_rod[rod_id][begun - 1].setup) if begun else None
        counts[kind][what] += 1
    return {
        kind: Funnel(
            hits=seen["hit"], hooked=seen["hooked"], landed=seen["landed"], lost=seen["lost"]
        )
        for kind, seen in counts.items()
    }


def kind_aboard(state: TripState, setup: RodSetup) -> RigKind | None:
    """Return how a rod was fished.

    Parameters
    ----------
    state : TripState
        The trip.
    setup : RodSetup
        What was on the rod.

    Returns
    -------
    RigKind or None
        None where something that it wore is no longer aboard.
    """
    try:
        return rig_kind(state.outfit, setup)
    except CoreError:
        return None


def _sum(funnels: Iterable[Funnel]) -> Funnel:
    found = list(funnels)
    return Funnel(
        hits=sum(f.hits for f in found), hooked=sum(f.hooked for f in found),
        landed=sum(f.landed for f in found), lost=sum(f.lost for f in found),
    )
