"""Builders for the core's tests: small set-ups with shipped typefaces and pictures made on the spot."""

import hashlib
import io
import random
from pathlib import Path

import pytest
from PIL import Image

from yenzo.core.documents.assets import FolderAssets
from yenzo.core.documents.reading import read_entries, read_setup

TYPEFACES = Path(__file__).resolve().parents[2] / "yenzo" / "materials" / "typefaces"
PHOTO_SIZE = (600, 400)


def sha256_of(data):
    return hashlib.sha256(data).hexdigest()


def picture_bytes(size, color="#a5632f", kind="PNG"):
    output = io.BytesIO()
    Image.new("RGB", size, color).save(output, kind)
    return output.getvalue()


def noise_bytes(size):
    """A picture that no coding makes smaller: about three bytes for each of its pixels."""
    output = io.BytesIO()
    Image.frombytes("RGB", size, random.Random(7).randbytes(3 * size[0] * size[1])).save(output, "PNG")
    return output.getvalue()


def typeface(name):
    return {"name": name.title(), "font": sha256_of((TYPEFACES / f"{name}.ttf").read_bytes())}


GOODS = picture_bytes((1400, 440))
PHOTO = picture_bytes(PHOTO_SIZE, "#1b6f6a", "JPEG")


def upload(width=PHOTO_SIZE[0], height=PHOTO_SIZE[1], kind="jpeg"):
    digest = sha256_of(PHOTO)
    return {
        "name": "otter.jpg",
        "original": digest,
        "prepared": digest,
        "kind": kind,
        "width_px": width,
        "height_px": height,
    }


def board():
    """A board with a text that fits, a photo, and one of each kind of field and charge."""
    area = {"method": "carving", "bleed_mm": 2, "safe_mm": 4, "dpi": 100}
    return {
        "schema": "yenzo-setup/1",
        "offer": {"name": "Board", "base_price": "86.00", "sku": "NB-1"},
        "sides": [
            {
                "key": "front",
                "name": "Front",
                "picture": {"asset": sha256_of(GOODS), "width_px": 1400, "height_px": 440},
                "scale": {"start_px": [0, 0], "end_px": [1400, 0], "length_mm": 700},
                "areas": [
                    {"key": "panel", "name": "Panel", "x_mm": 80, "y_mm": 38, "width_mm": 540, "height_mm": 98, **area},
                    {"key": "photo", "name": "Photo", "x_mm": 10, "y_mm": 140, "width_mm": 80, "height_mm": 60, **area},
                ],
            }
        ],
        "fields": [
            {
                "key": "name",
                "kind": "line",
                "label": "Name of the boat",
                "required": True,
                "most_characters": 18,
                "allowed": {"others": "-&'"},
                "case": "upper",
            },
            {
                "key": "lettering",
                "kind": "typeface",
                "label": "Lettering",
                "typefaces": ["quayside", "log-book", "levant"],
                "default": "quayside",
            },
            {"key": "with_photo", "kind": "yes_no", "label": "With a photo"},
            {
                "key": "photo",
                "kind": "artwork",
                "label": "Photo",
                "required": True,
                "ask_when": {"conditions": [{"field": "with_photo", "value": True}]},
            },
            {
                "key": "wood",
                "kind": "choice",
                "label": "Wood",
                "options": [{"key": "cedar", "label": "Cedar"}, {"key": "oak", "label": "Oak"}],
                "default": "cedar",
            },
            {"key": "finish", "kind": "color", "label": "Finish", "palette": "finishes", "default": "gold"},
        ],
        "charges": [
            {"key": "letters", "kind": "per_character", "field": "name", "amount": "0.40", "beyond": 6},
            {"key": "photo", "kind": "fixed", "field": "with_photo", "amount": "12.00"},
            {"key": "wood", "kind": "per_choice", "field": "wood", "amounts": {"oak": "24.00"}},
            {"key": "finish", "kind": "per_choice", "field": "finish", "amounts": {"gold": "9.50"}},
        ],
        "placements": [
            {
                "key": "name",
                "kind": "line",
                "field": "name",
                "side": "front",
                "area": "panel",
                "least_mm": 30,
                "most_mm": 80,
                "typeface": {"field": "lettering"},
                "color": {"field": "finish"},
            },
            {"key": "photo", "kind": "artwork", "field": "photo", "side": "front", "area": "photo"},
        ],
        "materials": {
            "methods": {
                "carving": {
                    "name": "Carving",
                    "done": "carved",
                    "least_letter_mm": 20,
                    "least_dpi": 60,
                    "good_dpi": 150,
                }
            },
            "palettes": {
                "finishes": {
                    "name": "Finishes",
                    "colors": [
                        {"key": "gold", "name": "Gold leaf", "screen": "#d4a83e", "reference": "GL 23"},
                        {"key": "white", "name": "White", "screen": "#ffffff"},
                    ],
                }
            },
            "typefaces": {name: typeface(name) for name in ("quayside", "log-book", "levant")},
        },
    }


@pytest.fixture(scope="session")
def assets(tmp_path_factory):
    folder = tmp_path_factory.mktemp("assets")
    (folder / "goods.png").write_bytes(GOODS)
    (folder / "photo.jpg").write_bytes(PHOTO)
    return FolderAssets([folder, TYPEFACES])


@pytest.fixture
def setup():
    return read_setup(board())


def entries(values=None, **others):
    return read_entries({"schema": "yenzo-entries/1", "values": values or {}, **others})
