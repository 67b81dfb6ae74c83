"""What a library of jobs holds: steps, kinds of job, and what is asked of a machine."""

import dataclasses
import re
from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

State = Literal["isolated", "running", "any"]
Safety = Literal["", "lock", "guard"]
Sort = Literal["desk", "tell", "access", "stop", "lock", "dead stop", "stored", "verify", "hands", "test", "run"]
Leaves = Literal["", "lock", "hold", "block", "loose", "off"]
EVENTS = ("", "new set", "new wheel", "re-tension", "first start", "oil change", "chain oiled")

# The order of isolation: 29 CFR 1910.147(d) and (e), from memory. What holds stored energy comes before the verification, which is last.
ISOLATION: tuple[Sort, ...] = ("tell", "stop", "lock", "dead stop", "stored", "verify")
LOCKS = frozenset({*ISOLATION, "access"})
STATES: Mapping[Sort, tuple[State, ...]] = {
    "desk": ("any",),
    "tell": ("any",),
    "access": ("any",),
    "stop": ("any",),
    "run": ("running",),
    "test": ("running", "any"),
    **dict.fromkeys(("lock", "dead stop", "stored", "verify", "hands"), ("isolated",)),
}
SHOWN_S = 0.5  # a step cannot be done sooner than this after it is shown: a double tap does not pass two


class LibraryError(ValueError):
    """A data file of the library that does not hang together: which, and why."""


@dataclass(frozen=True)
class Step:
    """One thing to do. `when`: terms that must all hold; `after`: steps that must be done before it, where they are part of the job.

    `sort`: what it is in the order of isolation; `state`: of the machine; "any" before the lock and after the start. `leaves`: what it
    puts in, takes off or loosens (lock: an energy source; hold: stored energy held; block: it cannot turn; loose: bolts; off: parts);
    `undoes`: the steps whose work it takes back; `lasting`: its work stays. `turns`: the drive is turned by hand in it. `number`: the
    figure of the drive that stands with it; `read`: the page that takes its reading; `safety`: no sign-off with it open unless a written
    reason is given.
    """

    key: str
    do: str
    why: str
    source: str
    when: tuple[str, ...] = ()
    after: tuple[str, ...] = ()
    number: str = ""
    read: str = ""
    look: str = ""
    cautions: tuple[str, ...] = ()
    state: State = "isolated"
    safety: Safety = ""
    photo: bool = False
    sort: Sort = "hands"
    leaves: Leaves = ""
    undoes: tuple[str, ...] = ()
    lasting: bool = False
    turns: bool = False

    @property
    def to_undo(self) -> bool:
        """Whether what it leaves has to be taken back within the job."""
        return bool(self.leaves) and not self.lasting

    @cached_property
    def base(self) -> str:
        """Its key in the library: the second time a step is part of a job it stands there as `lock.2`."""
        return base_of(self.key)


def base_of(key: str) -> str:
    """
    >>> base_of("lock.2"), base_of("lock")
    ('lock', 'lock')
    """
    return key.partition(".")[0]


@dataclass(frozen=True)
class Ask:
    """What is asked before a job begins: one of `options` (or of a table's names), or a quantity of a `field`.

    `by`: the answer that narrows the options, and those that each of its own leaves.
    """

    key: str
    question: str
    options: tuple[str, ...] = ()
    field: str = ""
    when: tuple[str, ...] = ()
    optional: bool = False
    by: str = ""
    narrowed: Mapping[str, tuple[str, ...]] = dataclasses.field(default_factory=dict)


@dataclass(frozen=True)
class JobKind:
    """A kind of job.

    `fits`: what the drive must have; `event`: what it is on the record when signed off; `closes`: findings that it may answer;
    `again_days`: when it is to be done again, where it is by the calendar; `stopped`: the machine stands and is not run to find out;
    `anew`: composed anew while it is open, as the survey of the new drive comes in.
    """

    key: str
    title: str
    about: str
    fits: tuple[str, ...]
    minutes: int
    event: str
    closes: tuple[str, ...]
    steps: tuple[str, ...]
    asks: tuple[Ask, ...]
    again_days: int = 0
    stopped: bool = False
    anew: bool = False


@dataclass(frozen=True)
class Trait:
    """A question about a machine, asked before its first job. `words`: a name, place or kind with one of them ticks it, unless one of `but`
    stands there too; `given`: facts of the drive that tick it; `when`: it is asked only where these hold; `today`: of this day, not kept.
    """

    key: str
    question: str
    short: str
    words: tuple[str, ...] = ()
    but: tuple[str, ...] = ()
    given: tuple[str, ...] = ()
    when: tuple[str, ...] = ()
    today: bool = False


@dataclass(frozen=True)
class Guess:
    """What a trait is taken to be before somebody says, and why."""

    is_so: bool
    because: str


@dataclass(frozen=True)
class Library:
    """Every step and kind. A kind's own steps stand under `kind.step` where two kinds name different ones alike."""

    kinds: Mapping[str, JobKind]
    traits: Mapping[str, Trait]
    drive_facts: frozenset[str]
    shared: Mapping[str, Step]
    own: Mapping[str, Mapping[str, Step]]
    groups: Mapping[str, tuple[str, ...]]

    def step(self, kind: str, key: str) -> Step | None:
        """A step as a kind means it: its own, or the shared one."""
        return self.own.get(kind, {}).get(key) or self.shared.get(key)

    def steps_of(self, kind: JobKind) -> tuple[Step, ...]:
        """The steps of a kind in order, its groups opened."""
        keys = [k for key in kind.steps for k in (self.groups[key[1:]] if key.startswith("@") else (key,))]
        found = (self.step(kind.key, k) for k in keys)
        return tuple(s for s in found if s)


def holds(terms: Iterable[str], facts: Collection[str]) -> bool:
    """Whether every term holds: a fact, `!` before it where it must not, `|` between those of which one is enough.

    >>> holds(["v|flat", "!set"], {"flat"}), holds(["v|flat", "!set"], {"flat", "set"}), holds([], ())
    (True, False, True)
    """
    return all(any((a[1:] not in facts) if a.startswith("!") else a in facts for a in term.split("|")) for term in terms)


def guesses(library: Library, names: Iterable[str], facts: Collection[str] = ()) -> dict[str, Guess]:
    """What each trait of a machine is taken to be, from what people call it and from its drive.

    >>> from tuyere.core.stations.jobs.read import library
    >>> found = guesses(library(), ["Roof fan", "centrifugal fan"])
    >>> found["windmill"], sorted(k for k, g in found.items() if g.is_so)
    (Guess(is_so=True, because='“fan” in its name'), ['auto', 'coasts', 'outdoor', 'roof', 'runs', 'windmill'])
    """
    said = " ".join(names).lower()
    found: dict[str, Guess] = {}
    for trait in library.traits.values():
        word = next((w for w in trait.words if _stands(w, said)), "")
        if word and not any(_stands(w, said) for w in trait.but):
            found[trait.key] = Guess(True, f"“{word}” in its name")
        elif trait.given and any(g in facts for g in trait.given):
            found[trait.key] = Guess(True, "by its survey")
        else:
            found[trait.key] = Guess(trait.key == RUNS, "")
    return found


RUNS = "runs"


def _stands(word: str, said: str) -> bool:
    return bool(re.search(rf"\b{re.escape(word)}(s|es)?\b", said))


def traits_asked(library: Library, answers: Mapping[str, bool]) -> tuple[Trait, ...]:
    """The questions that are asked under these answers."""
    said = {k for k, so in answers.items() if so}
    return tuple(t for t in library.traits.values() if holds(t.when, said))


def machine_facts(library: Library, answers: Mapping[str, bool]) -> frozenset[str]:
    """What the answers about a machine say, as facts; `electric` where nothing else drives it.

    >>> from tuyere.core.stations.jobs.read import library
    >>> sorted(machine_facts(library(), {"windmill": True, "runs": True, "engine": False}))
    ['electric', 'runs', 'windmill']
    """
    found = {t.key for t in traits_asked(library, answers) if answers.get(t.key)}
    return frozenset(found | ({"electric"} if not found & {"engine", "pto"} else set()))
