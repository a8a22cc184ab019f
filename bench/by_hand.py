"""By hand: a side with 40 areas and 80 own items is made; what holding one of them costs is measured."""

import json
import statistics
import time
from collections.abc import Callable, Iterator
from typing import Any

from demo.installation import ROOT
from yenzo.core.documents.assets import FolderAssets
from yenzo.core.documents.reading import dump_document, read_entries, read_setup
from yenzo.core.documents.setup import Setup
from yenzo.core.evaluation import evaluate
from yenzo.core.render.page import side_page
from yenzo.core.render.svg import ink_for_hands

TOTE = ROOT / "demo" / "products" / "canvas-tote"
AREAS, ITEMS, COMPOSED = 40, 80, 30
DRAWINGS = ("herring", "crab", "tern", "whelk", "kelp")


def composition(count: int, places: list[str]) -> list[dict[str, Any]]:
    """Return so many items, texts and drawings in turn, spread over placements."""
    items: list[dict[str, Any]] = []
    for number in range(count):
        item: dict[str, Any] = {"key": f"i{number}", "place": places[number % len(places)]}
        if number % 2:
            drawing = DRAWINGS[number % len(DRAWINGS)]
            item |= {
                "kind": "drawing",
                "collection": "sea-life",
                "drawing": drawing,
                "width_mm": 30,
                "turn_deg": number,
            }
        else:
            item |= {"kind": "text", "text": f"Salt {number}", "letter_mm": 8}
        items.append(item)
    return items


def tote() -> dict[str, Any]:
    """Return the demo's tote as a document."""
    document: dict[str, Any] = json.loads((TOTE / "setup.json").read_text())
    return document


def crowded() -> Setup:
    """Return a tote whose front has 40 areas, and an arrangement of 80 items to begin from."""
    document = tote()
    front, field = document["sides"][0], document["fields"][0]
    area = {**front["areas"][0], "width_mm": 30, "height_mm": 34, "safe_mm": 1}
    front["areas"] = [
        {
            **area,
            "key": f"a{number}",
            "name": f"Area {number}",
            "x_mm": 50 + number % 8 * 40,
            "y_mm": 150 + number // 8 * 60,
        }
        for number in range(AREAS)
    ]
    places = [one["key"] for one in front["areas"]]
    document["placements"] = [
        {"kind": "own_items", "key": key, "field": "own", "side": "front", "area": key} for key in places
    ]
    field |= {"most": 100, "beginnings": [{"key": "crowd", "name": "Crowd", "items": composition(ITEMS, places)}]}
    field["texts"]["most"] = field["drawings"]["most"] = 100
    field["drawings"]["collections"], field["texts"]["letters"] = ["sea-life"], {"least_mm": 2, "most_mm": 70}
    return read_setup(document)


def crowded_document() -> dict[str, Any]:
    """Return that set-up as it is imported."""
    return dump_document(crowded())


def core_rows(milliseconds: Callable[..., list[float]]) -> Iterator[tuple[str, float, float, str]]:
    """Measure the core's part of a preview of 30 items, one of which moves."""
    shelf = FolderAssets([TOTE / "assets", ROOT / "yenzo" / "materials" / "typefaces"])
    setup, items = read_setup(tote()), composition(COMPOSED, ["front"])
    for number, item in enumerate(items):
        item |= {"x_mm": 30 + 6 * number, "y_mm": 20 + 8 * number}
    step = iter(range(10_000))

    def preview() -> None:
        """Move the first item a little, and make what the browser would get."""
        moved = [{**items[0], "x_mm": 40 + next(step) / 10}, *items[1:]]
        evaluation = evaluate(setup, read_entries({"values": {}, "items": {"own": moved}}), shelf)
        ink_for_hands(side_page(evaluation.scene.sides[0], with_goods=False), str, 1500)

    taken = statistics.median(milliseconds(preview, times=60))
    yield f"core: preview of {COMPOSED} own items, one moved, median", 12, taken, "ms"


def request_rows(send: Callable[[dict[str, str]], float]) -> Iterator[tuple[str, float, float, str]]:
    """Measure preview requests of 30 items, one of which moves."""
    items, taken = composition(COMPOSED, ["front"]), []
    for number, item in enumerate(items):
        item |= {"x_mm": 30 + 6 * number, "y_mm": 20 + 8 * number}
    for number in range(80):
        hands = {"items": {"own": [{**items[0], "x_mm": 40 + number / 10}, *items[1:]]}}
        taken.append(send({"hands": json.dumps(hands)}))
        time.sleep(0.01)
    yield f"preview request of {COMPOSED} own items, p95", 60, statistics.quantiles(taken[20:], n=20)[-1], "ms"
