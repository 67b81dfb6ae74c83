"""What one station says of a drive another does not deny: sheet, station, job, card and floor, over every drive of the sample plant."""

import tomllib
from dataclasses import replace
from pathlib import Path
from types import SimpleNamespace
from typing import Any

import pytest

import tuyere.demo
from tuyere.core.basis.verdict import Tone
from tuyere.core.drive.answer import answer
from tuyere.core.stations.floor.attention import Level, attention
from tuyere.core.stations.floor.weighs import weighs
from tuyere.core.stations.jobs.of_drive import of_drive
from tuyere.demo.typed import typed_survey
from tuyere.record.entry import Entry
from tuyere.record.forms import GaugeForm, SheetForm, SurveyForm
from tuyere.web.cards import _strand
from tuyere.web.sheet import sheet_answer

PLANT = tomllib.loads((Path(tuyere.demo.__file__).parent / "plant.toml").read_text())
SURVEYS = {m["name"]: typed_survey(m) for m in PLANT["machines"] if not m.get("practice")}
TIGHT = [n for n, s in SURVEYS.items() if (t := sheet_answer(SheetForm(survey=s)).tight) and "aim_low" in t.figures]


@pytest.mark.parametrize("name", TIGHT)
def test_job_and_card_have_the_stations_figures(name: str) -> None:
    """What to push, how far and with what: one figure wherever it stands."""
    survey = SURVEYS[name]
    sheet = sheet_answer(SheetForm(survey=survey))
    assert sheet.tight
    low, high = (sheet.tight.figures[k] for k in ("aim_low", "aim_high"))
    on = answer(survey.typed())
    numbers = of_drive(on, {}, ()).numbers
    told = next(n for k, n in numbers.items() if k in ("push_run_in", "sag_run_in"))
    assert told.us.split(" to ")[0].split(" ")[0] == low.us.split(" ")[0] and told.us.endswith(high.us)
    if sheet.tight.method in ("gauge", "scale"):
        assert sheet.figures["deflection"].us == sheet.tight.figures["deflection"].us
        assert sheet.tight.figures["deflection"].us in told.detail and sheet.tight.pushes in told.detail
    about: Any = SimpleNamespace(survey=on.survey, numbers=numbers, belts="")
    rows = " ".join(f"{r.label} {r.value} {r.detail}" for r in _strand(about, "us"))
    assert low.us.split(" ")[0] in rows and high.us in rows
    if sheet.tight.method in ("gauge", "scale"):
        assert sheet.tight.pushes in rows


def joined(count: str = "2", ribs: str = "3") -> SurveyForm:
    return SurveyForm.model_validate(
        {
            "family": "v-belt",
            "quantities": {
                "driver_power": {"text": "20 hp"},
                "driver_speed": {"text": "1750 rpm"},
                "hours_per_day": {"text": "10 h"},
                "driver_diameter": {"text": "8 in"},
                "driven_diameter": {"text": "14 in"},
                "centre_distance": {"text": "36 in"},
            },
            "choices": {"section": "B", "belt_count": count, "ribs": ribs, "driven_class": "moderate"},
        }
    )


def test_a_bands_force_is_never_printed_as_a_ribs() -> None:
    """The same drive with single belts: the band is pushed with as many times the force as it has ribs, and label and card say the band."""
    band, single = joined(), joined("6", "")
    one = sheet_answer(SheetForm(survey=single)).tight
    many = sheet_answer(SheetForm(survey=band)).tight
    assert one and many and "whole band" in many.pushes
    assert many.figures["aim_low"].value_si == pytest.approx(3 * one.figures["aim_low"].value_si, rel=0.06)
    about: Any = SimpleNamespace(survey=band.typed(), numbers={}, belts="")
    rows = [r.label for r in _strand(about, "us")]
    assert any("whole band" in r for r in rows) and not any("one rib" in r for r in rows)


@pytest.mark.parametrize("name", SURVEYS)
def test_what_a_station_stops_stops_on_the_floor(name: str) -> None:
    """Whatever weighs at a station weighs there; a remark on how it is built does not cry for a hand."""
    survey = SURVEYS[name]
    on = answer(survey.typed())
    own = [v for s in on.survey.stages for v in s.family.beside(s.part).verdicts]
    said = [*own, *(v for v in sheet_answer(SheetForm(survey=survey)).verdicts)]
    found = attention(weighs(on))
    if any(v.tone is Tone.STOP for v in said):
        assert found.level is Level.STOP, [v.headline for v in said if v.tone is Tone.STOP]
    elif any(v.tone is Tone.WATCH and not v.standing for v in said):
        assert found.level is Level.WATCH
    else:
        assert found.level in (Level.QUIET, Level.STOP, Level.WATCH)


@pytest.mark.parametrize("name", TIGHT)
def test_what_is_read_as_aimed_for_is_right_everywhere(name: str) -> None:
    """Set to the middle of what the job asks, the station says right; where Size refuses the drive it does not."""
    survey = SURVEYS[name]
    tight = sheet_answer(SheetForm(survey=survey)).tight
    assert tight
    low, high = (tight.figures[k] for k in ("aim_low", "aim_high"))
    middle = Entry(text=f"{(low.value_si + high.value_si) / 2}", unit={"force": "N", "length": "m", "frequency": "Hz"}[low.kind])
    gauge = GaugeForm(method=tight.method, forces=[middle] * tight.values)
    again = sheet_answer(SheetForm(survey=survey, gauge=gauge))
    verdict = next(v for v in again.verdicts if v.topic == "tension")
    refused = any(v.topic == "rating" and v.tone is Tone.WATCH and not v.standing and "will not do" in v.headline for v in again.verdicts)
    assert (verdict.tone is Tone.GOOD) is not refused, (verdict.headline, [v.headline for v in again.verdicts if v.topic == "rating"])
    assert replace
