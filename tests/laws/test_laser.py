"""What is typed of a laser head is where its line falls on a target.

The beam is drawn here in space, from a true pose, and read as a person reads it.
"""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation

from tests.conftest import examples
from tests.core.test_aligned import aligned
from tests.core.test_tight import stage
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Tone
from tuyere.core.stations.align.frame import along, turns_of
from tuyere.core.stations.align.methods import BY_KEY
from tuyere.core.stations.align.readings import WheelPair, solve
from tuyere.core.stations.align.stage import pair_of
from tuyere.instruments.rig import Rig, Truth

TALL = 0.09


def line_on(target: np.ndarray, out: np.ndarray, point: np.ndarray, normal: np.ndarray) -> float:
    """How far out along a target, from its mark, a head's plane of light cuts it: + out, away from the body of the wheel it stands on."""
    return float((point - target) @ normal / (out @ normal))


def read_by_heads(pair: WheelPair, truth: tuple[float, float, float]) -> tuple[dict[str, float], dict[str, float]]:
    """What two heads and one head show: the still wheel at the origin, its shaft along x, out being +x."""
    turn = turns_of(truth[0], truth[1], pair.slope_rad)
    turned = Rotation.from_rotvec([0.0, turn.about_y, turn.about_z])
    u, v = along(pair.slope_rad)
    x, n = np.array([1.0, 0.0, 0.0]), turned.apply([1.0, 0.0, 0.0])
    still, moving = np.zeros(3), np.array([truth[2], 0.0, 0.0]) - pair.centre_m * u
    up = turned.apply(v)
    two = {
        "at_movable": line_on(moving, n, still, x),
        "at_still": line_on(still, x, moving, n),
        "tilt": line_on(moving + up * TALL / 2, n, still, x) - line_on(moving - up * TALL / 2, n, still, x),
        "target_height": TALL,
    }
    # One head: its plane stands a hand's breadth off the still face, the targets' marks as far off the moving one.
    off = 0.05
    rims = {"toward": turned.apply(u), "away": turned.apply(-u), "top": up, "bottom": -up}
    mark = {k: moving + n * (pair.movable_face_to_groove_m + off) + way * pair.movable_radius_m for k, way in rims.items()}
    head = still + x * (pair.stationary_face_to_groove_m + off)
    return two, {k: line_on(at, n, head, x) for k, at in mark.items()}


SMALL = st.floats(-0.008, 0.008)


@examples(80)
@given(
    st.sampled_from([0.0, 0.6, math.pi / 2, math.pi, -1.9]), SMALL, SMALL, st.floats(-0.006, 0.006), st.floats(0, 0.02), st.floats(0, 0.02)
)
def test_a_line_that_falls_outside_the_mark_means_that_this_wheel_stands_in(
    slope: float, angle: float, twist: float, offset: float, still_face: float, moving_face: float
) -> None:
    pair = WheelPair(slope, 0.7, 0.12, 0.09, still_face, moving_face)
    two, one = read_by_heads(pair, (angle, twist, offset))
    if abs(offset) > 0.001:
        assert (two["at_movable"] > 0) == (offset < 0)
    for key, shows in (("two_heads", two), ("one_head", one)):
        found = solve([BY_KEY[key].equations(pair, shows)])
        assert (found.angle_rad, found.twist_rad, found.offset_m) == pytest.approx((angle, twist, offset), abs=2e-5), key


@examples(20)
@given(SMALL, SMALL, st.floats(-0.004, 0.004), st.sampled_from(["two_heads", "one_head"]))
def test_the_machine_to_practise_on_shows_the_same_beam(angle: float, twist: float, offset: float, method: str) -> None:
    pair = WheelPair(0.0, 0.7, 0.12, 0.09)
    rig = Rig(pair, stage_feet(), Truth(angle, twist, offset))
    drawn = dict(zip(("two_heads", "one_head"), read_by_heads(pair, (angle, twist, offset)), strict=True))[method]
    shows = rig._exact(method)
    per_m = shows["tilt"] / shows["target_height"] if method == "two_heads" else 0.0
    assert {k: v for k, v in shows.items() if k not in ("tilt", "target_height")} == pytest.approx(
        {k: v for k, v in drawn.items() if k not in ("tilt", "target_height")}, abs=1e-4
    )
    assert per_m == pytest.approx(drawn.get("tilt", 0.0) / TALL, abs=1e-4)


def stage_feet():  # type: ignore[no-untyped-def]
    from tuyere.core.stations.align.moves import Feet

    return Feet(0.11, 0.165, 0.19, 0.115)


def test_the_screen_reads_a_target_and_the_open_calculation_the_wheels_place() -> None:
    """A line 3 mm outside the mark on the mover's own target: the mover stands 3 mm in, and is slid out."""
    heads = aligned(("two_heads", {"at_movable": "6 mm", "at_still": "-6 mm"}))
    assert heads.errors.offset_m == pytest.approx(-0.006) and heads.errors.angle_rad == pytest.approx(0.0, abs=1e-9)
    assert heads.steps[0].way == "out" and any("stands too far in" in s for s in heads.seen)


def test_tilt_marks_left_blank_leave_the_twist_unsettled() -> None:
    heads = aligned(("two_heads", {"at_movable": "0", "at_still": "0", "tilt": "0.4 mm"}))
    assert heads.errors.twist_rad is None and not heads.true
    asked = next(v for v in heads.verdicts if v.topic == "align")
    assert asked.tone is Tone.OPEN and "twist" in asked.headline


EDGE_OF = {"gap_1": "0 mm", "gap_2": "0 mm", "gap_3": "3 mm", "gap_4": "3 mm"}


def test_two_readings_that_disagree_by_more_than_their_doubts_are_said_and_not_averaged() -> None:
    """One says that the wheel stands 3 mm in, the other 3 mm out: neither the mean nor a move is given."""
    head = {"toward": "-3 mm", "away": "-3 mm", "top": "-3 mm", "bottom": "-3 mm"}
    against = aligned(("straightedge", EDGE_OF), ("one_head", head))
    assert against.errors.offset_m is None and not against.steps and not against.true
    told = next(v for v in against.verdicts if v.topic == "align")
    assert told.tone is Tone.WATCH and "disagree" in told.headline.lower() and "offset" in told.headline
    alike = aligned(("straightedge", EDGE_OF), ("one_head", {k: "3.1 mm" for k in head}))
    assert alike.errors.offset_m == pytest.approx(-0.003, abs=3e-4)


def test_true_as_left_wants_a_doubt_that_fits_the_tolerance() -> None:
    """Nought within 0.2 where 0.1 is allowed is no answer: a tool too coarse never says true."""
    read = ("clock", {"top": "0", "bottom": "0"}), ("straightedge", {"gap_1": "0", "gap_2": "0", "gap_3": "0", "gap_4": "0"})
    fine = aligned(*read)
    assert fine.true and fine.verdicts[-1].tone is Tone.GOOD
    strict = aligned(*read, kept={"align_angle": "0.05 deg"}, kept_words={"align_note": "ours"})
    told = strict.verdicts[-1]
    assert not strict.true and told.tone is Tone.OPEN and "cannot tell" in told.headline.lower()


def test_only_what_is_judged_true_is_called_true() -> None:
    """The station's words, its verdict and the flag that the record keeps are one."""
    on = pair_of(stage("V"), 0, "", False).pair(FieldReader({}, {}))
    assert on.centre_m > 0
    for top in ("0", "0.3 mm", "0.6 mm", "0.75 mm", "2 mm"):
        found = aligned(("one_head", {"toward": "0", "away": "0", "top": top, "bottom": f"-{top}"}))
        good = found.verdicts[-1].tone is Tone.GOOD
        assert (found.true == good and (not found.steps) == good) or found.verdicts[-1].tone is Tone.OPEN
        assert any("leave it" in w.lower() for w in found.words) == good


assert Typed
