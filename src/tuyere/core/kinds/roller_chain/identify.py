"""Which chain is this: what each should measure, what a mark on it says, and what it is mixed up with."""

from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.kinds import roller_chain
from tuyere.core.kinds.by_size import ExpectedSize, Sized
from tuyere.core.kinds.roller_chain.chain import Chain
from tuyere.core.kinds.template import DrawnShape, Template
from tuyere.core.kinds.toothed import Named

_WORN_ROLLER = 0.004  # share that a roller loses before anybody throws the chain away: common practice, no source


def candidate(c: Chain) -> Sized:
    """A chain with what it should measure."""
    made = {
        "roller_diameter": (c.roller_m, 0.004),
        "inner_width": (c.inner_width_m, 0.012),
        "plate_height": (c.plate_height_m, 0.02),
        "plate_thickness": (c.plate_thickness_m, 0.04),
        "pin_diameter": (c.pin_m, 0.01),
    }
    sizes = {
        key: ExpectedSize(value * (1 - _WORN_ROLLER / 2 if key == "roller_diameter" else 1), max(0.00004, share * value))
        for key, (value, share) in made.items()
        if value
    }
    body = {
        "roller": {"roller": 0.95, "bushing": 0.05},
        "large roller": {"roller": 0.99},
        "bushing": {"bushing": 0.8, "roller": 0.2},
        "forged": {"forged": 0.99},
    }[c.body]
    plates = {"figure-8": 0.9, "straight": 0.1} if c.plates == "figure-8" else {"straight": 0.95, "figure-8": 0.05}
    lacks = ("roller_diameter", "inner_width", "plate_thickness") if c.series == "detachable" else ()
    return Sized(c.name, c.common, c.pitch_m, True, sizes, {"body": body, "plates": plates}, lacks)


def wheel_measures(name: str, teeth: int) -> ExpectedSize:
    """A sprocket of so many teeth, by callipers in its bottoms (m)."""
    of = roller_chain.chain(name)
    size = roller_chain.caliper_diameter(of.pitch_m, teeth, of.on_sprocket_m)
    return ExpectedSize(size, max(0.0002, 0.003 * size))  # worn bottoms read low


def named(text: str) -> Named:
    """A chain by its mark. Raises ChainError."""
    of, strands = roller_chain.parse_mark(text)
    return Named(frozenset((of.name,)), strands=strands, of=of)


def alike(name: str) -> list[Verdict]:
    """What it nearly, but not, fits."""
    warning = roller_chain.chain(name).nearly_fits
    return [Verdict("alike", Tone.OPEN, f"What {name} is mixed up with", warning)] if warning else []


_TOOTH_OF = 21  # teeth of the sprocket whose tooth is drawn


def template(c: Chain) -> Template:
    """Some links, and the tooth that sits under a roller."""
    sits = c.on_sprocket_m
    return Template(
        c.pitch_m,
        c.plate_height_m or 1.2 * sits,
        4,
        None,
        c.roller_m,
        c.plate_height_m,
        c.pin_m,
        c.inner_width_m,
        c.plates == "figure-8",
        DrawnShape(tuple(roller_chain.tooth_outline(c.pitch_m, sits, _TOOTH_OF)), False) if c.roller_m else None,
        _TOOTH_OF,
        roller_chain.pitch_diameter(c.pitch_m, _TOOTH_OF) / 2,
    )
