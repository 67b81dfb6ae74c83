"""A sentence in somebody's own words to the signs that it may mean, and to those that it denies.

Each clause is put into plain words (words.toml), stemmed, and held against every way to say a sign; telling words weigh more, small slips
of the pen are forgiven. A word that may mean several things offers them together; contraries are not offered beside each other.
"""

import math
import re
import tomllib
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from importlib import resources
from typing import NamedTuple

import snowballstemmer
from rapidfuzz.distance import DamerauLevenshtein

from tuyere.core.stations.inspect.diagnosis.knowledge import FAMILIES, knowledge

_WORD = re.compile(r"[a-z]+")
_CLAUSE = re.compile(
    r"[.,;:!?()]+|\bso (?:bad|badly|hard)\b(?: that)?|\bbut\b|\bthough\b|\balthough\b|\bexcept\b|\bhowever\b|\bonly that\b|\band then\b|\bjust\b(?= (hot|a|runs|the|only|chirps|slow))|\bsmooth above.*"
)
_BOTH = re.compile(r"\band\b|\bplus\b|\bwith a\b|\balso\b")
NOT = "not"
# How much of a phrase must be there, and how much of a word's telling in all; how near the best of its clause a second one lies. Judged on complaints.
_SHARE, _TELLING, _NEAR, _MOST = 0.62, 3.0, 0.92, 2
_GENERAL = 0.78  # how well a general word alone fits the likeliest of its kinds


class Matched(NamedTuple):
    """A sign and how well it fits, 0 to 1."""

    key: str
    score: float


@dataclass(frozen=True)
class Heard:
    """What a sentence says is so, best first, and what it says is not so."""

    seen: tuple[Matched, ...]
    denied: tuple[Matched, ...]


@dataclass(frozen=True)
class _Words:
    idioms: tuple[tuple[re.Pattern[str], str], ...]
    same: dict[str, str]
    empty: frozenset[str]
    general: dict[str, tuple[str, ...]]
    against: frozenset[frozenset[str]]
    drive: frozenset[str]
    everyday: frozenset[str]
    conveyor: frozenset[str]


@cache
def _words() -> _Words:
    told = tomllib.loads((resources.files("tuyere.core.stations.inspect.diagnosis") / "words.toml").read_text(encoding="utf-8"))
    same = {_stem(w): _stem(group[0]) for group in told["same"] for w in group}
    return _Words(
        tuple((re.compile(pattern), word) for pattern, word in told["idioms"]),
        same,
        frozenset(told["empty"].split()),
        {_stem(w): tuple(keys) for w, keys in told["general"].items()},
        frozenset(frozenset(pair) for pair in told["against"]["pairs"]),
        frozenset(_stem(w) for w in told["drive"].split()),
        frozenset(same.get(_stem(w), _stem(w)) for w in told["everyday"].split()),
        frozenset(same.get(_stem(w), _stem(w)) for w in told["conveyor"].split()),
    )


@cache
def _stemmer() -> object:
    return snowballstemmer.stemmer("english")


@cache
def _stem(word: str) -> str:
    return str(_stemmer().stemWord(word))  # type: ignore[attr-defined]


def words_of(text: str) -> list[str]:
    """The telling words of a text, each by the first of its names, stemmed; `not` stays where it stood.

    >>> words_of("The sheave is squealing!"), words_of("it doesn't screech")
    (['wheel', 'squeal'], ['not', 'squeal'])
    """
    known = _words()
    text = text.lower().replace("’", "'")
    for pattern, word in known.idioms:
        text = pattern.sub(word, text)
    found = []
    for w in _WORD.findall(text):
        if w in known.empty and w != NOT:
            continue
        found.append(NOT if w == NOT else _known(_stem(w)))
    return found


@cache
def _known(stem: str) -> str:
    """A stem by the first name of its kind; one slip of the pen forgiven in a long word."""
    same = _words().same
    if stem in same or stem in _vocabulary():
        return same.get(stem, stem)
    if len(stem) >= 6:
        near = sorted(
            (DamerauLevenshtein.distance(stem, other), other)
            for other in (*same, *_vocabulary())
            if stem[0] == other[0] and abs(len(stem) - len(other)) < 2
        )
        if near and near[0][0] <= 1:
            return same.get(near[0][1], near[0][1])
    return stem


@cache
def _vocabulary() -> frozenset[str]:
    """Every stem in which a sign is said."""
    texts = (t for s in knowledge().signs.values() for t in (s.question, *s.said))
    return frozenset(_stem(w) for t in texts for w in _WORD.findall(t.lower()) if len(w) >= 4)


@cache
def _phrases() -> tuple[tuple[tuple[str, frozenset[str]], ...], dict[str, float]]:
    """Every way to say a sign, and how telling a word is: the fewer signs it stands in, the more."""
    signs = knowledge().signs.values()
    general = _words().general

    def own(key: str, phrase: frozenset[str]) -> bool:  # a general word alone says its own kinds
        (word, *more) = phrase or {""}
        return bool(more) or key in general.get(word, (key,))

    said = ((s.key, frozenset(words_of(text))) for s in signs for text in (s.question, *s.said))
    phrases = tuple((key, phrase) for key, phrase in said if own(key, phrase))
    stands_in = Counter(w for s in signs for w in frozenset(w for key, words in phrases if key == s.key for w in words))
    return phrases, {w: math.log(1 + len(signs) / n) * (0.6 if w == NOT else 1.0) for w, n in stands_in.items()}


def _score(said: Sequence[str], phrase: frozenset[str]) -> float:
    """How well a clause says a phrase, 0 to 1: what of the phrase is there, and a little for what of the clause is in it."""
    _, telling = _phrases()
    weight = sum(telling[w] for w in phrase)
    hit = phrase & set(said)
    found = sum(telling[w] for w in hit)
    own = [w for w in hit if w != NOT]
    if not own or not weight or found / weight < _SHARE or found < _TELLING or (len(own) == 1 and len(phrase - {NOT}) > 1):
        return 0.0
    if len(own) == 1 and _adrift(said, own[0]):
        return 0.0
    whole = sum(telling.get(w, 0.0) for w in set(said))
    return found / weight * (0.6 + 0.4 * found / whole)


def _adrift(words: Sequence[str], own: str) -> bool:
    """Whether a clause with one telling word, of every day, speaks of something else: words that no sign knows, and none of a drive."""
    telling, known = _phrases()[1], _words()
    return own in known.everyday and any(w not in telling and w != NOT for w in words) and not set(words) & known.drive


def _denies(words: Sequence[str]) -> list[tuple[list[str], bool]]:
    """A clause in the stretch before a `not` and the stretch that it denies: three words behind it."""
    if NOT not in words:
        return [(list(words), False)]
    at = words.index(NOT)
    rest = [w for w in words[at + 1 :] if w != NOT]
    return [(list(words[:at]), False), (rest[:3], True), (rest[3:], False)]


def _in_clause(words: list[str]) -> tuple[list[Matched], list[Matched]]:
    phrases, _ = _phrases()
    best: dict[str, float] = {}
    for key, phrase in phrases:
        if score := _score(words, phrase) if (NOT in phrase) == (NOT in words) else 0.0:
            best[key] = max(best.get(key, 0.0), score)
    if NOT not in words:
        best = _general(words) | best if not best else {**{k: s for k, s in _general(words).items() if k not in best}, **best}
    if best:
        return _top(best), []
    seen: dict[str, float] = {}
    denied: dict[str, float] = {}
    for part, no in _denies(words):
        found: dict[str, float] = {}
        for key, phrase in phrases:
            if NOT not in phrase and (score := _score(part, phrase)):
                found[key] = max(found.get(key, 0.0), score)
        found = {**_general(part), **found}
        into = denied if no else seen
        for one in _top(found, 3 if no else _MOST):
            into[one.key] = max(into.get(one.key, 0.0), one.score)
    return _top(seen, 3), _top(denied, 3)


def _general(words: Sequence[str]) -> dict[str, float]:
    """What a general word may mean: its kinds, the likeliest first, under what is said in more words."""
    general = _words().general
    found: dict[str, float] = {}
    for w in words:
        if w in general and not _adrift(words, w):
            for rank, key in enumerate(general[w]):
                found[key] = max(found.get(key, 0.0), _GENERAL - 0.02 * rank)
    return found


def _top(found: dict[str, float], most: int = _MOST) -> list[Matched]:
    """The best, and what lies near it; of two contraries the likelier."""
    ordered = sorted((Matched(k, round(s, 4)) for k, s in found.items()), key=lambda m: (-m.score, m.key))
    kept: list[Matched] = []
    for one in ordered:
        if one.score < _NEAR * ordered[0].score or len(kept) == most:
            break
        if not any(frozenset((one.key, k.key)) in _words().against for k in kept):
            kept.append(one)
    return kept


def hear(sentence: str) -> Heard:
    """What a sentence says and what it denies.

    >>> [m.key for m in hear("no squeal, just hot belt").seen][0], [m.key for m in hear("no squeal, just hot belt").denied][0]
    ('hot_belt', 'just_squeals')
    """
    seen: dict[str, float] = {}
    denied: dict[str, float] = {}
    for clause in _CLAUSE.split(sentence.lower().replace("’", "'")):
        if not clause or not clause.strip():
            continue
        parts = [words_of(clause)]
        halves = _with_their_subject([words_of(half) for half in _BOTH.split(clause)])
        if len(halves) > 1 and all(_in_clause(h)[0] or _in_clause(h)[1] for h in halves if h):
            parts = halves
        for words in parts:
            said, not_so = _in_clause(words)
            for one in said:
                seen[one.key] = max(seen.get(one.key, 0.0), one.score)
            for one in not_so:
                denied[one.key] = max(denied.get(one.key, 0.0), one.score)
    kinds = _kinds_spoken_of(sentence)
    seen = {k: s for k, s in seen.items() if k not in denied and not kinds.isdisjoint(knowledge().signs[k].families)}
    denied = {k: s for k, s in denied.items() if not kinds.isdisjoint(knowledge().signs[k].families)}
    order = sorted((Matched(k, min(1.0, s)) for k, s in seen.items()), key=lambda m: (-m.score, m.key))
    return Heard(tuple(order), tuple(sorted((Matched(k, s) for k, s in denied.items()), key=lambda m: (-m.score, m.key))))


def _with_their_subject(halves: list[list[str]]) -> list[list[str]]:
    """What stands behind an "and" is said of what stood before it, where it names nothing of its own."""
    nouns = _words().drive
    subject = next((w for w in halves[0] if w in nouns), None)
    return [h if i == 0 or subject is None or nouns & set(h) else [subject, *h] for i, h in enumerate(halves)]


def _kinds_spoken_of(sentence: str) -> set[str]:
    """Whose signs may be meant: who says belt means no chain, and a conveyor's own are meant where one is named."""
    said = set(words_of(sentence))
    kinds: set[str] = set(FAMILIES)
    if not said & _words().conveyor:
        kinds.discard("conveyor")
    belt, chain = bool(said & {"belt", "toothedbelt"}), "chain" in said
    if belt and not chain:
        kinds -= {"chain", "conveyor"}
    if chain and not belt:
        kinds &= {"chain", "conveyor"}
    return kinds


def match(sentence: str) -> list[Matched]:
    """Signs that a sentence may mean, best first; none where nothing fits.

    >>> match("it is a nice day")
    []
    >>> match("the belt screeches when it starts")[0].key
    'squeal_start'
    """
    return list(hear(sentence).seen)
