"""The chain bench: one rod's chain to scale, its leader by school, and what the rules say."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ...advice.method import band_in
from ...boat.current import PassSpeeds, pass_speeds
from ...constants import FOOT_M
from ...errors import CoreError
from ...gear.common import CommonSpeed, common_speed
from ...gear.ladder import RUNGS, LadderStep, Mood, ladder_steps, mood_of
from ...gear.leader import LEADER_SCHOOLS, LeaderSchool, LeaderSpan, leader_span, wildness
from ...gear.pieces import SLOWEST_MPS, SpeedRange
from ...gear.setup import RigKind, RodSetup, build_rig, rig_kind, same_cable, working_range
from ...gear.tackle import Outfit
from ...gear.usual import EITHER_SIDE_MPS, fitted
from ...gear.voltage import SCHOOLS as VOLTAGE_SCHOOLS
from ...gear.voltage import VoltageReading, read_voltage
from ...gear.window import SpeedWindow
from ...rig_rules.engine import check_rod
from ...rig_rules.facts import RodFacts
from ...rig_rules.rule import Finding
from ...trip.now import Now
from ...trip.today import method_now
from ..fish.view import SpeedPair
from .chain import ChainPart, chain

CARD_DEEPER_M: Final = 5.0 * FOOT_M
CARD_NEVER_OUT_M: Final = 10.0 * FOOT_M


@dataclass(frozen=True, slots=True, kw_only=True)
class BenchView:
    """One rod on the bench.

    Parameters
    ----------
    setup : RodSetup
        What is on it.
    kind : RigKind
        How it is fished.
    works : SpeedRange
        Speeds at which all of it works.
    chain : tuple of ChainPart
        From the lure upward to the clip, or to the main line.
    leader : LeaderSpan or None
        The leader by the school that speaks; None without an attractor.
    schools : tuple of LeaderSpan
        What each school says; empty for a disc, about which they agree.
    wild : float
        From calm, 0, to wild, 1.
    findings : tuple of Finding
        What the rules say, the worst first.
    mood : Mood
        Flash and vibration on the mood ladder.
    rung : str
        Its rung in words.
    """

    setup: RodSetup
    kind: RigKind
    works: SpeedRange
    chain: tuple[ChainPart, ...]
    leader: LeaderSpan | None
    schools: tuple[LeaderSpan, ...]
    wild: float
    findings: tuple[Finding, ...]
    mood: Mood
    rung: str


@dataclass(frozen=True, slots=True, kw_only=True)
class CableVoltage:
    """A cable's voltage with its time, seconds since 1970-01-01 UTC, and place."""

    at_s: float
    place_id: str
    reading: VoltageReading


@dataclass(frozen=True, slots=True, kw_only=True)
class CardDepths:
    """Depths that a rod's card is printed for, m, the shallower first."""

    rod_id: str
    depths_m: tuple[float, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class SpreadCheck:
    """What the rules say of the whole spread.

    Parameters
    ----------
    common : CommonSpeed
        The speed it shares, or who stands apart.
    rods : tuple of BenchView
        Every rigged rod.
    over_licence : int
        How many rods are rigged beyond what the rules entered for the water allow.
    rules_origin : str
        Day and origin of the rules entered; empty without any.
    voltages : tuple of CableVoltage
        The cables' electrolysis tests, the latest first.
    voltage_schools : str
        What practitioners make of them.
    passes : PassSpeeds or None
        The proposed speed over ground, up and down the current; None without one.
    outfit : Outfit
        What is aboard now, tackle brought during the trip included.
    mood : str
        How the fish answer, as the user said: active, usual or tough.
    card_speeds : SpeedPair
        The speeds that a card is printed for: the ends of what all share, else a little to either
        side of now.
    card_depths : tuple of CardDepths
        And the depths, by rod.
    """

    common: CommonSpeed
    rods: tuple[BenchView, ...]
    over_licence: int
    rules_origin: str
    voltages: tuple[CableVoltage, ...]
    voltage_schools: str
    passes: PassSpeeds | None
    outfit: Outfit
    mood: str
    card_speeds: SpeedPair
    card_depths: tuple[CardDepths, ...]


def bench(now: Now, setup: RodSetup, *, fit: bool = False) -> BenchView:
    """Return a rod on the bench, whether it is rigged so or only tried.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    setup : RodSetup
        What is, or would be, on the rod.
    fit : bool
        Whether to take off first what its kind of line cannot have (``gear.usual.fitted``).

    Returns
    -------
    BenchView

    Raises
    ------
    InvalidInputError
        If the setup cannot be on this boat.
    """
    if fit:
        setup = fitted(now.state.outfit, setup)
    setup.check()
    trip, state = now.trip, now.state
    others = [rod.setup for rod in state.rods.values() if rod.setup is not None]
    outfit = state.outfit
    build_rig(outfit, setup)
    mates = same_cable(outfit, setup, others)
    build_rig(outfit, setup, mates).check()
    lure = outfit.lure(setup.lure_id)
    blade = None if setup.attractor_id is None else outfit.attractor(setup.attractor_id)
    facts = RodFacts(
        outfit=outfit, setup=setup, mates=mates, speed_mps=now.speed_mps,
        clearance_m=_clearance_m(now, setup), schools=state.schools, species=trip.species,
        others=tuple(other for other in others if other.rod_id != setup.rod_id),
        water_rules=trip.rules, hits=state.rods[setup.rod_id].tally.hits,
        hooked=state.rods[setup.rod_id].tally.hooked,
    )
    leader: LeaderSpan | None = None
    schools: tuple[LeaderSpan, ...] = ()
    if blade is not None:
        leader = leader_span(
            attractor=blade, lure=lure, school=facts.leader_school, species=trip.species,
            mood=state.schools.get("mood", "usual"),
        )
        schools = () if blade.style == "disc" else tuple(
            leader_span(attractor=blade, lure=lure, school=school) for school in LEADER_SCHOOLS
        )
    mood = mood_of(outfit, setup)
    return BenchView(
        setup=setup, kind=rig_kind(outfit, setup), works=working_range(outfit, setup),
        chain=tuple(chain(outfit, setup, now.speed_mps)), leader=leader, schools=schools,
        wild=wildness(
            attractor=blade, lure=lure, leader_m=setup.leader_m, setback_m=setup.setback_m
        ),
        findings=check_rod(facts), mood=mood, rung=RUNGS[mood.rung],
    )


def ladder(
    now: Now, setup: RodSetup, *, flash: str, thump: str
) -> tuple[LadderStep, ...]:
    """Return what aboard answers "a little less flash, same thump" for a rod.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    setup : RodSetup
        What is, or would be, on the rod.
    flash, thump : {'less', 'same', 'more'}
        What is wanted of each.

    Returns
    -------
    tuple of LadderStep

    Raises
    ------
    InvalidInputError
        If a want is none or the setup cannot be on this boat.
    """
    state = now.state
    build_rig(state.outfit, setup)
    school: LeaderSchool | None = state.schools.get("leader")  # type: ignore[assignment]
    return ladder_steps(
        state.outfit, setup,
        [r.setup for r in state.rods.values() if r.setup is not None and r.rod_id != setup.rod_id],
        flash=flash, thump=thump, school=school, species=now.trip.species,
        mood=state.schools.get("mood", "usual"),
    )


def check_spread(now: Now) -> SpreadCheck:
    """Return what the rules say of all rigged rods together.

    Parameters
    ----------
    now : Now
        The trip as it stands.

    Returns
    -------
    SpreadCheck
    """
    setups = [rod.setup for rod in now.state.rods.values() if rod.setup is not None]
    rules, current = now.trip.rules, now.state.current
    common = common_speed(now.state.outfit, setups)
    return SpreadCheck(
        common=common,
        passes=None if common.proposal_mps is None or current is None
        or current.speed_mps >= common.proposal_mps
        else pass_speeds(through_water_mps=common.proposal_mps, current=current),
        outfit=now.state.outfit, mood=now.state.schools.get("mood", "usual"),
        rods=tuple(bench(now, setup) for setup in setups),
        over_licence=0 if rules is None or rules.rods_most is None
        else max(0, len(setups) - rules.rods_most),
        rules_origin="" if rules is None else f"{rules.origin}, entered {rules.entered_on}",
        voltages=tuple(
            CableVoltage(at_s=at_s, place_id=item.place_id, reading=read_voltage(item.volts))
            for at_s, item in reversed(now.state.voltages)
        ),
        voltage_schools=VOLTAGE_SCHOOLS,
        card_speeds=_card_speeds(now, common.window),
        card_depths=tuple(
            CardDepths(rod_id=setup.rod_id, depths_m=_card_depths(now, setup)) for setup in setups
        ),
    )


def _card_speeds(now: Now, window: SpeedWindow | None) -> SpeedPair:
    if window is not None and window.is_open and (
        window.high_mps - window.low_mps > 0.5 * EITHER_SIDE_MPS
    ):
        return SpeedPair(first_mps=window.low_mps, second_mps=window.high_mps)
    speed = now.speed_mps
    return SpeedPair(
        first_mps=max(speed - EITHER_SIDE_MPS, SLOWEST_MPS), second_mps=speed + EITHER_SIDE_MPS
    )


def _card_depths(now: Now, setup: RodSetup) -> tuple[float, ...]:
    """Where a rod runs, or was asked to; before the first line is out, the method's own depths."""
    state, rod = now.state, now.state.rods[setup.rod_id]
    first = rod.wanted_depth_m
    if rod.status == "fishing" and rod.setting_m is not None:
        try:
            first = now.lines.where(
                rod_id=rod.rod_id, setting_m=rod.setting_m, doubt="none"
            ).depth_m
        except CoreError:
            first = rod.wanted_depth_m
    if first is not None:
        asked = (first, first + CARD_DEEPER_M)
    elif (method := method_now(now, _morning_s(now))) is not None:
        top, base = band_in(method, state.bottom_m)
        asked = (0.5 * (top + base), base)
    else:
        asked = (CARD_NEVER_OUT_M, 2.0 * CARD_NEVER_OUT_M)
    return tuple(depth for depth in asked if 0.0 < depth < state.bottom_m)


def _morning_s(now: Now) -> float:
    """When the card is for: the latest temperature, or the start."""
    return now.trip.started_at_s if now.state.surface is None else now.state.surface.at_s


def _clearance_m(now: Now, setup: RodSetup) -> float | None:
    rod = now.state.rods[setup.rod_id]
    if rod.setting_m is None or rod.setup is None or rod.status != "fishing":
        return None
    try:
        return now.lines.where(rod_id=rod.rod_id, setting_m=rod.setting_m, doubt="none").clearance_m
    except CoreError:
        return None
