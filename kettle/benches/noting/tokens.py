"""Typed words as tokens: the trade's short forms written out, numbers of things joined to them, what says nothing left out."""

import re
from functools import cache
from typing import Final

from rapidfuzz import fuzz

from kettle.knowledge.said import FOLDED, SILENT

# A word is another one misspelt from so much on (of 100); shorter words are only themselves.
SPELT: Final = 88.0
LEAST_LETTERS: Final = 5
_OWN: Final = re.compile(r"[’']s\b")
_PAIRS: Final = {"12": "12", "21": "12", "23": "23", "32": "23", "31": "31", "13": "31"}
_JOINED: Final = (
    # L1–L2, T1 T2, volts between L1 and L2: pairs of lines; the side is said by the letter.
    (
        re.compile(
            r"\b(?:(?:(?:line|load)\s+)?volt(?:s|age)?\s+(?:(?:at|on|between|from|across)\s+)?)?"
            r"([lt])\s*([123])\s*(?:to\b|and\b|[-–/])?\s*\1?\s*([123])\b"
        ),
        lambda m: _pair(_side(m[1]), m[2] + m[3]),
    ),
    (re.compile(r"\b(line|load)(?: (?:volts|side))*\s*([123])\s*[-–/ ]\s*([123])\b"), lambda m: _pair(m[1], m[2] + m[3])),
    (re.compile(r"\b(1[0-2]|[1-9])\s*o\s?clock\b"), lambda m: f" oclock{m[1]} "),
    (re.compile(r"\b(fan|door|pole|leg|element)\s*(?:no\.?|#)?\s*([1-9])\b(?![.,]?\d)"), lambda m: f" {m[1]}{m[2]} "),
    (re.compile(r"\b([crs])\s*(?:to|[-–/])\s*([crsg])\b"), lambda m: f" {m[1]} {m[2]} "),
)  # fmt: skip


def _pair(side: str, phases: str) -> str:
    return f" {side} p{_PAIRS.get(phases, phases)} "


def _side(letter: str) -> str:
    return "line" if letter == "l" else "load"


def joined(text: str) -> str:
    """Return what was typed in small letters, with the numbers of things joined to them: "fan 2" one word, "L1-L2" a pair of the line."""
    text = _OWN.sub("", text.lower()).replace("’", "").replace("'", "").replace("−", "-")
    for pattern, made in _JOINED:
        text = pattern.sub(made, text)
    return " ".join(text.split())


@cache
def tokens(text: str) -> tuple[str, ...]:
    """Return the words that say something, short forms written out, in order; digits by themselves are left to whoever reads figures."""
    found: list[str] = []
    for word in re.sub(r"[^\w°%Ω./+-]", " ", joined(text)).split():
        for part in re.split(r"[-/.+]", word):
            found += FOLDED.get(part, part).split()
    return tuple(_one(word) for word in found if word and word not in SILENT)


def _one(word: str) -> str:
    """A plural as one of it; fans are several, and one fan may be any."""
    several = len(word) > 3 and word.endswith("s") and not word.endswith(("ss", "us", "is")) and word not in ("fans", "iced")
    return word[:-1] if several else word


def spelt(word: str, vocabulary: frozenset[str]) -> str:
    """Return the known word that a typed one is, misspelt or not; itself where it is none."""
    if word in vocabulary or len(word) < LEAST_LETTERS:
        return word
    near = max(vocabulary, key=lambda known: (fuzz.ratio(word, known), known), default=word)
    return near if fuzz.ratio(word, near) >= SPELT else word
