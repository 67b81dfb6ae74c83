"""A library is refused when it is read, with its place, where it does not hang together or where a job by it could hurt somebody."""

from tuyere.core.stations.jobs.library import EVENTS, ISOLATION, STATES, JobKind, Library, LibraryError, Step


def check(found: Library) -> None:
    """Raises LibraryError."""
    for kind in found.kinds.values():
        _names(found, kind)
        steps = found.steps_of(kind)
        for step in steps:
            _step(found, kind, step)
        _waits(kind, steps)
        _undone(kind, steps)
        _isolation(kind, steps)
    for trait in found.traits.values():
        _terms(found, trait.when, f"machines: {trait.key}")


def _names(found: Library, kind: JobKind) -> None:
    if kind.event not in EVENTS:
        raise LibraryError(f"{kind.key}: no event “{kind.event}”")
    for key in kind.steps:
        if key.startswith("@") and key[1:] not in found.groups:
            raise LibraryError(f"{kind.key}: no group “{key}”")
        if not key.startswith("@") and found.step(kind.key, key) is None:
            raise LibraryError(f"{kind.key}: no step “{key}”")
    unused = set(found.own[kind.key]) - {s.key for s in found.steps_of(kind)}
    if unused:
        raise LibraryError(f"{kind.key}: steps not used: {', '.join(sorted(unused))}")
    asked = {f"{a.key}={o}" for a in kind.asks for o in a.options}
    for ask in kind.asks:
        _terms(found, ask.when, f"{kind.key}: {ask.key}", asked)
    _terms(found, kind.fits, kind.key)


def _terms(found: Library, terms: tuple[str, ...], place: str, asked: frozenset[str] | set[str] = frozenset()) -> None:
    """A condition that no drive, machine or answer can fulfil is a step that nobody sees."""
    for term in terms:
        for fact in term.split("|"):
            if fact.lstrip("!") not in found.drive_facts | set(found.traits) | set(asked):
                raise LibraryError(f"{place}: nothing says “{fact.lstrip('!')}”")


def _step(found: Library, kind: JobKind, step: Step) -> None:
    place = f"{kind.key}: {step.key}"
    if step.state not in STATES[step.sort]:
        raise LibraryError(f"{place}: a step of sort “{step.sort}” is not done with the machine “{step.state}”")
    if step.turns and step.state != "isolated":
        raise LibraryError(f"{place}: by hand it is turned only when it is isolated")
    asked = {f"{a.key}={o}" for a in kind.asks for o in a.options}
    # A shared step may ask for an answer that only some kinds ask: the others never have it.
    every = asked | {f"{a.key}={o}" for k in found.kinds.values() for a in k.asks for o in a.options}
    _terms(found, step.when, place, asked if step.key in found.own[kind.key] else every)


def _waits(kind: JobKind, steps: tuple[Step, ...]) -> None:
    for i, step in enumerate(steps):
        late = {s.key for s in steps[i:]} - {s.key for s in steps[:i]}
        if late & set(step.after):
            raise LibraryError(f"{kind.key}: “{step.key}” waits for {', '.join(sorted(late & set(step.after)))}, which stands behind it")


def _undone(kind: JobKind, steps: tuple[Step, ...]) -> None:
    """What is put in, taken off or loosened has a step behind it that takes it back, before the first run."""
    for i, step in enumerate(steps):
        if step.to_undo and not any(step.key in s.undoes for s in steps[i + 1 :]):
            raise LibraryError(f"{kind.key}: nothing takes back “{step.key}” ({step.leaves})")


def _isolation(kind: JobKind, steps: tuple[Step, ...]) -> None:
    """Hands only behind the isolation, the isolation in its order, the way up before anything at the machine."""
    stood: list[Step] = []
    for step in steps:
        sorts = {s.sort for s in stood}
        if step.sort in ("hands", "test") and not {"lock", "dead stop", "verify"} <= sorts:
            raise LibraryError(f"{kind.key}: “{step.key}” is hands-on and stands before the machine is isolated")
        if step.sort == "access" and sorts & {"run", "stop", "lock", "hands"}:
            raise LibraryError(f"{kind.key}: “{step.key}” is the way to the machine and stands behind work at it")
        if step.sort in ISOLATION[1:] and not step.key.startswith("test_"):
            behind = [s.key for s in stood if s.sort in ISOLATION and ISOLATION.index(s.sort) > ISOLATION.index(step.sort)]
            if behind:
                raise LibraryError(f"{kind.key}: “{step.key}” ({step.sort}) stands behind {behind[0]}: out of the order of isolation")
        if step.key not in {s.key for s in stood}:
            stood.append(step)
