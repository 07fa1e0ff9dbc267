"""What a docstring of the core leaves unsaid: python tools/docstrings.py.

A public function or method says what its figures are measured in, by its name (`_f`, `_psig`) or in words, and which error it raises; one
that `import kettle` hands on says in sections what it takes, returns and raises.
"""

import ast
import os
import re
import sys
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Final

ROOT: Final = Path(__file__).parent.parent
FRONT: Final = "kettle/front.py"
# Units at the end of a name.
NAMED: Final = re.compile(
    r"_(f|psig|psia|psi|lb|oz|gal|min|h|s|a|v|w|kw|kwh|ohm|uf|ft|ft2|ft3|in|pct|share|btu|btu_h|cfm|turns|microns|minutes|hours)$|^turns$"
)
# Units, and figures that have none, in words.
SAID: Final = re.compile(
    r"°F|°C|\bpsi[ga]?\b|\binHg\b|\bft[²³]?\b|\bin\b(?=[.,;]|$)|\blbs?\b|\boz\b|\bgal\b|\bBtu|\bkW|\bW\b|\bA\b|\bV\b|Ω|µF|\bmin\b|\bhours?\b|\bh\b"
    r"|\bs\b|\bcfm\b|%|\bminutes?\b|\bseconds?\b|\bounces?\b|\bpounds?\b|\bamps\b|\bvolts\b|\bohms\b|\bmicrons?\b|\bmicrofarads\b|\bturns?\b"
    r"|\bshares?\b|\b0 to 1\b|\bsum to one\b|\bprobab|\bchances?\b|\blikel|\bbits?\b|\blog\b|\blogs\b|\bfactors?\b|\bratios?\b|\bcounts?\b"
    r"|\bunits? of\b|\bin (its|their) units?\b|\bprices?\b|\bmoney\b|\bdays?\b|\bdrawing\b"
)


def functions(tree: ast.AST) -> Iterator[ast.FunctionDef]:
    """Yield the public functions of a module and the public methods of its public classes."""
    for node in ast.iter_child_nodes(tree):
        if isinstance(node, ast.ClassDef) and not node.name.startswith("_"):
            yield from functions(node)
        if isinstance(node, ast.FunctionDef) and not node.name.startswith("_"):
            yield node


def _raised(body: Sequence[ast.AST]) -> Iterator[str]:
    """Yield what leaves these statements as an error, in words; not what is caught beside it."""
    for node in body:
        if isinstance(node, ast.Raise) and node.exc is not None:
            yield ast.unparse(node.exc)
        inside = list(ast.iter_child_nodes(node))
        if isinstance(node, ast.Try) and node.handlers:
            inside = [one for one in inside if one not in node.body]
        yield from _raised(inside)


def unsaid(function: ast.FunctionDef, handed_on: bool = False) -> list[str]:
    """Return what the docstring of a function leaves unsaid, in words."""
    said = ast.get_docstring(function) or ""
    returns = ast.unparse(function.returns) if function.returns else ""
    missing = []
    if re.search(r"\bfloat\b|\bFigures\b", returns) and not NAMED.search(function.name) and not SAID.search(said):
        missing.append("no unit of what it returns")
    if any("Error" in one for one in _raised(function.body)) and "Error" not in said:
        missing.append("no error, though it raises one")
    if handed_on:
        takes = [one.arg for one in (*function.args.args, *function.args.kwonlyargs)]
        sections = (["Parameters"] if takes else []) + ["Returns", "Examples"]
        missing += [f"no section “{name}”" for name in sections if f"{name}\n{'-' * len(name)}" not in said]
        missing += [f"not a word of {one}" for one in takes if not re.search(rf"\b{one}\b", said)]
    return missing


def found(folder: Path, front: Path | None = None) -> list[str]:
    """Return what is unsaid in a folder of modules, each with file, line and name; `front` is the module held to sections."""
    told = []
    for path in sorted(folder.rglob("*.py")):
        for one in functions(ast.parse(path.read_text())):
            told += [f"{os.path.relpath(path, ROOT)}:{one.lineno}: {one.name}: {what}" for what in unsaid(one, path == front)]
    return told


def main() -> int:
    """Print what is unsaid in the core; 1 where anything is."""
    told = found(ROOT / "kettle", ROOT / FRONT)
    print("\n".join(told), end="\n" if told else "")
    return 1 if told else 0


if __name__ == "__main__":
    sys.exit(main())
