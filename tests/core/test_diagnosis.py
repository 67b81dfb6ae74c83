"""What is wrong: cases in plain words, the form of the model against brute force, evidence both ways, the next check, words to signs."""

import csv
import itertools
import math
import tomllib
from collections import Counter
from importlib import resources
from pathlib import Path

import pytest
from bench.diagnosis import FIRST, MORE, THIRD, asked, cases, reliability
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples
from tuyere.core.basis.table import rows
from tuyere.core.stations.inspect.diagnosis.diagnose import diagnose
from tuyere.core.stations.inspect.diagnosis.knowledge import FAMILIES, NOTHING, knowledge
from tuyere.core.stations.inspect.diagnosis.match import _stem, hear, match
from tuyere.core.stations.inspect.diagnosis.model import TWO_AT_ONCE, net
from tuyere.core.stations.inspect.rounds.checklist import items
from tuyere.core.stations.inspect.signs import signs
from tuyere.core.stations.jobs.read import library

KNOWN = knowledge()


@pytest.mark.parametrize(("file", "least"), [(FIRST, 60), (MORE, 40), (THIRD, 60)])
def test_cases_in_plain_words_end_at_their_cause_after_at_most_five_checks(file: str, least: int) -> None:
    """Asked.

    First in 95 %, top three in 98 %, nine healthy drives in ten left alone; each file written before the knowledge was weighed for it.
    """
    ends = [(case, [r.cause.key for r in asked(case)[0].causes]) for case in cases(file)]
    sick = [(c["cause"], names) for c, names in ends if c["cause"] != NOTHING]
    healthy = [names[0] for c, names in ends if c["cause"] == NOTHING]
    assert len(sick) >= least and len(healthy) >= 4
    assert sum(names[0] == cause for cause, names in sick) >= 0.95 * len(sick)
    assert sum(cause in names[:3] for cause, names in sick) >= 0.98 * len(sick)
    assert sum(first == NOTHING for first in healthy) >= 0.9 * len(healthy)


def test_stated_probabilities_are_honest() -> None:
    for at, given_to, true in reliability(300):
        if given_to >= 60:
            says = (at + 0.5) / 10
            # A tenth is wide, and so many stories scatter: three standard deviations.
            assert abs(true / given_to - says) < 0.05 + 3 * math.sqrt(says * (1 - says) / given_to), at


def test_the_knowledge_hangs_together() -> None:
    for cause in KNOWN.causes.values():
        assert cause.do.endswith(".") and set(cause.prior) <= set(FAMILIES) and any(cause.prior.values())
        assert set(cause.shows) <= set(KNOWN.signs) and set(cause.checks) <= set(KNOWN.checks)
        for family in cause.prior:
            if cause.prior[family]:
                shown = [s for s, p in cause.shows.items() if family in KNOWN.signs[s].families and p >= 0.2]
                assert shown or any(family in KNOWN.checks[k].families for k in cause.checks), (cause.key, family)
    assert all(0 < p < 1 for c in KNOWN.causes.values() for p in (*c.shows.values(), *c.checks.values()))
    for fact in KNOWN.facts.values():
        assert all(t.key in (KNOWN.signs if t.kind == "sign" else KNOWN.checks) for t in fact.then)
    nothing = KNOWN.causes[NOTHING]
    assert set(nothing.prior) == set(FAMILIES) and "Nothing is wrong" in nothing.name


def test_a_question_is_of_this_kind_of_drive_and_of_what_can_be_there() -> None:
    facts = library().drive_facts | set(library().traits)
    for family in FAMILIES:
        own = knowledge(family=family)
        for one in (*own.signs.values(), *own.checks.values()):
            if family in one.families:
                assert ("belt" if family == "chain" else "chain") not in one.question.lower() or family == "conveyor", (family, one.key)
                assert "{" not in one.question and set(one.needs) <= facts, one.key
    assert all(set(c.told_by) <= set(KNOWN.signs) for c in KNOWN.checks.values())
    assert all(set(c.jobs) <= set(library().kinds) and set(c.needs) <= facts for c in KNOWN.causes.values())
    assert KNOWN.sure | KNOWN.kinds <= facts


def test_the_noisy_or_is_the_textbooks() -> None:
    """Pearl's noisy-OR by brute force over single causes and pairs of a small family."""
    on, seen, gone = net("conveyor"), "conv_slack", "conv_jerks"
    causes = [c for c in KNOWN.causes.values() if c.prior.get("conveyor", 0) > 0]
    weight: dict[str, float] = {}
    whole = 0.0
    for size in (1, 2):
        for group in itertools.combinations(causes, size):
            if size == 2 and NOTHING in (group[0].key, group[1].key):
                continue
            p = TWO_AT_ONCE ** (size - 1)
            for c in group:
                p *= c.prior["conveyor"] / (1 - c.prior["conveyor"])
            for key, there in ((seen, True), (gone, False)):
                absent = (1 - KNOWN.signs[key].leak) * math.prod(1 - c.shows.get(key, 0) for c in group)
                p *= 1 - absent if there else absent
            whole += p
            for c in group:
                weight[c.key] = weight.get(c.key, 0.0) + p
    found = {r.cause.key: r.probability for r in diagnose("conveyor", [seen], [gone]).causes}
    for key, probability in found.items():
        assert probability == pytest.approx(weight[key] / whole, rel=1e-6), key
    assert len(on.causes) == len(causes)


signs_of = {f: [s.key for s in KNOWN.signs.values() if f in s.families] for f in FAMILIES}


@given(st.sampled_from(FAMILIES), st.data())
@examples(60)
def test_any_evidence_gives_a_ranking_and_the_same_one_again(family: str, data: st.DataObject) -> None:
    seen = data.draw(st.lists(st.sampled_from(signs_of[family]), max_size=30, unique=True))
    found = diagnose(family, seen)
    again = diagnose(family, list(reversed(seen)))
    chances = [r.probability for r in found.causes]
    assert chances == sorted(chances, reverse=True) and all(0 <= p <= 1 + 1e-9 for p in chances)
    assert [r.cause.key for r in again.causes][:3] == [r.cause.key for r in found.causes][:3]
    if found.next_check:
        assert diagnose(family, seen, checks={found.next_check.check: "cannot"}).next_check != found.next_check, "it is not asked again"


def test_evidence_speaks_for_and_against_and_cannot_is_none() -> None:
    plain = diagnose("v", ["squeal_start"])
    assert plain.causes[0].cause.key == "low_tension" and "It squeals as it starts, or when load comes on" in plain.causes[0].speaks_for
    assert plain.next_check and not plain.enough, "one squeal is not enough to tell"
    same = diagnose("v", ["squeal_start"], checks={"tension_gauge": "cannot"})
    assert [(r.cause.key, r.probability) for r in same.causes] == [(r.cause.key, r.probability) for r in plain.causes]
    gauged = diagnose("v", ["squeal_start"], checks={"tension_gauge": 100})
    low = next(r for r in gauged.causes if r.cause.key == "low_tension")
    assert low.probability < 0.3 and any("Looked for, not found" in a for a in low.against), "100 % of target is not low"
    told = diagnose("v", ["squeal_start"], checks={"tension_gauge": 50})
    assert told.causes[0].cause.key == "low_tension" and told.causes[0].probability > plain.causes[0].probability
    for answer in (100, "cannot"):
        once = diagnose("v", ["squeal_start"], checks={"tension_high": answer})
        assert once.next_check and once.next_check.check != "tension_gauge", "one measured tension answers both, and is not asked for twice"
    by_record = diagnose("v", ["squeal_start"], facts={"tension_share": 50.0})
    assert by_record.causes[0].probability == pytest.approx(told.causes[0].probability, abs=0.02), (
        "the record's reading counts as the check's"
    )
    assert not diagnose("v", []).enough


def test_squeal_sends_one_to_wheels_and_belt_before_the_spanner() -> None:
    """A squeal on a belt that sits low in shiny grooves is a worn sheave first (trade fact)."""
    found = diagnose("v", ["squeal_start", "rides_proud_low", "groove_shiny_steps"])
    assert found.causes[0].cause.key == "worn_sheave"
    assert "dressing" in KNOWN.signs and KNOWN.causes["low_tension"].shows["dressing"] > 0, "dressing is a sign of slip, never advised"
    assert all("no belt dressing" in c.do for c in KNOWN.causes.values() if "dressing" in c.do.lower())


@pytest.mark.parametrize(
    ("sentence", "key"),
    [
        ("the belt screeches when we start the fan", "squeal_start"),
        ("it is squeeling all the time", "squeal_steady"),
        ("belts keep coming off in tall grass", "thrown"),
        ("my new belt broke on the first day", "new_snapped"),
        ("black rubber dust everywhere underneath", "dust_black"),
        ("the chain jumps on the sprocket", "chain_jump"),
        ("there is a ridge in the groove", "groove_shiny_steps"),
        ("the blades keep turning when I let go the lever", "turns_disengaged"),
        ("motor just hums and nothing turns", "wont_turn"),
        ("conveyor has stopped and we found no jam", "conv_no_jam"),
        ("burning smell and smoke", "smell"),
        ("one of the belts is much slacker than the others", "uneven_set"),
        ("pulley wobbles", "wobbles"),
        ("shaft snapped right at the pulley", "crank_broken"),
        ("the strand flaps a lot", "flop"),
        ("teeth are missing from the belt", "tooth_shear"),
        ("red rusty dust at the pins of the chain", "rust_joint"),
        ("chunks torn out of the belt", "hard_chunks"),
        ("saw makes a wavy cut", "wavy_cut"),
        ("the fan shakes the whole roof", "vib"),
    ],
)
def test_own_words_find_their_sign(sentence: str, key: str) -> None:
    found = [m.key for m in match(sentence)]
    assert key in found[:3], found[:5]


def test_what_says_nothing_of_a_drive_finds_nothing() -> None:
    for sentence in ("", "it is raining", "please order more coffee", "42", "the man went home early on friday", "belt"):
        assert match(sentence) == [], sentence
    scores = [m.score for m in match("squeals at start and smells of burnt rubber")]
    assert scores == sorted(scores, reverse=True) and all(0 < s <= 1 for s in scores)


def complaints(name: str) -> list[dict[str, str]]:
    lines = (Path(__file__).parents[1] / "complaints" / f"{name}.csv").read_text().splitlines()
    return list(csv.DictReader((line for line in lines if not line.startswith("#")), delimiter=";"))


@pytest.mark.parametrize(
    ("name", "least"),
    [
        ("first", 0.93),
        ("second", 0.93),
        ("third", 0.93),
        ("fourth", 0.85),
        ("fifth", 0.8),
        ("sixth", 0.9),
        ("seventh", 0.9),
        ("eighth", 0.93),
        ("ninth", 0.93),
    ],
)
def test_complaints_in_peoples_own_words_are_heard(name: str, least: float) -> None:
    """Of what a listener would tap most is in the first three, most that is offered is meant, nothing denied is offered, chatter finds
    nothing.

    The fifth file was never tuned to one by one; the eighth was heard at 0.83 and 0.64 when it was new, the ninth at 0.96 and 0.77: what
    strangers may expect.
    """
    hit = wanted = offered = meant = 0
    for row in complaints(name):
        seen, denied = (row["seen"] or "").split(), (row["denied"] or "").split()
        heard = hear(row["complaint"])
        first = [m.key for m in heard.seen[:3]]
        assert seen or denied or not first, (row["complaint"], first)
        assert not {m.key for m in heard.seen} & set(denied), row["complaint"]
        wanted, hit = wanted + len(seen), hit + sum(k in first for k in seen)
        offered, meant = offered + len(first), meant + sum(k in seen for k in first)
    assert hit / wanted >= least and meant / offered >= 0.7, (hit / wanted, meant / offered)


def test_what_is_denied_is_heard_as_not_so() -> None:
    heard = hear("no squeal, no smoke, but it shakes the whole roof")
    assert [m.key for m in heard.seen] == ["vib"] and {"just_squeals", "smell"} <= {m.key for m in heard.denied}


def test_a_word_stands_for_one_thing() -> None:
    groups = tomllib.loads((resources.files("tuyere.core.stations.inspect.diagnosis") / "words.toml").read_text())["same"]
    named = Counter((word, group[0]) for group in groups for word in {_stem(w) for w in group})
    twice = [w for w, n in Counter(word for word, _ in named).items() if n > 1]
    assert not twice


def test_every_station_tells_in_the_words_of_the_diagnosis() -> None:
    """What is tapped, walked and measured says signs that there are, of a kind of drive that it is asked on."""
    known = knowledge().signs
    told = [(s.key, s.tells, None) for s in signs().values()]
    told += [(i.key, i.tells, set(i.families)) for i in items().values()]
    told += [(r["what"], tuple(r["tells"].split()), set(r["families"].split())) for r in rows("wear_limits")]
    assert sum(bool(tells) for _, tells, _ in told) > 80
    for key, tells, families in told:
        for one in tells:
            assert one in known, (key, one)
            assert families is None or families & set(known[one].families), (key, one)
    assert set(knowledge().facts) >= {f"seen {k}" for k in known}
