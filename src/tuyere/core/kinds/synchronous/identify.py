"""Which toothed belt is this: what each profile should measure, what a name on it says, and what looks alike."""

from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.kinds import synchronous
from tuyere.core.kinds.by_size import ExpectedSize, Sized
from tuyere.core.kinds.synchronous.profile import Profile
from tuyere.core.kinds.template import DrawnShape, Template
from tuyere.core.kinds.toothed import Named


def candidate(p: Profile) -> Sized:
    """A profile with what it should measure."""
    sizes = {
        "tooth_height": ExpectedSize(p.tooth_height_m, max(0.0001, 0.03 * p.tooth_height_m)),
        "belt_thickness": ExpectedSize(p.belt_height_m, max(0.00012, 0.025 * p.belt_height_m)),
    }
    shape = {"straight": 0.97, "round": 0.03} if p.form == "straight" else {"straight": 0.03, "round": 0.97}
    material = {"rubber": 0.9, "polyurethane": 0.1} if p.material == "rubber" else {"rubber": 0.04, "polyurethane": 0.96}
    return Sized(p.name, p.common, p.pitch_m, False, sizes, {"shape": shape, "material": material})


def wheel_measures(name: str, teeth: int) -> ExpectedSize:
    """A pulley of so many teeth, over its tips (m)."""
    size = synchronous.outside_diameter(synchronous.profile(name), teeth)
    return ExpectedSize(size, max(0.0001, 0.0012 * size))


def named(text: str) -> Named:
    """A belt by its name. Raises ToothedError."""
    found = synchronous.parse_name(text)
    forms = synchronous.forms_of(found.profile) if found.form_open else (found.profile,)
    names = frozenset(p.name for p in forms)
    return Named(names, found.designation, found.teeth, found.length_m, found.width_m, None, found.listed, found)


def alike(name: str) -> list[Verdict]:
    """Profiles that share its pitch and name but not its tooth."""
    others = [p.name for p in synchronous.forms_of(synchronous.profile(name))[1:]]
    if not others:
        return []
    detail = "They share pitch and name but not the tooth: they do not mesh. Lay a tooth on the template, and match the pulleys' own mark."
    return [Verdict("alike", Tone.WATCH, f"{name}, {' and '.join(others)} look alike", detail)]


_TEMPLATE_LENGTH_M = 0.1  # of the strip that is drawn


def template(p: Profile) -> Template:
    """Some teeth of a belt, from the side."""
    teeth = max(3, min(24, round(_TEMPLATE_LENGTH_M / p.pitch_m)))
    return Template(p.pitch_m, p.belt_height_m, teeth, DrawnShape(tuple(synchronous.belt_outline(p, teeth)), True))
