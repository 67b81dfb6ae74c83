"""Link belting, a carriage's belt by its hum, and the counter slips of belts that are not V-belts."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Tone
from tuyere.core.kinds.flat.counter import slip_of as flat_slip
from tuyere.core.kinds.flat.survey import read_flat
from tuyere.core.kinds.registry import meshing
from tuyere.core.kinds.synchronous.linear import read_linear
from tuyere.core.kinds.teeth import read_toothed_drive
from tuyere.core.kinds.toothed import read_toothed
from tuyere.core.kinds.v_belt.link import cut, read_link
from tuyere.core.mechanics.tension.beam import frequency_of, tension_sounding


@given(st.floats(1, 5000), st.floats(0.1, 6), st.floats(0.005, 3))
def test_hum_and_tension_are_inverse(tension_n: float, span_m: float, mass: float) -> None:
    """T = 4 m L² f²: mechanics of the string, any physics text."""
    assert tension_sounding(frequency_of(tension_n, span_m, mass), span_m, mass) == pytest.approx(tension_n, rel=1e-9)


def linear(pluck: str = "", span: str = "800 mm", within: str = "25"):  # type: ignore[no-untyped-def]
    typed = {"linear_mass": "0.038 kg/m", "linear_span": span, "linear_target": "190 N", "linear_pluck": pluck}
    return read_linear({k: Typed(v) for k, v in typed.items()}, {"linear_within": within})


def test_a_positioning_belt_at_half_its_tension() -> None:
    """0.038 kg/m that should hold 190 N within 25 % and holds 97 N: about half (common practice, no source)."""
    hum = frequency_of(97, 0.8, 0.038)
    found = linear(f"{hum:.2f} Hz")
    assert found.tension_n == pytest.approx(97, rel=1e-3)
    assert found.verdicts[0].tone is Tone.WATCH and "At 51%" in found.verdicts[0].headline and found.verdicts[0].sureness == "sure"
    wanted = linear()
    assert wanted.target_hz == pytest.approx(frequency_of(190, 0.8, 0.038)) and "Pluck the span" in wanted.verdicts[0].headline
    assert linear(f"{wanted.target_hz:.1f} Hz").verdicts[0].tone is Tone.GOOD
    assert linear("30 Hz", within="a lot").problems[0].field == "linear_within"
    assert "mass per length" in read_linear({}, {}).verdicts[0].headline


@given(st.floats(0.5, 15), st.floats(0.005, 0.03))
def test_links_are_whole_and_the_belt_shorter_than_the_tape(tape_m: float, pitch_m: float) -> None:
    belt = cut(tape_m, pitch_m)
    assert belt.links * pitch_m == pytest.approx(belt.length_m)
    assert abs(belt.hand_tight * pitch_m - tape_m) <= pitch_m / 2 + 1e-12
    assert belt.hand_tight / 24 - 1 < belt.take_out <= belt.hand_tight / 24


def test_a_link_belt_the_wrong_way_round_is_stopped() -> None:
    typed = {"link_tape": Typed("31' 4\""), "link_span": Typed("5 3/4 in")}
    found = read_link(typed, {"link_count": "12", "tabs": "leading", "pulled": "pushed", "take_up": "part way out"})
    assert [v.tone for v in found.verdicts] == [Tone.STOP, Tone.STOP, Tone.WATCH, Tone.OPEN]
    assert found.belt and found.belt.hand_tight == 785
    used = {u: read_link(typed, {"link_count": "12", "use": u}) for u in ("in place of a V-belt", "roller conveyor")}
    out = {u: r.belt.take_out for u, r in used.items() if r.belt}
    assert out == {"in place of a V-belt": 32, "roller conveyor": 0}
    assert "as many as still let it join" in used["roller conveyor"].verdicts[0].headline
    assert read_link(typed, {}).problems[0].field == "link_count"
    right = read_link({}, {"tabs": "trailing", "pulled": "pulled"})
    assert {v.headline for v in right.verdicts} >= {"It runs the right way round", "Pull it hand-tight round the wheels and tape it"}


def slip(family: str, label: str, width: float | None = None, open_ended: str = "", **drive: str):  # type: ignore[no-untyped-def]
    centre = {"centre_distance": Typed(drive.pop("centre", ""), "mm")}
    of = meshing(family)
    reading = replace(read_toothed(of, {}, {"label": label}), width_m=width)
    return of.slip_of(reading, read_toothed_drive(of.lay_out, centre, drive | {"open_ended": open_ended}), "KX-4")


def test_slips_of_every_family_name_what_does_not_fit() -> None:
    belt = slip("synchronous", "8M-1200-30", name="H8M", teeth_1="28", teeth_2="56", count="150")
    assert belt and belt.headline == "1200-H8M-30" and any("S8M" in r for r in belt.refuse) and belt.machine_part == "KX-4"
    by_name = slip("synchronous", "270L100")
    assert by_name and by_name.headline == "270L100"
    roll = slip("synchronous", "", 0.025, "yes", name="AT10", teeth_1="24", teeth_2="24", centre="2600")
    # Two spans of 2.6 m and one turn of 24 teeth of 10 mm.
    assert roll and roll.headline == "AT10 open" and roll.count == "544 teeth from the roll"
    chain = slip("roller chain", "08B-1", name="08B", teeth_1="19", teeth_2="38", count="79")
    assert chain and chain.headline == "08B-1" and "offset link" in chain.count and any("40" in r for r in chain.refuse)
    assert slip("roller chain", "08B-1") is None
    sizes = {k: Typed(v) for k, v in {"driver_diameter": "6", "driven_diameter": "8", "centre_distance": "38", "flat_width": "2"}.items()}
    flat = flat_slip(read_flat(sizes, {"belt": "leather 1ply heavy", "lay": "crossed"}), "leather 1ply heavy", 0.0508, "")
    assert flat and "2 in" in flat.count and any("crossed" in r for r in flat.refuse)
