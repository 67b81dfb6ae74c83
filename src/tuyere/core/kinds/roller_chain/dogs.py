"""The drive unit of an overhead conveyor: chains with sprung dogs that push the conveyor chain along by its horizontal rollers.

How dogs and conveyor chain share the load follows from their spacing once worn: geometry; the limits are common practice.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import both, fine
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.kinds import roller_chain
from tuyere.core.kinds.wear_limits import limit_of

BEARS_ON = ("horizontal rollers", "vertical rollers")
TAKE_UPS = ("outgoing slack side", "incoming tight side")
SEEN = ("there", "worn through", "missing")
# A dog chain 4.2 % long does not mesh with a new conveyor chain; half of that is where one looks: common practice, low confidence.
_OFF, _CLOSE = 0.02, 0.005


@dataclass(frozen=True)
class Dogs:
    """Spacing of the dogs and of the conveyor's rollers that they push on (m), how many are in at once, and where each stands along the
    track.

    `slip_m`: how much further the roller spacing is than the dogs', per dog; above 0 the last dog to come in carries, below 0 the one
    that leaves.
    """

    dog_pitch_m: float
    roller_pitch_m: float
    engaged: int
    slip_m: float
    dogs_at_m: tuple[float, ...]
    rollers_at_m: tuple[float, ...]


@dataclass(frozen=True)
class DogReading:
    """What was understood; `dogs` is None until both spacings are measured."""

    dogs: Dogs | None
    verdicts: tuple[Verdict, ...]
    notes: dict[str, Note]
    problems: tuple[Problem, ...]


def read_dogs(quantities: Mapping[str, Typed], words: Mapping[str, str]) -> DogReading:
    """Read spans over several dogs and over several conveyor pitches, and what was looked at; each problem beside its field."""
    reader = FieldReader(quantities, words)
    dog, link = reader.pitch("dog_span", "dog_count"), reader.pitch("conveyor_span", "conveyor_count")
    per_dog = reader.whole("pitches_per_dog", most=200) or 1
    engaged = reader.whole("dogs_engaged", most=200) or 3
    verdicts = _looked_at(words)
    if link is not None:
        verdicts += _conveyor_wear(words.get("conveyor", ""), link)
    dogs = _engage(dog, link * per_dog, min(engaged, 12)) if dog is not None and link is not None else None
    if dogs and link is not None:
        new, known = new_pitch(words.get("conveyor", ""), link)
        verdicts = [_judge(dogs, new * per_dog if new else None, known), *verdicts]
    return DogReading(dogs, tuple(verdicts), reader.notes, tuple(reader.problems))


def _engage(dog_m: float, roller_m: float, engaged: int) -> Dogs:
    """Dogs and rollers along the track in the direction of travel, pressed together: one dog touches, the others stand short."""
    slip = roller_m - dog_m
    dogs = tuple(k * dog_m for k in range(engaged))
    # Longer rollers: the rearmost dog is against its roller; shorter: the foremost.
    first = 0.0 if slip >= 0 else (engaged - 1) * (dog_m - roller_m)
    return Dogs(dog_m, roller_m, engaged, slip, dogs, tuple(first + k * roller_m for k in range(engaged)))


_MOST_WORN = 0.06  # what a worn conveyor chain measures over new at most: common practice, no source


def new_pitch(name: str, link_m: float) -> tuple[float | None, bool]:
    """The conveyor chain's pitch when new (m), and whether its name says it; by the measurement alone the nominal one it has grown from."""
    try:
        return (roller_chain.chain(name).pitch_m, True) if name.strip() else _nominal(link_m)
    except roller_chain.ChainError:
        return _nominal(link_m)


def _nominal(link_m: float) -> tuple[float | None, bool]:
    """Of the rivetless chains in the tables the one that it has grown from."""
    pitches = sorted({c.pitch_m for c in roller_chain.chains().values() if c.series == "rivetless"})
    return next((p for p in pitches if p * 0.99 <= link_m <= p * (1 + _MOST_WORN)), None), False


def _judge(d: Dogs, new_m: float | None, named: bool) -> Verdict:
    """Dogs and conveyor chain against each other, and each against new. new_m: the dogs' spacing when new."""
    off = d.slip_m / d.dog_pitch_m
    grown = (d.dog_pitch_m / new_m - 1, d.roller_pitch_m / new_m - 1) if new_m else (0.0, 0.0)
    against = ""
    if new_m:
        taken = "" if named else ", taken as the nominal pitch: name the conveyor chain to be sure"
        against = f" Against new ({fine(new_m)} a dog{taken}): the dogs have grown {grown[0] * 100:.1f} %, the conveyor chain {grown[1] * 100:.1f} %."
    told = f"{both(abs(d.slip_m))} a dog ({abs(off) * 100:.1f} %), {both(abs(d.slip_m) * (d.engaged - 1))} over {d.engaged} dogs"
    if abs(off) <= _CLOSE and max(grown) > _OFF:
        return Verdict(
            "dogs",
            Tone.WATCH,
            "Dogs and conveyor chain match, both worn: they run on together",
            f"{told}: they share the load.{against} Neither meshes with a new one: renew the dogs with the conveyor chain, together.",
        )
    if abs(off) <= _CLOSE:
        return Verdict("dogs", Tone.GOOD, "Dogs and conveyor chain match", f"{told}: they share the load.{against}")
    tone = Tone.STOP if abs(off) > _OFF else Tone.WATCH
    if new_m:
        told += f".{against}"
    worn_dogs, worn_chain = (g > _CLOSE * 2 for g in grown) if new_m else (off < 0, off > 0)
    if worn_dogs and not worn_chain and off < 0:
        return Verdict(
            "dogs",
            tone,
            "The dogs are worn, the conveyor chain is not: the dog that leaves carries all",
            f"{told} The load drops back as each lets go: surge, worn tips. New dogs only.",
        )
    if worn_chain and not worn_dogs and off > 0:
        return Verdict(
            "dogs",
            tone,
            "The conveyor chain is worn, the dogs are not: the dog that comes in carries all",
            f"{told} Each next dog wedges in: clatter, riding up. Renew the conveyor chain; taking links out does not mend its pitch.",
        )
    told = told.rstrip(".")
    if off > 0:
        return Verdict(
            "dogs",
            tone,
            "The conveyor chain is longer than the dogs: the dog that comes in carries all",
            f"{told}. Each next dog wedges in: clatter, riding up. Renew the conveyor chain; taking links out does not mend its pitch.",
        )
    return Verdict(
        "dogs",
        tone,
        "The dogs are further apart than the conveyor chain: the dog that leaves carries all",
        f"{told}. The load drops back as each lets go: surge, worn tips. Renew the dog chain; past 2 % change both together.",
    )


def _conveyor_wear(name: str, link_m: float) -> list[Verdict]:
    if not name.strip():
        return []
    try:
        new = roller_chain.chain(name).pitch_m
    except roller_chain.ChainError as reason:
        return [Verdict("conveyor", Tone.OPEN, "The conveyor chain's name is not known here", str(reason))]
    grown = link_m / new - 1
    told = f"{grown * 100:.1f} % longer than a new {name.strip()} ({fine(new)} pitch)"
    worn_out = limit_of("dogs")
    if grown >= worn_out.limit:
        return [
            Verdict(
                "conveyor",
                Tone.WATCH,
                f"Conveyor chain: {told}",
                f"Worn out at {worn_out.limit:.1%} ({worn_out.confidence} confidence): plan a new one, and dogs with it.",
            )
        ]
    return [Verdict("conveyor", Tone.GOOD, f"Conveyor chain: {told}", "Measured over pulled-straight links.")]


def _looked_at(words: Mapping[str, str]) -> list[Verdict]:
    """What an eye sees of the drive unit. Common practice, no source."""
    found = []
    if words.get("bears_on") == "vertical rollers":
        found.append(
            Verdict(
                "dogs",
                Tone.STOP,
                "The dogs push on the vertical rollers",
                "They jam round them. The dogs go behind the horizontal rollers: set the drive unit's height again.",
            )
        )
    if words.get("take_up_side") == "incoming tight side":
        found.append(
            Verdict(
                "take-up",
                Tone.STOP,
                "The take-up is on the tight side",
                "It belongs on the outgoing side, just after the drive, where the chain is slackest.",
            )
        )
    for key, name, why in (
        ("pressure_plate", "Pressure plate above", "It keeps the dogs in; without it they ride over the rollers."),
        ("wear_strips", "Wear strips below", "The dog chain runs on them; without them it sags and the dogs come in late."),
    ):
        if words.get(key) in ("worn through", "missing"):
            found.append(Verdict("dogs", Tone.STOP, f"{name}: {words[key]}", f"{why} Renew it before the line runs."))
    if found or words.get("bears_on"):
        found.append(
            Verdict(
                "take-up",
                Tone.OPEN,
                "Springs take up the wear; the shaft bolts set it up once",
                "Do not chase slack with the bolts: when the springs are at their end, the chain is.",
            )
        )
    return found
