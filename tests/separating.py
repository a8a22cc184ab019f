"""Plates against outside programs: where each plate's files have its edge, and how much ink a separation gives it.

`make fuzz` looks at all samples of the demo's goods and at sixty random scenes (`python -m tests.separating 60 [seed]`).
"""

import json
import random
import subprocess
import sys
import tempfile
from pathlib import Path

import shapely
from PIL import Image

from demo.installation import ROOT
from tests.fuzzing import shelf, show
from tests.measuring import measure
from tests.pressing import codes, document, evaluated, words
from yenzo.core.cli import SHIPPED_TYPEFACES
from yenzo.core.documents.assets import FolderAssets
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate, sample_entries
from yenzo.core.planning.plates import plates_of
from yenzo.core.render.files import render_file
from yenzo.core.render.pdf import PdfColors
from yenzo.core.shapes.polygons import polygon_of

MOST_MM, MOST_PERCENT = 0.03, 0.2
# Less ink than this is below what the levels of a pixel tell apart.
LEAST_MM2 = 2.0
MOST_PIXELS = 7000
SPOTS = PdfColors(spots=True)


def separated(pdf, folder, dpi=300):
    """Return how much ink each plate of a PDF has by ghostscript, in mm2 of full ink, by its name."""
    (folder / "in.pdf").write_bytes(pdf)
    # With soft edges: else every pixel counts whole that is touched.
    options = ["-dNOPAUSE", "-dBATCH", "-dSAFER", "-dGraphicsAlphaBits=4", f"-r{dpi}"]
    command = ["gs", "-q", "-sDEVICE=tiffsep", *options]
    subprocess.run([*command, f"-sOutputFile={folder / 'out.tif'}", str(folder / "in.pdf")], check=True)
    found = {}
    for path in folder.glob("out(*).tif"):
        with Image.open(path) as plate:
            levels = plate.convert("L").histogram()
        inked = sum((255 - level) / 255 * count for level, count in enumerate(levels))
        found[path.name[4:-5]] = inked * (25.4 / dpi) ** 2
        path.unlink()
    return found


def covered_mm2(plate):
    """Return what a plate covers by its own outlines."""
    layers = [layer for placed in plate.page.areas for node in placed.scene.painted for layer in node.layers]
    return shapely.union_all([polygon_of(layer.outline) for layer in layers]).area


def edge_apart(page, assets, folder, other):
    """Return how far the edges of a page's PDF and of another file of it are apart, in mm, and their inks in percent."""
    files = [folder / f"plate.{ending}" for ending in ("pdf", other)]
    for path in files:
        path.write_bytes(render_file(page, assets, path.suffix[1:], dpi=300))
    size = f"{page.width_mm:g}x{page.height_mm:g}" if other == "dxf" else None
    # As fine as the page bears: what small letters are apart by is below a pixel of a coarse picture.
    dpi = min(1200, round(MOST_PIXELS * 25.4 / max(page.width_mm, page.height_mm)))
    found = measure(*files, dpi=dpi, size_b=size)
    return found["p99.9_mm"], abs(found["area_diff_pct"])


def told_of(area, method, assets, folder):
    """Yield what is measured of each plate of an area: its name, which measure it is, and how much."""
    pages = plates_of(area, method)
    plates = [plate for plate in pages if plate.paint is not None] or pages
    for plate in plates:
        if not any(placed.scene.nodes for placed in plate.page.areas) or covered_mm2(plate) < LEAST_MM2:
            continue
        for other in ["svg", *(["dxf"] if "dxf" in method.files and len(plates) == 1 else [])]:
            apart, percent = edge_apart(plate.page, assets, folder, other)
            yield plate.name, f"{other} mm", apart
            yield plate.name, f"{other} percent", percent
    named = [plate for plate in plates if plate.paint is not None and plate.paint.name and plate.name != "underbase"]
    if method.separations and not method.registration and not method.mirrored:
        pdf = render_file(pages[0].page, assets, "pdf", dpi=0, colors=SPOTS)
        coarse, fine = (separated(pdf, folder, dpi=dpi) for dpi in (400, 800))
        for plate in named:
            truth, name = covered_mm2(plate), plate.paint.plate
            if truth >= LEAST_MM2:
                # Ghostscript inks a little beyond each edge, half as much where pixels are half as large.
                yield plate.name, "separation percent", 100 * abs(2 * fine[name] - coarse[name] - truth) / truth


def of_demo():
    """Yield the name, area, method and assets of each area of the demo's goods, with the sample on it."""
    for folder in sorted((ROOT / "demo" / "products").iterdir()):
        assets = FolderAssets([folder / "assets", folder, SHIPPED_TYPEFACES])
        setup = read_setup(json.loads((folder / "setup.json").read_text()))
        for area in evaluate(setup, sample_entries(setup), assets).scene.areas:
            method = setup.materials.methods[area.method]
            if any(area.painted) and not any(area.pictures):
                yield f"{folder.name}/{area.key}", area, method, assets


def at_random(count, first, assets):
    """Yield so many random scenes that can be made."""
    seed = first
    while count:
        dice = random.Random(seed)
        made, said = document(dice), words(dice)
        found, area, method = evaluated(made, said, assets)
        if not codes(found):
            count -= 1
            yield f"seed {seed}", area, method.model_copy(update={"files": (*method.files, "dxf")}), assets
        seed += 1


def worst(scenes, folder):
    """Return the largest of each measure, with where it is, and how many plates were measured."""
    largest, count = {}, 0
    for name, area, method, assets in scenes:
        for plate, which, value in told_of(area, method, assets, folder):
            count += 1
            largest[which] = max(largest.get(which, (0.0, "")), (value, f"{name} {plate}".strip()))
    return largest, count


def is_well(largest):
    """Whether no measure is over its budget."""
    return all(value <= (MOST_MM if which.endswith("mm") else MOST_PERCENT) for which, (value, _) in largest.items())


def main(arguments):
    """Measure all; print the worst of each. Exit 1 if any is over its budget."""
    count, first = int(arguments[0]), int(arguments[1]) if len(arguments) > 1 else 0
    wrong = False
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        for title, scenes in (("The demo's goods", of_demo()), ("Random", at_random(count, first, shelf(folder)))):
            largest, measured = worst(scenes, folder)
            wrong |= not is_well(largest)
            show(f"{title}: {measured} measures.")
            for which, (value, where) in sorted(largest.items()):
                show(f"  {which}: at most {value:.4f} ({where})")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
