"""Flat belts: lengths against the plain geometry, crown and face against ISO 100 and ISO 22 (figures from memory)."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Tone
from tuyere.core.kinds.flat import crown_height, face_width, flat_belts
from tuyere.core.kinds.flat.survey import read_flat
from tuyere.core.mechanics.open_belt import belt_length

BASE = {
    "driver_diameter": "6 in",
    "driven_diameter": "18 in",
    "centre_distance": "96 in",
    "flat_thickness": "0.13 in",
    "flat_width": "6 in",
}


def read(words: dict[str, str] | None = None, **more: str):  # type: ignore[no-untyped-def]
    return read_flat({k: Typed(v, "in") for k, v in (BASE | more).items()}, words or {})


def test_the_tape_and_the_belt_differ_by_pi_thicknesses() -> None:
    """Lm = Lt + pi t for an open belt (geometry); the tape lies on the rims."""
    drive = read().drive
    assert drive
    assert drive.inside_m == pytest.approx(belt_length(6 * 0.0254, 18 * 0.0254, 96 * 0.0254), rel=1e-9)
    assert drive.middle_m - drive.inside_m == pytest.approx(math.pi * 0.13 * 0.0254, rel=1e-9)
    # Shigley, Example 17-1 (from memory): 6 and 18 in at 8 ft: wrap 3.0165 rad on the small pulley.
    assert drive.answer.wheels[0].wrap_rad == pytest.approx(3.0165, abs=2e-4)


@given(st.floats(2, 12), st.floats(2, 30), st.floats(1.3, 6), st.floats(0.03, 0.4))
def test_thickness_counts_in_the_ratio(d: float, big: float, apart: float, t: float) -> None:
    """n2/n1 = (d + t)/(D + t) (general handbooks)."""
    found = read(
        driver_diameter=f"{d:.4f}",
        driven_diameter=f"{big:.4f}",
        centre_distance=f"{apart * (d + big):.4f}",
        flat_thickness=f"{t:.4f}",
        driver_speed="1000 rpm",
    ).drive
    assert found and found.ratio == pytest.approx((round(d, 4) + round(t, 4)) / (round(big, 4) + round(t, 4)), rel=1e-6)
    speeds = [w.speed_rad_per_s for w in found.answer.wheels]
    assert speeds[0] and speeds[1] and speeds[1] / speeds[0] == pytest.approx(found.ratio)


def test_crowns_and_faces_of_the_standards() -> None:
    """ISO 100 (mm): 0.3 at 112, 0.6 at 200, 1 on 400 with a narrow face, 2.5 on 1000 with 250; ISO 22: 50 runs on 63."""
    assert [crown_height(d / 1e3, f / 1e3) for d, f in ((112, 80), (200, 100), (400, 100), (1000, 250), (1010, 250))] == pytest.approx(
        [0.0003, 0.0006, 0.001, 0.0025, 0.0025]
    )
    assert crown_height(0.03, 0.1) is None and face_width(0.05) == pytest.approx(0.063) and face_width(2.0) is None
    assert all(b.thickness_m > 0 for b in flat_belts().values())


def heads(found, tone: Tone) -> list[str]:  # type: ignore[no-untyped-def]
    return [v.headline for v in found.verdicts if v.tone is tone]


def test_what_a_flat_belt_needs_is_said() -> None:
    both = {"driver_surface": "plain", "driven_surface": "plain", "belt": "leather 2ply heavy"}
    found = read(both, driver_face="5 1/2 in", driven_face="6 1/4 in")
    assert heads(found, Tone.STOP) == ["The driver's face is narrower than the belt"]
    watch = heads(found, Tone.WATCH)
    assert "Neither pulley is crowned: nothing holds the belt in the middle" in watch
    assert any(w.startswith("The driven's face leaves little") for w in watch)
    thick = heads(read(both, flat_thickness="9.1 mm", driver_face="5 1/2 in", driven_face="6 1/4 in"), Tone.WATCH)
    assert any("small for leather 2ply heavy" in w for w in thick) and not any("small for" in w for w in watch), (
        "leather by the thickness typed"
    )
    crowned = {"driver_surface": "crowned", "driven_surface": "crowned", "lay": "crossed"}
    assert "Both pulleys are crowned on a crossed belt" in heads(read(crowned), Tone.WATCH)
    high = read({"driver_surface": "crowned", "driven_surface": "plain"}, driver_face="6 3/4 in", driver_crown="3/16 in")
    assert "The driver's crown is high" in heads(high, Tone.WATCH)
    assert any("crown holds the belt" in h for h in heads(high, Tone.GOOD))


def test_quarter_turn_and_missing_or_bad_entries() -> None:
    quarter = read({"lay": "quarter-turn"}, driver_face="8 in", driven_face="9 in")
    assert quarter.drive and quarter.drive.answer.quarter and any(h.startswith("Set driven wheel off") for h in heads(quarter, Tone.OPEN))
    assert any("face leaves little" in h for h in heads(quarter, Tone.WATCH))
    assert read(flat_thickness="").drive is None and read({"belt": "polyamide 0.13in"}, flat_thickness="").drive
    assert read(centre_distance="thick").problems[0].field == "centre_distance"
    assert "one inside the other" in read(centre_distance="5 in").problems[0].sentence
