"""Bad files: each is refused in plain words, whatever it is called, within its bounds."""

import json
import resource
import socket
import subprocess
import sys

import pytest

from tests.core.artwork import samples
from tests.core.conftest import picture_bytes
from yenzo.core.artwork.confinement import ENVIRONMENT, PACKAGE, confined, is_confined
from yenzo.core.artwork.decode import decode
from yenzo.core.artwork.facts import ArtworkLimits, Preparation
from yenzo.core.artwork.identify import identify
from yenzo.core.artwork.inspect import inspect_artwork
from yenzo.core.errors import ArtworkError

DEEP = "<g>" * 3000 + "</g>" * 3000
FAN_OUT = "".join(f'<g id="a{n}">' + f'<use href="#a{n - 1}"/>' * 10 + "</g>" for n in range(1, 12))
REFUSED = {
    "empty": (b"", "empty", "0 bytes"),
    "cut off": (picture_bytes((400, 300), kind="JPEG")[:900], "damaged", "damaged or cut off"),
    "cut off png": (picture_bytes((400, 300))[:300], "damaged", "damaged or cut off"),
    "lying": (b"PK\x03\x04 not a picture", "wrong_kind", "is a ZIP file"),
    "text": (b"hello", "wrong_kind", "not a picture"),
    "bomb": (samples.png_bomb(50_000, 50_000), "too_many_pixels", "50000 × 50000 pixels"),
    "a mere line": (samples.png_bomb(1, 100_000), "too_narrow", "1 × 100000 pixels: a mere line"),
    "a font": (b"OTTO" + bytes(200), "wrong_kind", "is a font file"),
    "a film": (b"\0\0\0\x18ftypmp42" + bytes(200), "wrong_kind", "is a film"),
    "PostScript": (b"%!PS-Adobe-3.0 EPSF-3.0", "wrong_kind", "is a PostScript file"),
    "a packed drawing": (b"\x1f\x8b\x08\0" + bytes(40), "wrong_kind", "compressed (SVGZ)"),
    "picture and ZIP": (samples.with_zip(samples.picture()), "two_in_one", "a picture and a ZIP file in one"),
    "picture and PDF": (
        samples.picture()[:33] + b"%PDF-1.7" + samples.picture()[33:],
        "two_in_one",
        "a picture and a PDF file in one",
    ),
    "picture and page": (samples.picture() + b"<script>alert(1)</script>", "two_in_one", "a picture and a web page"),
    "long animation": (samples.animation(30), "too_many_frames", "an animation of 30 pictures"),
    "all transparent": (samples.picture(mode="RGBA"), "shows_nothing", "all of it is transparent"),
    "a script in a drawing": (samples.svg("<script>alert(1)</script>"), "unsafe", "it has a script inside"),
    "a handler in a drawing": (samples.svg('<rect onload="a()"/>'), "unsafe", "it has a script inside"),
    "a file elsewhere": (samples.svg('<image href="http://x.example/a.png"/>'), "unsafe", "files elsewhere"),
    "a style elsewhere": (samples.svg("<style>@import 'a.css';</style>"), "unsafe", "files elsewhere"),
    "a page in a drawing": (samples.svg("<foreignObject/>"), "unsafe", "a web page inside"),
    "entities": (
        b'<!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]>' + samples.svg("<desc>&b;</desc>"),
        "unsafe",
        "it defines entities",
    ),
    "entities in UTF-16": (
        '<?xml version="1.0" encoding="UTF-16"?><!DOCTYPE svg [<!ENTITY a "ahoy">]>'.encode("utf-16")
        + samples.svg("<desc>&a;</desc>").decode().encode("utf-16-le"),
        "unsafe",
        "it defines entities",
    ),
    "a script in UTF-16": (
        '<?xml version="1.0" encoding="UTF-16"?>'.encode("utf-16")
        + samples.svg("<script>alert(1)</script>").decode().encode("utf-16-le"),
        "unsafe",
        "it has a script inside",
    ),
    "attributes by default": (
        b'<!DOCTYPE svg [<!ATTLIST rect onload CDATA "alert(1)">]>' + samples.svg('<rect width="9" height="9"/>'),
        "unsafe",
        "it defines entities",
    ),
    "a blur of half the page": (samples.filtered('<feMorphology radius="20"/>'), "too_heavy", "take too long to draw"),
    "a huge kernel": (
        samples.filtered(f'<feConvolveMatrix order="30" kernelMatrix="{"1 " * 900}"/>'),
        "too_heavy",
        "take too long to draw",
    ),
    "patterns in patterns": (
        samples.svg(
            '<pattern id="a" width=".001" height=".001"><circle r=".2"/></pattern>'
            '<pattern id="b" width=".01" height=".01"><rect width="1" height="1" fill="url(#a)"/></pattern>'
            '<rect width="100" height="60" style="fill: url(#b)"/>'
        ),
        "too_heavy",
        "take too long to draw",
    ),
    "deep": (samples.svg(DEEP), "unsafe", "far too deeply"),
    "a circle of parts": (
        samples.svg('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>'),
        "unsafe",
        "repeats itself without end",
    ),
    "parts without number": (samples.svg('<rect id="a0" width="1" height="1"/>' + FAN_OUT), "unsafe", "repeat each"),
    "broken drawing": (samples.svg("<rect>"), "damaged", "damaged or cut off"),
    "live text": (samples.svg("<text>Ahoy  there</text>"), "live_text", "a text (“Ahoy there”) that needs a typeface"),
    "a page with a drawing": (b"<!doctype html><p><svg/></p>", "wrong_kind", "not a picture"),
    "a page in XML": (b"<?xml version='1.0'?><html><svg/></html>", "wrong_kind", "is a web page"),
    "empty drawing": (samples.svg(""), "shows_nothing", "shows nothing"),
    "locked PDF": (
        samples.pdf(encryption=samples.pikepdf.Encryption(owner="a", user="b")),
        "locked",
        "locked by a password",
    ),
    "cut off PDF": (samples.pdf()[:-300], "damaged", "damaged or cut off"),
    "not a PDF": (b"%PDF-1.7 nothing more %%EOF", "damaged", "damaged or cut off"),
    "a script in a PDF": (samples.pdf_with_script(), "unsafe", "it has a script inside"),
    "a PDF without its typeface": (samples.pdf_with_text(), "live_text", "uses the typeface Barnacle"),
    "a PDF of endless pages": (samples.pdf_of_endless_pages(), "damaged", "damaged or cut off"),
    "a blank PDF": (samples.pdf(b""), "shows_nothing", "shows nothing"),
    "broken HEIC": (b"\0\0\0\x18ftypheic" + bytes(300), "damaged", "damaged or cut off"),
}


@pytest.mark.parametrize("case", REFUSED)
def test_bad_file_is_refused_in_plain_words(tmp_path, case):
    data, code, words = REFUSED[case]
    path = tmp_path / "photo.jpg"
    path.write_bytes(data)
    with pytest.raises(ArtworkError) as caught:
        decode(path, path.name, ArtworkLimits(most_frames=20), Preparation(), tmp_path)
    assert caught.value.code == code
    assert words in caught.value.message
    assert "“photo.jpg”" in caught.value.message


def refusal(path, **limits):
    with pytest.raises(ArtworkError) as caught:
        inspect_artwork(path, limits=ArtworkLimits(**limits))
    return caught.value


def test_file_that_is_too_large_is_refused_unread(tmp_path):
    path = tmp_path / "large.png"
    with path.open("wb") as stream:
        stream.truncate(60_000_000)
    assert "60.0 MB; at most 50 MB" in refusal(path).message


@pytest.mark.parametrize(("data", "what"), [(picture_bytes((9, 9)), "is a PNG file"), (b"hello", "is not a picture")])
def test_file_of_a_kind_that_is_not_wanted_hears_of_the_wanted_ones_only(data, what):
    with pytest.raises(ArtworkError) as raised:
        identify(data, "a.png", ArtworkLimits(kinds=("svg", "pdf")))
    assert what in raised.value.message
    assert "Here, SVG, PDF can be used" in raised.value.message


def test_decode_that_takes_too_much_memory_harms_nobody(tmp_path):
    path = tmp_path / "photo.png"
    path.write_bytes(samples.png_bomb(9_000, 9_000))
    assert refusal(path, most_memory_bytes=300_000_000).code in {"too_heavy", "damaged"}


def test_drawing_that_takes_too_long_harms_nobody(tmp_path):
    path = tmp_path / "endless.pdf"
    path.write_bytes(samples.pdf_bomb())
    assert path.stat().st_size < 500_000
    assert refusal(path, most_seconds=2).code == "too_heavy"


@pytest.mark.parametrize("noise", samples.NOISY_PHOTOS)
def test_good_photo_with_broken_notes_is_taken_without_a_word(tmp_path, noise):
    path = tmp_path / "photo.jpg"
    path.write_bytes(samples.NOISY_PHOTOS[noise])
    made = inspect_artwork(path)
    assert (made.facts.width_px, made.facts.height_px, made.facts.notes) == (120, 80, ())


def test_what_is_drawn_is_what_was_looked_at(tmp_path):
    path = tmp_path / "logo.svg"
    inside = '<rect width="60" height="40" fill="#aa3300"/>'
    path.write_bytes(
        '<?xml version="1.0" encoding="UTF-16"?>'.encode("utf-16") + samples.svg(inside).decode().encode("utf-16-le")
    )
    made = inspect_artwork(path)
    assert made.facts.form == "drawing"
    assert b"#aa3300" in made.prepared


def test_drawing_with_filters_is_used_as_a_picture_and_says_so(tmp_path):
    path = tmp_path / "soft.svg"
    path.write_bytes(samples.filtered('<feGaussianBlur stdDeviation="1"/>'))
    made = inspect_artwork(path)
    assert (made.facts.form, "blurred parts" in made.facts.notes[0]) == ("picture", True)


TRIES = """
import json, os, pathlib, socket
def tried(what):
    try:
        what()
        return True
    except OSError:
        return False
print(json.dumps({
    "reads": tried(lambda: open("READS").read()),
    "writes": tried(lambda: open("WRITES/made", "w").close()),
    "passwords": tried(lambda: open("/etc/passwd").read()),
    "settings": tried(lambda: os.listdir("CHECKOUT/.git")),
    "elsewhere": tried(lambda: open("CHECKOUT/yenzo/made", "w").close()),
    "network": tried(lambda: socket.create_connection(("127.0.0.1", PORT), 2).close()),
    "others": len([pid for pid in os.listdir("/proc") if pid.isdigit()]) > 3,
    "secrets": sorted(set(os.environ) & {"SECRET_KEY", "DATABASE_URL"}),
}))
"""


def test_what_opens_outside_files_sees_one_file_one_folder_and_no_network(tmp_path, monkeypatch):
    monkeypatch.setenv("SECRET_KEY", "s3cret")
    reads, writes = tmp_path / "photo.jpg", tmp_path / "folder"
    reads.write_text("a photo")
    writes.mkdir()
    with socket.create_server(("127.0.0.1", 0)) as server:
        code = TRIES.replace("READS", str(reads)).replace("WRITES", str(writes))
        code = code.replace("CHECKOUT", str(PACKAGE.parent)).replace("PORT", str(server.getsockname()[1]))
        command = confined([sys.executable, "-c", code], reads=reads, writes=writes)
        done = subprocess.run(command, env=ENVIRONMENT, capture_output=True, text=True, check=True)
    assert is_confined()
    assert json.loads(done.stdout) == {
        "reads": True,
        "writes": True,
        "passwords": False,
        "settings": False,
        "elsewhere": False,
        "network": False,
        "others": False,
        "secrets": [],
    }


def test_processor_seconds_are_one_bound_for_all_that_open_a_file(tmp_path):
    path = tmp_path / "soft.svg"
    path.write_bytes(samples.filtered('<feGaussianBlur stdDeviation="2"/>', parts=9))
    before = resource.getrusage(resource.RUSAGE_CHILDREN)
    refusal(path, most_seconds=2)
    after = resource.getrusage(resource.RUSAGE_CHILDREN)
    assert after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime < 6


def test_photo_cut_off_in_its_middle_is_refused(tmp_path):
    path = tmp_path / "photo.heic"
    path.write_bytes(samples.heic(tmp_path)[:-200])
    assert refusal(path).code == "damaged"


def test_path_that_is_no_file_is_refused(tmp_path):
    assert refusal(tmp_path / "absent.png").code == "unreadable"
