"""Keepers and guides: the side the belt passes them on, and their clearance, judged both ways."""

import math
from dataclasses import dataclass

from tuyere.core.basis.figure import both
from tuyere.core.basis.keeper import keeper_gap, said, widest
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.mechanics.belt_path import BeltPath
from tuyere.core.mechanics.on_wheels.wheels import Contact, Keeper, KeeperState

_READ = 0.0004  # 1/64 in: as a rule is read
_UNSURE = 0.002  # a place taped from two wheels is no surer than this


def finding_of(keeper: Keeper) -> str | None:
    """What an inspection writes down about a keeper that no longer keeps; None for one in place."""
    return (
        None if keeper.state is KeeperState.IN_PLACE else f"Belt keeper {keeper.name}: {keeper.state}. Replace it before the machine runs."
    )


def judge(path: BeltPath, keeper: Keeper, inside_m: float, back_m: float) -> Verdict:
    """A verdict on one keeper. `inside_m`, `back_m`: how far the belt's faces stand off its line (m)."""
    if keeper.state is not KeeperState.IN_PLACE:
        return Verdict(
            "keeper",
            Tone.STOP,
            f"{keeper.name} is {keeper.state}",
            "Without it the belt climbs out when it goes slack. Replace it before the machine runs.",
        )
    gap, taped = keeper.gap_m, None
    if keeper.x_m is not None and keeper.y_m is not None:
        foot = nearest(path, keeper.x_m, keeper.y_m)
        reach, side = foot.reach_m, foot.side
        if side != keeper.side and reach > _UNSURE:
            return Verdict(
                "keeper",
                Tone.STOP,
                f"The belt runs on the wrong side of {keeper.name}",
                f"It should pass with its {keeper.side} to the keeper. Route it again before tensioning.",
            )
        taped = reach - (inside_m if side == "inside" else back_m)
    any_machine = widest()
    least = keeper.least_m if keeper.least_m is not None else any_machine.least_m
    most = keeper.most_m if keeper.most_m is not None else max(any_machine.most_m, least)
    manual = keeper.least_m is not None or keeper.most_m is not None
    wanted = f"{both(least)} to {both(most)} off the taut belt (the machine's manual)" if manual else f"{said()} ({any_machine.source})"
    if gap is None:
        about = f" By its place it is about {both(max(taped, 0.0))}." if taped is not None else ""
        if taped is not None and taped > most + _UNSURE:
            return Verdict(
                "keeper",
                Tone.WATCH,
                f"{keeper.name} stands too far off",
                f"About {both(taped)}; it wants {wanted}. The belt can climb out.",
            )
        return Verdict(
            "keeper",
            Tone.OPEN,
            f"{keeper.name}: measure its gap",
            f"With the belt tensioned, from keeper to belt; it wants {wanted}.{about}",
        )
    if gap < least - _READ:
        return Verdict("keeper", Tone.WATCH, f"{keeper.name} is too near the belt", f"{both(gap)}; it wants {wanted}. It rubs.")
    if gap > most + _READ:
        return Verdict(
            "keeper", Tone.WATCH, f"{keeper.name} stands too far off", f"{both(gap)}; it wants {wanted}. The belt can climb out."
        )
    if not manual and gap > keeper_gap("mower").most_m + _READ:
        return Verdict("keeper", Tone.OPEN, f"{keeper.name} is right on a farm machine only", f"{both(gap)}; it wants {wanted}.")
    return Verdict("keeper", Tone.GOOD, f"{keeper.name} is right", f"{both(gap)}; it wants {wanted}.")


@dataclass(frozen=True)
class Nearest:
    """Of the belt's line, the place (m) nearest to a point, how far it is, and which face of the belt the point sees."""

    reach_m: float
    side: Contact
    x_m: float
    y_m: float


def nearest(path: BeltPath, x_m: float, y_m: float) -> Nearest:
    """Where the belt's line comes nearest to a point, over its runs and the arcs where it lies on a wheel."""
    count = len(path.pulleys)
    crossed = round(path.turning_rad / (2 * math.pi)) == 0

    def inner(wheel: int) -> int:
        """+1 where the belt's inside lies to the left of its travel: a crossed belt is turned over between its wheels."""
        return path.pulleys[wheel % count].turns if crossed else path.pulleys[0].turns

    found: list[tuple[float, float, float, float]] = []  # reach, above 0 where the belt's inside faces the point, foot
    for k, run in enumerate(path.runs):
        ux, uy = math.cos(run.direction_rad), math.sin(run.direction_rad)
        dx, dy = x_m - run.x1_m, y_m - run.y1_m
        along, left = dx * ux + dy * uy, -dx * uy + dy * ux
        on = min(max(along, 0.0), run.length_m)
        face = left * inner(k if along < run.length_m / 2 else k + 1)
        found.append((math.hypot(left, along - on), face, run.x1_m + on * ux, run.y1_m + on * uy))
    for k, p in enumerate(path.pulleys):
        arrive = math.atan2(path.runs[k - 1].y2_m - p.y_m, path.runs[k - 1].x2_m - p.x_m)
        bearing = math.atan2(y_m - p.y_m, x_m - p.x_m)
        if (p.turns * (bearing - arrive)) % (2 * math.pi) <= path.wraps_rad[k]:
            out = math.hypot(x_m - p.x_m, y_m - p.y_m) - p.radius_m
            foot = p.x_m + p.radius_m * math.cos(bearing), p.y_m + p.radius_m * math.sin(bearing)
            found.append((abs(out), -p.turns * out * inner(k), *foot))
    reach, face, x, y = min(found)
    return Nearest(reach, "inside" if face > 0 else "back", x, y)
