"""What is asked of the spread from above: straight, in a turn, as one unfolds, in which order."""

from __future__ import annotations

from ...checks import require_number
from ...lines.turn import TurnedLine
from ...tow.turns import TipInTurn, asked_radius_m
from ...trip.now import Now
from ...trip.track import bed_around
from ..fish.rods import rod_views
from .order import LineOrders, line_orders
from .spread import PlanView, Solver, TightestTurns, plan_view, tightest_turns
from .unfolding import ManoeuvreView, manoeuvre_view


def plan(
    now: Now, *, course: str, radius_m: float | None = None, rate_degps: float | None = None,
    leeway_deg: float = 0.0, now_s: float | None = None,
) -> PlanView:
    """Return the spread from above, straight or in a turn.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    course : {'straight', 'port', 'starboard'}
        Straight, or the side turned to.
    radius_m : float, optional
        Radius of the boat's circle, m; it or the rate is needed in a turn.
    rate_degps : float, optional
        Rate of turn, degrees a second.
    leeway_deg : float
        How far the lines stream to starboard of straight astern in a side wind, degrees.
    now_s : float, optional
        The moment, seconds since 1970-01-01 UTC: with it the chart tells of the bottom.

    Returns
    -------
    PlanView

    Raises
    ------
    InvalidInputError
        If course, radius or leeway cannot be.
    """
    return plan_view(
        rod_views(now), course=course, radius_m=_radius_m(now, radius_m, rate_degps),
        speed_mps=now.speed_mps, solver=_solver(now), bed=bed_around(now, now_s),
        leeway_deg=leeway_deg,
    )


def _solver(now: Now) -> Solver:
    """What solves the rods' lines from above, one turn beginning where the last one ended."""
    cuts: dict[str, float] = {}
    lags: dict[tuple[str, float], float] = {}

    def turned(rod_id: str, setting_m: float, tip: TipInTurn) -> TurnedLine:
        found = now.lines.turned(
            rod_id=rod_id, setting_m=setting_m, radius_m=tip.radius_m,
            tip_radius_m=tip.tip_radius_m, cut_share=cuts.get(rod_id),
        )
        if not found.is_slack:
            cuts[rod_id] = found.cut_share
        return found

    def lag_s(rod_id: str, setting_m: float) -> float:
        if (rod_id, setting_m) not in lags:
            lags[rod_id, setting_m] = now.lines.lag_s(rod_id, setting_m)
        return lags[rod_id, setting_m]

    return Solver(where=now.lines.where_quickly, turned=turned, lag_s=lag_s)


def _radius_m(now: Now, radius_m: float | None, rate_degps: float | None) -> float | None:
    return asked_radius_m(
        speed_mps=now.speed_mps, radius_m=radius_m, rate_degps=rate_degps
    )


def manoeuvre(
    now: Now, *, kind: str, toward: str, radius_m: float | None = None,
    rate_degps: float | None = None, now_s: float | None = None,
) -> ManoeuvreView:
    """Return an S-turn or U-turn as it unfolds.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    kind : {'s_turn', 'u_turn'}
        Which.
    toward : {'port', 'starboard'}
        The side turned to first.
    radius_m : float, optional
        Radius of the boat's circles, m; it or the rate is needed.
    rate_degps : float, optional
        Rate of turn, degrees a second.
    now_s : float, optional
        The moment, seconds since 1970-01-01 UTC: with it the chart tells of the bottom.

    Returns
    -------
    ManoeuvreView

    Raises
    ------
    InvalidInputError
        If kind, side or radius cannot be.
    """
    return manoeuvre_view(
        rod_views(now), kind=kind, toward=toward,
        radius_m=require_number("radius_m", _radius_m(now, radius_m, rate_degps)),
        speed_mps=now.speed_mps, solver=_solver(now), bed=bed_around(now, now_s),
    )


def tightest(now: Now, *, now_s: float | None = None) -> TightestTurns:
    """Return the smallest safe circles to either side.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    now_s : float, optional
        The moment, seconds since 1970-01-01 UTC: with it the chart tells of the bottom.

    Returns
    -------
    TightestTurns
    """
    return tightest_turns(
        rod_views(now), speed_mps=now.speed_mps, solver=_solver(now),
        bed=bed_around(now, now_s),
    )


def orders(now: Now) -> LineOrders:
    """Return the order in which to let the lines out, and to take them in.

    Parameters
    ----------
    now : Now
        The trip as it stands.

    Returns
    -------
    LineOrders
    """
    return line_orders(rod_views(now))
