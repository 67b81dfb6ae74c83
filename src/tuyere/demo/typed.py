"""A survey of the sample plant, as somebody typed it."""

from typing import Any

from tuyere.record.entry import Entry
from tuyere.record.forms import KeptForm, StageForm, SurveyForm
from tuyere.web.rig import practice

# What is a quantity in a layout; everything else in it is a word, a number or a part of its own.
LAYOUT_QUANTITIES = (
    "diameter",
    "distance",
    "power",
    "tension",
    "gap",
    "least",
    "most",
    "tape_a",
    "tape_b",
    "tighten",
    "slacken",
    "pitch_span",
    "roller_diameter",
    "inner_width",
    "belt_thickness",
    "centre_distance",
    "dog_span",
    "conveyor_span",
    "flat_width",
    "driver_diameter",
    "driven_diameter",
    "driver_face",
    "driven_face",
    "driver_crown",
    "driver_speed",
    "belt_width",
    "linear_span",
    "linear_mass",
    "linear_target",
    "linear_pluck",
    "link_tape",
    "link_span",
)


LENGTHS = ("driver_diameter", "driven_diameter", "centre_distance", "travel_in", "travel_out")


def _entry(key: str, text: str) -> Entry:
    return Entry(text=text, unit="in" if key in LENGTHS else "")


def _layout(told: Any) -> Any:
    """A layout as a form holds it: quantities become entries, at every depth."""
    if isinstance(told, list):
        return [_layout(item) for item in told]
    if not isinstance(told, dict):
        return told
    return {k: Entry(text=v) if k in LAYOUT_QUANTITIES else _layout(v) for k, v in told.items()}


def _quantities(told: dict[str, Any]) -> dict[str, Any]:
    """A form whose quantities are one table, and a curve's points another."""
    found = {**told, "quantities": {k: Entry(text=v) for k, v in told.get("quantities", {}).items()}}
    if "curve" in told:
        found["curve"] = [{k: Entry(text=v) for k, v in point.items()} for point in told["curve"]]
    return found


def typed_survey(entry: dict[str, Any]) -> SurveyForm:
    """The survey of a machine of the story, as somebody would have typed it."""
    if entry.get("practice"):
        return practice()
    typed = SurveyForm.model_validate(
        {
            "family": entry["family"],
            "quantities": {k: _entry(k, v) for k, v in entry.get("survey", {}).items()},
            "choices": entry.get("choices", {}),
            "design": {k: _entry(k, v) for k, v in entry.get("design", {}).items()},
            "path": _layout(entry.get("path", {})),
            "toothed": _layout(entry.get("toothed", {})),
            "flat": _layout(entry.get("flat", {})),
            "link": _layout(entry.get("link", {})),
            "machine": _quantities(entry.get("machine", {})),
            "cones": _quantities(entry.get("cones", {})),
        }
    )
    typed.first.held_by = entry.get("held", "")
    typed.first.kept = KeptForm.model_validate(_quantities(entry.get("kept", {})))
    if feet := entry.get("feet"):
        where = {f"align_{feet.get('wheel', 1)}_{k}": v for k, v in feet.items() if k not in ("wheel", "base")}
        typed.first.kept.quantities |= {k: Entry(text=v) for k, v in where.items()}
        typed.first.kept.words |= {f"align_{feet.get('wheel', 1)}_base": feet["base"]}
    typed.stages += [StageForm.model_validate(_layout(stage)) for stage in entry.get("stages", [])]
    return typed
