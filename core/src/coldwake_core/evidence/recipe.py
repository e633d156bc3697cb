"""What a lure shows a fish: the dials that the day's model weighs."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True, kw_only=True)
class Recipe:
    """A lure as it fishes.

    Parameters
    ----------
    depth_m : float
        How deep it runs, m.
    speed_mps : float
        Through the water, m/s.
    setback_m : float
        How far behind the boat, or behind its clip, m.
    leader_m : float or None
        Leader behind an attractor, m; None without one.
    flash, thump : float
        Where it stands on the mood ladder, 0 to 1 each.
    colour, lure : str
        Its colour and which lure it is, as the box names them.
    bait, scent : str
        What is on the hook and what it smells of, as the box names them; empty for none.
    bed_m : float or None
        Depth of the water that it fishes in, m; None where nobody knows.
    """

    depth_m: float
    speed_mps: float
    setback_m: float
    leader_m: float | None
    flash: float
    thump: float
    colour: str
    lure: str
    bait: str = ""
    scent: str = ""
    bed_m: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Thumb:
    """What a rule of thumb expects: bands outside of which it expects less.

    Parameters
    ----------
    speed_low_mps, speed_high_mps : float
        Speed through water, m/s.
    depth_top_m, depth_base_m : float
        Depth, m.
    setback_low_m, setback_high_m : float
        How far back, m.
    slowest_mps, fastest_mps : float
        Between which the fish are trolled for at all, whatever the hour, m/s.
    by_the_bed : bool
        Whether the fish hold by the bed, however deep it is: the band of depth is that of water as
        deep as the day's model looks for fish.
    speed_agreed : bool
        Whether all schools say the same speed.
    """

    speed_low_mps: float
    speed_high_mps: float
    depth_top_m: float
    depth_base_m: float
    setback_low_m: float
    setback_high_m: float
    slowest_mps: float
    fastest_mps: float
    by_the_bed: bool = False
    speed_agreed: bool = False
