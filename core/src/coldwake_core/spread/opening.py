"""The opening spread: depths, setbacks and looks in one speed window, without tangles."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ..advice.method import Method
from ..boat.current import PassSpeeds, pass_speeds
from ..checks import require_number
from ..errors import InvalidInputError
from ..gear.pieces import FASTEST_MPS, SLOWEST_MPS
from ..gear.setup import RodSetup, recipe_words
from ..trip.now import Now
from ..trip.numbers import LineNumber
from ..trip.today import method_now
from .breaks import STRAIGHT, Break, Out, judge_spread, tangled_pairs, with_spread
from .candidates import LONG_M, candidates_for
from .choose import Candidate, choose
from .dress import Dress, Earned, best_at, looks_for
from .pace import opening_speed
from .stands import Stand, stands_of
from .wanted import WantedDepth, wanted_depths

_ROUNDS: Final = 6


@dataclass(frozen=True, slots=True, kw_only=True)
class PlannedRod:
    """A rod of the opening spread.

    Parameters
    ----------
    setup : RodSetup
        What it wears and where it stands.
    setting_m : float
        The number to set, m.
    number : LineNumber
        The same as a hand sets it.
    depth_m : float
        Where its lure runs, m.
    words : str
        Its recipe.
    reasons : tuple of str
        Why.
    """

    setup: RodSetup
    setting_m: float
    number: LineNumber
    depth_m: float
    words: str
    reasons: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class OpeningSpread:
    """An opening spread, or one that its user changed.

    Parameters
    ----------
    speed_mps : float
        Speed through water, m/s.
    passes : PassSpeeds or None
        The same over ground, up and down the current.
    rods : tuple of PlannedRod
        Port to starboard.
    wanted : tuple of WantedDepth
        Depths it should cover.
    breaks : tuple of Break
        What it breaks; empty when all is well.
    reasons : tuple of str
        Why the speed, and what was left out.
    """

    speed_mps: float
    passes: PassSpeeds | None
    rods: tuple[PlannedRod, ...]
    wanted: tuple[WantedDepth, ...]
    breaks: tuple[Break, ...]
    reasons: tuple[str, ...]


def build_opening(
    now: Now, now_s: float, *, speed_mps: float | None = None,
    rod_ids: Sequence[str] | None = None, earned: Sequence[Earned] = (),
) -> OpeningSpread:
    """Return an opening spread for the rods on the boat.

    Parameters
    ----------
    now : Now
        The trip, for what is aboard, marks, temperature, current and schools.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.
    speed_mps : float, optional
        Speed through water to build for, m/s; the best for the box when left out.
    rod_ids : sequence of str, optional
        Rods to use; all of them when left out.
    earned : sequence of Earned
        What earned hits on days like this, the best first.

    Returns
    -------
    OpeningSpread

    Raises
    ------
    InvalidInputError
        If a rod is not aboard, or nothing in the box works at the speed.

    Notes
    -----
    Speed first: the one at which the box's best looks work with room for gusts. Then one
    mixed-integer program for looks and numbers together (see ``choose``). Its answer is laid out
    and towed; pairs that come too near, straight or in a long turn, are forbidden and it is solved
    again, six times at most. Of the answers one without tangles straight ahead is taken, with the
    most rods, then with the fewest in turns; those left are told. Nothing is drawn by lot: the
    same input, the same spread.
    """
    method, state = method_now(now, now_s), now.state
    stands, reasons = stands_of(now, rod_ids)
    if not stands:
        raise InvalidInputError(
            "rod_ids", list(rod_ids or ()),
            "rods with a place and a reel: set them up in the Locker",
        )
    looks = looks_for(
        state.outfit, species=now.trip.species, method=method,
        rules=now.trip.rules, earned=earned,
    )
    speed, why = opening_speed(now, looks, method, len(stands), speed_mps)
    reasons.append(why)
    best = best_at(looks, speed)
    if not best:
        raise InvalidInputError(
            "speed_mps", round(speed, 3),
            "a speed at which something in the box works, with room for gusts",
        )
    wanted = wanted_depths(state, method, now_s)
    outs, covered = _solve(now, stands, best, wanted, speed, method)
    if len(outs) < len(stands):
        reasons.append(_left_out(now, stands, outs))
    return _spread(now, outs, covered, speed, wanted, reasons)


def changed_opening(
    now: Now, now_s: float, rods: Sequence[Out], speed_mps: float
) -> OpeningSpread:
    """Return a spread that its user changed, with what that breaks.

    Parameters
    ----------
    now : Now
        The trip.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.
    rods : sequence of Out
        The spread, at most 30 rods.
    speed_mps : float
        Speed through water, m/s.

    Returns
    -------
    OpeningSpread

    Raises
    ------
    InvalidInputError
        If a rod or the speed cannot be.
    """
    require_number("speed_mps", speed_mps, low=SLOWEST_MPS, high=FASTEST_MPS, unit="m/s")
    if not 1 <= len(rods) <= 30:
        raise InvalidInputError("rods", len(rods), "1 to 30 rods")
    wanted = wanted_depths(now.state, method_now(now, now_s), now_s)
    return _spread(now, list(rods), [()] * len(rods), speed_mps, wanted, [])


def _spread(
    now: Now, outs: Sequence[Out], reasons_of: Sequence[tuple[str, ...]],
    speed_mps: float, wanted: tuple[WantedDepth, ...], reasons: list[str],
) -> OpeningSpread:
    tried = with_spread(now, outs, speed_mps)
    planned = []
    for out, why in zip(outs, reasons_of, strict=True):
        line = tried.lines.where(rod_id=out.setup.rod_id, setting_m=out.setting_m, doubt="none")
        planned.append(PlannedRod(
            setup=out.setup, setting_m=out.setting_m, number=line.number, depth_m=line.depth_m,
            words=recipe_words(tried.state.outfit, out.setup), reasons=why,
        ))
    current = now.state.current
    return OpeningSpread(
        speed_mps=speed_mps, wanted=wanted, rods=tuple(planned), reasons=tuple(reasons),
        breaks=judge_spread(now, outs, speed_mps, wanted),
        passes=None if current is None or current.speed_mps >= speed_mps
        else pass_speeds(through_water_mps=speed_mps, current=current),
    )


def _solve(
    now: Now, stands: Sequence[Stand], looks: Sequence[Dress],
    wanted: Sequence[WantedDepth], speed_mps: float, method: Method | None,
) -> tuple[list[Out], list[tuple[str, ...]]]:
    candidates, outs = candidates_for(now, stands, looks, wanted, speed_mps)
    outfit, rules = now.state.outfit, now.trip.rules
    counts = {f"lure:{lure.id}": lure.count for lure in outfit.lures} | {
        f"blade:{blade.id}": blade.count for blade in outfit.attractors
    }
    most = len(stands)
    if rules is not None and rules.rods_most is not None:
        most = min(most, rules.rods_most)
    forbidden: list[tuple[str, str]] = []
    rounds: list[tuple[tuple[int, int, int], list[Candidate]]] = []
    for _ in range(_ROUNDS):
        chosen = choose(
            candidates, counts=counts, depths=[item.worth for item in wanted], most_rods=most,
            forbidden=forbidden,
        )
        slots = {outs[item.slot, item.look].setup.rod_id: item.slot for item in chosen}
        tried = with_spread(now, [outs[item.slot, item.look] for item in chosen], speed_mps)
        pairs = tangled_pairs(tried)
        straight = sum(where == STRAIGHT for where in pairs.values())
        rounds.append(((-straight, len(chosen), -len(pairs)), chosen))
        if not pairs:
            break
        forbidden += [(slots[a], slots[b]) for a, b in pairs]
    # None straight ahead first, then the most rods, then the fewest in turns; the first of equals.
    chosen = max(rounds, key=lambda item: item[0])[1]
    return [outs[item.slot, item.look] for item in chosen], [
        _why(now, item, chosen, stands, looks, wanted, outs[item.slot, item.look])
        for item in chosen
    ]


def _why(
    now: Now, item: Candidate, chosen: Sequence[Candidate], stands: Sequence[Stand],
    looks: Sequence[Dress], wanted: Sequence[WantedDepth], out: Out,
) -> tuple[str, ...]:
    words = [looks[item.look].kind.replace("_", " ")]
    words += [wanted[index].why for index in item.covers[:2]]
    alike = [
        now.state.outfit.rod(stands[other.rod].rod_id).name
        for other in chosen if other.look == item.look and other.rod != item.rod
    ]
    words.append(
        f"alike with {' and '.join(alike)}: a change on one can be told from the clock"
        if alike else "the different one: another look in the same water"
    )
    stand = stands[item.rod]
    if stand.line.kind == "flat" and stand.weighted is None:
        side = "port" if stand.place.side_m < 0.0 else "starboard"
        words.append(f"{'long' if out.setting_m >= LONG_M else 'short'} on the {side} side")
    return tuple(words)


def _left_out(now: Now, stands: Sequence[Stand], outs: Sequence[Out]) -> str:
    used = {out.setup.rod_id for out in outs}
    names = {rod.id: rod.name for rod in now.state.outfit.rods}
    left = ", ".join(names[stand.rod_id] for stand in stands if stand.rod_id not in used)
    rules = now.trip.rules
    if rules is not None and rules.rods_most is not None and len(outs) >= rules.rods_most:
        return f"{left} stays in: you noted {rules.rods_most} rods at most ({rules.origin})."
    return f"{left} stays in: nothing in the box suits it at this speed without a tangle."
