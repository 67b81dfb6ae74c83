"""One entry as a person typed it, and the value it is read into."""

from dataclasses import dataclass

from uncertainties import UFloat

from tuyere.core.basis.field import FIELDS, Note, read_field
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.uncertainty import standard_uncertainty, uncertain


@dataclass(frozen=True)
class Typed:
    """One entry as typed: the text, the unit shown in the field, and where the person says it comes from."""

    text: str = ""
    unit: str = ""
    origin: Origin | None = None
    tool: str | None = None


@dataclass(frozen=True)
class Given:
    """An entered value: SI, its standard uncertainty, its origin, and what to call it in a budget."""

    value: float
    std: float
    origin: Origin
    name: str

    @property
    def u(self) -> UFloat:
        """With its doubt, named in a budget."""
        return uncertain(self.value, self.std, self.name)


def given(key: str, typed: Typed, as_field: str | None = None) -> tuple[Given | None, Note | None]:
    """Read one quantity into a Given with its uncertainty. Raises QuantityError."""
    spec = FIELDS[as_field or key]
    parsed, note = read_field(spec.key, typed.text, typed.unit)
    if parsed is None:
        return None, None
    origin = typed.origin or spec.origin
    std = standard_uncertainty(parsed.value_si, spec.kind, origin, typed.tool)
    return Given(parsed.value_si, std, origin, spec.label), note
