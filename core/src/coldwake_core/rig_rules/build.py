"""Rules of how it is put together: weights, clips, hooks, bait, what is aboard."""

from __future__ import annotations

from typing import Final

from ..constants import FOOT_M
from ..gear.pieces import TREBLES
from ..gear.setup import rig_kind
from .facts import RodFacts
from .rule import ALL, Rule

WEIGHT_AHEAD_M: Final = 3.0 * FOOT_M
GUESS_CLEARANCE_M: Final = 4.0 * FOOT_M
SHORT_STRIKES: Final = 3
FORWARD_SHARE: Final = 1.0 / 3.0
"""Short strikes: three hits more than hooked fish, fewer than half hooked, and the hook a third of
the lure's length ahead of its end (judged)."""
CLIPS_APART_M: Final = 1.5
"""Lines on one cable keep at least this apart (judged: they swing)."""


def _weight_near(rod: RodFacts) -> bool:
    setup = rod.setup
    return (
        rod.attractor is not None and setup.weight_kg > 0.0
        and setup.weight_ahead_m < WEIGHT_AHEAD_M - 1e-3
    )


def _snubber_never(rod: RodFacts) -> bool:
    if not rod.setup.has_snubber or rod.attractor is None:
        return False
    dropper = rig_kind(rod.outfit, rod.setup) == "dropper"
    return not (dropper and rod.schools.get("snubber") == "fine_on_dropper")


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


def _trebles(rod: RodFacts) -> bool:
    rules = rod.water_rules
    return rules is not None and rules.hooks != "any" and rod.lure.hook in TREBLES


def _bait_forbidden(rod: RodFacts) -> bool:
    rules = rod.water_rules
    return rules is not None and not rules.bait and rod.setup.bait_id is not None


def _bait_misfits(rod: RodFacts) -> bool:
    if rod.setup.bait_id is None:
        return False
    bait = rod.outfit.bait(rod.setup.bait_id)
    room = rod.lure.bait_room_m
    return not rod.lure.takes_bait or (room > 0.0 and bait.length_m > room + 1e-4)


def _hook_forward(rod: RodFacts) -> bool:
    short = rod.hits - rod.hooked >= SHORT_STRIKES and 2 * rod.hooked < rod.hits
    return short and rod.lure.hook_from_tail_m > FORWARD_SHARE * rod.lure.length_m


def _board_full(rod: RodFacts) -> bool:
    """More lines on one side's board than any board aboard is trusted with."""
    place = rod.outfit.place(rod.setup.place_id)
    if place.kind != "board" or not rod.outfit.boards:
        return False
    beside = [rod.outfit.place(other.place_id) for other in rod.others]
    same = sum(
        other.kind == "board" and (other.side_m > 0.0) == (place.side_m > 0.0) for other in beside
    )
    return same + 1 > max(board.lines_most for board in rod.outfit.boards)


def _too_many(rod: RodFacts) -> bool:
    setup, outfit = rod.setup, rod.outfit
    lures = sum(other.lure_id == setup.lure_id for other in rod.others)
    if lures + 1 > rod.lure.count:
        return True
    if setup.attractor_id is None:
        return False
    blades = sum(other.attractor_id == setup.attractor_id for other in rod.others)
    return blades + 1 > outfit.attractor(setup.attractor_id).count


RIG_RULES: Final[tuple[Rule, ...]] = (
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
    Rule(
        id="trebles-not-allowed", severity="stop", school="your own entry for this water",
        fires=_trebles,
        condition="treble hooks where the rules entered for the water say single ones",
        message="You entered single hooks for this water, and this lure has trebles.",
        remedy="Put single hooks on, or another lure; look the rule itself up where it is printed.",
    ),
    Rule(
        id="bait-not-allowed", severity="stop", school="your own entry for this water",
        fires=_bait_forbidden,
        condition="bait on a rod where the rules entered for the water say none",
        message="You entered no bait for this water.",
        remedy="Take the bait off; look the rule itself up where it is printed.",
    ),
    Rule(
        id="bait-does-not-fit", severity="mend", school=ALL, fires=_bait_misfits,
        condition="bait longer than the lure has room for, or on a lure that takes none",
        message="This bait does not fit this lure: it spoils its swing or is bitten off short.",
        remedy="A shorter piece, straight, with just enough left behind; or another lure.",
    ),
    Rule(
        id="hook-too-far-forward", severity="mend", school=ALL, fires=_hook_forward,
        condition="hits but few hooked (three more than half), the hook a third of the lure ahead",
        message="Short strikes: fish nip behind the hook.",
        remedy="Hook farther back, or a stinger; a shorter bait; a little slower.",
    ),
    Rule(
        id="board-full", severity="mend", school=ALL, fires=_board_full,
        condition="more lines on one side than the board is trusted with, where a board is noted",
        message="The planer board carries more lines than you noted for it: it falls back.",
        remedy="Fewer lines on that side, or a larger board.",
    ),
    Rule(
        id="more-than-aboard", severity="stop", school=ALL, fires=_too_many,
        condition="a lure or attractor on more rods than there are of it aboard",
        message="There are not so many of these aboard as rods are rigged with them.",
        remedy="Another one, or set how many are aboard in the Locker.",
    ),
)
