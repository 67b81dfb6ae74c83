"""A job composed for one drive, and the order in which its steps may be done."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace

from tuyere.core.jobs.library import Kind, Library, Step, holds


@dataclass(frozen=True)
class OwnStep:
    """A step that people added on a machine: after which step it stands, and what to do."""

    key: str
    after: str
    do: str
    why: str = ""


def fitting(library: Library, facts: Collection[str]) -> tuple[Kind, ...]:
    """The kinds of job that a drive can have, in the library's order."""
    return tuple(k for k in library.kinds.values() if holds(k.fits, facts))


def for_due(kinds: Sequence[Kind], event: str, page: str, once: bool) -> str:
    """Which of the kinds a due asks for, by what it counts from and the page that answers it; empty where none does."""
    page = page.split("/")[0]
    wanted: tuple[str, ...] = {"tension": ("tension",), "align": ("align",)}.get(page, ())
    if once and page == "tension" and event in ("new set", "re-tension", "first start"):
        wanted = ("run_in", *wanted)
    if event == "oil change":
        wanted = ("tension",)
    if event in ("get-home fix", "replace"):
        wanted = ("belt_set", "mower_belt", "link_belt", "chain_join", "flat_join", "carriage")
    return next((w for w in wanted if any(k.key == w for k in kinds)), "")


def asked_facts(kind: Kind, asked: Mapping[str, str]) -> frozenset[str]:
    """What was answered before it began, as facts: `joint=rawhide`."""
    return frozenset(f"{a.key}={asked[a.key]}" for a in kind.asks if a.options and asked.get(a.key))


def compose(library: Library, kind: Kind, facts: Collection[str], own: Sequence[OwnStep] = ()) -> tuple[Step, ...]:
    """The steps of a job in order, each once; people's own steps behind those they were added to.

    `after` of each names only steps that are part of this job. Hands-on steps behind a lock wait for every lock before them, running ones
    behind a guard for every guard: nobody has to say so in the file.
    """
    chosen: list[Step] = []
    for step in library.steps_of(kind):
        if holds(step.when, facts) and all(step.key != s.key for s in chosen):
            chosen.append(step)
    for added in own:
        place = next((i + 1 for i, s in enumerate(chosen) if s.key == added.after), len(chosen))
        while place < len(chosen) and chosen[place].source == OWN and chosen[place].after == (added.after,):
            place += 1
        chosen.insert(place, Step(added.key, added.do, added.why, OWN, after=(added.after,), look="mark"))
    keys = {s.key for s in chosen}
    found = []
    for i, step in enumerate(chosen):
        first = [s.key for s in chosen[:i] if s.safety == ("lock" if step.state == "isolated" else "guard")]
        found.append(replace(step, after=tuple(dict.fromkeys(a for a in (*step.after, *first) if a in keys))))
    return tuple(found)


OWN = "added on this machine"


def waits_for(steps: Sequence[Step], key: str, settled: Collection[str]) -> tuple[Step, ...]:
    """The steps that must be done or passed over before one may be."""
    by_key = {s.key: s for s in steps}
    return tuple(by_key[a] for a in by_key[key].after if a not in settled)


def next_step(steps: Sequence[Step], settled: Collection[str]) -> Step | None:
    """The first step in order that may be done now; None when all is settled."""
    return next((s for s in steps if s.key not in settled and not waits_for(steps, s.key, settled)), None)


def held_up_by(steps: Sequence[Step], key: str, settled: Collection[str]) -> tuple[Step, ...]:
    """The settled steps that were done on the strength of one: it cannot be taken back under them."""
    return tuple(s for s in steps if key in s.after and s.key in settled)


def open_safety(steps: Sequence[Step], done: Collection[str]) -> tuple[Step, ...]:
    """Lock and guard steps that were not done: passed over counts as open."""
    return tuple(s for s in steps if s.safety and s.key not in done)
