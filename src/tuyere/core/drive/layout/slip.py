"""Slip along a train, from two shafts that were read."""

import math
from collections.abc import Sequence

from tuyere.core.basis.figure import Line, given_figure
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.typed import Given
from tuyere.core.basis.uncertainty import standard_uncertainty, uncertain
from tuyere.core.drive.layout.form import PathReading
from tuyere.core.drive.sheet.slip import along, read_slip

Read = tuple[Given | None, float | None, Given]


def slip_between(page: Page, read: PathReading, name: str, wheels: Sequence[str], ratio: float, over: Sequence[int], speeds: Read) -> None:
    """Put the slip between the driver and the shaft called `name` on the page, and judge it by what the belts `over` which it goes lose
    together.

    ratio: the driver's speed over that shaft's, without slip. speeds: the driver's as read, else by its plate (rad/s), and that shaft's
    as read. Of wheels without teeth the diameters' own doubt counts.
    """
    doubt = 0.0
    for b in over:
        on = read.on_wheels[b].wheels
        driver = next(w for w in on if w.role == "driver")
        driven = next(w for w in on if w.name in wheels or w.role == "driven")
        for w in (driver, driven):
            if w.teeth is None:
                doubt += (standard_uncertainty(2 * w.rim_radius_m, "length", Origin.MEASURED) / (2 * w.rolls_radius_m)) ** 2
    measured, plate, at_shaft = speeds
    by_plate = standard_uncertainty(plate or 0.0, "rotation", Origin.NAMEPLATE)
    first = measured or Given(plate or 0.0, by_plate, Origin.NAMEPLATE, "driver speed by its plate")
    for key, label, symbol, given in (
        ("tach_driven", f"speed of {name} measured", "n_2m", at_shaft),
        ("tach_driver", first.name, "n_1m", first),
    ):
        page.put(given_figure(key, label, symbol, "rotation", given.value, given.std, given.origin))
    families = [read.belts[b].family for b in over]
    way = Line("R", f"driver to {name}", f"{ratio:.3f}", f"{ratio:.3f}", Origin.MEASURED, Origin.MEASURED)
    exact = uncertain(ratio, ratio * math.sqrt(doubt), "wheels")
    lines = [*page.lines("tach_driver", "tach_driven"), way]
    usual, toothed = along([f.slip for f in families]), all(f.toothed for f in families)
    read_slip(first.u, at_shaft.u, exact, lines, usual, toothed, measured is not None, page)
