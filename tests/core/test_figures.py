"""Every figure can be checked by the reader: its working holds together and both systems say the same."""

import re
from fractions import Fraction

import pytest

from tuyere.core.basis.caution import cautions
from tuyere.core.basis.figure import Figure
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.quantity import System, to_si
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.uncertainty import TOOLS, standard_uncertainty
from tuyere.core.basis.units import KINDS
from tuyere.core.drive.sheet.solve import solve
from tuyere.core.drive.sheet.tight import stage_of
from tuyere.core.drive.sheet.typed import read_form
from tuyere.core.kinds.v_belt import section
from tuyere.core.kinds.v_belt.kind import V_BELT
from tuyere.core.kinds.v_belt.loop import VLoop
from tuyere.core.stations.tension.read import read_tension
from tuyere.core.stations.tension.typed import TypedTension

FULL = {
    "driver_power": "10 hp",
    "driver_speed": "1755 rpm",
    "hours_per_day": "16 h",
    "driver_diameter": "6.35 in",
    "driven_diameter": "8.35 in",
    "centre_distance": "35 in",
    "travel_in": "2 in",
    "travel_out": "2 in",
    "design_speed": "1310 rpm",
    "tach_driver": "1760 rpm",
    "tach_driven": "1300 rpm",
}
WORDS = {"section": "B", "belt": "B90", "belt_count": "2", "driven_class": "light"}
SPEC = read_form(V_BELT, {k: Typed(v) for k, v in FULL.items()}, WORDS).spec
SHEET = solve(SPEC)
STAGE = stage_of(SPEC, SHEET, VLoop(section("B"), None, 2), "fixed centres")
assert STAGE
TIGHT = read_tension(STAGE, TypedTension("gauge", values=[Typed("4.6", "lbf"), Typed("4.4", "lbf")]))
BOTH = {key: {f.us for f in (SHEET.figures.get(key), TIGHT.figures.get(key)) if f} for key in (*SHEET.figures, *TIGHT.figures)}
FIGURES = sorted((*SHEET.figures.values(), *TIGHT.figures.values()), key=lambda f: f.key)


def read_back(text: str) -> float:
    """The number in a shown text: 7/16, 35, 1 1/4, 12,000.5."""
    number = re.match(r"-?[\d,]*\.?\d*(?: \d+/\d+)?(?:/\d+)?", text)
    assert number
    return float(sum(Fraction(part) for part in number.group(0).replace(",", "").split()))


def test_the_whole_job_is_there() -> None:
    wanted = {
        "ratio",
        "driven_speed",
        "belt_speed",
        "driver_rim_speed",
        "driven_rim_speed",
        "slip",
        "off_design",
        "belt_length",
        "length_by_tape",
        "centres_by_belt",
        "span",
        "wrap_driver",
        "wrap_driven",
        "service_factor",
        "design_power",
        "rated_power",
        "arc_factor",
        "length_factor",
        "speed_ratio_factor",
        "power_per_belt",
        "belts_needed",
        "capacity",
        "deflection",
        "static_tension",
        "force_low",
        "force_new_low",
        "force_high",
        "installation",
        "takeup",
    }
    assert wanted <= SHEET.figures.keys()
    read = {
        "strand_1",
        "strand_2",
        "strand_average",
        "strand_spread",
        "tension_target",
        "slip_running",
        "slip_starting",
        "slip_jolt",
        "aim_low",
        "aim_high",
    }
    assert read <= TIGHT.figures.keys()


@pytest.mark.parametrize("figure", FIGURES, ids=lambda f: f.key)
def test_both_systems_show_the_same_value(figure: Figure) -> None:
    kind = KINDS[figure.kind]
    for system, text in ((System.US, figure.us), (System.SI, figure.si)):
        symbol = kind.us_symbol if system is System.US else kind.si_symbol
        step = (
            1 / 128
            if re.search(r"\d/\d", text)
            else 10 ** -len(text.split(" ")[0].partition(".")[2]) * 0.51 + (0.25 if "mm" in text else 0)
        )
        assert abs(to_si(read_back(text), figure.kind, symbol) - figure.value_si) <= to_si(step, figure.kind, symbol) + 1e-12, text


@pytest.mark.parametrize("figure", [f for f in FIGURES if f.working], ids=lambda f: f.key)
def test_a_working_has_formula_numbers_source_and_openable_inputs(figure: Figure) -> None:
    working = figure.working
    assert working and working.formula and working.lines and working.source
    for line in working.lines:
        assert line.us and line.si and line.label
        assert line.figure is None or line.figure in BOTH
        if line.figure:
            assert line.us in BOTH[line.figure]
    assert figure.weakest is not Origin.COMPUTED


def test_entered_figures_have_no_working_and_their_own_mark() -> None:
    for key in ("driver_outside", "driver_speed", "tach_driven", "centres_taped", "driver_power"):
        assert SHEET.figures[key].working is None
    assert SHEET.figures["driver_speed"].origin is Origin.NAMEPLATE
    assert SHEET.figures["tach_driven"].origin is Origin.MEASURED


def test_the_force_target_says_both_relations() -> None:
    note = SHEET.figures["force_low"].working
    assert note and "string relation alone" in note.note and "K_y/16" in note.note
    low, strand, term = (SHEET.figures[k].value_si for k in ("force_low", "tension_low", "stiffness_term"))
    assert low == pytest.approx((strand + term) / 16) and low > strand / 16


def test_one_belt_alone_shares_its_stretch_over_its_whole_length() -> None:
    one = solve(read_form(V_BELT, {k: Typed(v) for k, v in FULL.items()}, {**WORDS, "belt_count": "1"}).spec).figures
    two = SHEET.figures
    share = two["span"].value_si / two["belt_length"].value_si
    assert one["stiffness_term"].value_si == pytest.approx(two["stiffness_term"].value_si * share)


def test_datum_is_the_lower_rating_and_the_other_is_told() -> None:
    rated = SHEET.figures["rated_power"]
    assert rated.working and "datum gives the lower" in rated.working.note
    other = float(re.search(r"would be ([\d.]+) hp", rated.working.note).group(1))  # type: ignore[union-attr]
    assert other > read_back(rated.us)


def test_limits_come_with_the_speeds() -> None:
    for key in ("belt_speed", "driver_rim_speed", "driven_rim_speed"):
        assert SHEET.figures[key].limit_si == pytest.approx(to_si(6500, "velocity", "ft/min"))


def test_a_better_tool_means_less_doubt() -> None:
    tape, caliper = (standard_uncertainty(0.2, "length", Origin.MEASURED, t) for t in ("tape", "caliper"))
    gauge, thumb = (standard_uncertainty(20.0, "force", Origin.MEASURED, t) for t in ("spring gauge", "thumb"))
    assert caliper < tape and gauge < thumb
    assert all(t.source for t in TOOLS.values())


def test_cautions_for_each_task() -> None:
    for task, first in (("survey", "loto"), ("tension", "loto"), ("speed", "guard_run")):
        found = [c.id for c in cautions(task)]
        assert found[0] == first and len(found) >= 4
    assert "live" in {c.id for c in cautions("speed")} and "engine" in {c.id for c in cautions("tension")}
