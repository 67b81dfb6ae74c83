"""A job composed for one drive, and the order in which its steps may be done."""

from collections import Counter
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import takewhile

from tuyere.core.stations.jobs.library import ISOLATION, RUNS, JobKind, Library, LibraryError, Sort, State, Step, base_of, holds


@dataclass(frozen=True)
class OwnStep:
    """A step that people added on a machine: after which step it stands, what to do, and how the machine must be for it."""

    key: str
    after: str
    do: str
    why: str = ""
    state: State = "isolated"


OWN = "added on this machine"
OWN_SORT: Mapping[State, Sort] = {"isolated": "hands", "running": "run", "any": "desk"}


def fitting(library: Library, facts: Collection[str]) -> tuple[JobKind, ...]:
    """The kinds of job that a drive can have, in the library's order."""
    return tuple(k for k in library.kinds.values() if holds(k.fits, facts))


def for_due(kinds: Sequence[JobKind], event: str, page: str, once: bool) -> str:
    """Which of the kinds a due asks for, by what it counts from and the page that answers it; empty where none does."""
    page = page.split("/")[0]
    wanted: tuple[str, ...] = {"tension": ("tension",), "align": ("align",)}.get(page, ())
    if once and page == "tension" and event in ("new set", "new wheel", "re-tension", "first start"):
        wanted = ("run_in", *wanted)
    if event == "oil change":
        wanted = ("tension",)
    if event == "chain oiled":
        wanted = ("chain_oil",)
    if event in ("get-home fix", "replace"):
        wanted = ("blower_belt", "belt_set", "mower_belt", "link_belt", "chain_join", "flat_join", "carriage")
    return next((w for w in wanted if any(k.key == w for k in kinds)), "")


def asked_facts(kind: JobKind, asked: Mapping[str, str]) -> frozenset[str]:
    """What was answered before it began, as facts: `joint=rawhide`."""
    return frozenset(f"{a.key}={asked[a.key]}" for a in kind.asks if a.options and asked.get(a.key))


def compose(library: Library, kind: JobKind, facts: Collection[str], own: Sequence[OwnStep] = ()) -> tuple[Step, ...]:
    """The steps of a job in order. The rules that keep hands whole are the composer's, not the files':

    - what is left (a lock, a block, something held, loose or off) is taken back by the step that undoes it, whenever it is part of the job;
    - where the drive is turned by hand, its blocks come out before and go in again behind;
    - a test under power lets go of blocks and locks, and isolates and verifies again before a hand goes in;
    - a hands-on step behind a run has the whole isolation before it again;
    - hands-on steps wait for every lock before them, running ones for every guard and for all that was taken back.
    """
    facts = set(facts) - ({RUNS} if kind.stopped else set())
    steps = [s for s in library.steps_of(kind) if holds(s.when, facts)]
    made = _Made(steps, library)
    for step in steps:
        made.take(step)
    made.close()
    return waiting(with_own(made.out, own))


class _Made:
    """A job as it is being composed: what stands in it, and what is in, off or loose at that point."""

    def __init__(self, steps: Sequence[Step], library: Library) -> None:
        self.steps = steps
        self.out: list[Step] = []
        self.times: Counter[str] = Counter()  # how often each stands in it
        self.left: dict[str, Step] = {}  # by the key it stands under: what has to be taken back still
        self.first: list[Step] = []  # the isolation as it was composed first, in its order
        self.reblock: list[Step] = []  # blocks that came out for a turn by hand
        self.testing: list[Step] | None = None  # what was let go for a test under power
        self.ran = False  # since it was isolated last
        self.isolating = frozenset(k for name, keys in library.groups.items() if name.startswith("prepare") for k in keys)
        self.back = frozenset(k for name, keys in library.groups.items() if name.startswith("back") for k in keys)
        self.tests = {k: step for k in ("test_clear", "test_off") if (step := library.shared.get(k))}
        self.undoing = {base: s for s in steps for base in s.undoes}
        self.place = {s.key: i for i, s in reversed(list(enumerate(steps)))}

    def take(self, step: Step) -> None:
        """The next step of the kind, with all that the rules want before it."""
        if step.undoes and not any(s.base in step.undoes for s in self.left.values()):
            return
        if not step.undoes and self.times[step.key] and not (step.key in self.back and self.left):
            return
        if step.sort == "test":
            self._let_go()
        elif self.testing is not None:
            self._isolate_after_test()
        if step.turns:
            self._turn()
        elif self.reblock and step.sort == "hands" and step.key not in self.back:
            self._block_again()
        if step.state == "running" and step.sort != "test":
            self.close()
            self.ran = any(s.sort in ISOLATION[1:] for s in self.first)
        if step.sort == "hands" and self.ran:
            self._isolate_again()
        self._emit(step)

    def close(self) -> None:
        """Undo all that is left, in the order of the kind's own steps."""
        if self.testing is not None:
            self._isolate_after_test()
        self.reblock = []
        self._undo(self.left.values())

    def _emit(self, step: Step) -> None:
        self.times[step.base] += 1
        times = self.times[step.base] - 1
        keys = tuple(k for k, s in self.left.items() if s.base in step.undoes)
        stands = replace(step, key=f"{step.base}.{times + 1}" if times else step.base, undoes=keys)
        if not times and not self.ran and step.base not in self.tests and (step.sort in ISOLATION or step.base in self.isolating):
            self.first.append(step)
        self.out.append(stands)
        for key in keys:
            del self.left[key]
        if stands.to_undo:
            self.left[stands.key] = step

    def _undo(self, left: Iterable[Step], test: bool = False) -> None:
        lacking = [s.key for s in left if s.base not in self.undoing]
        if lacking:
            raise LibraryError(f"nothing takes back “{lacking[0]}” here")
        steps = {self.undoing[s.base].key: self.undoing[s.base] for s in left}
        for step in sorted(steps.values(), key=lambda s: self.place[s.key]):
            self._emit(replace(step, sort="test", state="any") if test else step)

    def _turn(self) -> None:
        blocks = [s for s in self.left.values() if s.leaves == "block"]
        self._undo(blocks)
        self.reblock += blocks

    def _block_again(self) -> None:
        again, self.reblock = self.reblock, []
        for step in again:
            self._emit(replace(step, sort="hands"))

    def _let_go(self) -> None:
        """Before a test under power: tools and people clear, blocks out, then the locks off by their owners."""
        if self.testing is not None:
            return
        let_go = [s for s in self.left.values() if s.leaves in ("block", "lock") or s.sort == "stored"]
        self.testing, self.reblock = [*let_go, *self.reblock], []
        self._emit(self.tests["test_clear"])
        self._undo(let_go, test=True)

    def _isolate_after_test(self) -> None:
        """Off; and where it was let go for the test, locked out and verified again.

        A test with all of it back leaves the machine running.
        """
        let_go, self.testing = {s.base for s in self.testing or ()}, None
        self._emit(self.tests["test_off"])
        self.ran = not let_go
        for step in self.first if let_go else ():
            if step.base in let_go or step.sort in ("dead stop", "verify", "stored"):
                self._emit(step)

    def _isolate_again(self) -> None:
        self.ran = False
        for step in self.first:
            if step.sort != "tell":
                self._emit(step)


def with_own(steps: Sequence[Step], own: Sequence[OwnStep]) -> list[Step]:
    """A job with people's own steps behind those they were added to, or where the machine next is as they want it."""
    found = list(steps)
    for added in own:
        step = Step(
            added.key,
            added.do,
            added.why,
            OWN,
            look="mark",
            state=added.state,
            sort=OWN_SORT[added.state],
            after=(added.after,) if any(s.key == added.after for s in found) else (),
        )
        found.insert(_place(found, added), step)
    return found


def _place(steps: Sequence[Step], added: OwnStep) -> int:
    at = next((i + 1 for i, s in enumerate(steps) if s.key == added.after), len(steps))
    while at < len(steps) and steps[at].source == OWN and steps[at].after == (added.after,):
        at += 1
    if added.state == "any":
        return at
    fit = [i for i in range(len(steps) + 1) if state_at(steps, i) == added.state]
    return next((i for i in fit if i >= at), fit[-1] if fit else len(steps))


def state_at(steps: Sequence[Step], place: int) -> State:
    """How the machine is between two steps: isolated from the verification until the last lock is off; running behind a run."""
    before = steps[:place]
    left = {s.key: s.leaves for s in before if s.to_undo}
    for key in (k for s in before for k in s.undoes):
        left.pop(key, None)
    if "lock" in left.values():
        coming = takewhile(lambda s: s.sort not in ("hands", "run", "test"), steps[place:])
        return "any" if any(s.safety == "lock" for s in coming) else "isolated"
    return "running" if before and before[-1].sort == "run" and not left else "any"


def waiting(steps: Sequence[Step]) -> tuple[Step, ...]:
    """The steps with all that each waits for, by the keys that it stands under."""
    found: list[Step] = []
    latest: dict[str, str] = {}
    for i, step in enumerate(steps):
        named = [latest[base_of(a)] for a in step.after if base_of(a) in latest]
        found.append(replace(step, after=tuple(dict.fromkeys((*named, *(s.key for s in steps[:i] if _must_stand(s, step)))))))
        latest[step.base] = step.key
    return tuple(found)


def _must_stand(before: Step, step: Step) -> bool:
    """Whether one step waits for another in front of it by rule."""
    if step.sort == "desk":
        return False
    if before.sort == "access":
        return True
    took_back = bool(before.undoes) or before.safety == "guard"
    if step.state == "running" or step.sort == "test":
        return took_back or (before.sort == "test" and before.state == "any")
    if step.sort in ("tell", "access"):
        return False
    ran = step.sort in ISOLATION and before.state == "running"
    return ran or before.safety == "lock" or (took_back and (step.safety == "guard" or bool(step.undoes)))


def waits_for(steps: Sequence[Step], key: str, settled: Collection[str]) -> tuple[Step, ...]:
    """The steps that must be done or skipped before one may be."""
    by_key = {s.key: s for s in steps}
    return tuple(by_key[a] for a in by_key[key].after if a not in settled and a in by_key)


def next_step(steps: Sequence[Step], settled: Collection[str]) -> Step | None:
    """The first step in order that may be done now; None when all is settled."""
    return next((s for s in steps if s.key not in settled and not waits_for(steps, s.key, settled)), None)


def held_up_by(steps: Sequence[Step], key: str, settled: Collection[str]) -> tuple[Step, ...]:
    """The settled steps behind one that was done: they go back with it."""
    at = next(i for i, s in enumerate(steps) if s.key == key)
    return tuple(s for s in steps[at + 1 :] if s.key in settled)


def open_safety(steps: Sequence[Step], done: Collection[str]) -> tuple[Step, ...]:
    """Lock and guard steps that were not done (skipped counts as open), and what was put in and not taken back."""
    return tuple(s for s in steps if s.key not in done and (s.safety or any(k in done for k in s.undoes)))


def as_text(title: str, steps: Sequence[Step]) -> str:
    """A job as it is read aloud: a line for each step, with its place, what it leaves and what it takes back."""
    lines = [title, "=" * len(title)]
    group = ""
    for i, step in enumerate(steps, start=1):
        if step.sort != group:
            group = step.sort
            lines.append(f"-- {group} ({step.state})")
        marks = f"  [{step.leaves}]" if step.to_undo else ""
        marks += f"  [takes back: {', '.join(step.undoes)}]" if step.undoes else ""
        lines.append(f"{i:3} {step.key}: {step.do}{marks}")
        lines.append(f"      {step.why}")
    return "\n".join(lines) + "\n"
