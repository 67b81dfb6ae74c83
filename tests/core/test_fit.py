"""Belt in groove: the seat against an independent construction, ride bands, pairings, and sets."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from tuyere.core.basis.origin import Origin
from tuyere.core.basis.typed import Given
from tuyere.core.basis.verdict import Tone
from tuyere.core.kinds import v_belt
from tuyere.core.stations.find.fit.check import Fitting, check
from tuyere.core.stations.find.fit.pairing import in_groove, mixed_set
from tuyere.core.stations.find.fit.seat import Trapezoid, pitch_drop, seat

INCH = 0.0254


def measured(value: float, std: float = 0.0001) -> Given:
    return Given(value, std, Origin.MEASURED, "measured")


def metal(groove: Trapezoid) -> Polygon:
    """The rim in section: a block with the groove cut out of it."""
    half, bottom = groove.top_width_m / 2, groove.width_at(groove.height_m) / 2
    deep, wide = groove.height_m + 0.05, half + 0.05
    return Polygon(
        [
            (-wide, 0),
            (-half, 0),
            (-bottom, -groove.height_m),
            (bottom, -groove.height_m),
            (half, 0),
            (wide, 0),
            (wide, -deep),
            (-wide, -deep),
        ]
    )


def belt_at(belt: Trapezoid, ride: float) -> Polygon:
    top, low = belt.top_width_m / 2, belt.width_at(belt.height_m) / 2
    return Polygon([(-top, ride), (top, ride), (low, ride - belt.height_m), (-low, ride - belt.height_m)])


def lowered(belt: Trapezoid, groove: Trapezoid) -> float:
    """The lowest ride without cutting metal, by bisection over Shapely's own intersection."""
    rim, low, high = metal(groove), -groove.height_m - 0.02, belt.height_m + 0.02
    for _ in range(60):
        middle = (low + high) / 2
        if rim.intersection(belt_at(belt, middle)).area > 1e-13:
            low = middle
        else:
            high = middle
    return high


@given(st.floats(0.006, 0.035), st.floats(0.5, 0.95), st.floats(30, 44), st.floats(0.8, 1.25), st.floats(0.7, 1.3), st.floats(30, 44))
def test_the_seat_is_where_the_sections_touch(
    width: float, deep: float, angle: float, wider: float, deeper: float, groove_angle: float
) -> None:
    """Independent construction: Shapely lowers the belt's outline into the rim until they would overlap."""
    height = min(deep * width, 0.9 * width / (2 * math.tan(math.radians(angle / 2))))
    belt = Trapezoid(width, height, math.radians(angle))
    most = 0.9 * width * wider / (2 * math.tan(math.radians(groove_angle / 2)))
    groove = Trapezoid(width * wider, min(height * deeper, most), math.radians(groove_angle))
    assert seat(belt, groove).ride_m == pytest.approx(lowered(belt, groove), abs=3e-5)


@pytest.mark.parametrize("name", ["A", "B", "C", "D", "3V", "5V", "8V", "4L", "5L", "ISO A", "ISO B", "SPZ", "SPA", "SPB", "SPC"])
def test_every_belt_sits_right_in_its_own_groove(name: str) -> None:
    """Groove tables (IP-20, IP-22, ISO 4183): about flush, classical to 1/16 in and narrow to 1/8 in proud (common practice)."""
    section = v_belt.section(name)
    found = check(Fitting(section, section))
    tables = next(s for s in found.schools if s.name == "groove tables")
    assert tables.verdict.tone is Tone.GOOD and found.touches != "bottom of the groove"
    assert all(v.tone is Tone.OPEN for v in found.verdicts), "nothing is right before anything was measured"
    taken = check(Fitting(section, section, top_width=measured(section.top_width_m)))
    assert all(v.tone is Tone.GOOD for v in taken.verdicts)


def test_wall_wear_drops_the_belt() -> None:
    """Geometry (wear references).

    0.4 mm off each wall at 38 degrees drops the belt 1.23 mm; the same as widening the rim for a belt on its corners.
    """
    assert pitch_drop(0.0004, math.radians(38)) * 1000 == pytest.approx(1.23, abs=0.005)
    belt, angle = Trapezoid(0.0124, 0.0079, math.radians(40)), math.radians(38)
    worn = 0.0128 + 2 * 0.0004 / math.cos(angle / 2)
    dropped = seat(belt, Trapezoid(0.0128, 0.012, angle)).ride_m - seat(belt, Trapezoid(worn, 0.013, angle)).ride_m
    assert dropped == pytest.approx(pitch_drop(0.0004, angle), rel=1e-6)


@pytest.mark.parametrize(
    ("belt", "made_for", "match", "tone"),
    [
        ("A", "A", "right", Tone.GOOD),
        ("4L", "A", "right", Tone.GOOD),
        ("AX", "A", "right", Tone.GOOD),
        ("ISO B", "B", "right", Tone.GOOD),
        ("A", "B", "narrower", Tone.WATCH),
        ("B", "C", "narrower", Tone.WATCH),
        ("B", "A", "wider", Tone.STOP),
        ("C", "B", "wider", Tone.STOP),
        ("5V", "B", "other system", Tone.STOP),
        ("B", "5V", "other system", Tone.STOP),
        ("PK", "A", "other system", Tone.STOP),
        *(
            (b, g, "near", Tone.WATCH)
            for b, g in (("3V", "SPZ"), ("3VX", "SPZ"), ("XPZ", "3V"), ("5VX", "SPB"), ("15N", "SPB"), ("9N", "SPZ"))
        ),
        *((b, g, "right", Tone.GOOD) for b, g in (("ISO A", "SPA"), ("Z", "SPZ"), ("ISO B", "SPB"), ("ISO C", "SPC"), ("A", "SPA"))),
        *(
            (b, g, "near", Tone.WATCH)
            for b, g in (("SPA", "ISO A"), ("SPZ", "Z"), ("SPB", "ISO B"), ("SPC", "ISO C"), ("XPA", "ISO A"), ("SPA", "A"))
        ),
        ("A", "AA", "right", Tone.WATCH),
        ("AA", "A", "right", Tone.GOOD),
    ],
)
def test_pairings(belt: str, made_for: str, match: str, tone: Tone) -> None:
    """Common practice, no source: wider never, narrower only to get home.

    ISO 4183: a classical and a wedge section of one datum width fit each other's grooves.
    """
    found = in_groove(v_belt.section(belt), v_belt.section(made_for))
    assert (found.match, found.verdict.tone) == (match, tone)


def test_a_wrong_belt_is_found_by_its_ride() -> None:
    """B groove, belt thought to be B, back 3/16 in below the rim: the sizes do not explain it."""
    found = check(
        Fitting(v_belt.section("B"), v_belt.section("B"), wheel_diameter=measured(5.75 * INCH), ride=measured(-3 / 16 * INCH, 0.0004))
    )
    said = [v.headline for v in found.verdicts]
    assert any("below the rim" in h for h in said) and any("does not sit where these sizes put it" in h for h in said)
    right = check(Fitting(v_belt.section("A"), v_belt.section("B"), wheel_diameter=measured(5.75 * INCH)))
    assert right.ride_m == pytest.approx(-0.224 * INCH, abs=0.01 * INCH)


def test_the_schools_differ_on_a_proud_belt() -> None:
    found = check(Fitting(v_belt.section("3V"), v_belt.section("3V"), ride=measured(3 / 32 * INCH, 0.0002)))
    assert [(s.name, s.verdict.tone) for s in found.schools] == [("strictly flush", Tone.WATCH), ("groove tables", Tone.GOOD)]
    assert any("Right by the groove tables" in v.detail for v in found.verdicts)


def test_deep_and_combination_grooves_are_as_made() -> None:
    deep = check(Fitting(v_belt.section("B"), v_belt.section("B"), "deep"))
    assert deep.ride_m < -0.1 * INCH and not deep.schools and all(v.tone is Tone.OPEN for v in deep.verdicts)
    both = check(Fitting(v_belt.section("A"), v_belt.section("B"), "combination"))
    assert all(v.tone is Tone.OPEN for v in both.verdicts)


def test_a_worn_belt_bottoms() -> None:
    found = check(Fitting(v_belt.section("B"), v_belt.section("B"), top_width=measured(13.2e-3)))
    assert any("below the rim" in v.headline or "bottoms" in v.headline for v in found.verdicts)
    gone = check(Fitting(v_belt.section("B"), v_belt.section("B"), top_width=measured(12.2e-3)))
    assert "The belt bottoms in the groove" in [v.headline for v in gone.verdicts]


def test_sets_are_never_mixed() -> None:
    """Common practice, no source."""
    assert not mixed_set(())
    assert [(v.tone, v.headline) for v in mixed_set(("new and used", "two systems", "unheard of"))] == [
        (Tone.STOP, "Classical and wedge belts on one drive"),
        (Tone.STOP, "New and used belts in one set"),
    ]
    assert "matched set" in mixed_set(("singles for joined",))[0].detail
