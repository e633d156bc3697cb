"""What a spread breaks: window, box, licence, tangles, rules, wanted depths, the looks."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

from ..checks import require_number
from ..errors import InvalidInputError
from ..gear.setup import RodSetup
from ..places.above.asked import plan
from ..places.rig.bench import check_spread
from ..trip.now import Now
from .wanted import WantedDepth, covers

TURN_M: Final = 60.0
"""Long turns of this radius are looked at for tangles: an easy one for a small boat (judged)."""
STRAIGHT: Final = "straight ahead"
Breaks = Literal[
    "window", "rule", "licence", "tangle", "depth", "alike", "different", "place", "reel"
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Out:
    """A rod of a spread: what it wears and the number it is set to, m."""

    setup: RodSetup
    setting_m: float

    def check(self) -> None:
        """Raise InvalidInputError unless the number is a length."""
        require_number("setting_m", self.setting_m, above=0.0, high=500.0, unit="m")


@dataclass(frozen=True, slots=True, kw_only=True)
class Break:
    """Something a spread breaks.

    Parameters
    ----------
    kind : Breaks
        What kind of thing.
    rod_ids : tuple of str
        The rods it is about.
    words : str
        In a sentence.
    depth_m : float or None
        The wanted depth it is about, m.
    """

    kind: Breaks
    rod_ids: tuple[str, ...]
    words: str
    depth_m: float | None = None


def with_spread(now: Now, rods: Sequence[Out], speed_mps: float) -> Now:
    """Return the trip as if this spread were out: for looking at only.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    rods : sequence of Out
        The spread.
    speed_mps : float
        Speed through water, m/s.

    Returns
    -------
    Now

    Raises
    ------
    InvalidInputError
        If a rod is not aboard or stands twice, or its number is more than its reel holds.
    """
    state = now.state.copy()
    for rod in state.rods.values():
        rod.status, rod.setup = "in", None
    state.speed_mps = speed_mps
    for index, out in enumerate(rods):
        rod_state = state.rods.get(out.setup.rod_id)
        if rod_state is None or rod_state.setup is not None:
            raise InvalidInputError(
                f"rods[{index}].setup.rod_id", out.setup.rod_id, "a rod aboard, each only once"
            )
        rod_state.setup, rod_state.setting_m = out.setup, out.setting_m
        rod_state.status = "fishing"
    return now.tried(state)


def judge_spread(
    now: Now, rods: Sequence[Out], speed_mps: float, wanted: Sequence[WantedDepth]
) -> tuple[Break, ...]:
    """Return what a spread breaks.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    rods : sequence of Out
        The spread.
    speed_mps : float
        Speed through water, m/s.
    wanted : sequence of WantedDepth
        Depths that are wanted.

    Returns
    -------
    tuple of Break
        Empty when all is well.

    Raises
    ------
    InvalidInputError
        If a rod cannot be so at all.
    """
    tried = with_spread(now, rods, speed_mps)
    names = {rod.id: rod.name for rod in tried.state.outfit.rods}
    found: list[Break] = []
    spread = check_spread(tried)
    window, odd = spread.common.window, spread.common.odd
    if window is not None and window.is_open:
        if not window.low_mps - 1e-3 <= speed_mps <= window.high_mps + 1e-3:
            found.append(Break(
                kind="window", rod_ids=(), words="The speed is outside the one that all share.",
            ))
    elif window is not None:
        found.append(Break(
            kind="window", rod_ids=() if odd is None else (odd.rod_id,),
            words="No speed suits all." if odd is None
            else f"{names[odd.rod_id]} shares no speed with the others.",
        ))
    for bench in spread.rods:
        for finding in bench.findings:
            if finding.severity != "look":
                rod_id = bench.setup.rod_id
                found.append(Break(
                    kind="rule", rod_ids=(rod_id,),
                    words=f"{names[rod_id]}: {finding.message} {finding.remedy}",
                ))
    if spread.over_licence:
        found.append(Break(
            kind="licence", rod_ids=(),
            words=f"{spread.over_licence} more rods than you noted ({spread.rules_origin}).",
        ))
    found += _twice(tried, rods, names)
    found += _tangles(tried, names)
    depths = {line.rod_id: line.depth_m for line in tried.lines.lines_at(speed_mps=speed_mps)}
    for item in wanted:
        if not any(covers(item, depth) for depth in depths.values()):
            found.append(Break(
                kind="depth", rod_ids=(), depth_m=item.depth_m,
                words=f"no lure runs there: {item.why}.",
            ))
    found += _looks(rods)
    return tuple(found)


def _twice(tried: Now, rods: Sequence[Out], names: dict[str, str]) -> list[Break]:
    """Two rods at one place without a cable to share, and more reels than there are."""
    found = []
    outfit = tried.state.outfit
    for place_id, count in Counter(out.setup.place_id for out in rods).items():
        if count > 1 and outfit.place(place_id).kind != "downrigger":
            who = tuple(o.setup.rod_id for o in rods if o.setup.place_id == place_id)
            found.append(Break(
                kind="place", rod_ids=who,
                words=" and ".join(names[i] for i in who) + " stand at one place.",
            ))
    for line_id, count in Counter(out.setup.line_id for out in rods).items():
        line = outfit.line(line_id)
        if count > line.count:
            who = tuple(o.setup.rod_id for o in rods if o.setup.line_id == line_id)
            found.append(Break(
                kind="reel", rod_ids=who,
                words=f"{count} rods with {line.name}, and {line.count} of it aboard.",
            ))
    return found


def tangled_pairs(tried: Now) -> dict[tuple[str, ...], str]:
    """Return the pairs of lines that catch each other straight ahead or in an easy turn.

    Parameters
    ----------
    tried : Now
        The trip with the spread out.

    Returns
    -------
    dict of (str, str) to str
        Where, by the two rods.
    """
    found: dict[tuple[str, ...], str] = {}
    for tangle in plan(tried, course="straight").tangles:
        found.setdefault(tangle.rod_ids, STRAIGHT)
    for toward in ("port", "starboard"):
        for tangle in plan(tried, course=toward, radius_m=TURN_M).tangles:
            found.setdefault(tangle.rod_ids, f"in a long turn to {toward}: turn wider, or in an S")
    return found


def _tangles(tried: Now, names: dict[str, str]) -> list[Break]:
    return [
        Break(
            kind="tangle", rod_ids=pair,
            words=" and ".join(names[i] for i in pair) + f" come too near {where}.",
        )
        for pair, where in tangled_pairs(tried).items()
    ]


def _looks(rods: Sequence[Out]) -> list[Break]:
    if len(rods) < 3:
        return []
    looks = Counter((out.setup.attractor_id, out.setup.lure_id) for out in rods)
    found = []
    if max(looks.values()) < 2:
        found.append(Break(
            kind="alike", rod_ids=(),
            words="No two rods are alike: nothing will tell a change from the clock.",
        ))
    if len(looks) < 2:
        found.append(Break(
            kind="different", rod_ids=(), words="All rods are alike: only one look is tried."
        ))
    return found
