"""Makes the packs of all demo goods and prints their digests, by product; run it with other seeds, zones and locales.

Usage: python -m tests.repeating [PRODUCT...]    print the digests (of all products by default)
       python -m tests.repeating COUNT           make them in so many processes that differ, and compare
"""

import json
import os
import subprocess
import sys
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from pathlib import Path

from yenzo.core.cli import SHIPPED_TYPEFACES
from yenzo.core.documents.assets import FolderAssets
from yenzo.core.documents.reading import read_entries, read_setup
from yenzo.core.evaluation import evaluate
from yenzo.core.planning.pack import make_pack
from yenzo.core.planning.work import Work

PRODUCTS = Path(__file__).resolve().parent.parent / "demo" / "products"
ZONES, LOCALES = ("UTC", "Pacific/Auckland"), ("C", "C.UTF-8")


Digests = dict[str, dict[str, str]]


def digests(products: Sequence[str] = ()) -> Digests:
    """Return the SHA-256 of each file of the pack of one piece of each demo product."""
    made = {}
    for folder in sorted(PRODUCTS / name for name in products or [path.name for path in PRODUCTS.iterdir()]):
        assets = FolderAssets(
            [folder, folder / "assets", folder / "entries", folder / "entries" / "assets", SHIPPED_TYPEFACES]
        )
        path = min((folder / "entries").glob("*.json"))
        evaluation = evaluate(
            read_setup(json.loads((folder / "setup.json").read_text())),
            read_entries(json.loads(path.read_text())),
            assets,
        )
        pack = make_pack(Work("2041", 1, 1, "ab" * 32, evaluation, assets))
        made[folder.name] = {file.name: file.sha256 for file in pack.manifest.files}
    return made


def differing(count: int, products: Sequence[str] = ()) -> dict[str, set[str]]:
    """Return which files differ between processes of other hash seeds, time zones and locales; empty when none does."""
    with ThreadPoolExecutor(2) as pool:
        made = list(pool.map(partial(_in_process, products), range(1, count + 1)))
    return {
        product: {name for name in files if any(other[product].get(name) != files[name] for other in made[1:])}
        for product, files in made[0].items()
        if any(other[product] != files for other in made[1:])
    }


def _in_process(products: Sequence[str], seed: int) -> Digests:
    surroundings = {
        "PATH": os.environ["PATH"],
        "PYTHONHASHSEED": str(seed),
        "TZ": ZONES[seed % 2],
        "LC_ALL": LOCALES[seed // 2 % 2],
    }
    done = subprocess.run(
        [sys.executable, "-m", "tests.repeating", *products],
        env=surroundings,
        capture_output=True,
        check=True,
        cwd=PRODUCTS.parent.parent,
    )
    made: Digests = json.loads(done.stdout)
    return made


def main(arguments: list[str]) -> int:
    """Print digests, or what differs; return 1 if anything does."""
    if len(arguments) == 1 and arguments[0].isdecimal():
        found = differing(int(arguments[0]))
        told = "\n".join(f"{product}: {' '.join(sorted(names))}" for product, names in found.items())
        sys.stdout.write(f"{told or 'Every file is the same, whatever the process.'}\n")
        return bool(found)
    sys.stdout.write(json.dumps(digests(arguments)))
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
