"""Which belt is this: the frozen cases, the ranking's invariants, labels, look-alikes, and the next measurement."""

import math

import pytest
from bench.identification import cases, judge
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.uncertainty import Sureness
from tuyere.core.basis.verdict import Tone
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.v_belt.broad import Broad, broads
from tuyere.core.stations.find import alike, hub
from tuyere.core.stations.find.answer import equivalents, identify
from tuyere.core.stations.find.ask import next_measurement
from tuyere.core.stations.find.evidence import Evidence, read_evidence
from tuyere.core.stations.find.label import matches, plain
from tuyere.core.stations.find.rank import rank


def seen(tool: str = "caliper", **typed: str) -> Evidence:
    words = {k: v for k, v in typed.items() if k in ("label", "marks", "construction", "machine", "ribs")}
    sizes = {k: Typed(v, "°" if "angle" in k else "in", tool=tool) for k, v in typed.items() if k not in words}
    read = read_evidence(sizes, words)
    assert not read.problems, read.problems
    return read.evidence


def test_the_frozen_cases() -> None:
    """Drawn with realistic wear and tape and caliper errors before the ranking existed: 80 % right first, 95 % in the top two."""
    results = [judge(case) for case in cases()]
    assert len(results) >= 60
    assert sum(r["place"] == 0 for r in results) >= 0.8 * len(results)
    assert sum(r["place"] in (0, 1) for r in results) >= 0.95 * len(results)
    sure = [r for r in results if r["sure"] is Sureness.SURE]
    assert len(sure) > 20 and all(r["place"] == 0 for r in sure), "what it calls sure is right"


def test_a_case_with_nothing_but_a_tape_is_not_called_sure() -> None:
    tape_only = [c for c in cases() if c["story"].startswith("tape only")]
    assert len(tape_only) == 8
    assert {c["truth"] for c in tape_only if judge(c)["sure"] is Sureness.SURE} <= {"8V|8V1600"}, "nothing else is so wide and deep"


@examples(60)
@given(st.sampled_from(sorted(v_belt.sections())))
def test_a_perfect_reading_of_a_section_finds_it(name: str) -> None:
    """Measured exactly as tabled, with its construction said, a section or the same belt by another name comes first."""
    belt = v_belt.section(name)
    one = {"top_width": f"{belt.top_width_m * 985} mm", "thickness": f"{belt.height_m * 985} mm", "construction": belt.construction}
    found = rank(seen(**one))
    first = found.candidates[0].section.name
    near = {a.other if a.section == name else a.section for a in alike.of(name) if a.kind == "near"}
    assert first in alike.same_belt(name) | near | {name}


@examples(40)
@given(st.floats(4, 45), st.floats(0.35, 1.1))
def test_shares_add_up_and_nonsense_is_nobodys(width_mm: float, deep: float) -> None:
    found = rank(seen(top_width=f"{width_mm:.2f} mm", thickness=f"{width_mm * deep:.2f} mm"))
    assert sum(c.probability for c in found.candidates) + found.none_of_them == pytest.approx(1)
    assert [c.probability for c in found.candidates] == sorted((c.probability for c in found.candidates), reverse=True)


def test_a_belt_of_no_section_is_said_to_be_none() -> None:
    odd = identify(seen(top_width="19.5 mm", thickness="8.6 mm", construction="wrapped"))
    assert odd.verdict.headline == "It fits no section in the tables" and odd.none_of_them > 0.5


@pytest.mark.parametrize("broad", broads(), ids=lambda b: b.name)
def test_farm_adjustable_speed_belts_are_known_by_size_and_by_name(broad: Broad) -> None:
    """HI to HO (ASABE S211, from memory): worn and measured they are of no section that is sized, and are called what they are."""
    worn = {"top_width": f"{broad.top_width_m * 980:.1f} mm", "thickness": f"{broad.height_m * 970:.1f} mm", "construction": "cogged"}
    found = identify(seen(**worn))
    assert found.verdict.tone is not Tone.GOOD and f"{broad.name} by its size" in found.verdict.detail
    labelled = identify(seen(label=f"{broad.name}-72", **worn))
    assert not labelled.candidates and labelled.verdict.headline.startswith(broad.name)
    for typed in (f"{broad.name}72", f"{broad.name} 1008"):
        with pytest.raises(v_belt.BeltError, match=f"^{broad.name} is a farm adjustable-speed section"):
            v_belt.parse_designation(typed)


def test_same_belt_and_look_alikes_are_said() -> None:
    found = identify(seen(top_width="12.6 mm", thickness="7.7 mm", construction="wrapped", outside_length="43 in"))
    assert found.verdict.sureness == "sure"
    names = {n.designation for n in (*found.candidates[0].names, *found.candidates[0].same_as)}
    assert {"A41", "4L430"} & names
    said = {(s.kind, s.sections) for s in found.statements}
    assert {("same", "A and 4L"), ("alike", "A and SPA"), ("alike", "A and automotive"), ("alike", "A and deck belt")} <= said


@pytest.mark.parametrize(
    ("typed", "field", "says"),
    [
        ({}, "top_width", ""),
        ({"top_width": "16.2 mm", "construction": "wrapped"}, "thickness", "SPB"),
        ({"top_width": "12.6 mm", "construction": "cogged"}, "thickness", "XPA"),
        ({"top_width": "16.4 mm", "thickness": "10.4 mm"}, "construction", "notched underneath: BX"),
        ({"top_width": "16.4 mm", "thickness": "10.4 mm", "construction": "wrapped"}, "outside_length", "number in the name"),
        ({"groove_width": "16.3 mm", "wheel_diameter": "5.75 in"}, "groove_depth", "SPB"),
    ],
)
def test_the_one_next_measurement(typed: dict[str, str], field: str, says: str) -> None:
    evidence = seen(**typed)
    found = next_measurement(evidence, rank(evidence))
    assert found and found.field == field and says in " ".join(found.says)


def test_taking_the_next_measurement_settles_it() -> None:
    before = seen(top_width="16.2 mm", construction="wrapped")
    assert rank(before).together() < 0.95
    assert rank(seen(top_width="16.2 mm", construction="wrapped", thickness="10.4 mm")).together() > 0.95
    wedge = rank(seen(top_width="16.2 mm", construction="wrapped", thickness="13.3 mm"))
    assert wedge.candidates[0].section.name in ("5V", "SPB")


@pytest.mark.parametrize(
    ("label", "section", "first"),
    [
        ("4L430", "4L", "4L430"),
        ("B-68", "B", "B68"),
        ("SPA 1180", "SPA", "SPA 1180"),
        ("5VX8?0", "5VX", "5VX800"),
    ],
)
def test_labels_whole_and_in_part(label: str, section: str, first: str) -> None:
    found = rank(seen(label=label))
    assert found.candidates[0].section.name == section and found.candidates[0].probability > 0.8
    assert first in [b.belt.designation for b in found.candidates[0].belts]


def test_two_sections_fit_a_label_whose_front_is_gone() -> None:
    found = rank(seen(label="?VX560"))
    assert {c.section.name for c in found.candidates[:2]} == {"3VX", "5VX"} and found.together() < 0.6


def test_a_fragment_and_a_tape_name_the_belt() -> None:
    found = rank(seen("tape", label="5VX8?0", outside_length="83 1/4"))
    assert found.candidates[0].belts[0].belt.designation == "5VX830" and found.candidates[0].belts[0].probability > 0.8


@given(st.sampled_from(["A68", "5VX830", "SPB 2240", "4L430"]), st.data())
def test_a_label_with_a_blot_still_matches(name: str, data: st.DataObject) -> None:
    belt = v_belt.parse_designation(name)
    text = plain(name)
    at = data.draw(st.integers(0, len(text) - 1))
    assert belt.number in [b.number for b, _ in matches(belt.section, text[:at] + "?" + text[at + 1 :])]


def test_equivalents_have_one_length() -> None:
    """A68 is 70.1 in round the outside: 4L700, HA68 and metric A 1760 (datum 69.3 in) are the same loop."""
    names = {n.designation for n in equivalents(v_belt.parse_designation("A68"))}
    assert names == {"4L700", "HA68", "A 1760"}
    for name in names:
        other = v_belt.parse_designation(name)
        assert v_belt.lengths(other.section, other.number).outside_m == pytest.approx(70.1 * 0.0254, rel=0.01)


def test_hub_bore_and_key() -> None:
    """ANSI B17.1: 1 1/8 in bore, 1/4 in key; DIN 6885: 38 mm bore, 10 x 8 key. Bushing SH: taper 1.871 in (from memory)."""
    assert hub.standard_key(1.125 * 0.0254) == ("1/4 in square", pytest.approx(0.00635), "ANSI B17.1")
    assert hub.standard_key(0.038) == ("10 × 8 mm", 0.010, "ISO/R 773; DIN 6885-1")
    said = " ".join(hub.statements(seen(hub_large_end="1.871 in", bore="1 1/8 in", key_width="3/8 in")))
    assert "SH" in said and "not that" in said


@pytest.mark.parametrize(
    ("sizes", "words", "field", "says"),
    [
        ({"top_width": "0"}, {}, "top_width", "1/16 to 6 in"),
        ({"thickness": "nonsense"}, {}, "thickness", "number"),
        ({}, {"construction": "woven"}, "construction", "not on the list"),
        ({}, {"label": "x" * 25}, "label", "too long"),
        ({}, {"ribs": "0"}, "ribs", "whole number"),
        ({"outside_length": "70 parsecs"}, {}, "outside_length", "parsecs"),
    ],
)
def test_bad_evidence_is_refused_beside_its_field(sizes: dict[str, str], words: dict[str, str], field: str, says: str) -> None:
    read = read_evidence({k: Typed(v, "in") for k, v in sizes.items()}, words)
    assert [p.field for p in read.problems] == [field] and says in read.problems[0].sentence
    assert math.isfinite(identify(read.evidence).none_of_them)
