"""Diagnosis as open calculations: the words there are, causes ranked by what is seen and found, and signs out of a sentence."""

from collections.abc import Container, Iterable, Sequence
from typing import Annotated, Literal

from flask import Response
from pydantic import BaseModel, ConfigDict, Field, StrictBool, StrictFloat, StrictInt

from tuyere.core.stations.inspect.diagnosis.diagnose import Diagnosis, diagnose
from tuyere.core.stations.inspect.diagnosis.knowledge import FAMILIES, Family, Knowledge, knowledge
from tuyere.core.stations.inspect.diagnosis.match import Matched, hear
from tuyere.core.stations.jobs.read import library
from tuyere.record.entry import Strict
from tuyere.web.answers import answer
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.routes import routes
from tuyere.web.rules import computes

blueprint = routes("diagnosis", "/api/calc", "inspect", "What is wrong, how worn, and when it will be")

Key = Annotated[str, Field(max_length=60)]
Number = Annotated[StrictInt | StrictFloat, Field(ge=-1e9, le=1e9)]


class SignWord(BaseModel):
    """Something to see, hear, smell or feel."""

    key: str
    question: str
    families: list[str] = Field(description="empty: all")


class FactWord(BaseModel):
    """Something that a drive's record knows, in its unit."""

    key: str
    question: str
    unit: str
    families: list[str] = Field(description="empty: all")


class CheckWord(BaseModel):
    """Something to do and look at; yes means that what it asks for was found."""

    key: str
    question: str
    minutes: float
    families: list[str] = Field(description="empty: all")
    state: str = Field(description="the state the machine must be in")
    unit: str = Field("", description="where a number may be answered")


class CauseWord(BaseModel):
    """What may be wrong."""

    key: str
    name: str
    families: list[str] = Field(description="empty: all")


class WordsOut(BaseModel):
    """Every sign, fact, check and cause; one cause says that nothing is wrong."""

    signs: list[SignWord]
    facts: list[FactWord]
    checks: list[CheckWord]
    causes: list[CauseWord]


def _families(of: tuple[str, ...]) -> list[str]:
    return [] if set(of) == set(FAMILIES) else [f for f in FAMILIES if f in of]


@blueprint.get("/diagnosis/words", summary="Signs, facts, checks and causes", responses={"200": WordsOut})
@computes()
def calc_words() -> Response:
    known = knowledge()
    return answer(
        WordsOut(
            signs=[SignWord(key=s.key, question=s.question, families=_families(s.families)) for s in known.signs.values()],
            facts=[FactWord(key=f.key, question=f.question, unit=f.unit, families=_families(f.families)) for f in known.facts.values()],
            checks=[
                CheckWord(key=c.key, question=c.question, minutes=c.minutes, families=_families(c.families), state=c.state, unit=c.unit)
                for c in known.checks.values()
            ],
            causes=[
                CauseWord(key=c.key, name=c.name, families=_families(tuple(f for f in c.prior if c.prior[f] > 0)))
                for c in known.causes.values()
            ],
        )
    )


class DiagnosisIn(Strict):
    """What is seen and not seen, how checks came out (\"cannot\": not done, no evidence), and what the record knows."""

    family: Family
    seen: list[Key] = Field(default_factory=list, max_length=400)
    not_seen: list[Key] = Field(default_factory=list, max_length=400)
    checks: dict[Key, StrictBool | Number | Literal["cannot"]] = Field(default_factory=dict, max_length=400)
    facts: dict[Key, StrictBool | Number] = Field(default_factory=dict, max_length=40)


class JobWay(BaseModel):
    """A kind of job and its title."""

    key: str
    title: str


class RankedOut(BaseModel):
    """A cause, how likely it is at work, what speaks for it and against it, and what to do."""

    model_config = ConfigDict(serialize_by_alias=True)

    key: str
    name: str
    probability: float
    for_: list[str] = Field(serialization_alias="for")
    against: list[str]
    do: str
    page: str = Field("", description="the station that shows it; empty: none does")
    jobs: list[JobWay] = Field(default_factory=list, description="kinds of job that mend it, whichever the drive takes")


class NextCheckOut(BaseModel):
    """The check that says most for its minutes, and why."""

    key: str
    minutes: float
    why: str
    question: str
    state: str
    unit: str = Field("", description="where a number may be answered in place of yes or no")
    look: str = Field("", description="which picture shows it")


class DiagnosisOut(BaseModel):
    """Causes, likeliest first; the next check, null where none is worth its minutes; whether it is enough to tell."""

    causes: list[RankedOut]
    next_check: NextCheckOut | None
    enough_to_tell: bool
    nearly: list[str] = Field(description="causes about as likely as the first, by key; empty where one stands out")


@blueprint.post("/diagnosis", summary="Causes ranked, and the next check", responses={"200": DiagnosisOut})
@computes()
def calc_diagnosis(body: DiagnosisIn) -> Response:
    refuse_unknown(seen=body.seen, not_seen=body.not_seen, checks=body.checks, facts=body.facts)
    return answer(diagnosis_out(diagnose(body.family, body.seen, body.not_seen, body.checks, body.facts)))


def refuse_unknown(seen: Iterable[str], not_seen: Iterable[str], checks: Iterable[str], facts: Iterable[str]) -> None:
    """Keys that nobody knows are refused by their name. Raises Refusal."""
    known = knowledge()
    told: tuple[tuple[str, Iterable[str], Container[str]], ...] = (
        ("seen", seen, known.signs),
        ("not_seen", not_seen, known.signs),
        ("checks", checks, known.checks),
        ("facts", facts, known.facts),
    )
    for name, keys, there in told:
        for key in keys:
            if key not in there:
                raise Refusal(422, f"“{key}” is not known here.", [FieldError(field=f"{name}.{key}", detail=f"“{key}” is not known here.")])


def diagnosis_out(found: Diagnosis, known: Knowledge | None = None) -> DiagnosisOut:
    """As an answer; `known`: with the limits of the drive."""
    return DiagnosisOut(
        causes=[
            RankedOut(
                key=r.cause.key,
                name=r.cause.name,
                probability=round(r.probability, 4),
                for_=list(r.speaks_for),
                against=list(r.against),
                do=r.cause.do,
                page=r.cause.page,
                jobs=[JobWay(key=j, title=library().kinds[j].title) for j in r.cause.jobs],
            )
            for r in found.causes
        ],
        next_check=_next(found, known or knowledge()),
        enough_to_tell=found.enough,
        nearly=[r.cause.key for r in found.nearly],
    )


def _next(found: Diagnosis, known: Knowledge) -> NextCheckOut | None:
    if (step := found.next_check) is None:
        return None
    check = known.checks[step.check]
    return NextCheckOut(
        key=check.key, minutes=step.minutes, why=step.why, question=check.question, state=check.state, unit=check.unit, look=check.look
    )


class SentenceIn(Strict):
    """What somebody said, in their own words."""

    sentence: str = Field(max_length=1000)


class MatchedOut(BaseModel):
    """A sign that it may mean, and how well it fits, 0 to 1."""

    key: str
    question: str
    score: float


class MatchOut(BaseModel):
    """Signs, best first; empty where nothing fits."""

    signs: list[MatchedOut]
    not_seen: list[MatchedOut] = Field(default_factory=list, description="what the sentence says is not so")


@blueprint.post("/diagnosis/match", summary="Signs out of a sentence", responses={"200": MatchOut})
@computes()
def calc_match(body: SentenceIn) -> Response:
    known = knowledge().signs
    heard = hear(body.sentence)

    def out(found: Sequence[Matched]) -> list[MatchedOut]:
        return [MatchedOut(key=m.key, question=known[m.key].question, score=m.score) for m in found]

    return answer(MatchOut(signs=out(heard.seen), not_seen=out(heard.denied)))
