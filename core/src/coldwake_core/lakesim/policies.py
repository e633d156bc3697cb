"""Who fishes the simulated lake: fixed, habit, advisor, oracle; the learner has its own file."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import replace
from typing import Final

from ..advice.choice import (
    LEADS_MIN,
    MOST_ODD,
    Option,
    Weighed,
    best_option,
    leading,
    weigh_options,
)
from ..advice.method import method_of_the_hour
from ..advice.shows import thumb_of
from ..advice.tries import TIE_MIN
from ..advice.turning import AHEAD_MIN, rate_of_all, turn_comes_first, turning_gain
from ..constants import FOOT_M
from ..evidence.day_model import STEP_MIN, DayModel
from ..evidence.ground import Ground
from ..record.payloads import USUAL_ABOVE_MARK_M
from ..water.light import daylight
from .boat import COLOURS, RodState, at_depth, recipe_of, works
from .day import DECIDE_MIN, Aboard, Change, Policy, reset_min
from .lap import gain_of_turning, note_ground
from .learner import Learner
from .steps import copies_of, mended_of, steps_of
from .world import DAY_MIN, Lapped, Shown, World


class Fixed:
    """The opening spread, all day."""

    name = "fixed"

    def begin(self, aboard: Aboard, world: World) -> None:
        """Nothing to begin."""

    def decide(self, aboard: Aboard) -> Change | None:
        """Go on fishing."""
        return None


class Habit:
    """What many do: copy what is two hits ahead, another colour when dry, a step to the marks.

    Turning round after a hit earned it less, on days that no goal is tried on: it laps on.
    """

    name = "habit"
    COPY_AHEAD = 2
    DRY_MIN = 60
    MARKS_EVERY_MIN = 30

    def begin(self, aboard: Aboard, world: World) -> None:
        """Start the clocks of a day."""
        self.changed_at = [0] * len(aboard.rods)
        self.counted_from = [0] * len(aboard.rods)
        self.marks_at = 0
        self.colour = 0

    def decide(self, aboard: Aboard) -> Change | None:
        """Return what habit does."""
        hits = [
            sum(1 for at, rod in aboard.hits if rod == i and at >= self.counted_from[i])
            for i in range(len(aboard.rods))
        ]
        best = max(range(len(hits)), key=lambda i: hits[i])
        worst = min(range(len(hits)), key=lambda i: hits[i])
        if hits[best] - hits[worst] >= self.COPY_AHEAD:
            for change in copies_of(aboard, best):
                index, after = change.rods[0]
                if index == worst and works(after.look, aboard.speed_mps):
                    return self._done(aboard, change)
        if aboard.minute - self.marks_at >= self.MARKS_EVERY_MIN:
            self.marks_at = aboard.minute
            to_marks = self._to_marks(aboard)
            if to_marks is not None:
                return self._done(aboard, to_marks)
        for index, rod in enumerate(aboard.rods):
            last = max([at for at, one in aboard.hits if one == index] + [self.changed_at[index]])
            if aboard.minute - last >= self.DRY_MIN and aboard.out_until[index] <= aboard.minute:
                self.colour += 1
                look = replace(rod.look, colour=COLOURS[self.colour % len(COLOURS)])
                return self._done(aboard, Change(
                    kind="colour", rods=((index, replace(rod, look=look)),),
                    cost_min=reset_min(rod) + 3.0,
                ))
        return None

    def _to_marks(self, aboard: Aboard) -> Change | None:
        recent = [depth for at, depth in aboard.marks if at >= aboard.minute - 60]
        if len(recent) < 2:
            return None
        wanted = max(sorted(recent)[len(recent) // 2] - _above_m(aboard), 0.5)
        able = [
            i for i, rod in enumerate(aboard.rods)
            if rod.kind != "flat" and aboard.out_until[i] <= aboard.minute
        ]
        if not able:
            return None
        depths = aboard.recipes()
        index = max(able, key=lambda i: abs(depths[i].depth_m - wanted))
        here = depths[index].depth_m
        # A change of no more than ten feet an hour: a step, not a leap.
        step = min(max(wanted - here, -10.0 * FOOT_M), 10.0 * FOOT_M)
        after = at_depth(aboard.rods[index], aboard.speed_mps, here + step)
        if after is None or abs(step) < 1.0 * FOOT_M:
            return None
        return Change(kind="depth", rods=((index, after),), cost_min=reset_min(after))

    def _done(self, aboard: Aboard, change: Change) -> Change:
        for index, _ in change.rods:
            self.changed_at[index] = self.counted_from[index] = aboard.minute
        return change


class Advisor:
    """The advice of the app: the day's model, and the change that is worth most."""

    name = "advisor"

    def begin(self, aboard: Aboard, world: World) -> None:
        """Begin with nothing but rules of thumb."""
        seen = aboard.seen
        method = method_of_the_hour(species=aboard.box.species, surface_degc=seen.surface_degc)
        self.model = DayModel(
            deepest_m=min(seen.bottom_m, 24.0),
            thumb=thumb_of(method, aboard.box.species, seen.bottom_m),
        )
        self.ground = Ground()
        self.rigged_at = [0] * len(aboard.rods)

    def decide(self, aboard: Aboard) -> Change | None:
        """Learn from the last five minutes, and choose."""
        self._learn(aboard)
        bed_m = aboard.bed().usual_m
        self.weighed: list[Weighed] = []
        for index, rod in enumerate(aboard.rods):
            # What does not swim at the speed that was chosen comes before all.
            if aboard.out_until[index] <= aboard.minute and not works(rod.look, aboard.speed_mps):
                mended = self._mended(aboard, index, aboard.speed_mps)
                if mended is not None:
                    return self._rigged(aboard, Change(
                        kind="lure", rods=((index, mended),),
                        cost_min=reset_min(mended) + TIE_MIN,
                    ))
        now = {
            str(i): replace(recipe_of(rod, aboard.speed_mps), bed_m=bed_m)
            for i, rod in enumerate(aboard.rods) if works(rod.look, aboard.speed_mps)
        }
        leads = leading({
            str(i): sum(
                rod == i and at >= max(self.rigged_at[i], aboard.minute - LEADS_MIN)
                for at, rod in aboard.hits
            )
            for i in range(len(aboard.rods))
        })
        changes = [
            change for change in steps_of(aboard)
            if not any(str(i) == leads for i, _ in change.rods)
        ]
        options, kept = [], {}
        for number, change in enumerate(changes):
            wears = self._wears(aboard, change, leads)
            if wears is None:
                continue
            option = option_of(change, aboard, str(number), bed_m=bed_m, wears=wears)
            if all(rod in now for rod, _ in option.after):
                options.append(option)
                kept[option.key] = change
        self.weighed = weigh_options(
            self.model, now, options, float(DAY_MIN - aboard.minute)
        )
        best = best_option(self.weighed)
        turn = gain_of_turning(
            self.ground, aboard, rate_of_all(self.model, now.values())
        )
        if turn_comes_first(turn, best):
            return Change(kind="turn", turn_round=True)
        if best is None:
            return None
        return self._rigged(aboard, kept[best.option.key])

    def _rigged(self, aboard: Aboard, change: Change) -> Change:
        for index, rod in change.rods:
            if rod.look != aboard.rods[index].look:
                self.rigged_at[index] = aboard.minute
        return change

    def _mended(self, aboard: Aboard, index: int, speed_mps: float) -> RodState | None:
        """A rod with another lure or blade that swims at a speed, the likeliest to be hit."""
        bed_m = aboard.bed().usual_m
        return max(
            mended_of(aboard.rods[index], aboard.box, speed_mps), default=None,
            key=lambda rod: self.model.log_rate(self.model.terms(
                replace(recipe_of(rod, speed_mps), bed_m=bed_m)
            )),
        )

    def _wears(
        self, aboard: Aboard, change: Change, leads: str | None
    ) -> dict[int, RodState] | None:
        """What rods would have to wear for a change; None where it is not to be had."""
        speed = change.speed_mps
        if speed is None:
            return {}
        odd = [i for i, rod in enumerate(aboard.rods) if not works(rod.look, speed)]
        if len(odd) > MOST_ODD or any(
            str(i) == leads or aboard.out_until[i] > aboard.minute for i in odd
        ):
            return None
        swims = {i: self._mended(aboard, i, speed) for i in odd}
        found = {i: rod for i, rod in swims.items() if rod is not None}
        return found if len(found) == len(odd) else None

    def _learn(self, aboard: Aboard) -> None:
        since = aboard.minute - int(STEP_MIN)
        self.model.pass_time(light=daylight(aboard.seen.sun_deg, aboard.seen.cloud))
        marks = [(depth, 1) for at, depth in aboard.marks if at >= since]
        self.model.mark(marks, beds_m=[
            aboard.beds[at] for at, _ in aboard.marks if at >= since
        ])
        passing = self.model.passing(len(marks))
        note_ground(self.ground, aboard)
        for index, pieces in enumerate(aboard.fished):
            recent = [(at, recipe) for at, recipe in pieces[-int(STEP_MIN):] if at >= since]
            if not recent:
                continue
            hits = sum(1 for at, rod in aboard.hits if rod == index and at >= since)
            if works(aboard.rods[index].look, aboard.speed_mps):
                self.model.count(
                    self.model.terms(recent[-1][1]), hits, float(len(recent)),
                    passing=passing,
                )


def _above_m(aboard: Aboard) -> float:
    return USUAL_ABOVE_MARK_M[aboard.box.species]


def option_of(
    change: Change, aboard: Aboard, key: str, *, bed_m: float | None = None,
    wears: Mapping[int, RodState] | None = None,
) -> Option:
    """Return a change as the choice sees it.

    Parameters
    ----------
    change : Change
        The change.
    aboard : Aboard
        What is out.
    key : str
        To know it again.
    bed_m : float, optional
        How deep the water usually is, m.
    wears : mapping of int to RodState, optional
        Rods that would have to wear something else to swim at another speed.

    Returns
    -------
    Option
    """
    speed, wears = change.speed_mps, wears or {}
    if speed is None:
        speed, rods = aboard.speed_mps, change.rods
    else:
        rods = tuple((i, wears.get(i, rod)) for i, rod in enumerate(aboard.rods))
    return Option(
        key=key, kind=change.kind,  # type: ignore[arg-type]
        after=tuple((str(i), replace(recipe_of(rod, speed), bed_m=bed_m)) for i, rod in rods),
        cost_min=change.cost_min,
        costs_min={str(i): reset_min(rod) + TIE_MIN for i, rod in wears.items()},
    )


class Oracle:
    """Knows the truth of the minute, pays the same costs."""

    name = "oracle"
    AHEAD_MIN = 60.0

    def begin(self, aboard: Aboard, world: World) -> None:
        """Look behind the curtain."""
        self.world = world

    def decide(self, aboard: Aboard) -> Change | None:
        """Return the step that earns most over the next hour, if the truth stays as it is."""
        left = min(self.AHEAD_MIN, float(DAY_MIN - aboard.minute))
        now = self._rates(aboard, aboard.rods, aboard.speed_mps)
        turn = self._turning(aboard, math.fsum(now))
        best, worth = None, 0.05
        for change in steps_of(aboard):
            if change.speed_mps is not None:
                gain = left * (math.fsum(
                    self._rates(aboard, aboard.rods, change.speed_mps)
                ) - math.fsum(now))
            else:
                index, rod = change.rods[0]
                rate = self._rates(aboard, [rod], aboard.speed_mps)[0]
                gain = max(left - change.cost_min, 0.0) * rate - left * now[index]
            if gain > worth:
                best, worth = change, gain
        if turn > max(0.05, 0.0 if best is None else worth * DECIDE_MIN / left):
            return Change(kind="turn", turn_round=True)
        return best

    def _turning(self, aboard: Aboard, rate_pm: float) -> float:
        """Hits to be gained by turning round."""
        world = self.world
        if not isinstance(world, Lapped) or not aboard.places:
            return 0.0
        here, step = aboard.places[-1], aboard.way / aboard.lap_min
        ahead, back = (
            [world.crowd_at(here + way * step * i) for i in range(1, AHEAD_MIN + 1)]
            for way in (1, -1)
        )
        there = world.crowd_at(here)
        return turning_gain(rate_pm=rate_pm / max(there, 1e-9), ahead=ahead, back=back)

    def _rates(self, aboard: Aboard, rods: list[RodState], speed_mps: float) -> list[float]:
        shown = [
            Shown(
                recipe=recipe_of(rod, speed_mps), works=works(rod.look, speed_mps), baited=True,
                turning="",
            )
            for rod in rods
        ]
        # Over the lap, not over the school of the minute: the crowd is the same for all.
        return self.world.rates(aboard.minute, shown)


POLICIES: Final[dict[str, type[Policy]]] = {
    "fixed": Fixed, "habit": Habit, "advisor": Advisor, "learner": Learner, "oracle": Oracle,
}
