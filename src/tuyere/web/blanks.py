"""Blanks of the forms, from the models that read them: the front end's build takes them from here.

python -m tuyere.web.blanks
"""

import json
from typing import Any

from tuyere.core.kinds import registry
from tuyere.core.kinds.family import Family
from tuyere.core.kinds.flat.survey import FIELDS as FLAT_FIELDS
from tuyere.record.entry import Entry
from tuyere.record.fitted_forms import FORMS, FittedForm, FlatForm, ToothedForm
from tuyere.record.forms import AlignForm, AlignReadingForm, GaugeForm, StageForm, SurveyForm, TachometerForm
from tuyere.record.path_form import KeeperEntry, LayoutForm, PointEntry, TakeUpEntry, TapeEntry, WheelEntry
from tuyere.web.rig import MoveForm

_MACHINE = ("amps_now", "no_load_amps", "power_now", "pressure_now", "flow_now", "displacement", "most_speed", "altitude", "curve_speed")
_MACHINE_WORDS = ("service_factor", "temperature_now", "temperature_new")
_STEPS = range(1, 9)
_CONES = (
    "centre_distance",
    "cone_speed",
    "cone_thickness",
    "first_driving",
    *(f"{which}_{k}" for k in _STEPS for which in ("driving", "driven")),
    *(f"{when}_{k}" for k in _STEPS[:4] for when in ("before", "after")),
)


def blanks() -> dict[str, Any]:
    """Every form with nothing in it, by name; `fitted` by kind of drive."""
    entry = Entry().model_dump(mode="json")
    survey = SurveyForm().model_dump(mode="json")
    survey["machine"] |= {"quantities": {key: entry for key in _MACHINE}, "words": dict.fromkeys(_MACHINE_WORDS, "")}
    words = {"mode": "design", "lay": "open", "section": "", **{f"ratio_{k}": "" for k in _STEPS}}
    survey["cones"] |= {"quantities": {key: entry for key in _CONES}, "words": words}
    forms = {
        "entry": Entry(),
        "stage": StageForm(),
        "gauge": GaugeForm(),
        "tachometer": TachometerForm(),
        "align": AlignForm(),
        "align_reading": AlignReadingForm(),
        "move": MoveForm(),
        "layout": LayoutForm(),
        "wheel": WheelEntry(),
        "take_up": TakeUpEntry(),
        "point": PointEntry(),
        "keeper": KeeperEntry(),
        "tape": TapeEntry(a=1, b=2),
    }
    return {
        "survey": survey,
        "fitted": {family.key: _fitted(family) for family in registry.FAMILIES},
        **{name: form.model_dump(mode="json") for name, form in forms.items()},
    }


def _fitted(family: Family) -> dict[str, Any]:
    form = FORMS.get(family.part, FittedForm)
    blank = form.model_validate({"family": family.key}).model_dump(mode="json")
    entry = Entry().model_dump(mode="json")
    if form is ToothedForm:
        blank["quantities"] = {key: entry for key in registry.meshing(family.key).fields}
    elif form is FlatForm:
        blank["quantities"] = {key: entry for key in FLAT_FIELDS}
    return blank


if __name__ == "__main__":
    print(json.dumps(blanks(), indent=1))
