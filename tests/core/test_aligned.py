"""The Align station: each base in its own words, slope before shims, rims and grooves, checks before, shims from a stock, own tolerances."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.test_tight import stage
from tuyere.core.basis.quantity import QuantityError
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Tone
from tuyere.core.stations.align.base import bases
from tuyere.core.stations.align.before import SOFT_M, face_limit, rim_limit
from tuyere.core.stations.align.methods import METHODS
from tuyere.core.stations.align.read import Aligned, TypedAlign, TypedReading, read_align
from tuyere.core.stations.align.shims import MOST, pack, stock_of, stocks
from tuyere.core.stations.align.views import views

FEET = {"front": "110 mm", "span": "165 mm", "width": "190 mm", "height": "115 mm"}
HEAD = {"toward": "-1 mm", "away": "-3 mm", "top": "-3.4 mm", "bottom": "-0.6 mm"}  # where the line falls: the wheel stands out
EDGE = {"gap_1": "0 mm", "gap_2": "1 mm", "gap_3": "1.2 mm", "gap_4": "0 mm"}


def mm(points: dict[str, str]) -> dict[str, Typed]:
    return {k: Typed(v, "mm") for k, v in points.items()}


def aligned(
    *readings: tuple[str, dict[str, str]],
    lean: float = 0.0,
    kind: str = "V",
    base: str = "jack screws",
    checks: dict[str, str] | None = None,
    words: dict[str, str] | None = None,
    kept: dict[str, str] | None = None,
    kept_words: dict[str, str] | None = None,
) -> Aligned:
    """Two wheels, the driver moving."""
    on = stage(kind, lean=lean)
    standing = mm({f"align_1_{k}": v for k, v in FEET.items()} | (kept or {}))
    return read_align(
        on,
        TypedAlign(
            0,
            [TypedReading(m, mm(p)) for m, p in readings],
            mm(checks or {}),
            words or {},
            standing,
            {"align_1_base": base, **(kept_words or {})},
        ),
    )


@pytest.mark.parametrize(
    ("lean", "lie", "first", "second", "v_side"),
    [
        (0.0, "level", "The twist", "The angle", "top"),
        (math.pi, "level", "The twist", "The angle", "bottom"),
        (math.pi / 2, "upright", "The angle", "The twist", "right side"),
        (-math.pi / 2, "upright", "The angle", "The twist", "left side"),
        (math.radians(40), "steep", "Twist and angle, first half", "Twist and angle, second half", "top"),
    ],
)
def test_slope_says_what_shims_and_screws_cure(lean: float, lie: str, first: str, second: str, v_side: str) -> None:
    found = aligned(("one_head", HEAD), lean=lean)
    lift, swing = found.steps[0], found.steps[1]
    assert (lift.kind, swing.kind) == ("lift", "swing") and lift.text.startswith(first) and swing.text.startswith(second)
    assert set(lift.feet) in ({1, 2}, {3, 4}) and set(swing.feet) == {3, 4}, "shims at one end only; the front is the pivot"
    assert found.taken[0].points[2].label.startswith(f"3  Line at its {v_side}")
    assert any(f"Twist: the {v_side}" in s for s in found.seen)
    assert found.left == ("left" if lie == "upright" else f"left ({'toward' if math.cos(lean) > 0 else 'away from'} the driven machine)")


@pytest.mark.parametrize("base", [b.key for b in bases()])
def test_every_base_speaks_in_its_own_terms_and_advises_no_move_it_cannot_make(base: str) -> None:
    found = aligned(("one_head", HEAD), base=base)
    told = {s.kind for s in found.steps}
    on = next(b for b in bases() if b.key == base)
    assert ("lift" in told) == bool(on.lift) and ("swing" in told) == bool(on.swing)
    assert ("cannot" in told) == (not (on.lift and on.swing)), "what it cannot is said in its place"
    assert found.steps[-1].kind == "tension" and all(not s.feet for s in found.steps if s.kind == "cannot")
    if on.lift:
        end = on.front if found.steps[0].feet == (1, 2) else on.back
        assert end in found.steps[0].text


def test_nothing_is_moved_before_it_is_known_what_stands_where() -> None:
    unasked = read_align(stage(), TypedAlign(readings=[TypedReading("one_head", mm(HEAD))]))
    assert unasked.wants == ("what the machine stands on",) and not unasked.steps and unasked.errors.angle_rad is not None
    half = aligned(("straightedge", {"gap_1": "0 mm", "gap_2": "1 mm"}))
    assert half.errors.angle_rad is None and "3  driver, near rim" in half.taken[0].lacks and not half.verdicts


def test_unequal_rims_and_an_empty_groove_are_taken_off_readings_of_faces() -> None:
    """A rim 4 mm thicker, or a groove that no belt runs in, fakes an offset; where the belt runs there is none."""
    flush = {"gap_1": "0 mm", "gap_2": "0 mm", "gap_3": "0 mm", "gap_4": "0 mm"}
    plain = aligned(("straightedge", flush))
    assert plain.errors.offset_m == pytest.approx(0.0, abs=1e-9)
    proud = aligned(("straightedge", flush), kept={"align_1_face_moving": "16.7 mm", "align_1_face_still": "12.7 mm"})
    assert proud.errors.offset_m == pytest.approx(-0.004, abs=1e-9), "flush faces, and a groove 4 mm farther in"
    wider = aligned(("straightedge", flush), kept_words={"align_1_free_moving": "1"})
    assert wider.errors.offset_m == pytest.approx(-0.75 * 0.0254, abs=1e-9), "one B groove (ARPM/RMA-MPTA IP-20: 3/4 in apart)"
    heads = aligned(("two_heads", {"at_movable": "0", "at_still": "0"}), kept={"align_1_face_moving": "16.7 mm"})
    assert heads.errors.offset_m == pytest.approx(0.0, abs=1e-12), "pins in the grooves know no faces"


def test_tolerances_by_kind_or_the_shops_own_with_its_note() -> None:
    strict = {kind: aligned(("one_head", HEAD), kind=kind).allowed.angle_rad for kind in ("V", "toothed", "flat", "chain")}
    assert math.degrees(strict["V"]) == pytest.approx(0.5) and strict["toothed"] < strict["V"] and strict["flat"] < strict["toothed"]
    own = aligned(("one_head", HEAD), kept={"align_offset": "6 mm"}, kept_words={"align_note": "plant standard 12"})
    assert own.allowed.offset_m == pytest.approx(0.006) and "plant standard 12" in own.allowed.source
    assert own.allowed.angle_rad == strict["V"], "what is not said stays"


def test_a_verdict_says_what_is_out_what_is_unread_and_what_is_too_near() -> None:
    out = aligned(("one_head", HEAD)).verdicts[-1]
    assert out.tone is Tone.WATCH and "twist" in out.headline and "allowed 0.50°" in out.headline
    unread = aligned(("straightedge", {k: "0" for k in EDGE})).verdicts[-1]
    assert unread.tone is Tone.OPEN and "twist" in unread.headline and "level" in unread.detail
    true = aligned(("one_head", dict.fromkeys(HEAD, "0")))
    assert true.true and true.verdicts[-1].tone is Tone.GOOD and "leave it" in true.words[0].lower()
    near = aligned(("one_head", {**dict.fromkeys(HEAD, "0"), "top": "0.75 mm", "bottom": "-0.72 mm"})).verdicts[-1]
    assert near.tone is Tone.OPEN and near.headline.startswith("Too near to tell"), "0.50 of 0.50 degrees"


def test_checks_before_name_the_foot_and_the_shim_and_are_passed_over_with_a_reason() -> None:
    soft = aligned(checks={"soft_1": "0.02 mm", "soft_2": "0.02 mm", "soft_3": "0.30 mm", "soft_4": "0.04 mm"})
    said = next(c for c in soft.checks if c.key == "soft_foot")
    assert said.tone is Tone.WATCH and "Foot 3 is soft" in said.means and "0.25 + 0.05 mm under foot 3 alone" in said.means
    assert soft.verdicts[0].topic == "before" and "soft foot" in soft.verdicts[0].headline
    sound = aligned(checks={f"soft_{i}": f"{SOFT_M * 900} mm" for i in (1, 2, 3, 4)})
    assert next(c for c in sound.checks if c.key == "soft_foot").tone is Tone.GOOD
    runs = aligned(checks={"rim_moving": "0.1 mm", "face_moving": "0.9 mm"})
    assert "adds an apparent" in next(c for c in runs.checks if c.key == "run_out").means
    passed = aligned(words={"mounts": "skip"})
    assert [p.field for p in passed.problems] == ["mounts_why"]
    assert not aligned(words={"mounts": "skip", "mounts_why": "no reach"}).problems
    assert "grooves" not in {c.key for c in aligned(kind="chain").checks}


def test_run_out_grows_with_the_wheel() -> None:
    """RMA/ARPM sheave standards, from memory: 0.010 in to 10 in on the rim; 0.001 in an inch to 20 in on the face."""
    inch = 0.0254
    assert rim_limit(5 * inch) == pytest.approx(0.010 * inch) and rim_limit(30 * inch) == pytest.approx(0.020 * inch)
    assert face_limit(20 * inch) == pytest.approx(0.020 * inch) and face_limit(40 * inch) == pytest.approx(0.030 * inch)


@given(st.floats(0, 0.011), st.sampled_from(sorted(stocks())))
def test_shims_from_the_shelf_come_as_near_as_they_can(lift: float, which: str) -> None:
    stock = stock_of(which)
    made = pack(lift, stock)
    assert len(made.pieces) <= MOST and set(made.pieces) <= set(stock.thicknesses_m)
    assert abs(made.short_m) <= max(stock.thicknesses_m) and made.thick_m + made.short_m == pytest.approx(lift)
    if 0.0002 < lift < 0.004:
        assert abs(made.short_m) <= 0.00013, "four to a foot reach within a tenth or so of a millimetre"


def test_a_list_of_ones_own_shims_is_read_as_typed() -> None:
    assert stock_of(".010, .020 in").thicknesses_m == pytest.approx((0.000254, 0.000508))
    for wrong in ("0.5 1", "thin mm", "-1 mm", "mm", "90 mm"):
        with pytest.raises(QuantityError):
            stock_of(wrong)
    bad = aligned(kept_words={"align_stock": "some"})
    assert [p.field for p in bad.problems] == ["align_stock"]


def test_more_wheels_are_each_held_against_the_driver_and_either_machine_may_move() -> None:
    on = stage()
    other = read_align(on, TypedAlign(kept_words={"align_moves": "2"}))
    assert other.names.moving == "driven machine" and other.stage.slope_rad == pytest.approx(math.pi)
    turned = read_align(on, TypedAlign(kept_words={"align_1_body": "in front"}))
    assert turned.stage.slope_rad == pytest.approx(math.pi), "from a body on the near side, left and right change places"


def test_every_method_says_how_and_what_it_sees() -> None:
    for method in METHODS:
        found = aligned((method.key, {}), kind="flat" if method.seats else "V")
        taken = found.taken[0]
        assert (
            taken.method is method and len(taken.steps) >= 2 and not any("{" in s for s in (*taken.steps, *(p.label for p in taken.points)))
        )
    assert {e for m in METHODS for e in m.sees} == {"angle", "twist", "offset"}


@given(st.floats(-math.pi, math.pi))
def test_views_show_their_two_directions_square_and_true(slope: float) -> None:
    plane, line = views(slope)
    for x, other in ((plane.x, plane.u), (line.x, line.v)):
        assert math.hypot(*x) == pytest.approx(1, abs=1e-6) and math.hypot(*other) == pytest.approx(1, abs=1e-6)
        assert x[0] * other[0] + x[1] * other[1] == pytest.approx(0, abs=1e-6)
