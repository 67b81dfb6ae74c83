"""From the sheet, its tachometer readings and a change in mind: what explains the reading, and which diameter makes what difference."""

from collections.abc import Mapping
from dataclasses import dataclass

from tuyere.core.basis.field import Note
from tuyere.core.basis.page import Page
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.uncertainty import UFloat, exact, uncertain
from tuyere.core.basis.verdict import Problem, Verdict
from tuyere.core.kinds.fitted import Role, rolls_by
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.stations.speed.explain import Explained, Learned, explain, learn


@dataclass(frozen=True)
class ByDiameter:
    """One kind of diameter: both wheels (m), the ratio by it, the driven speed (rad/s) and how far that lies from the line's (a share)."""

    what: str
    driver_m: float
    driven_m: float
    ratio: float
    speed: float | None
    off: float | None


@dataclass(frozen=True)
class SpeedReading:
    """The explanations of the loss, what a change taught, the new wheel's speed by the diameters (rad/s), and the kinds of diameter side by
    side.
    """

    explained: Explained | None
    learned: Learned | None
    by_diameters: float | None
    diameters: tuple[ByDiameter, ...]
    verdicts: tuple[Verdict, ...]
    notes: dict[str, Note]
    problems: tuple[Problem, ...]


def read_speeds(spec: DriveSpec, page: Page, quantities: Mapping[str, Typed], words: Mapping[str, str], change: Role) -> SpeedReading:
    """Read the change in mind (new_diameter or new_teeth), the reading after it (after_driver, after_driven) and the target."""
    reader = FieldReader(quantities, words)
    new = _new_over_old(reader, spec, page, change)
    after_driver, after_driven = reader.given("after_driver", "tach_driver"), reader.given("after_driven", "tach_driven")
    target = reader.value("target", "target_speed")
    found = _explained(spec, page, change, new)
    driver = spec.tach_driver or spec.driver_speed
    learned: Learned | None = None
    if after_driven and driver and page.has("ratio"):
        ratio = page.values["ratio"]
        now = ratio if new is None else ratio / new if change == "driver" else ratio * new
        learned = learn((after_driver or driver).u, after_driven.u, now, target, change, found)
    elif target is not None and driver and spec.tach_driven and page.has("ratio"):
        learned = learn(driver.u, spec.tach_driven.u, page.values["ratio"], target, change)
    by_diameters = None
    if new is not None and page.has("driven_speed"):
        by_diameters = page.values["driven_speed"].n * (new.n if change == "driver" else 1 / new.n)
    verdicts = (*(found.verdicts if found else ()), *(learned.verdicts if learned else ()))
    return SpeedReading(found, learned, by_diameters, tuple(_diameters(spec, page)), verdicts, reader.notes, tuple(reader.problems))


def _new_over_old(reader: FieldReader, spec: DriveSpec, page: Page, change: Role) -> UFloat | None:
    """The changed wheel's new diameter over its old one, both as its speed goes by them."""
    old_teeth = spec.fitted.teeth(change) if spec.fitted else None
    if old_teeth:
        teeth = reader.whole("new_teeth", 4, 1000)
        return exact(teeth / old_teeth) if teeth else None
    found = reader.given("new_diameter", "driver_diameter")
    if not found or not spec.fitted or not page.has(f"{change}_datum"):
        return None
    old, new = page.values[rolls_by(page, change)].n, spec.fitted.rolls_at(change, found.value, page)
    return uncertain(new / old, found.std / old, "new wheel's diameter") if new > 0 else None


def _explained(spec: DriveSpec, page: Page, change: Role, new: UFloat | None) -> Explained | None:
    if not (page.has("ratio") and spec.tach_driven and spec.driver_speed):
        return None
    small: Role = "driver" if page.values["ratio"].n >= 1 else "driven"
    loop = spec.fitted.loop if spec.fitted else None
    least = loop is not None and page.values[rolls_by(page, small)].n < loop.smallest[0]
    driver = spec.tach_driver or spec.driver_speed
    return explain(
        driver.u,
        spec.tach_driven.u,
        page.values["ratio"],
        spec.family,
        change=change,
        new_over_old=new,
        small=small,
        below_least=least,
    )


def _diameters(spec: DriveSpec, page: Page) -> list[ByDiameter]:
    """The ratio by each kind of diameter: three per cent in diameter is three per cent in speed."""
    kinds = spec.fitted.by_diameters(page) if spec.fitted and page.has("driver_datum", "driven_datum") else []
    if not kinds:
        return []
    line = kinds[0][1]
    driver = spec.tach_driver or spec.driver_speed
    base = line[1] / line[0]
    return [
        ByDiameter(what, d, big, big / d, driver.value * d / big if driver else None, base * d / big - 1)
        for what, (d, big) in kinds
        if d > 0 and big > 0
    ]
