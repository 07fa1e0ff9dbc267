"""Cut the base library's style sheet down to what the templates use of it: half a megabyte is parsed on every page of a phone otherwise.

Run from the project folder: python tools/trim_bulma.py [--check]

Kept: rules of plain elements, and those whose every class stands in a class attribute of a template or is set by a script; of its variables
those that a kept rule asks for.
"""

import re
import sys
from collections.abc import Iterable
from pathlib import Path
from typing import Any

import tinycss2

ROOT = Path(__file__).parent.parent
WHOLE, CUT = ROOT / "tools/vendor/bulma.min.css", ROOT / "web/static/vendor/bulma.min.css"
CLASS_ATTRIBUTE = re.compile(r'class="((?:\{[{%].*?[}%]\}|[^"])*)"', re.S)
SET_BY_SCRIPT = re.compile(r"classList\.\w+\(([^)]*)\)|className\s*=\s*([^;]+);")
WORD = re.compile(r"[A-Za-z][\w-]*")
SELECTOR_CLASS = re.compile(r"\.([A-Za-z][\w-]*)")
ASKED_FOR = re.compile(r"var\(\s*(--[\w-]+)")
# Themes by attribute: ours are tokens.css.
ANOTHER_THEME = re.compile(r"\[data-theme|\.theme-")


def used_classes() -> set[str]:
    """Return every word that can be a class of an element of ours."""
    found: set[str] = set()
    for path in (*ROOT.glob("web/**/*.html"), *ROOT.glob("web/**/*.svg")):
        for value in CLASS_ATTRIBUTE.findall(path.read_text()):
            found |= set(WORD.findall(value))
    for path in (*ROOT.glob("web/static/js/*.js"), *ROOT.glob("web/benches/*/static/*/*.js")):
        for one, other in SET_BY_SCRIPT.findall(path.read_text()):
            found |= set(WORD.findall(one + other))
    return found


def cut(sheet: str, classes: set[str], asked_elsewhere: str = "") -> str:
    """Return a style sheet with nothing in it but what those classes and plain elements need; `asked_elsewhere` is other text that may ask
    for its variables."""
    kept = _rules(tinycss2.parse_stylesheet(sheet, skip_comments=True, skip_whitespace=True), classes)
    asked = set(ASKED_FOR.findall(asked_elsewhere))
    bodies = [declaration for _, declarations in _flat(kept) for declaration in declarations]
    while True:
        more = {name for key, value in bodies if not key.startswith("--") or key in asked for name in ASKED_FOR.findall(value)} - asked
        if not more:
            return "\n".join(_written(kept, asked)) + "\n"
        asked |= more


def _rules(nodes: Iterable[Any], classes: set[str]) -> list[Any]:
    """The rules kept: (prelude, declarations) or, of an at-rule, (at-word and prelude, rules) or its text alone."""
    kept: list[Any] = []
    for node in nodes:
        prelude = tinycss2.serialize(node.prelude).strip() if hasattr(node, "prelude") else ""
        if node.type == "qualified-rule":
            selectors = [one.strip() for one in _split(prelude) if _is_used(one, classes)]
            declarations = [
                (one.name, tinycss2.serialize(one.value).strip() + (" !important" if one.important else ""))
                for one in tinycss2.parse_declaration_list(node.content, skip_comments=True, skip_whitespace=True)
                if one.type == "declaration"
            ]
            if selectors and declarations:
                kept.append((",".join(selectors), declarations))
        elif node.type == "at-rule" and node.at_keyword in ("media", "supports"):
            inner = _rules(tinycss2.parse_rule_list(node.content, skip_comments=True, skip_whitespace=True), classes)
            if inner:
                kept.append((f"@{node.at_keyword} {prelude}", inner))
        elif node.type == "at-rule":
            kept.append(f"@{node.at_keyword} {prelude}{{{tinycss2.serialize(node.content or [])}}}")
    return kept


def _split(prelude: str) -> list[str]:
    """The selectors of a rule, parted at its commas but not at those inside brackets."""
    parts, depth = [""], 0
    for letter in prelude:
        depth += (letter in "([") - (letter in ")]")
        if letter == "," and not depth:
            parts.append("")
        else:
            parts[-1] += letter
    return parts


def _is_used(selector: str, classes: set[str]) -> bool:
    outside = re.sub(r":(not|where|is)\([^)]*\)", "", selector)
    return not ANOTHER_THEME.search(selector) and set(SELECTOR_CLASS.findall(outside)) <= classes


def _flat(rules: list[Any]) -> Iterable[tuple[str, list[tuple[str, str]]]]:
    for rule in rules:
        if isinstance(rule, tuple) and rule[0].startswith("@"):
            yield from _flat(rule[1])
        elif isinstance(rule, tuple):
            yield rule


def _written(rules: list[Any], asked: set[str]) -> Iterable[str]:
    for rule in rules:
        if isinstance(rule, str):
            # An animation is kept where one of its name is set.
            name = rule.split("{")[0].split()[-1]
            if any(name in value for _, body in _flat(rules) for _, value in body):
                yield rule
        elif rule[0].startswith("@"):
            inner = list(_written(rule[1], asked))
            if inner:
                yield f"{rule[0]}{{{''.join(inner)}}}"
        else:
            body = ";".join(f"{key}:{value}" for key, value in rule[1] if not key.startswith("--") or key in asked)
            if body:
                yield f"{rule[0]}{{{body}}}"


def main() -> int:
    """Write the sheet that is shipped; with --check say whether it is what would be written."""
    own = "".join(path.read_text() for path in (*ROOT.glob("web/static/css/*.css"), *ROOT.glob("web/benches/*/static/*/*.css")))
    whole = WHOLE.read_text()
    made = whole[: whole.index("*/") + 2] + "\n" + cut(whole, used_classes(), own)
    if "--check" in sys.argv:
        if CUT.read_text() != made:
            print("web/static/vendor/bulma.min.css is not what the templates use: python tools/trim_bulma.py")
            return 1
        return 0
    CUT.write_text(made)
    print(f"{len(whole)} letters of the whole sheet, {len(made)} kept")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
