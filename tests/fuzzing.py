"""Random documents through the whole core: whatever they say, an error of ours or files come out, in good time.

`make fuzz` runs ten thousand (`python -m tests.fuzzing 10000 [first seed]`), the tests some dozens.
"""

import random
import sys
import tempfile
from pathlib import Path
from time import perf_counter

from tests.core.conftest import GOODS, PHOTO, TYPEFACES, board, entries, upload
from yenzo.core.documents.assets import FolderAssets
from yenzo.core.documents.reading import dump_document, read_setup
from yenzo.core.errors import YenzoError
from yenzo.core.evaluation import evaluate
from yenzo.core.planning.plates import plates_of
from yenzo.core.render.files import FORMATS, render_file
from yenzo.core.render.page import side_page

MOST_SECONDS = 5.0
ALPHABETS = (
    "ABCDEFGHIJKLMNOPQRSTUVWXYZ &-'",
    "abcdefghijklmnopqrstuvwxyzäöüßéñ .,",
    "مرحبا بالعالم اهلا وسهلا",
    "שלום עולם 0123456789",
    "Čайка船😀👩‍👩‍👧 ﷽\u200d\u202e",
    "0O1lI|.·—",
)


def number(dice, low, high):
    """A number that is mostly sensible, sometimes at the very edge."""
    return dice.choice([low, high, round(dice.uniform(low, high), 3), round(dice.uniform(low, high), 3)])


def text(dice):
    """Some letters of some script; now and then none, or very many."""
    length = dice.choice([0, 1, 3, 8, 12, 20, 60, 400])
    return "".join(dice.choices(dice.choice(ALPHABETS), k=length))


def color(dice):
    return dice.choice([{"field": "finish"}, {"palette": "finishes", "color": dice.choice(["gold", "white"])}])


def effects(dice):
    made = {}
    if dice.random() < 0.3:
        place = dice.choice(["outside", "centered"])
        made["stroke"] = {"width_mm": number(dice, 0.05, 12), "color": color(dice), "place": place}
    if dice.random() < 0.2:
        made["shadow"] = {"across_mm": number(dice, -20, 20), "down_mm": number(dice, -20, 20), "color": color(dice)}
    if dice.random() < 0.2:
        plate = {"margin_mm": number(dice, 0, 30), "corner_mm": number(dice, 0, 60), "color": color(dice)}
        made["plate"] = {**plate, "knock_out": dice.random() < 0.5}
    if dice.random() < 0.3:
        fill = {"kind": dice.choice(["gradient", "stripes", "dots", "checks"]), "color": color(dice)}
        size = {} if fill["kind"] == "gradient" else {"size_mm": number(dice, 0.5, 40)}
        made["fill"] = {**fill, **size, "angle_deg": number(dice, -360, 360)}
    return made


def layout(dice, width, height):
    least = number(dice, 0.5, 30)
    made = {"least_mm": least, "most_mm": least + number(dice, 0, 80), "letter_spacing": number(dice, -10, 60)}
    kind = dice.choice(["line", "base", "block", "arc", "curve", "edge", "stack"])
    if kind == "base":
        base = {
            "x_mm": number(dice, -50, width),
            "y_mm": number(dice, 0, height),
            "length_mm": number(dice, 0.1, width),
        }
        made |= {"kind": "line", "base_line": {**base, "angle_deg": number(dice, -360, 360)}}
    elif kind == "block":
        align = dice.choice(["left", "center", "right", "justified"])
        made |= {"kind": "block", "align": align, "line_spacing": number(dice, 1, 4), "least_letter_spacing": -5}
    elif kind == "arc":
        stand = dice.choice(["over", "under", "inside", "inside_under"])
        circle = {"x_mm": number(dice, 0, width), "y_mm": number(dice, 0, height), "radius_mm": number(dice, 0.1, 900)}
        angles = {"middle_deg": number(dice, -360, 360), "spread_deg": number(dice, 1, 360)}
        made |= {"kind": "arc", **circle, **angles, "stand": stand}
    elif kind == "edge":
        made |= {"kind": "edge", "middle_deg": number(dice, -360, 360), "tops": dice.choice(["out", "in"])}
    elif kind == "curve":
        count = dice.choice([4, 7, 10])
        points = [[number(dice, 0, width), number(dice, 0, height)] for _ in range(count)]
        made |= {"kind": "curve", "points": points}
    else:
        made["kind"] = kind
    return made


def area(dice, width, height):
    shapes = [
        {"kind": "rectangle", "corner_mm": number(dice, 0, min(width, height) / 2)},
        {"kind": "ellipse"},
        {"kind": "ring", "hole": number(dice, 0, 0.98), "start_deg": 10, "spread_deg": number(dice, 1, 360)},
        {"kind": "polygon", "points": [[dice.random(), dice.random()] for _ in range(dice.randint(3, 8))]},
    ]
    tilt = number(dice, -60, 60)
    surfaces = [
        {"kind": "flat"},
        {
            "kind": "cylinder",
            "axis": dice.choice(["upright", "across"]),
            "span_deg": number(dice, 1, 178),
            "tilt_deg": tilt,
        },
        {"kind": "corners", "corners_mm": [[number(dice, -20, 20), number(dice, -20, 20)] for _ in range(4)]},
    ]
    made = {"width_mm": width, "height_mm": height, "turn_deg": number(dice, -360, 360), "under": dice.random() < 0.2}
    made |= {"bleed_mm": number(dice, 0, 8), "safe_mm": number(dice, 0, min(width, height) / 2.2), "dpi": 36}
    return {**made, "shape": dice.choice(shapes), "surface": dice.choice(surfaces)}


def document(dice):
    """A board whose panel, text and method are whatever the dice say."""
    made = board()
    width, height = number(dice, 5, 540), number(dice, 5, 98)
    panel, placement = made["sides"][0]["areas"][0], made["placements"][0]
    panel |= area(dice, width, height)
    placement |= layout(dice, width, height) | {"effects": effects(dice)}
    made["fields"][0] = {"key": "name", "kind": dice.choice(["line", "paragraph"]), "label": "Name"}
    made["materials"]["methods"]["carving"] |= {
        "mirrored": dice.random() < 0.3,
        "one_color": dice.random() < 0.1,
        "separations": dice.random() < 0.2,
        "underbase_mm": dice.choice([None, None, 0, 0.4, -0.4]),
        "registration": dice.random() < 0.2,
        "spot_colors": dice.random() < 0.2,
        "least_stroke_mm": dice.choice([None, 0.3]),
    }
    return made


def run(seed, assets, formats=FORMATS):
    """Walk one random document through the core and back-ends; return how many files and errors it gave."""
    dice = random.Random(seed)
    files = errors = 0
    try:
        setup = read_setup(document(dice))
    except YenzoError:
        return 0, 1
    assert read_setup(dump_document(setup)) == setup
    face = dice.choice(["quayside", "log-book", "levant"])
    values = {"name": text(dice), "lettering": face, "with_photo": dice.random() < 0.3}
    moved = {"name": {"shift_mm": [number(dice, -90, 90), 0], "turn_deg": number(dice, -360, 360), "scale": 1.5}}
    evaluation = evaluate(
        setup,
        entries(values, uploads={"photo": upload()}, adjustments=moved if dice.random() < 0.2 else {}),
        assets,
    )
    pages = [side_page(side, with_goods=False) for side in evaluation.scene.sides]
    for one in evaluation.scene.areas:
        try:
            pages += [plate.page for plate in plates_of(one, setup.materials.methods[one.method])]
        except YenzoError:
            errors += 1
    for page in pages:
        for file_format in formats:
            try:
                assert render_file(page, assets, file_format, dpi=36)
                files += 1
            except YenzoError:
                errors += 1
    return files, errors


def shelf(folder):
    """Return the assets of random documents, kept in a folder."""
    (folder / "goods.png").write_bytes(GOODS)
    (folder / "photo.jpg").write_bytes(PHOTO)
    return FolderAssets([folder, TYPEFACES])


def show(words):
    """Print at once."""
    sys.stdout.write(f"{words}\n")
    sys.stdout.flush()


def main(arguments):
    """Run many; print each that took too long, and what all gave. An exception of others ends it with its seed."""
    count, first = int(arguments[0]), int(arguments[1]) if len(arguments) > 1 else 0
    files = errors = slow = 0
    with tempfile.TemporaryDirectory() as folder:
        assets = shelf(Path(folder))
        for seed in range(first, first + count):
            begun = perf_counter()
            try:
                made, refused = run(seed, assets)
            except Exception:
                show(f"Seed {seed} failed:")
                raise
            seconds = perf_counter() - begun
            files, errors = files + made, errors + refused
            if seconds > MOST_SECONDS:
                slow += 1
                show(f"Seed {seed} took {seconds:.1f} s.")
            if (seed - first) % 500 == 499:
                show(f"{seed - first + 1} documents, {files} files, {errors} errors of ours")
    show(f"{count} documents: {files} files, {errors} errors of ours, {slow} took over {MOST_SECONDS:g} s.")
    return 1 if slow else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
