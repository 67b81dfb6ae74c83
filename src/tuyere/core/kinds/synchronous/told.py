"""What an open-ended belt on a carriage tells those who work at it."""

from tuyere.core.basis.number import Number, said
from tuyere.core.basis.typed import Typed
from tuyere.core.kinds.survey import Part
from tuyere.core.kinds.synchronous.linear import LinearReading, read_linear
from tuyere.core.kinds.told import Told


def linear_of(part: Part) -> LinearReading | None:
    """Its free span beside the carriage; None where it has no carriage."""
    linear = part.more.get("linear", Part())
    if linear.words.get("fitted") != "yes":
        return None
    return read_linear({**linear.quantities, "belt_thickness": part.quantities.get("belt_thickness", Typed())}, linear.words)


def told(part: Part) -> Told:
    """What it tells a job."""
    read = linear_of(part)
    if read is None:
        return Told()
    found: dict[str, Number] = {}
    typed = part.more["linear"].quantities
    if typed["linear_span"].text:
        found["carriage_span"] = said("Free span", _as_typed(typed["linear_span"]), page="survey")
    if read.low_hz and read.high_hz:
        hum = f"{read.low_hz:.0f} to {read.high_hz:.0f} Hz"
        found["carriage_target"] = said("Hum", hum, f"{_as_typed(typed['linear_target'])} wanted", "tension")
    return Told(found)


def _as_typed(entry: Typed) -> str:
    return f"{entry.text} {entry.unit}".strip() if entry.text and entry.text[-1].isdigit() else entry.text
