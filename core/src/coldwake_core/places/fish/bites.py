"""The latest bite of a rod with what is known of it, and the pass that is being made."""

from __future__ import annotations

from bisect import bisect_right
from dataclasses import dataclass
from typing import Final

from ...record.casting import sunk_m
from ...record.state import TripState
from ...record.told import Doing
from ...trip.pieces import TURN_S

TELL_S: Final = 600.0
"""For so long after a bite it is asked what it was like."""
MOMENT_S: Final = 60.0
"""What happened so shortly before a bite was what the line was doing (judged)."""
FASTER_MPS: Final = 0.04
TURNED_DEG: Final = 20.0
"""So much another course between two fixes is a turn (judged)."""
AMIDSHIPS_M: Final = 0.3
"""A line this near the middle is neither inside nor outside of a turn."""
LATEST_BITES: Final = 120
"""So many of the latest are looked at for what turns say: a good day's."""
SIDES_TOLD: Final = 2
"""So many more bites on one side of turns than on the other say something (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class BiteView:
    """The latest bite of a rod.

    Parameters
    ----------
    rod_id : str
        The rod.
    at_s : float
        When, seconds since 1970-01-01 UTC.
    was_lost : bool
        Whether the fish came off.
    felt, lost : str or None
        What was told of it.
    doing : Doing
        What the line was doing: as told, else as far as the record knows.
    """

    rod_id: str
    at_s: float
    was_lost: bool
    felt: str | None
    lost: str | None
    doing: str


@dataclass(frozen=True, slots=True, kw_only=True)
class CastingView:
    """A school that is cast to.

    Parameters
    ----------
    start_s : float
        Since when, seconds since 1970-01-01 UTC.
    weight_kg : float
        Weight of the lure, kg.
    count_s : float
        The count-down, s.
    depth_m : float
        About how deep that lets it sink, m.
    retrieve : str
        How it is wound in.
    hits, hooked, landed, lost : int
        What it brought.
    """

    start_s: float
    weight_kg: float
    count_s: float
    depth_m: float
    retrieve: str
    hits: int
    hooked: int
    landed: int
    lost: int


def casting_now(state: TripState) -> CastingView | None:
    """Return the school that is cast to now.

    Parameters
    ----------
    state : TripState
        The trip.

    Returns
    -------
    CastingView or None
        None where nobody casts.
    """
    last = state.castings[-1] if state.castings else None
    if last is None or last.end_s is not None or state.ended:
        return None
    return CastingView(
        start_s=last.start_s, weight_kg=last.weight_kg, count_s=last.count_s,
        depth_m=sunk_m(last.count_s, state.bottom_m), retrieve=last.retrieve, hits=last.hits,
        hooked=last.hooked, landed=last.landed, lost=last.lost,
    )


def turning_now(state: TripState, now_s: float) -> str | None:
    """Return where the boat turns, as far as it was told.

    Parameters
    ----------
    state : TripState
        The trip.
    now_s : float
        Seconds since 1970-01-01 UTC.

    Returns
    -------
    {'port', 'starboard'} or None
        None once it was told to be over, or three minutes have gone by.
    """
    last = state.turns[-1] if state.turns else None
    if last is None or last.end_s is not None or not 0.0 <= now_s - last.start_s <= TURN_S:
        return None
    return last.toward


@dataclass(frozen=True, slots=True, kw_only=True)
class PassView:
    """A pass through fish.

    Parameters
    ----------
    start_s : float
        When it began, seconds since 1970-01-01 UTC.
    end_s : float or None
        When it ended; None while it lasts.
    fish : int
        Fish marked on it.
    hits : int
        Hits on it, of all rods.
    """

    start_s: float
    end_s: float | None
    fish: int
    hits: int


def bites_now(state: TripState, now_s: float) -> tuple[BiteView, ...]:
    """Return the latest bite of each rod, as long as it is worth telling more of it.

    Parameters
    ----------
    state : TripState
        The trip.
    now_s : float
        Seconds since 1970-01-01 UTC.

    Returns
    -------
    tuple of BiteView
    """
    latest: dict[str, tuple[float, bool]] = {}
    over_s: dict[str, float] = {}
    for at_s, rod_id, kind in state.bites:
        before = latest.get(rod_id)
        if kind in ("hit", "hooked") and (before is None or kind == "hit" or before[1]):
            latest[rod_id] = at_s, False
        elif kind == "lost" and before is not None:
            latest[rod_id] = before[0], True
        over_s[rod_id] = at_s
    bites = []
    for rod_id, (at_s, was_lost) in latest.items():
        if not 0.0 <= now_s - over_s[rod_id] <= TELL_S:
            continue
        told = state.told.get((rod_id, at_s))
        bites.append(BiteView(
            rod_id=rod_id, at_s=at_s, was_lost=was_lost,
            felt=told.felt if told else None, lost=told.lost if told else None,
            doing=(told.doing if told else None) or line_doing(state, rod_id, at_s),
        ))
    return tuple(bites)


def line_doing(state: TripState, rod_id: str, at_s: float) -> Doing:
    """Return what a line was doing at a bite, as far as the record knows.

    Parameters
    ----------
    state : TripState
        The trip.
    rod_id : str
        The rod.
    at_s : float
        The bite, seconds since 1970-01-01 UTC.

    Returns
    -------
    Doing
        "steady" where nothing else is known.

    Notes
    -----
    Long-lined while a fish was on another rod; dropping within a minute of being let out, rising or
    dropping within one of being set anew; inside or outside of a turn that was told, or that two
    fixes show; surging or easing within one of a change of speed.
    """
    playing: set[str] = set()
    for when, rod, kind in state.bites:
        if when >= at_s:
            break
        if kind == "hooked":
            playing.add(rod)
        elif kind in ("landed", "lost"):
            playing.discard(rod)
    if playing - {rod_id}:
        return "long_lined"
    stints = [s for s in state.stints if s.rod_id == rod_id and s.start_s <= at_s]
    if stints and at_s - stints[-1].start_s <= MOMENT_S:
        before = stints[-2] if len(stints) > 1 else None
        joined = before is not None and before.end_s == stints[-1].start_s
        if before is not None and joined and before.setting_m > stints[-1].setting_m:
            return "rising"
        if before is None or not joined or before.setting_m < stints[-1].setting_m:
            return "dropping"
    side = _side_of_turn(state, rod_id, at_s)
    if side is not None:
        return side
    speeds = [(when, mps) for when, mps in state.speeds if when <= at_s]
    if len(speeds) > 1 and at_s - speeds[-1][0] <= MOMENT_S:
        change = speeds[-1][1] - speeds[-2][1]
        if abs(change) >= FASTER_MPS:
            return "surging" if change > 0.0 else "easing"
    return "steady"


def _toward(state: TripState, at_s: float) -> str | None:
    """Where the boat turned at a moment: as told, else by the last two fixes."""
    for turn in reversed(state.turns):
        end_s = turn.start_s + TURN_S if turn.end_s is None else turn.end_s
        # Behind the boat lures turn later than it: a minute's trail still feels it.
        if turn.start_s <= at_s <= end_s + MOMENT_S:
            return turn.toward
    # The last two fixes until a minute after it, however many came since.
    until = bisect_right(state.fixes, at_s + MOMENT_S, key=lambda fix: fix[0])
    if until < 2:
        return None
    (first_s, first), (second_s, second) = state.fixes[until - 2:until]
    if abs(at_s - second_s) > MOMENT_S or second_s - first_s > 2.0 * MOMENT_S:
        return None
    turned = (second.course_deg - first.course_deg + 180.0) % 360.0 - 180.0
    if abs(turned) < TURNED_DEG:
        return None
    return "starboard" if turned > 0.0 else "port"


def _side_of_turn(state: TripState, rod_id: str, at_s: float) -> Doing | None:
    """Whether a rod was inside or outside of a turn; None where there was none, or it is amid."""
    toward, setup = _toward(state, at_s), state.rods[rod_id].setup
    if toward is None or setup is None:
        return None
    side_m = next((p.side_m for p in state.outfit.places if p.id == setup.place_id), 0.0)
    if abs(side_m) < AMIDSHIPS_M:
        return None
    return "inside_turn" if (side_m > 0.0) == (toward == "starboard") else "outside_turn"


def turn_hint(state: TripState) -> str | None:
    """Return what bites inside or outside of turns say of speed and depth.

    Parameters
    ----------
    state : TripState
        The trip.

    Returns
    -------
    str or None
        None until one side is two bites ahead. Inside lines slow and sink, outside ones speed up
        and rise (common practice).
    """
    inside = outside = 0
    for at_s, rod_id, kind in state.bites[-LATEST_BITES:]:
        if kind == "hit" and rod_id in state.rods:
            told = state.told.get((rod_id, at_s))
            doing = (told.doing if told else None) or _side_of_turn(state, rod_id, at_s)
            inside += doing == "inside_turn"
            outside += doing == "outside_turn"
    if inside - outside >= SIDES_TOLD:
        return (
            f"{inside} bites on the inside of turns, {outside} outside: they may want it slower "
            "or deeper (common practice)."
        )
    if outside - inside >= SIDES_TOLD:
        return (
            f"{outside} bites on the outside of turns, {inside} inside: they may want it faster "
            "or shallower (common practice)."
        )
    return None


def latest_pass(state: TripState, now_s: float) -> PassView | None:
    """Return the latest pass through fish, with what it brought.

    Parameters
    ----------
    state : TripState
        The trip.
    now_s : float
        Seconds since 1970-01-01 UTC.

    Returns
    -------
    PassView or None
        None before the first.
    """
    if not state.passes:
        return None
    last = state.passes[-1]
    end_s = now_s if last.end_s is None else last.end_s
    return PassView(
        start_s=last.start_s, end_s=last.end_s,
        fish=sum(m.mark.count for m in state.marks if last.start_s <= m.at_s <= end_s),
        hits=sum(
            1 for at_s, _, kind in state.bites if kind == "hit" and last.start_s <= at_s <= end_s
        ),
    )
