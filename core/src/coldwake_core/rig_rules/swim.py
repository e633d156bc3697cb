"""Rules of how it swims: speed, action, leader."""

from __future__ import annotations

from typing import Final

from ..constants import INCH_M
from ..gear.leader import AS_SOLD_M, LeaderSpan, leader_span
from ..lines.materials import material
from .facts import RodFacts
from .rule import ALL, Rule

SMALL_BLADE_M: Final = 5.0 * INCH_M
LIGHT_LURE_KG: Final = 0.006
"""Behind a small blade; heavier ones kill its swing (judged from the lures in use)."""


def _ranges_apart(rod: RodFacts) -> bool:
    blade = rod.blade_works
    if blade is None:
        return False
    return (
        max(blade.low_mps, rod.lure_works.low_mps) > min(blade.high_mps, rod.lure_works.high_mps)
    )


def _rolls(rod: RodFacts) -> bool:
    blade = rod.blade_works
    return blade is not None and rod.speed_mps > blade.high_mps + 1e-3


def _hangs(rod: RodFacts) -> bool:
    blade = rod.blade_works
    return blade is not None and rod.speed_mps < blade.low_mps - 1e-3


def _lure_too_fast(rod: RodFacts) -> bool:
    return rod.speed_mps > rod.lure_works.high_mps + 1e-3


def _lure_too_slow(rod: RodFacts) -> bool:
    return rod.speed_mps < rod.lure_works.low_mps - 1e-3


def _no_action(rod: RodFacts) -> bool:
    return rod.attractor is None and not rod.lure.own_action and not rod.lure.is_fly


def _dead_behind_blade(rod: RodFacts) -> bool:
    blade = rod.attractor
    return blade is not None and not blade.gives_action and not rod.lure.own_action


def _as_sold(rod: RodFacts) -> bool:
    return (
        rod.attractor is not None and not rod.lure.own_action and rod.attractor.gives_action
        and abs(rod.setup.leader_m - AS_SOLD_M) <= 1.0 * INCH_M
    )


def _span(rod: RodFacts) -> LeaderSpan | None:
    """The leader by the school that speaks; None without an attractor."""
    if rod.attractor is None:
        return None
    return leader_span(
        attractor=rod.attractor, lure=rod.lure, school=rod.leader_school, species=rod.species,
        mood=rod.schools.get("mood", "usual"),
    )


def _leader_long(rod: RodFacts) -> bool:
    span = _span(rod)
    too_long = span is not None and rod.setup.leader_m > span.high_m + 0.5 * INCH_M
    return too_long and not _as_sold(rod)


def _leader_short(rod: RodFacts) -> bool:
    span, blade = _span(rod), rod.attractor
    if span is None or blade is None or not blade.gives_action:
        return False
    return rod.setup.leader_m < span.low_m - 0.5 * INCH_M


def _heavy_lure(rod: RodFacts) -> bool:
    blade = rod.attractor
    return (
        blade is not None and blade.gives_action and blade.length_m <= SMALL_BLADE_M + 1e-6
        and rod.lure.mass_kg > LIGHT_LURE_KG
    )


def _leader_strong(rod: RodFacts) -> bool:
    if rod.setup.leader_id is None:
        return False
    line = rod.outfit.line(rod.setup.line_id)
    leader = material(rod.outfit.leader(rod.setup.leader_id).material_id)
    own = min(
        material(item).strength_n
        for item in (line.material_id, line.core_material_id) if item is not None
    )
    return leader.strength_n >= own


SWIM_RULES: Final[tuple[Rule, ...]] = (
    Rule(
        id="blade-rolls", severity="stop", school=ALL, fires=_rolls,
        condition="through-water speed above the attractor's working range",
        message="At this speed the attractor rolls instead of swinging, and drives fish off.",
        remedy="Slow down, or change to a blade for this speed.",
    ),
    Rule(
        id="blade-hangs", severity="mend", school=ALL, fires=_hangs,
        condition="through-water speed below the attractor's working range",
        message="At this speed the attractor hangs and gives no swing.",
        remedy="Speed up, or change to a smaller blade.",
    ),
    Rule(
        id="lure-spins-out", severity="stop", school=ALL, fires=_lure_too_fast,
        condition="through-water speed above the lure's working range",
        message="At this speed the lure spins out: worse than none.",
        remedy="Slow down, or change to a lure for this speed.",
    ),
    Rule(
        id="lure-asleep", severity="mend", school=ALL, fires=_lure_too_slow,
        condition="through-water speed below the lure's working range",
        message="At this speed the lure does not work yet.",
        remedy="Speed up, or change to a lure that moves when slow.",
    ),
    Rule(
        id="ranges-apart", severity="stop", school=ALL, fires=_ranges_apart,
        condition="working ranges of attractor and lure do not overlap",
        message="There is no speed at which both this attractor and this lure work.",
        remedy="Change one of the two.",
    ),
    Rule(
        id="lure-without-action", severity="mend", school=ALL, fires=_no_action,
        condition="a lure without action of its own, no attractor (flies left out)",
        message="Nothing moves this lure.",
        remedy="Put a dodger or a wobble disc ahead of it.",
    ),
    Rule(
        id="blade-gives-no-action", severity="look", school=ALL, fires=_dead_behind_blade,
        condition="a lure without action behind an attractor that gives none",
        message="This attractor flashes but does not move the lure, and the lure does not itself.",
        remedy="Only a very soft lure gains from it: else a dodger, a disc, or another lure.",
    ),
    Rule(
        id="leader-as-sold", severity="mend", school=ALL, fires=_as_sold,
        condition="a 36 in leader to a lure without action behind a swinging blade",
        message="A leader as sold (36 in) is usually wrong: the blade no longer moves the lure.",
        remedy="Cut it to the school's length.",
    ),
    Rule(
        id="leader-long", severity="look", school="the leader school chosen", fires=_leader_long,
        condition="leader longer than the school's span",
        message="The leader is longer than this school has it: calmer.",
        remedy="Shorten it, or choose the school you mean.",
    ),
    Rule(
        id="leader-short", severity="look", school="the leader school chosen", fires=_leader_short,
        condition="leader shorter than the school's span",
        message="The leader is shorter than this school has it: wilder.",
        remedy="Lengthen it, or choose the school you mean.",
    ),
    Rule(
        id="heavy-lure-small-blade", severity="mend", school=ALL, fires=_heavy_lure,
        condition="a lure over 6 g behind a swinging blade of 5 in or less",
        message="The lure is too heavy for so small a blade and kills its swing.",
        remedy="A lighter lure, or a larger blade.",
    ),
    Rule(
        id="leader-too-strong", severity="look", school="common practice", fires=_leader_strong,
        condition="a leader as strong as the line on the reel, or stronger",
        message="The leader is as strong as the line: on a snag everything ahead of it goes too.",
        remedy="A leader of a lower class than the line.",
    ),
)
