"""The core on the command line: open files come in, one JSON value on standard output goes out.

    python -m yenzo.core schema setup|entries|manifest
    python -m yenzo.core check   SETUP ENTRIES
    python -m yenzo.core quote   SETUP ENTRIES [--pieces N]
    python -m yenzo.core render  SETUP ENTRIES (--side KEY | --area KEY) --format svg|png|pdf --out FILE
    python -m yenzo.core inspect FILE...

Exit 0: done; 1: something blocks or is refused; 2: unreadable input, told on standard error in words.
"""

import argparse
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Any

from yenzo.core.artwork.inspect import inspect_artwork
from yenzo.core.asking.ask import Context
from yenzo.core.documents.assets import FolderAssets
from yenzo.core.documents.faults import missing_materials
from yenzo.core.documents.reading import read_entries, read_setup
from yenzo.core.documents.schema import entries_schema, setup_schema
from yenzo.core.errors import ArtworkError, DocumentError, RenderError
from yenzo.core.evaluation import Evaluation, evaluate
from yenzo.core.measure import MM_PER_INCH
from yenzo.core.planning.manifest import manifest_schema
from yenzo.core.render.files import render_file
from yenzo.core.render.page import Page, area_page, side_page

SHIPPED_TYPEFACES = Path(__file__).parent.parent / "materials" / "typefaces"
SIDE_DPI = 150
# Large goods are shown with fewer pixels to the inch: a picture of a whole side is for looking at.
MOST_SIDE_PX = 9000
LATER = {"trial": "The trial run can't be made on the command line yet."}
SCHEMAS: dict[str, Callable[[], dict[str, Any]]] = {
    "setup": setup_schema,
    "entries": entries_schema,
    "manifest": manifest_schema,
}


@dataclass(frozen=True)
class Outcome:
    """What a command has to say, and its exit status."""

    value: Any
    status: int = 0


def run(arguments: list[str]) -> Outcome:
    """Carry out a command line; raises YenzoError for input that can't be read or made."""
    if arguments and arguments[0] in LATER:
        raise RenderError("later", arguments[0], LATER[arguments[0]])
    options = _parser().parse_args(arguments)
    outcome: Outcome = options.command(options)
    return outcome


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="python -m yenzo.core", description="Yenzo's core on open files.")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")
    schema = commands.add_parser("schema", help="print a published JSON Schema")
    schema.add_argument("name", choices=sorted(SCHEMAS))
    schema.set_defaults(command=_schema)
    for name, command, words in (
        ("check", _check, "problems, findings and questions; exit 1 if something blocks"),
        ("quote", _quote, "the price with its lines"),
        ("render", _render, "make a file of a side or an area"),
    ):
        sub = commands.add_parser(name, help=words)
        sub.add_argument("setup", type=Path)
        sub.add_argument("entries", type=Path)
        sub.set_defaults(command=command)
        if name == "quote":
            sub.add_argument("--pieces", type=int)
        if name == "render":
            _render_options(sub)
    inspect = commands.add_parser("inspect", help="look at artwork files; exit 1 if one is refused")
    inspect.add_argument("files", type=Path, nargs="+")
    inspect.set_defaults(command=_inspect)
    return parser


def _render_options(parser: argparse.ArgumentParser) -> None:
    target = parser.add_mutually_exclusive_group(required=True)
    target.add_argument("--side")
    target.add_argument("--area")
    parser.add_argument("--format", required=True)
    parser.add_argument("--out", type=Path, required=True)


def _schema(options: argparse.Namespace) -> Outcome:
    return Outcome(SCHEMAS[options.name]())


def _check(options: argparse.Namespace) -> Outcome:
    evaluation, _ = _evaluate(options)
    value = {
        "asked": list(evaluation.asked.values),
        "problems": [problem.model_dump() for problem in evaluation.verdict.problems],
        "findings": [finding.model_dump() for finding in evaluation.verdict.findings],
        "questions": [
            one.model_dump(include={"field", "code", "message", "suggestion"})
            for one in evaluation.questions
            if not one.is_meant
        ],
        "scenes": {side.key: side.digest for side in evaluation.scene.sides},
    }
    return Outcome(value, 1 if evaluation.verdict.blocked else 0)


def _quote(options: argparse.Namespace) -> Outcome:
    evaluation, _ = _evaluate(options, pieces=options.pieces)
    return Outcome(evaluation.quote.model_dump(mode="json"))


def _render(options: argparse.Namespace) -> Outcome:
    evaluation, assets = _evaluate(options)
    page, dpi = _page(evaluation, options)
    data = render_file(page, assets, options.format, dpi=dpi)
    try:
        options.out.write_bytes(data)
    except OSError as error:
        message = f"“{options.out}” can't be written: {error.strerror}."
        raise RenderError("unwritable", str(options.out), message) from error
    made = {
        "file": str(options.out),
        "width_mm": page.width_mm,
        "height_mm": page.height_mm,
        "bytes": len(data),
    }
    return Outcome(made)


def _page(evaluation: Evaluation, options: argparse.Namespace) -> tuple[Page, float]:
    if options.side is not None:
        side = evaluation.scene.side(options.side)
        if side is None:
            raise _unknown("side", options.side, [side.key for side in evaluation.scene.sides])
        longest = max(side.width_mm, side.height_mm) / MM_PER_INCH
        return side_page(side, with_goods=True), min(SIDE_DPI, MOST_SIDE_PX / longest)
    # An area is named by its key, or by side/key where two sides have one of that name.
    named = {f"{area.side}/{area.key}": area for area in evaluation.scene.areas}
    found = [area for name, area in named.items() if options.area in {name, area.key}]
    if len(found) != 1:
        raise _unknown("area", options.area, list(named))
    return area_page(found[0]), found[0].area.dpi


def _unknown(what: str, key: str, known: list[str]) -> DocumentError:
    said = ", ".join(known) or "none"
    return DocumentError("unknown", key, f"The set-up has no {what} “{key}” (or several). There are: {said}.")


def _inspect(options: argparse.Namespace) -> Outcome:
    values = [_inspect_one(path) for path in options.files]
    status = 1 if any("refusal" in value for value in values) else 0
    return Outcome(values[0] if len(values) == 1 else values, status)


def _inspect_one(path: Path) -> dict[str, Any]:
    try:
        facts = inspect_artwork(path).facts
    except ArtworkError as error:
        return {"file": str(path), "refusal": {"code": error.code, "message": error.message}}
    return {"file": str(path), **facts.model_dump()}


def _evaluate(options: argparse.Namespace, pieces: int | None = None) -> tuple[Evaluation, FolderAssets]:
    setup = read_setup(_read(options.setup))
    faults = missing_materials(setup)
    if faults:
        raise DocumentError("materials_missing", str(options.setup), " ".join(faults))
    entries = read_entries(_read(options.entries))
    if pieces is not None:
        entries = read_entries({**entries.model_dump(mode="json", by_alias=True), "pieces": pieces})
    assets = _assets(options.setup, options.entries)
    return evaluate(setup, entries, assets, Context(today=datetime.now().astimezone().date())), assets


def _assets(setup: Path, entries: Path) -> FolderAssets:
    beside = [folder / name for folder in (setup.parent, entries.parent) for name in ("assets", "")]
    return FolderAssets([*beside, SHIPPED_TYPEFACES])


def _read(path: Path) -> bytes:
    try:
        return path.read_bytes()
    except OSError as error:
        raise DocumentError("unreadable", str(path), f"“{path}” can't be read: {error.strerror}.") from error
