"""A sentence in somebody's own words to the signs that it may mean: stemmed words, weighed by how telling they are, small slips of the pen forgiven."""

import math
import re
from collections import Counter
from functools import cache
from typing import NamedTuple

import snowballstemmer
from rapidfuzz.distance import DamerauLevenshtein

from tuyere.core.diagnosis.knowledge import knowledge

_WORD = re.compile(r"[a-z]+")
# Words that say nothing of a drive by themselves.
_EMPTY = frozenset(
    [
        "a",
        "an",
        "the",
        "it",
        "its",
        "is",
        "are",
        "was",
        "were",
        "be",
        "been",
        "of",
        "on",
        "in",
        "at",
        "to",
        "and",
        "or",
        "for",
        "with",
        "from",
        "by",
        "as",
        "that",
        "this",
        "my",
        "our",
        "we",
        "i",
        "he",
        "she",
        "they",
        "has",
        "have",
        "had",
        "do",
        "does",
        "did",
        "so",
        "very",
        "just",
        "then",
        "than",
        "when",
        "while",
        "where",
        "there",
        "here",
        "up",
        "out",
        "off",
        "all",
        "any",
        "some",
        "not",
        "no",
        "too",
        "got",
        "get",
        "gets",
        "goes",
        "go",
        "after",
        "before",
        "again",
        "them",
        "their",
    ]
)
# One thing by several names.
_SAME = {
    "pulley": "wheel", "sheave": "wheel", "pulleys": "wheel", "sheaves": "wheel", "wheels": "wheel", "strand": "belt", "belts": "belt",
    "screech": "squeal", "screeches": "squeal", "screeching": "squeal", "scream": "squeal", "screams": "squeal", "screaming": "squeal",
    "shriek": "squeal", "shrieks": "squeal", "loose": "slack", "looseness": "slack", "slackened": "slack", "floppy": "flop", "ripped": "torn",
    "broke": "break", "broken": "break", "breaks": "break", "snaps": "snap", "snapped": "snap", "burning": "burn", "burnt": "burn", "burned": "burn",
    "worn": "wear", "wears": "wear", "stretches": "stretch", "spins": "turn", "spin": "turn", "spinning": "turn", "turns": "turn", "engine": "motor",
    "startup": "start", "crankshaft": "crank", "sprockets": "sprocket", "hums": "hum", "humming": "hum", "shakes": "vibrate", "shaking": "vibrate",
    "shaky": "vibrate", "came": "come", "fell": "fall", "threw": "throw", "thrown": "throw", "ran": "run", "ate": "eat", "tore": "torn",
}  # fmt: skip
_LEAST = 0.5  # of a phrase's weight that must be in the sentence
_ALONE = 0.9  # and where it is one word alone


class Matched(NamedTuple):
    """A sign and how well it fits, 0 to 1."""

    key: str
    score: float


@cache
def _stemmer() -> object:
    return snowballstemmer.stemmer("english")


def words_of(text: str) -> list[str]:
    """The telling words of a text, stemmed.

    >>> words_of("The sheave is squealing!")
    ['wheel', 'squeal']
    """
    plain = [_SAME.get(w, w) for w in _WORD.findall(text.lower()) if w not in _EMPTY]
    return [str(w) for w in _stemmer().stemWords(plain)]  # type: ignore[attr-defined]


@cache
def _phrases() -> tuple[tuple[tuple[str, frozenset[str]], ...], dict[str, float]]:
    """Every way to say a sign, and how telling a word is: the fewer signs it stands in, the more."""
    signs = knowledge().signs.values()
    phrases = tuple((s.key, frozenset(words_of(text))) for s in signs for text in (s.question, *s.said))
    stands_in = Counter(w for s in signs for w in frozenset(w for key, words in phrases if key == s.key for w in words))
    return phrases, {w: math.log(1 + len(signs) / n) for w, n in stands_in.items()}


def _alike(a: str, b: str) -> bool:
    """The same word, or one slip of the pen in a long one."""
    return a == b or (min(len(a), len(b)) >= 5 and a[0] == b[0] and DamerauLevenshtein.distance(a, b) <= 1)


def match(sentence: str) -> list[Matched]:
    """Signs that a sentence may mean, best first; none where nothing fits.

    >>> match("it is a nice day")
    []
    >>> match("the belt screeches when it starts")[0].key
    'squeal_start'
    """
    said = frozenset(words_of(sentence))
    phrases, telling = _phrases()
    best: dict[str, float] = {}
    for key, words in phrases:
        weight = sum(telling[w] for w in words)
        hit = [w for w in words if any(_alike(w, s) for s in said)]
        found = sum(telling[w] for w in hit)
        # One common word is not a sign; what the sentence says beside it counts a little against.
        if not weight or found / weight < (_LEAST if len(hit) > 1 else _ALONE) or found < 2.2:
            continue
        score = found / weight * (1 - 0.25 / (1 + len(hit)))
        best[key] = max(best.get(key, 0.0), score)
    return sorted((Matched(k, round(s, 4)) for k, s in best.items()), key=lambda m: (-m.score, m.key))
