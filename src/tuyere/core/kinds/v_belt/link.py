"""Link belting: cut to length from the roll, under the rollers of a conveyor or in place of a V-belt.

In place of a V-belt so many links of the hand-tight belt come out; under conveyor rollers as many as still let it join, and the take-up
does the rest. Workshop rules, not a standard: common practice, no source.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import both
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Problem, Tone, Verdict

TABS = ("trailing", "leading")
PULLED = ("pulled", "pushed")
TAKE_UP = ("at its least", "part way out")
USES = ("in place of a V-belt", "roller conveyor")
_LINKS_TO_ONE = 24  # one link out of every 24 of the hand-tight belt: common practice, no source; low


@dataclass(frozen=True)
class LinkBelt:
    """A link belt as it is cut: pitch of one link (m), links when hand-tight, how many come out by rule, and the length that is left (m)."""

    pitch_m: float
    hand_tight: int
    take_out: int
    length_m: float

    @property
    def links(self) -> int:
        return self.hand_tight - self.take_out


@dataclass(frozen=True)
class LinkReading:
    """What was understood; `belt` is None until the tape round the wheels and a link's pitch are known."""

    belt: LinkBelt | None
    tabs: str | None
    verdicts: tuple[Verdict, ...]
    notes: dict[str, Note]
    problems: tuple[Problem, ...]


def cut(tape_m: float, pitch_m: float, use: str = USES[0]) -> LinkBelt:
    """The belt for a tape laid hand-tight round the wheels.

    Whole links, one in 24 less in place of a V-belt, none by rule on a roller conveyor.

    >>> belt = cut(1.2, 0.0125)
    >>> belt.hand_tight, belt.take_out, round(belt.length_m, 3)
    (96, 4, 1.15)
    """
    links = round(tape_m / pitch_m)
    out = links // _LINKS_TO_ONE if use == USES[0] else 0
    return LinkBelt(pitch_m, links, out, (links - out) * pitch_m)


def read_link(quantities: Mapping[str, Typed], words: Mapping[str, str]) -> LinkReading:
    """Read the tape, the pitch over several links, and what was looked at; each problem beside its field."""
    reader = FieldReader(quantities, words)
    tape, pitch = reader.value("link_tape", "outside_length"), reader.pitch("link_span", "link_count")
    tabs, pulled, take_up = reader.one_of("tabs", TABS), reader.one_of("pulled", PULLED), reader.one_of("take_up", TAKE_UP)
    use = reader.one_of("use", USES)
    belt = cut(tape, pitch, use or USES[0]) if tape is not None and pitch is not None else None
    if belt and belt.hand_tight < 10:
        reader.problems.append(Problem("link_tape", "That is too short for a belt of such links: tape round the wheels again."))
        belt = None
    return LinkReading(belt, tabs, tuple(_say(belt, use, tabs, pulled, take_up)), reader.notes, tuple(reader.problems))


def _say(belt: LinkBelt | None, use: str | None, tabs: str | None, pulled: str | None, take_up: str | None) -> list[Verdict]:
    found = []
    if pulled == "pushed":
        found.append(
            Verdict(
                "link",
                Tone.STOP,
                "Link belting is not pushed",
                "It carries load only where it is pulled towards the driver; on a run that is pushed its links open and climb. Lead the "
                "load on the tight side, or fit another belt.",
            )
        )
    if tabs == "leading":
        found.append(
            Verdict(
                "link",
                Tone.STOP,
                "The tabs lead: turn the belt round",
                "Tabs trail the direction of travel. Leading, they catch on wheels and keepers and unhook.",
            )
        )
    if take_up == "part way out":
        found.append(
            Verdict(
                "link",
                Tone.WATCH,
                "Put the take-up at its least first",
                "The belt is joined with the take-up all the way in, so that all of its travel is left for stretch.",
            )
        )
    if belt and use is None:
        found.append(
            Verdict(
                "link",
                Tone.OPEN,
                f"{belt.hand_tight} links hand-tight: {both(belt.hand_tight * belt.pitch_m)}",
                "How many come out goes by where it runs: say whether it stands in for a V-belt, or runs under the rollers of a conveyor.",
            )
        )
    elif belt and use == USES[1]:
        found.append(
            Verdict(
                "link",
                Tone.GOOD,
                f"Pull {belt.hand_tight} links hand-tight, then take out as many as still let it join",
                f"{both(belt.hand_tight * belt.pitch_m)} hand-tight round the rollers, take-up all the way in. The take-up does the rest; "
                "take up again after 24 hours (common practice, no source).",
            )
        )
    elif belt:
        found.append(
            Verdict(
                "link",
                Tone.GOOD,
                f"Cut {belt.links} links: {both(belt.length_m)}",
                f"{belt.hand_tight} links hand-tight, {belt.take_out} out (one in {_LINKS_TO_ONE}: common practice, low confidence; the "
                "belting's own sheet comes first). Run it, look again after a day.",
            )
        )
    else:
        found.append(
            Verdict(
                "link",
                Tone.OPEN,
                "Pull it hand-tight round the wheels and tape it",
                "With the take-up at its least; then measure over a dozen links.",
            )
        )
    if tabs == "trailing" and pulled == "pulled" and take_up != "part way out":
        found.append(Verdict("link", Tone.GOOD, "It runs the right way round", "Tabs trail, and it is pulled."))
    order = (Tone.STOP, Tone.WATCH, Tone.GOOD, Tone.OPEN)
    return sorted(found, key=lambda v: order.index(v.tone))
