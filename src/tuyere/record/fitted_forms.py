"""What is on a stage, as it crosses the web, by its kind of drive."""

from typing import Annotated

from pydantic import Discriminator, Field, Tag

from tuyere.core.kinds import registry
from tuyere.core.kinds.flat.kind import FLAT
from tuyere.record.entry import USUAL_FAMILY, USUAL_MESHING, Entry, FamilyKey, Strict, none_typed


class SheaveSizes(Strict):
    """What is measured of V-belts on two sheaves."""

    driver_diameter: Entry = none_typed
    driven_diameter: Entry = none_typed
    centre_distance: Entry = none_typed
    open_turns: Entry = none_typed
    most_turns: Entry = none_typed
    turn_drop: Entry = none_typed


class BeltWords(Strict):
    """What is read or counted of V-belts and their grooves."""

    section: str = Field("", max_length=200)
    belt: str = Field("", max_length=200)
    belt_count: str = Field("", max_length=200)
    ribs: str = Field("", max_length=40)
    driver_basis: str = Field("outside", max_length=40)
    driven_basis: str = Field("outside", max_length=40)
    driver_groove: str = Field("standard", max_length=40)
    driven_groove: str = Field("standard", max_length=40)
    adjustable: str = Field("", max_length=40)


class ToothedWords(Strict):
    """Of a toothed belt or a chain: counts and answers in words, and what is written on it."""

    pitch_count: str = Field("", max_length=20)
    wheel_teeth: str = Field("", max_length=20)
    shape: str = Field("", max_length=20)
    material: str = Field("", max_length=20)
    body: str = Field("", max_length=20)
    plates: str = Field("", max_length=20)
    label: str = Field("", max_length=60)
    tool: str = Field("caliper", max_length=20)


class ToothedDriveForm(Strict):
    """Two toothed wheels: the profile or chain, teeth, and the centres or the count on the belt or chain."""

    name: str = Field("", max_length=40)
    teeth_1: str = Field("", max_length=20)
    teeth_2: str = Field("", max_length=20)
    count: str = Field("", max_length=20)
    strands: str = Field("", max_length=20)
    centre_distance: Entry = none_typed


class DogsForm(Strict):
    """The drive unit of an overhead conveyor: spans over dogs and over conveyor pitches, and what was looked at."""

    fitted: bool = False
    dog_span: Entry = none_typed
    dog_count: str = Field("", max_length=20)
    conveyor_span: Entry = none_typed
    conveyor_count: str = Field("", max_length=20)
    pitches_per_dog: str = Field("", max_length=20)
    dogs_engaged: str = Field("", max_length=20)
    conveyor: str = Field("", max_length=40)
    bears_on: str = Field("", max_length=40)
    take_up_side: str = Field("", max_length=40)
    pressure_plate: str = Field("", max_length=40)
    wear_strips: str = Field("", max_length=40)


class LinearForm(Strict):
    """An open-ended belt clamped to a carriage: the free span, the manual's figures, and the pluck."""

    fitted: bool = False
    linear_span: Entry = none_typed
    linear_mass: Entry = none_typed
    linear_target: Entry = none_typed
    linear_within: str = Field("", max_length=20)
    linear_pluck: Entry = none_typed


class LinkForm(Strict):
    """Link belting: the tape round the wheels, a link's pitch over several, and how it runs."""

    link_tape: Entry = none_typed
    link_span: Entry = none_typed
    link_count: str = Field("", max_length=20)
    tabs: str = Field("", max_length=20)
    pulled: str = Field("", max_length=20)
    take_up: str = Field("", max_length=20)
    use: str = Field("", max_length=40)


class FittedForm(Strict):
    """What is on a stage, tagged by the kind of drive; quantities and words by field, for a kind that has no form of its own."""

    family: FamilyKey = USUAL_FAMILY
    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=40)
    words: dict[str, Annotated[str, Field(max_length=60)]] = Field(default_factory=dict, max_length=40)


class SheavesForm(Strict):
    """V-belts on sheaves, and link belting as measured."""

    family: FamilyKey = USUAL_FAMILY
    quantities: SheaveSizes = Field(default_factory=SheaveSizes)
    choices: BeltWords = Field(default_factory=BeltWords)
    link: LinkForm = Field(default_factory=LinkForm)


class ToothedForm(Strict):
    """A toothed belt or chain as measured, and the drive it runs on."""

    family: FamilyKey = USUAL_MESHING
    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=20)
    words: ToothedWords = Field(default_factory=ToothedWords)
    drive: ToothedDriveForm = Field(default_factory=ToothedDriveForm)
    dogs: DogsForm = Field(default_factory=DogsForm)
    linear: LinearForm = Field(default_factory=LinearForm)


class FlatForm(Strict):
    """A flat belt on two pulleys, as typed."""

    family: FamilyKey = FLAT.key
    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=20)
    belt: str = Field("", max_length=60)
    lay: str = Field("open", max_length=20)
    rotation: str = Field("clockwise", max_length=20)
    driver_surface: str = Field("", max_length=20)
    driven_surface: str = Field("", max_length=20)


FORMS: dict[str, type[Strict]] = {"sheaves": SheavesForm, "teeth": ToothedForm, "pulleys": FlatForm}


def _form_of(told: object) -> str:
    """Which of the forms a stage's fitting is typed in, by what its kind of drive runs on."""
    key = told.get("family", USUAL_FAMILY) if isinstance(told, dict) else getattr(told, "family", USUAL_FAMILY)
    try:
        part = registry.family(str(key)).part
    except registry.UnknownFamilyError:
        part = ""  # the plain form refuses it in words
    return part if part in FORMS else "plain"


AnyFitted = Annotated[
    Annotated[SheavesForm, Tag("sheaves")]
    | Annotated[ToothedForm, Tag("teeth")]
    | Annotated[FlatForm, Tag("pulleys")]
    | Annotated[FittedForm, Tag("plain")],
    Discriminator(_form_of),
]
