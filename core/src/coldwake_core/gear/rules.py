"""Rules of the rig: small pure functions, each with its school, what is wrong and the remedy."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Final, Literal

from ..constants import FOOT_M, INCH_M
from .leader import AS_SOLD_M, LeaderSchool, LeaderSpan, leader_span
from .setup import RodSetup, rig_kind
from .tackle import Attractor, Lure, Outfit

Severity = Literal["stop", "mend", "look"]
WEIGHT_AHEAD_M: Final = 3.0 * FOOT_M
SMALL_BLADE_M: Final = 5.0 * INCH_M
LIGHT_LURE_KG: Final = 0.006
"""Behind a small blade; heavier ones kill its swing (judged from the lures in use)."""
GUESS_CLEARANCE_M: Final = 4.0 * FOOT_M
CLIPS_APART_M: Final = 1.5
"""Lines on one cable keep at least this apart (judged: they swing)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class RodFacts:
    """What a rule may look at.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod.
    mates : tuple of RodSetup
        Other lines on the same cable.
    speed_mps : float
        Speed through water, m/s.
    clearance_m : float or None
        Lure or weight above the bottom, m.
    schools : mapping of str to str
        Which school the user follows, by topic.
    species : str
        What is fished for.
    """

    outfit: Outfit
    setup: RodSetup
    speed_mps: float
    mates: tuple[RodSetup, ...] = ()
    clearance_m: float | None = None
    schools: Mapping[str, str]
    species: str = "trout"

    @property
    def lure(self) -> Lure:
        """The lure on the rod."""
        return self.outfit.lure(self.setup.lure_id)

    @property
    def attractor(self) -> Attractor | None:
        """The attractor ahead of it."""
        if self.setup.attractor_id is None:
            return None
        return self.outfit.attractor(self.setup.attractor_id)

    @property
    def leader_school(self) -> LeaderSchool | None:
        """The leader school the user has chosen, if any."""
        chosen = self.schools.get("leader")
        return None if chosen is None else chosen  # type: ignore[return-value]


@dataclass(frozen=True, slots=True, kw_only=True)
class Finding:
    """A rule that speaks.

    Parameters
    ----------
    rule_id : str
        The rule.
    severity : {'stop', 'mend', 'look'}
        Wrong, better mended, or worth a look.
    school : str
        Whose rule it is.
    message, remedy : str
        What is wrong and what to do.
    """

    rule_id: str
    severity: Severity
    school: str
    message: str
    remedy: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Rule:
    """A rule of the rig.

    Parameters
    ----------
    id : str
        Its key.
    severity : {'stop', 'mend', 'look'}
        How bad it is.
    school : str
        Whose rule it is.
    condition : str
        When it speaks, in words.
    message, remedy : str
        What is wrong and what to do.
    fires : callable
        Whether it speaks of a rod.
    """

    id: str
    severity: Severity
    school: str
    condition: str
    message: str
    remedy: str
    fires: Callable[[RodFacts], bool]


def _ranges_apart(rod: RodFacts) -> bool:
    blade = rod.attractor
    if blade is None:
        return False
    return (
        max(blade.works.low_mps, rod.lure.works.low_mps)
        > min(blade.works.high_mps, rod.lure.works.high_mps)
    )


def _rolls(rod: RodFacts) -> bool:
    blade = rod.attractor
    return blade is not None and rod.speed_mps > blade.works.high_mps + 1e-3


def _hangs(rod: RodFacts) -> bool:
    blade = rod.attractor
    return blade is not None and rod.speed_mps < blade.works.low_mps - 1e-3


def _lure_too_fast(rod: RodFacts) -> bool:
    return rod.speed_mps > rod.lure.works.high_mps + 1e-3


def _lure_too_slow(rod: RodFacts) -> bool:
    return rod.speed_mps < rod.lure.works.low_mps - 1e-3


def _weight_near(rod: RodFacts) -> bool:
    setup = rod.setup
    return (
        rod.attractor is not None and setup.weight_kg > 0.0
        and setup.weight_ahead_m < WEIGHT_AHEAD_M - 1e-3
    )


def _snubber_never(rod: RodFacts) -> bool:
    if not rod.setup.snubber or rod.attractor is None:
        return False
    dropper = rig_kind(rod.outfit, rod.setup) == "dropper"
    return not (dropper and rod.schools.get("snubber") == "fine_on_dropper")


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
        attractor=rod.attractor, lure=rod.lure, school=rod.leader_school, species=rod.species
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


def _dropper_guess(rod: RodFacts) -> bool:
    return (
        rig_kind(rod.outfit, rod.setup) == "dropper" and rod.clearance_m is not None
        and rod.clearance_m < GUESS_CLEARANCE_M
    )


def _clips_near(rod: RodFacts) -> bool:
    return any(
        abs(mate.above_ball_m - rod.setup.above_ball_m) < CLIPS_APART_M for mate in rod.mates
    )


def _kokanee_far(rod: RodFacts) -> bool:
    kind = rig_kind(rod.outfit, rod.setup)
    return (
        rod.species == "kokanee" and kind in ("downrigger", "stacked", "slider")
        and rod.setup.setback_m > 30.0 * FOOT_M + 0.05
        and rod.schools.get("setback", "close_and_wild") == "close_and_wild"
    )


ALL: Final = "all schools"
RULES: Final[tuple[Rule, ...]] = (
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
        id="weight-near-blade", severity="mend", school=ALL, fires=_weight_near,
        condition="a weight less than 3 ft ahead of an attractor",
        message="The weight sits nearer than 3 ft to the attractor and deadens its swing.",
        remedy="Move it 3 ft ahead or more.",
    ),
    Rule(
        id="snubber-before-blade", severity="mend", fires=_snubber_never,
        school="never a snubber ahead of a dodger (another school: fine on a dropper rig)",
        condition="a snubber in front of an attractor, unless on a dropper rig by choice of school",
        message="The snubber takes the swing out of the attractor behind it.",
        remedy="Leave it out, or choose the school that allows it on a dropper rig.",
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
        id="dropper-near-bottom", severity="look", school=ALL, fires=_dropper_guess,
        condition="a dropper rig within 4 ft of the bottom",
        message="A dropper's depth is a guess: so near a snaggy bottom it is lost sooner or later.",
        remedy="Raise it, or fish the bottom with a downrigger.",
    ),
    Rule(
        id="clips-too-near", severity="mend", school="common practice", fires=_clips_near,
        condition="two lines on one cable less than 5 ft apart",
        message="Two lines on this cable are clipped so near that they will cross.",
        remedy="Clip the upper one at least 5 ft above the lower.",
    ),
    Rule(
        id="kokanee-setback", severity="look", school="close and wild", fires=_kokanee_far,
        condition="kokanee on a downrigger with more than 30 ft of setback",
        message="For kokanee this school keeps the lure 10-30 ft behind the clip: wilder.",
        remedy="Shorten the setback, or choose the school that fishes long and quiet.",
    ),
)
_ORDER: Final[dict[str, int]] = {"stop": 0, "mend": 1, "look": 2}


def check_rod(rod: RodFacts) -> tuple[Finding, ...]:
    """Return what the rules say of a rod.

    Parameters
    ----------
    rod : RodFacts
        The rod.

    Returns
    -------
    tuple of Finding
        The worst first.
    """
    found = [
        Finding(
            rule_id=rule.id, severity=rule.severity, school=rule.school, message=rule.message,
            remedy=rule.remedy,
        )
        for rule in RULES if rule.fires(rod)
    ]
    return tuple(sorted(found, key=lambda item: _ORDER[item.severity]))
