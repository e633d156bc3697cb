"""Who knows how the standard world's days are drawn, but not which day this is.

No advice: a ceiling. What it earns is what the evidence of a day bears for a choice like the
advisor's, one step at a time; what it leaves to the oracle nobody can learn in a day by such steps.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Final

import numpy as np

from ..constants import FOOT_M, INCH_M, MPH_MPS
from ..evidence.day_model import OVERDISPERSION, STEP_MIN
from ..evidence.ground import Ground
from ..evidence.recipe import Recipe
from .boat import COLOURS, LURES, RodState, recipe_of, works
from .day import Aboard, Change
from .lap import gain_of_turning, note_ground
from .standard import DEFAULT, Array
from .steps import steps_of
from .world import DAY_MIN, World

DAYS: Final = 3000
"""So many possible days are held against what is seen."""
USUAL_CROWD: Final = 0.4
"""Fish under the boat on the whole, 1 over a school: laps of the standard world."""
SHRINK: Final = 0.985
"""How far days are drawn toward each other when those that fit are drawn anew."""
LEAST_GAIN: Final = 0.3
LEAST_WIDTH: Final = 0.15
LOOK_AHEAD_MIN: Final = 15
LIGHT: Final = np.sin(np.pi * (np.arange(DAY_MIN) + 60.0) / (DAY_MIN + 120.0))


class Learner:
    """A particle filter over days of the standard world, and the step that is worth most by it.

    References
    ----------
    Liu, J., West, M. (2001). Combined parameter and state estimation in simulation-based filtering,
    in Sequential Monte Carlo Methods in Practice. From memory: drawn anew with shrinkage.
    """

    name = "learner"

    def begin(self, aboard: Aboard, world: World) -> None:
        """Draw days that begin as this one does."""
        p, n = DEFAULT, DAYS
        draw = self.draw = np.random.default_rng(5)
        surface, self.bottom_m = aboard.seen.surface_degc, aboard.seen.bottom_m
        self.low_m = min(self.bottom_m - 0.5, 24.0)
        cool = max(0.0, surface - 12.0) / 7.0
        wanted = np.log(draw.uniform(*p.speed_mph, n) * MPH_MPS) * (1.0 - p.speed_lean)
        wanted += p.speed_lean * np.log(1.8 * MPH_MPS)
        wanted += 0.5 * (12.0 - surface) / 6.0 * p.speed_lean
        self.fixed: dict[str, Array] = {
            "level": math.log(p.hits_pm) + draw.normal(0.0, p.hits_sd, n),
            "holding": cool * draw.uniform(0.2, 0.7, n) * self.bottom_m + draw.uniform(1.0, 9.0, n),
            "by_light": draw.normal(0.0, 2.0, n),
            "shallow": draw.uniform(0.5, 3.5, n),
            "shallow_share": draw.uniform(*p.shallow_share, n),
            "depth_width": draw.uniform(*p.depth_width_m, n),
            "speed": wanted, "speed_width": draw.uniform(*p.speed_width, n),
            "flash": draw.uniform(size=n), "flash_width": draw.uniform(*p.taste_width, n),
            "thump": draw.uniform(size=n), "thump_width": draw.uniform(*p.taste_width, n),
            "leader": _evenly(draw, p.leader_in, INCH_M),
            "leader_width": draw.uniform(*p.leader_width, n),
            "setback": _evenly(draw, p.setback_ft, FOOT_M),
            "setback_width": draw.uniform(*p.setback_width, n),
            "colour": draw.normal(0.0, p.colour_sd, (n, len(COLOURS))),
            "colour_by_light": draw.normal(0.0, p.light_sd, (n, len(COLOURS))),
            "lure": draw.normal(0.0, p.lure_sd, (n, len(LURES))),
        }
        self.drifts = {
            "bite": (p.bite_sd, p.bite_memory_min),
            "depth": (p.depth_drift_m, p.depth_memory_min),
            "speed": (p.speed_drift, p.speed_memory_min),
            "flash": (p.taste_drift, p.taste_memory_min),
            "thump": (p.taste_drift, p.taste_memory_min),
        }
        self.drifted = {k: draw.normal(0.0, sd, n) for k, (sd, _) in self.drifts.items()}
        self.log_weight = np.zeros(n)
        self.ground = Ground()

    def decide(self, aboard: Aboard) -> Change | None:
        """Learn from the last five minutes, and take the step that is worth most."""
        self._learn(aboard)
        weight = self.weights()
        left = float(DAY_MIN - aboard.minute)
        horizon = min(max(0.6 * left, 20.0), 120.0)
        log_rate = self.log_rates(min(aboard.minute + LOOK_AHEAD_MIN, DAY_MIN - 1))

        def earns(rod: RodState, speed_mps: float) -> float:
            swims = 1.0 if works(rod.look, speed_mps) else DEFAULT.spun_out
            rates = np.exp(log_rate(recipe_of(rod, speed_mps)))
            return swims * USUAL_CROWD * float(weight @ rates)

        now = [earns(rod, aboard.speed_mps) for rod in aboard.rods]
        best, worth = None, LEAST_GAIN
        for change in steps_of(aboard):
            if change.speed_mps is not None:
                gain = horizon * (sum(earns(r, change.speed_mps) for r in aboard.rods) - sum(now))
            else:
                index, rod = change.rods[0]
                lasts = max(horizon - change.cost_min, 0.0)
                gain = lasts * earns(rod, aboard.speed_mps) - horizon * now[index]
            if gain > worth:
                best, worth = change, gain
        turn = gain_of_turning(self.ground, aboard, sum(now))
        if turn >= max(LEAST_GAIN, 0.0 if best is None else worth * STEP_MIN / horizon):
            return Change(kind="turn", turn_round=True)
        return best

    def weights(self) -> Array:
        """Return how likely each day is by now; they sum to 1."""
        weight = np.exp(self.log_weight - self.log_weight.max())
        return np.asarray(weight / weight.sum())

    def depths(self, minute: int) -> tuple[Array, Array]:
        """Return where the fish that hold and those near the surface are, m, each day its own."""
        f, walk = self.fixed, self.drifted["depth"]
        deep = np.clip(f["holding"] + f["by_light"] * LIGHT[minute] + walk, 0.8, self.low_m)
        return deep, np.clip(f["shallow"] + 0.4 * walk, 0.3, self.low_m)

    def log_rates(self, minute: int) -> Callable[[Recipe], Array]:
        """Return what gives the log of the hits a minute of a recipe over a school, by day."""
        f, walked, light = self.fixed, self.drifted, LIGHT[minute] - 0.6
        deep, shallow = self.depths(minute)
        names, known = list(LURES), dict[tuple[str, float], Array]()

        def off(name: str, value: float) -> Array:
            # Recipes share most of what they show: each value is worked out once.
            if (name, value) not in known:
                wanted = f[name] + walked.get(name, 0.0)
                known[name, value] = -0.5 * ((value - wanted) / f[f"{name}_width"]) ** 2
            return known[name, value]

        def at(depth_m: float) -> Array:
            if ("depth", depth_m) not in known:
                near = np.zeros(DAYS)
                share = f["shallow_share"]
                for centre, part in ((deep, 1.0 - share), (shallow, share)):
                    width = f["depth_width"] * np.where(
                        depth_m <= centre, 1.0, DEFAULT.below_width
                    )
                    near += part * np.exp(-0.5 * ((depth_m - centre) / width) ** 2)
                known["depth", depth_m] = np.log(near + 1e-9)
            return known["depth", depth_m]

        def log_rate(recipe: Recipe) -> Array:
            colour = COLOURS.index(recipe.colour)
            tastes = off("speed", math.log(recipe.speed_mps))
            tastes = tastes + off("flash", recipe.flash) + off("thump", recipe.thump)
            tastes = tastes + off("setback", math.log(max(recipe.setback_m, 1.0)))
            if recipe.leader_m is not None:
                tastes = tastes + off("leader", math.log(recipe.leader_m))
            tastes = tastes + f["colour"][:, colour] + light * f["colour_by_light"][:, colour]
            tastes = tastes + f["lure"][:, names.index(recipe.lure)]
            found = f["level"] + walked["bite"] + np.maximum(tastes, -6.0)
            return np.asarray(found + at(round(recipe.depth_m, 2)))

        return log_rate

    def _learn(self, aboard: Aboard) -> None:
        since = aboard.minute - int(STEP_MIN)
        for name, (sd, memory_min) in self.drifts.items():
            keep = math.exp(-STEP_MIN / memory_min)
            fresh = self.draw.normal(0.0, sd * math.sqrt(1.0 - keep**2), DAYS)
            self.drifted[name] = keep * self.drifted[name] + fresh
        crowd = USUAL_CROWD * note_ground(self.ground, aboard)
        log_rate = self.log_rates(aboard.minute)
        for index, pieces in enumerate(aboard.fished):
            recent = [recipe for at, recipe in pieces[-int(STEP_MIN):] if at >= since]
            if not recent or not works(aboard.rods[index].look, aboard.speed_mps):
                continue
            hits = sum(1 for at, rod in aboard.hits if rod == index and at >= since)
            due = np.exp(log_rate(recent[-1])) * crowd * len(recent)
            self.log_weight += hits * np.log(due + 1e-12)
            self.log_weight -= (hits + 1.0 / OVERDISPERSION) * np.log1p(OVERDISPERSION * due)
        self._look([depth for at, depth in aboard.marks if at >= since], crowd, aboard.minute)
        weight = self.weights()
        if 1.0 / float(weight @ weight) < 0.5 * DAYS:
            self._draw_anew(weight)

    def _look(self, marks: list[float], crowd: float, minute: int) -> None:
        """Weigh the days by where the marks are: fish of either group, or strays."""
        p, f = DEFAULT, self.fixed
        spread = np.hypot(f["depth_width"] * 0.6, p.mark_noise_m)
        groups = [
            (centre, part * np.minimum(centre / 10.0, 2.5) * crowd) for centre, part in zip(
                self.depths(minute), (1.0 - f["shallow_share"], f["shallow_share"]), strict=True
            )
        ]
        stray = p.stray_marks * min(self.bottom_m / 20.0, 1.5)
        seen = sum(rate for _, rate in groups) + stray
        for depth in marks:
            likely = stray / (self.bottom_m - 0.5) + sum(
                rate * np.exp(-0.5 * ((depth - centre) / spread) ** 2)
                / (spread * math.sqrt(2.0 * math.pi))
                for centre, rate in groups
            )
            self.log_weight += np.log(likely / seen)

    def _draw_anew(self, weight: Array) -> None:
        """Days that fit, by how well, each a little apart from the one it was drawn from."""
        places = (np.arange(DAYS) + self.draw.uniform()) / DAYS
        chosen = np.searchsorted(np.cumsum(weight), places).clip(0, DAYS - 1)
        for name, values in self.fixed.items():
            mean = weight @ values
            sd = np.sqrt(np.maximum(weight @ (values - mean) ** 2, 0.0))
            apart = math.sqrt(1.0 - SHRINK**2) * sd * self.draw.normal(size=values.shape)
            fresh = SHRINK * values[chosen] + (1.0 - SHRINK) * mean + apart
            if name.endswith("_width"):
                fresh = np.maximum(fresh, LEAST_WIDTH)
            self.fixed[name] = np.clip(fresh, 0.0, 1.0) if name == "shallow_share" else fresh
        self.drifted = {name: values[chosen] for name, values in self.drifted.items()}
        self.log_weight = np.zeros(DAYS)


def _evenly(draw: np.random.Generator, ends: tuple[float, float], unit: float) -> Array:
    low, high = (math.log(end * unit) for end in ends)
    return draw.uniform(low, high, DAYS)
