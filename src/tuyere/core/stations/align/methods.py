"""The ways to read an alignment: for which loops, what is read at which points, how to go about it, and what each can see.

Steps are common practice, no source.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import NamedTuple

from tuyere.core.stations.align import readings as by
from tuyere.core.stations.align.readings import LEVEL_U_RAD, USUAL_U, Equations, WheelPair

Error = str  # "angle", "twist" or "offset"


class Point(NamedTuple):
    """One thing to read: its key, its field, how it is called. {still}, {moving}, {near}, {v}, {w} are named for this drive."""

    key: str
    field: str
    label: str
    needed: bool = True


@dataclass(frozen=True)
class AlignMethod:
    """`sees`: which errors it settles by itself.

    `seats`: what it can be used on, empty for all. `steps`: how to go about it. `together`: points of which one says nothing without the
    other.
    """

    key: str
    label: str
    tool: str
    sees: tuple[Error, ...]
    points: tuple[Point, ...]
    steps: tuple[str, ...]
    equations: Callable[[WheelPair, Mapping[str, float]], Equations]
    seats: tuple[str, ...] = ()
    words: tuple[str, ...] = ()
    together: tuple[str, str] = ("", "")


_GAPS = tuple(
    Point(f"gap_{i}", "edge_gap", label)
    for i, label in enumerate(("1  {still}, far rim", "2  {still}, near rim", "3  {moving}, near rim", "4  {moving}, far rim"), 1)
)


def _gaps(of: Mapping[str, float]) -> list[float]:
    return [of[f"gap_{i}"] for i in (1, 2, 3, 4)]


def _two_heads(pair: WheelPair, of: Mapping[str, float]) -> Equations:
    """A line that falls outside the mark means that the wheel which carries the target stands in.

    Its tilt counts over marks that were measured.
    """
    tilt, tall = of.get("tilt"), of.get("target_height")
    leans = -tilt if tilt is not None and tall else None
    return by.by_two_heads(pair, -of["at_movable"], -of["at_still"], leans, tall or 1.0, "groove", USUAL_U["two_heads"])


def _one_head(pair: WheelPair, of: Mapping[str, float]) -> Equations:
    return by.by_one_head(pair, -of["toward"], -of["away"], -of["top"], -of["bottom"], USUAL_U["one_head"])


METHODS: tuple[AlignMethod, ...] = (
    AlignMethod(
        "straightedge",
        "Straightedge across the faces",
        "straightedge and feelers",
        ("angle", "offset"),
        _GAPS,
        (
            "Lay a stiff straightedge across both faces on the side away from the machines, along the line of the shafts.",
            "It rests on two points: write 0 there, and feel the gap at the other two.",
            "Turn the edge end for end and read again: if the gaps change, the edge is bent.",
        ),
        lambda pair, of: by.by_edge(pair, _gaps(of), USUAL_U["straightedge"]),
    ),
    AlignMethod(
        "string",
        "Taut string",
        "string and rule",
        ("angle", "offset"),
        _GAPS,
        (
            "Hold a thin taut string on points 1 and 4; shim it off both by the same thickness, so that it hangs clear of 2 and 3.",
            "Measure to the string at all four points. Where it touches 2 or 3 it bends, and says nothing.",
        ),
        lambda pair, of: by.by_string(pair, _gaps(of), USUAL_U["string"]),
    ),
    AlignMethod(
        "clock",
        "Straightedge at two clock positions",
        "straightedge and feelers",
        ("twist", "offset"),
        (
            Point("top", "face_place", "1  {moving} at its {v}, out + in −"),
            Point("bottom", "face_place", "2  {moving} at its {w}, out + in −"),
        ),
        (
            "Hold the straightedge flat on the {still}'s face, reaching over the {moving}'s {v}: how far does the {moving}'s face stand "
            "out past it (+) or behind it (−)?",
            "The same at its {w}. The difference is the twist.",
        ),
        lambda pair, of: by.by_clock(pair, of["top"], of["bottom"], USUAL_U["clock"]),
    ),
    AlignMethod(
        "two_heads",
        "Two laser heads",
        "two magnetic heads",
        ("angle", "offset", "twist"),
        (
            Point("at_movable", "face_place", "Line on the {moving}'s target, out + in −"),
            Point("at_still", "face_place", "Line on the {still}'s target, out + in −"),
            Point("tilt", "face_place", "Line's {v} end over its {w} end, out + in −", False),
            Point("target_height", "target_height", "Between the tilt marks", False),
        ),
        (
            "One head on each: the pins touch both flanks of the groove and let the head seat. Same-numbered groove on both, both heads "
            "the same way round.",
            "Turn the shafts until the heads see each other, each throwing its line on the other's target.",
            "While you shim out twist, watch the {moving}'s target until its line lies parallel to the marks.",
            "While you swing the back feet, watch the {still}'s target until both lines stand at the same distance, on the same half as "
            "each target is seen face-on: then only offset is left. Slide until both are centred.",
            "Do not chase the centre while an angle is left.",
        ),
        _two_heads,
        together=("tilt", "target_height"),
    ),
    AlignMethod(
        "one_head",
        "One laser head with targets",
        "one magnetic head",
        ("angle", "offset", "twist"),
        (
            Point("toward", "face_place", "1  Line at the rim toward the {still}, out + in −"),
            Point("away", "face_place", "2  Line at the rim away from it, out + in −"),
            Point("top", "face_place", "3  Line at its {v}, out + in −"),
            Point("bottom", "face_place", "4  Line at its {w}, out + in −"),
        ),
        (
            "The head on the {still}'s face, three targets of one height or one target moved round the {moving}'s face.",
            "Read where the line falls at the four rim points of the {moving}: out past the target's mark is +, short of it −.",
        ),
        _one_head,
    ),
    AlignMethod(
        "level",
        "Level on both shafts",
        "level",
        (),
        (
            Point("still", "shaft_slope", "{still}'s shaft, wheel's end high +"),
            Point("moving", "shaft_slope", "{moving}'s shaft, wheel's end high +"),
        ),
        (
            "Lay the level on each shaft, or on the hub turned half round and averaged; the same end of the level toward the wheel both "
            "times.",
            "It says whether one shaft is tipped against the other: {level_says}.",
        ),
        lambda pair, of: by.by_level(pair, of["still"], of["moving"], LEVEL_U_RAD),
    ),
    AlignMethod(
        "tape",
        "Tape between the shafts",
        "tape or trammel",
        ("angle",),
        (
            Point("outer", "point_tape", "Shaft to shaft, at the wheels"),
            Point("inner", "point_tape", "Shaft to shaft, farther back"),
            Point("apart", "foot_arm", "Between the two places, along the shaft"),
        ),
        (
            "Measure from shaft to shaft at two places as far apart as the shafts allow, square across both.",
            "Nearer at the wheels than behind: the shafts close toward the wheels.",
        ),
        lambda pair, of: by.by_tape(of["outer"], of["inner"], of["apart"], USUAL_U["tape"]),
    ),
    AlignMethod(
        "tracking",
        "Where the belt tracks",
        "eye",
        (),
        (),
        (
            "Turn the drive by hand, or look at the shiny track: where does the belt run on the {moving}?",
            "No numbers come of it: which way to move, and then read one of the others.",
        ),
        lambda pair, of: by.NOTHING,
        seats=("rim",),
        words=("middle", "out", "in"),
    ),
)
BY_KEY = {m.key: m for m in METHODS}


def methods_for(seat: str) -> tuple[AlignMethod, ...]:
    """What can be used on a loop that sits so."""
    return tuple(m for m in METHODS if not m.seats or seat in m.seats)


def tracking_words(runs: str, back_toward: str) -> str:
    """What a flat belt that runs out or in says: where it runs the shafts lie closer, as a rule (common practice, medium)."""
    if runs == "middle":
        return "It runs in the middle: that is what counts for a flat belt. Read it once more under load."
    end, feet = ("at the wheels", back_toward) if runs == "out" else ("behind the wheels", f"not {back_toward}, but the other way")
    return f"A flat belt usually walks to where the shafts lie closer: {end} here. Push the back feet a little {feet}, turn it over, and look again; crown and splice can do the same."
