"""What each rod could wear, at which number: the candidates that a spread is chosen from."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Final

from ..constants import FOOT_M
from ..errors import CoreError
from ..gear.leader import LeaderSchool, leader_span
from ..gear.setup import RodSetup
from ..rig_rules.engine import check_rod
from ..rig_rules.facts import RodFacts
from ..trip.now import Now
from .breaks import Out, with_spread
from .choose import Candidate
from .dress import Dress, suits_line
from .stands import Stand
from .wanted import WantedDepth, covers

FLAT_M: Final = tuple(feet * FOOT_M for feet in (50.0, 85.0, 100.0, 150.0, 185.0))
"""How far back flat lines are begun: one side long, 100 ft and more, the other short, about 50."""
LONG_M: Final = 95.0 * FOOT_M
_SIDE: Final = 0.15
_MEND: Final = 0.4
_REMARK: Final = 0.1
"""What a long or short side, and a rule that speaks, count against a look (judged)."""
_SKIPS_M: Final = 0.05
"""A lure shallower than this skips on the surface."""
_SHALLOW_M: Final = 15.0 * FOOT_M


def _setback_m(now: Now, depth_m: float) -> float:
    """How far behind the clip, by the school chosen or the species' usual one."""
    species = now.trip.species
    usual = "close_and_wild" if species == "kokanee" else "moderate"
    school = now.state.schools.get("setback", usual)
    if school == "close_and_wild":
        return 20.0 * FOOT_M
    if school == "long_and_quiet":
        return 100.0 * FOOT_M
    return (80.0 if depth_m <= _SHALLOW_M else 40.0) * FOOT_M


def _leader_m(now: Now, look: Dress) -> float:
    """The leader by the school chosen, or the usual one."""
    if look.attractor_id is None:
        return 0.0
    outfit = now.state.outfit
    school: LeaderSchool | None = now.state.schools.get("leader")  # type: ignore[assignment]
    return leader_span(
        attractor=outfit.attractor(look.attractor_id), lure=outfit.lure(look.lure_id),
        school=school, species=now.trip.species,
        mood=now.state.schools.get("mood", "usual"),
    ).start_m


def _options(
    now: Now, stand: Stand, look: Dress, wanted: Sequence[WantedDepth]
) -> Iterator[tuple[RodSetup, float | None, float | None]]:
    """Setups with the number to set, or the depth that the number is to be found for."""
    base = RodSetup(
        rod_id=stand.rod_id, place_id=stand.place.id, line_id=stand.line.id,
        lure_id=look.lure_id, attractor_id=look.attractor_id, leader_m=_leader_m(now, look),
        tow_point=look.tow_point,
    )
    tied = stand.weighted
    if tied is not None:
        base = replace(
            base, weight_kg=tied.weight_kg, weight_ahead_m=tied.weight_ahead_m, drop_m=tied.drop_m
        )
    elif stand.line.kind == "flat":
        for setting in FLAT_M:
            if setting <= stand.line.length_m:
                yield base, setting, None
        return
    for item in wanted:
        setback = _setback_m(now, item.depth_m) if stand.line.kind == "downrigger" else 0.0
        yield replace(base, setback_m=setback), None, item.depth_m


def candidates_for(
    now: Now, stands: Sequence[Stand], looks: Sequence[Dress],
    wanted: Sequence[WantedDepth], speed_mps: float,
) -> tuple[list[Candidate], dict[tuple[str, int], Out]]:
    """Return what each rod could wear at which number.

    Parameters
    ----------
    now : Now
        The trip.
    stands : sequence of Stand
        The rods with places and reels.
    looks : sequence of Dress
        What they could wear.
    wanted : sequence of WantedDepth
        Depths that are wanted.
    speed_mps : float
        Speed through water, m/s.

    Returns
    -------
    (list of Candidate, dict)
        The candidates, and the rig with its number of each slot and look.
    """
    scratch = with_spread(now, (), speed_mps)
    state = now.state
    deepest = state.bottom_m - state.clearance_m
    found: list[Candidate] = []
    outs: dict[tuple[str, int], Out] = {}
    for rod, stand in enumerate(stands):
        for index, look in enumerate(looks):
            score: float | None = None
            for option, (setup, setting, target) in enumerate(
                _options(now, stand, look, wanted)
            ):
                if score is None:
                    score = look.score + suits_line(
                        look.kind, stand.line.kind if stand.weighted is None else "weighted",
                        _blade_m(now, look),
                    ) - _held_against(now, setup, speed_mps)
                try:
                    number, depth = scratch.lines.number_and_depth(
                        setup, setting_m=setting, depth_m=target
                    )
                except CoreError:
                    continue
                if not _SKIPS_M < depth <= deepest:
                    continue
                slot = f"{stand.rod_id}:{option}"
                outs[slot, index] = Out(setup=setup, setting_m=number)
                uses: tuple[str, ...] = (f"lure:{look.lure_id}",)
                if look.attractor_id is not None:
                    uses = (*uses, f"blade:{look.attractor_id}")
                found.append(Candidate(
                    rod=rod, look=index, slot=slot, uses=uses, kind=look.kind,
                    score=score + _side_worth(stand, setting),
                    covers=tuple(i for i, item in enumerate(wanted) if covers(item, depth)),
                ))
    return found, outs


def _blade_m(now: Now, look: Dress) -> float:
    if look.attractor_id is None:
        return 0.0
    return now.state.outfit.attractor(look.attractor_id).length_m


def _held_against(now: Now, setup: RodSetup, speed_mps: float) -> float:
    findings = check_rod(RodFacts(
        outfit=now.state.outfit, setup=setup, speed_mps=speed_mps,
        schools=now.state.schools, species=now.trip.species,
        water_rules=now.trip.rules,
    ))
    cost = {"stop": 5.0, "mend": _MEND, "look": _REMARK}
    return sum(cost[finding.severity] for finding in findings)


def _side_worth(stand: Stand, setting_m: float | None) -> float:
    """One side long, the other short (common practice for a search)."""
    if setting_m is None:
        return 0.0
    is_long = setting_m >= LONG_M
    return _SIDE if is_long == (stand.place.side_m < 0.0) else 0.0
