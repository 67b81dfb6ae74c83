"""Two wheels of a stage as a drive of their own: what is worked out and chosen for a pair serves each such stage of a train."""

import math
from dataclasses import replace
from typing import NamedTuple

from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.typed import Given
from tuyere.core.drive.layout.duties import ShaftDuty, TrainDuty
from tuyere.core.drive.layout.form import PathReading
from tuyere.core.drive.sheet.solve import solve_page
from tuyere.core.kinds.family import Family
from tuyere.core.kinds.fitted import NOT_MEASURED, Slide
from tuyere.core.kinds.loop import Rim
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.mechanics.on_wheels.wheels import Lay, PathWheel


class Pair(NamedTuple):
    """A drive on two wheels, and its page. `wheels`: their places among those of the layout, from 0; none where there is no layout.

    `shafts`: the driving one and the driven one of a train, for what else pulls on them.
    """

    spec: DriveSpec
    page: Page
    wheels: tuple[int, ...] = ()
    shafts: tuple[ShaftDuty, ...] = ()


def pair_of(train: TrainDuty, number: int, family: Family, whole: DriveSpec) -> Pair | None:
    """The stage of that number, from 1, and its kind. What is driven, its class and hours are the whole drive's.

    An idler would be a third wheel: such a stage has none.
    """
    read, stage = train.read, train.stage(number)
    if read.train is None or stage is None or len(stage.wheels) != 2 or read.on_wheels[number - 1].lay is not Lay.OPEN:
        return None
    loop, (driver, driven) = read.belts[number - 1], (read.wheels[w.place] for w in stage.wheels)
    fitted = family.on_two(loop, _rim(driver), _rim(driven), math.dist((driver.x_m, driver.y_m), (driven.x_m, driven.y_m)))
    if fitted is None:
        return None
    along = math.atan2(driven.y_m - driver.y_m, driven.x_m - driver.x_m)
    ends = train.last is not None and driven.name in train.last.wheels
    spec = replace(
        whole,
        family=family,
        fitted=fitted,
        driver_power=_worked_out(stage.power_w, "power that the stage takes in"),
        driver_speed=_worked_out(stage.wheels[0].speed, "speed of the stage's driving shaft"),
        slide=_slide(driver, driven, along),
        design_speed=whole.design_speed if ends else None,
        rotation="clockwise" if read.train.belts[number - 1].wheels[0].turns < 0 else "counter-clockwise",
        centre_line_deg=math.degrees(along) % 360,
        tach_driver=None,
        tach_driven=None,
        idler="none",
    )
    shafts = tuple(next(s for s in train.shafts if w.name in s.wheels) for w in stage.wheels)
    return Pair(spec, solve_page(spec), tuple(w.place for w in stage.wheels), shafts)


def moved_to(read: PathReading, pair: Pair, centre_m: float) -> tuple[int, float, float]:
    """Which shaft moves, by its first wheel (from 0), and where to (m), so that the pair's centres are that far apart.

    The one that has a take-up, or else the driven one; the shaft that everything is measured from stays.
    """
    stays, moves = pair.wheels
    if (read.wheels[stays].take_up and not read.wheels[moves].take_up) or read.wheels[moves].shaft == 0:
        stays, moves = moves, stays
    one, other = read.wheels[stays], read.wheels[moves]
    share = centre_m / math.dist((one.x_m, one.y_m), (other.x_m, other.y_m))
    return other.shaft, one.x_m + share * (other.x_m - one.x_m), one.y_m + share * (other.y_m - one.y_m)


def _worked_out(value: float | None, name: str) -> Given | None:
    return Given(value, 0.0, Origin.COMPUTED, name) if value else None


def _rim(w: PathWheel) -> Rim:
    return Rim(2 * w.rim_radius_m, w.teeth, w.contact, w.face)


def _slide(driver: PathWheel, driven: PathWheel, along: float) -> Slide:
    """How far the centres close and open, by the take-up of either wheel along its line; on an arm it is not reckoned."""
    for w, away in ((driven, along), (driver, along + math.pi)):
        if w.take_up and w.take_up.pivot is None:
            share = abs(math.cos(w.take_up.direction_rad - away)) if w.take_up.direction_rad is not None else 1.0
            closer, farther = (
                Given(m * share, 0.0, Origin.MEASURED, "take-up") if m is not None else None
                for m in (w.take_up.slacken_m, w.take_up.tighten_m)
            )
            return Slide(closer, farther)
    return NOT_MEASURED
