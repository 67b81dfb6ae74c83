"""Speeds by the pitch line, lengths by the datum line: IP-20's own geometry (from memory), and what follows for ratio, slip and power."""

import math

import pytest

from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.typed import Typed
from tuyere.core.drive.layout.form import read_path
from tuyere.core.drive.layout.typed import TypedBelt, TypedPath, TypedWheel
from tuyere.core.drive.sheet.solve import solve
from tuyere.core.drive.sheet.typed import read_form
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.survey import Part
from tuyere.core.kinds.v_belt import ip20
from tuyere.core.kinds.v_belt.kind import V_BELT
from tuyere.core.stations.speed.cones import design

INCH = 0.0254
RPM = to_si(1, "rotation", "rpm")


def drive(section: str, driver: str, driven: str, words: dict[str, str] | None = None, **more: str) -> DriveSpec:
    typed = {"driver_speed": "1750 rpm", "driver_diameter": driver, "driven_diameter": driven, "centre_distance": "30"} | more
    return read_form(V_BELT, {k: Typed(v, "in") for k, v in typed.items()}, {"section": section} | (words or {})).spec


def test_the_pitch_diameter_of_a_standard_classical_groove_is_its_outside_one() -> None:
    """IP-20: 2 a_p = 0. A 3.25 to 12.25 in outside turns 12.25/3.25; by datum diameters it would be 6 % more ratio (12/3)."""
    figures = solve(drive("A", "3.25", "12.25")).figures
    assert figures["ratio"].value_si == pytest.approx(12.25 / 3.25)
    assert figures["driven_speed"].value_si == pytest.approx(1750 * RPM * 3.25 / 12.25)
    assert figures["belt_speed"].value_si == pytest.approx(3.25 * INCH * 1750 * RPM / 2)
    # Lengths stay with the datum diameters: 3.0 and 12.0 in.
    assert figures["wrap_driver"].value_si == pytest.approx(math.pi - 2 * math.asin(9 / 60))


@pytest.mark.parametrize(
    ("section", "kind", "two_ap"),
    [("A", "combination", 0.37), ("B", "combination", -0.07), ("B", "deep", 0.36), ("C", "deep", 0.61)],
)
def test_other_grooves_have_their_own_pitch_diameter(section: str, kind: str, two_ap: float) -> None:
    """IP-20 groove table, 2 a_p of combination and deep grooves (from memory; C deep derived): outside less pitch, within 0.02 in."""
    figures = solve(drive(section, "9", "18", {"driver_groove": kind, "driven_groove": kind})).figures
    assert (figures["driver_outside"].value_si - figures["driver_pitch"].value_si) / INCH == pytest.approx(two_ap, abs=0.02)


def test_narrow_and_metric_belts_have_one_line() -> None:
    """IP-22: pitch = outside - 2a for lengths and speeds alike; ISO 4183: the datum diameter."""
    for section, line in (("5V", 0.10), ("3V", 0.05), ("SPA", None)):
        figures = solve(drive(section, "9", "18")).figures
        assert figures["driver_pitch"].value_si == pytest.approx(figures["driver_datum"].value_si)
        if line:
            assert figures["driver_pitch"].value_si == pytest.approx((9 - line) * INCH)


def test_a_true_slip_is_seen_for_what_it_is() -> None:
    """An A drive 3.25 to 12.25 in that slips 5.7 %: by datum diameters it read as nothing; the doubt about the line is in its band."""
    slipping = 1750 * 3.25 / 12.25 * (1 - 0.057)
    sheet = solve(drive("A", "3.25", "12.25", None, tach_driver="1750 rpm", tach_driven=f"{slipping:.1f} rpm"))
    said = next(v for v in sheet.verdicts if v.topic == "speed")
    assert sheet.figures["slip"].value_si == pytest.approx(0.057, abs=1e-3) and "too much" in said.headline
    # The line's doubt shifts both wheels alike: 0.1 of 5/16 in over 3.25 against 12.25 in, about 0.7 % of the ratio.
    assert 0.005 < sheet.figures["slip"].std_si < 0.012


def test_the_speed_ratio_factor_takes_the_speed_ratio() -> None:
    """IP-20: K_SR by speed ratio, stepped at 1.65. B, 5.75 to 9.37 in outside: 1.63 by pitch, 1.67 by datum diameters."""
    figures = solve(drive("B", "5.75", "9.37", {"belt": "B90"})).figures
    assert figures["speed_ratio_factor"].value_si == ip20.speed_ratio_factor(9.37 / 5.75) < ip20.speed_ratio_factor(9.02 / 5.4)


def test_a_train_on_many_wheels_goes_by_the_pitch_line_too() -> None:
    """Three A sheaves of one layout: driven speeds as the rims, which are the pitch diameters (IP-20)."""
    wheels = [
        TypedWheel(name, role, "inside", "grooved", Typed(size, "in"), Typed(x, "in"), Typed(y, "in"))
        for name, role, size, x, y in (
            ("engine", "driver", "4", "0", "0"),
            ("left", "driven", "6", "20", "0"),
            ("right", "driven", "8", "10", "15"),
        )
    ]
    found = read_path(
        TypedPath(
            wheels,
            [TypedBelt(V_BELT, Part(words={"section": "A"}))],
            placed_by="coordinates",
            rotation="counter-clockwise",
            driver_speed=Typed("1000 rpm"),
        )
    )
    assert found.train
    speeds = {s.name: s.speed_rad_per_s for s in found.train.belts[0].wheels}
    assert speeds["left"] == pytest.approx(1000 * RPM * 4 / 6) and speeds["right"] == pytest.approx(1000 * RPM * 4 / 8)


def test_cones_are_cut_for_speeds_by_pitch_and_belts_by_datum() -> None:
    """A ratio of 2 on A sheaves: the rims are as 1 to 2, the belt fits by the datum diameters (IP-20: 0.25 in between)."""
    over = v_belt.pitch_over_datum(v_belt.section("A"))
    for step in design([3.0, 2.0, 1.0], 3.0 * INCH, 0.6, False, over):
        assert (step.driven_m + over) / (step.driving_m + over) == pytest.approx(step.ratio)
