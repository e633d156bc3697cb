"""What the gear's own rules make of sizes, moods and leaders: order, sign and limit."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from tackle import COLD, demo_outfit

from coldwake_core.constants import FOOT_M, INCH_M, MPH_MPS, POUND_KG
from coldwake_core.decode import decode
from coldwake_core.errors import InvalidInputError
from coldwake_core.gear.common import common_speed
from coldwake_core.gear.ladder import ladder_steps, mood_of, piece_mood
from coldwake_core.gear.leader import SCHOOL_NAMES, default_school, leader_span, wildness
from coldwake_core.gear.pieces import Attractor, Lure, SpeedRange
from coldwake_core.gear.plugs import generic_plug, plug_catalogue
from coldwake_core.gear.setup import RodSetup
from coldwake_core.gear.tackle import Outfit
from coldwake_core.lines.materials import MATERIALS

WORKS = SpeedRange(low_mps=0.4, high_mps=0.9)
OUTFIT = decode(Outfit, demo_outfit())


def blade(inches: float, style: str = "dodger", **more: object) -> Attractor:
    return Attractor(
        id=f"{style}-{inches:g}", name=f"{inches:g} in {style}", length_m=inches * INCH_M,
        width_m=0.35 * inches * INCH_M, mass_kg=0.01, works=WORKS, gives_action=True, style=style,
        **more,
    )  # fmt: skip


def lure(name: str, *, own: bool = False, bait: bool = False, **more: object) -> Lure:
    return Lure(
        id=name, name=name, colour="pink", kind="soft", length_m=0.04, width_m=0.01, mass_kg=0.002,
        works=WORKS, own_action=own, takes_bait=bait, **more,
    )  # fmt: skip


def wild(attractor: Attractor | None, leader_m: float, setback_m: float = 0.0, own: bool = False):
    return wildness(
        attractor=attractor, lure=lure("x", own=own), leader_m=leader_m, setback_m=setback_m
    )


def test_shorter_leader_and_closer_clip_are_wilder_and_an_own_action_is_a_floor():
    dodger = blade(4.0)
    leaders = [wild(dodger, inches * INCH_M) for inches in (6, 9, 12, 24, 48)]
    assert leaders == sorted(leaders, reverse=True)
    assert 0.0 < leaders[-1] < 0.1 < 0.6 < leaders[0] < 1.0
    # One half of what there is at three blades (four fifths of the meter are the blade's).
    assert wild(dodger, 12 * INCH_M) == pytest.approx(0.4)
    close, far = (wild(None, 0.0, feet * FOOT_M) for feet in (5, 80))
    assert close > far > 0.0
    # Close and wild: a fifth of the meter at the clip, which is gone to a third at 40 ft.
    assert wild(None, 0.0, 40 * FOOT_M) / 0.2 == pytest.approx(math.exp(-1.0), abs=0.02)
    assert wild(None, 0.0) == 0.0
    assert wild(None, 0.0, own=True) == wild(dodger, 5.0, own=True) == pytest.approx(0.4)
    assert 0.99 < wild(dodger, 0.0, 0.1) <= 1.0


def test_disc_throws_by_where_it_sits_and_not_by_its_size():
    small, large = blade(0.8, "disc"), blade(1.6, "disc")
    assert wild(small, 5 * INCH_M) == wild(large, 5 * INCH_M) > 0.6
    assert wild(small, 0.5) < 0.3
    # Only a disc: any other small blade throws a lure by its own length.
    assert wild(blade(0.8, "willow_leaf"), 5 * INCH_M) < 0.3


@pytest.mark.parametrize(
    ("own", "species", "mood", "school"),
    [
        (True, "trout", "usual", "own_action"), (True, "trout", "tough", "tough_bite"),
        (False, "kokanee", "usual", "short_whip"), (False, "trout", "usual", "blade_lengths"),
        (False, "trout", "active", "short_whip"), (False, "kokanee", "tough", "blade_lengths"),
    ],
)  # fmt: skip
def test_leader_school_goes_by_action_species_and_mood(own, species, mood, school):
    found = default_school(
        attractor=blade(4.0), lure=lure("x", own=own), species=species, mood=mood
    )
    assert found == school


def test_bigger_blade_stands_higher_on_the_ladder_and_two_pieces_add_up():
    moods = [piece_mood(blade(inches)) for inches in (3.0, 4.0, 5.0, 6.0)]
    assert [m[0] for m in moods] == sorted(m[0] for m in moods)
    assert [m[1] for m in moods] == sorted(m[1] for m in moods)
    assert piece_mood(blade(4.0, flash=0.11, thump=0.22)) == (0.11, 0.22)
    outfit = replace(
        OUTFIT,
        attractors=(blade(4.0), blade(6.0), blade(1.0, "disc"), blade(3.0, "willow_leaf")),
        lures=(lure("a"), lure("b", own=True), lure("c", bait=True)),
    )

    def mood(lure_id: str, attractor_id: str | None):
        return mood_of(outfit, RodSetup(rod_id="r", place_id="p", line_id="l", lure_id=lure_id,
                                        attractor_id=attractor_id))  # fmt: skip

    bare = mood("a", None)
    rungs = [mood("a", key).rung for key in ("disc-1", "willow_leaf-3", "dodger-4", "dodger-6")]
    assert (bare.rung, rungs) == (0, [1, 2, 3, 4])
    for key in ("disc-1", "dodger-4"):
        assert 1.0 > mood("a", key).flash > bare.flash
        assert 1.0 > mood("a", key).thump > bare.thump


def test_a_plug_thumps_most_and_a_spoon_flashes_most_of_the_lures():
    """Common practice: plugs are felt, spoons are seen, soft baits are neither."""
    kinds = ("plug", "spoon", "soft")
    flash, thump = (
        {kind: piece_mood(replace(lure("x"), kind=kind, points=()))[which] for kind in kinds}
        for which in (0, 1)
    )
    assert flash["spoon"] > flash["plug"] > flash["soft"] > 0.0
    assert thump["plug"] > thump["spoon"] > thump["soft"] > 0.0


def steps(setup: RodSetup, outfit: Outfit, others=(), **wants: str):
    return ladder_steps(outfit, setup, others, **{"flash": "less", "thump": "less", **wants})


def test_ladder_offers_what_is_free_alike_and_a_little_off():
    outfit = replace(
        OUTFIT,
        attractors=(
            blade(5.0, flash=0.6, thump=0.6), blade(4.0, flash=0.45, thump=0.45),
            blade(6.0, flash=1.0, thump=1.0), replace(blade(3.0), flash=0.4, thump=0.4, count=1),
        ),
        lures=(
            lure("now", own=True, flash=0.2, thump=0.2),
            lure("calm", own=True, flash=0.0, thump=0.0),
            lure("dead", flash=0.0, thump=0.0), lure("baited", own=True, bait=True, flash=0.0,
                                                     thump=0.0),
        ),
    )  # fmt: skip
    setup = replace(
        RodSetup(rod_id="rod-1", place_id=OUTFIT.places[0].id, line_id=OUTFIT.lines[0].id,
                 lure_id="now", attractor_id="dodger-5", leader_m=0.5),
    )  # fmt: skip
    found = steps(setup, outfit)
    pieces = [(step.setup.attractor_id, step.setup.lure_id) for step in found]
    now = mood_of(outfit, setup)
    assert ("dodger-4", "now") in pieces
    assert ("dodger-6", "now") not in pieces
    # A lure that moves of itself gives way to another that does, and takes bait as that one does.
    assert ("dodger-5", "dead") not in pieces
    assert ("dodger-5", "baited") not in pieces
    assert all(step.mood.flash < now.flash and step.mood.thump < now.thump for step in found)
    # A piece that another rod wears is not free.
    worn = replace(setup, rod_id="rod-2", attractor_id="dodger-3")
    kept = [step.setup.attractor_id for step in steps(setup, outfit, (worn,))]
    assert "dodger-3" not in kept
    # Naked only where the lure can do without.
    bare = replace(
        outfit, attractors=(blade(5.0, flash=0.35, thump=0.35),),
    )  # fmt: skip
    assert None in [step.setup.attractor_id for step in steps(setup, bare)]
    still = replace(setup, lure_id="dead")
    assert None not in [step.setup.attractor_id for step in steps(still, bare)]
    # And a lure that wears none cannot take one off.
    free = replace(setup, attractor_id=None, leader_m=0.0)
    assert all(step.setup != free for step in steps(free, bare, flash="more", thump="more"))


def test_catalogue_says_what_each_plug_works_at_and_whether_it_floats():
    for plug in plug_catalogue():
        assert 0.4 <= plug.works.low_mps < plug.works.high_mps <= 4.0 * MPH_MPS + 1e-9
        load = plug.body().load(0.0, COLD)
        assert (load.down_n > 0.0) == plug.name.startswith("Sinking")
        assert plug.width_m == pytest.approx(plug.length_m / 5.0)
    shallow, deep = (generic_plug(length_in=3.5, lip=lip).works for lip in ("none", "deep"))
    # Common practice: 1.2-2.8 mph for a minnow, up to 4 for one that digs.
    assert shallow.low_mps / MPH_MPS == pytest.approx(1.2)
    assert deep.high_mps > shallow.high_mps
    assert len({plug.id for plug in plug_catalogue()}) == len(plug_catalogue())


def test_smallest_change_brings_the_odd_one_in():
    # Two rods share 0.45-0.6 m/s; the third's blade works faster. Of two that would do, the one
    # whose length is nearer to what it wears is named.
    slow, fast = SpeedRange(low_mps=0.4, high_mps=0.7), SpeedRange(low_mps=0.9, high_mps=1.4)
    outfit = replace(
        OUTFIT,
        attractors=(
            replace(blade(6.0), works=fast, id="now"), replace(blade(5.5), works=slow, id="near"),
            replace(blade(3.0), works=slow, id="far"), replace(blade(7.5), works=slow, id="long"),
        ),
        lures=(replace(lure("a"), works=SpeedRange(low_mps=0.1, high_mps=2.0), count=9),),
    )  # fmt: skip
    base = RodSetup(
        rod_id="rod-1", place_id=OUTFIT.places[0].id, line_id=OUTFIT.lines[0].id, lure_id="a",
        attractor_id="far", leader_m=0.3,
    )  # fmt: skip
    setups = [base, replace(base, rod_id="rod-2", attractor_id="long"),
              replace(base, rod_id="rod-3", attractor_id="now")]  # fmt: skip
    found = common_speed(outfit, setups)
    assert found.odd is not None
    assert found.odd.rod_id == "rod-3"
    assert found.odd.setup.attractor_id == "near"


def test_lines_are_as_strong_as_they_are_sold():
    for key, item in MATERIALS.items():
        pounds = float(key.rsplit("-", 1)[1])
        assert item.strength_n == pytest.approx(pounds * POUND_KG * 9.80665), key


@pytest.mark.parametrize("school", [key for key in SCHOOL_NAMES if key != "ahead_of_nose"])
def test_leader_to_begin_with_lies_within_its_school(school: str):
    spans = [
        leader_span(
            attractor=blade(inches), lure=lure("x", own=own), school=school, species="trout",
            mood="usual",
        )
        for inches in (4.0, 6.0) for own in (False, True)
    ]  # fmt: skip
    for span in spans:
        assert 0.0 < span.low_m <= span.start_m <= span.high_m <= 2.5
    # A bigger blade never wants a shorter leader.
    assert spans[2].start_m >= spans[0].start_m


def test_only_leadcore_has_colours_to_weigh():
    line = next(item for item in OUTFIT.lines if item.kind == "flat")
    with pytest.raises(InvalidInputError, match="only leadcore has colours"):
        replace(line, colour_mass_kg=0.02).check()
    replace(line, colour_mass_kg=0.0).check()
