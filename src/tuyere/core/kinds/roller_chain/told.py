"""What a chain, and the dogs of an overhead conveyor, tell those who work at them."""

from tuyere.core.basis.figure import fine, shown
from tuyere.core.basis.number import Number, length, said, to_set
from tuyere.core.kinds.roller_chain import ChainError, chain
from tuyere.core.kinds.roller_chain.dogs import DogReading, new_pitch, read_dogs
from tuyere.core.kinds.roller_chain.lubrication import lubrication
from tuyere.core.kinds.survey import Part
from tuyere.core.kinds.told import Asked, Told
from tuyere.core.kinds.wear_limits import limit_of

_MEASURED_OVER = 12  # pitches


def dogs_of(part: Part) -> DogReading | None:
    """Its dogs, as measured and looked at; None where it has none."""
    dogs = part.more.get("dogs", Part())
    return read_dogs(dogs.quantities, dogs.words) if dogs.words.get("fitted") == "yes" else None


def dog_pitch(part: Part) -> float | None:
    """From roller to roller of the conveyor chain, new (m), that its dogs are to match; None where it has no dogs, or that is not known."""
    found = dogs_of(part)
    if found is None:
        return None
    return new_pitch(part.more["dogs"].words.get("conveyor", ""), found.dogs.roller_pitch_m if found.dogs else 0.0)[0]


def told(part: Part, asked: Asked) -> Told:
    """What it tells a job."""
    found: dict[str, Number] = {}
    facts: list[str] = []
    drive = part.more.get("drive", Part()).words
    try:
        of = chain(drive.get("name", ""))
    except ChainError:
        of = None
    if of and asked.speed is not None and (oiling := lubrication(of, asked.speed)):
        found["oiling"] = said("Oil", oiling.way, oiling.detail)
        facts += ["oil bath"] * oiling.way.startswith("oil bath")
    if of and drive.get("count"):
        teeth = [int(t) for t in (drive.get("teeth_1", ""), drive.get("teeth_2", "")) if t.isdigit()]
        limit = elongation_limit(of.pitch_m, _MEASURED_OVER, limit_of("chain", large_teeth=max(teeth, default=None)).limit)
        found["chain_limit"] = limit
        found["chain_pitches"] = said("Pitches", drive["count"], f"{of.name}; {limit.label}: {limit.us} ({limit.si})", "survey")
    if new := dog_pitch(part):
        seen = dogs_of(part)
        measured = f"as measured {fine(seen.dogs.dog_pitch_m)}" if seen and seen.dogs else ""
        found["dog_pitch"] = Number("Dog pitch, new", *shown(new, "length", decimals=(3, 1)), measured, "inspect/wear?what=dogs")
    return Told(found, tuple(facts))


def elongation_limit(pitch_m: float, links: int, share: float) -> Number:
    """How long so many pitches measure at the limit.

    >>> elongation_limit(0.0254, 12, 0.03).us
    '12 23/64 in'
    """
    return length(f"{links} pitches at the limit", pitch_m * links * (1 + share), f"new {to_set(pitch_m * links)}; {share:.1%} longer")
