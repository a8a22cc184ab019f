"""Draws the typeface Scriber: letters of single lines, as an engraving tool follows them.

Run by whoever changes its letters: `.venv/bin/python scripts/draw_scriber.py yenzo/materials/typefaces/scriber.ttf`.
A TrueType contour is closed, so each line goes there and back again on itself. Made for Yenzo; SIL Open Font License.
"""

import math
import sys
import unicodedata
from pathlib import Path

from fontTools.fontBuilder import FontBuilder
from fontTools.pens.ttGlyphPen import TTGlyphPen

CAP, EM, SMALL = 700, 1000, 0.74
SIDE = 85
# A point on the line, or (with a third, true member) the control of a quadratic curve to the next one.
Point = tuple[float, float] | tuple[float, float, bool]
Stroke = list[Point]
MOST_STEP_DEG = 30


def arc(x: float, y: float, across: float, up: float, start: float, end: float) -> Stroke:
    """Return a part of an ellipse, degrees counterclockwise from the right, as quadratic curves."""
    count = max(1, math.ceil(abs(end - start) / MOST_STEP_DEG))
    half = math.radians((end - start) / count / 2)
    points: Stroke = []
    for step in range(2 * count + 1):
        angle, is_control = math.radians(start) + half * step, step % 2 == 1
        out = 1 / math.cos(half) if is_control else 1.0
        points.append((x + across * out * math.cos(angle), y + up * out * math.sin(angle), is_control))
    return points


def bowl(left: float, right: float, bottom: float, top: float) -> Stroke:
    """Return the round of a P or B: from the stem out and back."""
    half = (top - bottom) / 2
    return [(left, top), *arc(right - half, bottom + half, half, half, 90, -90), (left, bottom)]


LETTERS: dict[str, list[Stroke]] = {
    "A": [[(0, 0), (250, 700), (500, 0)], [(82, 230), (418, 230)]],
    "B": [[(0, 0), (0, 700)], bowl(0, 400, 370, 700), bowl(0, 440, 0, 370)],
    "C": [arc(280, 350, 280, 350, 50, 310)],
    "D": [[(0, 0), (0, 700), (180, 700), *arc(180, 350, 300, 350, 90, -90), (0, 0)]],
    "E": [[(420, 700), (0, 700), (0, 0), (420, 0)], [(0, 360), (340, 360)]],
    "F": [[(420, 700), (0, 700), (0, 0)], [(0, 360), (340, 360)]],
    "G": [[*arc(280, 350, 280, 350, 50, 360), (330, 350)]],
    "H": [[(0, 0), (0, 700)], [(460, 0), (460, 700)], [(0, 360), (460, 360)]],
    "I": [[(0, 0), (0, 700)]],
    "J": [[(300, 700), (300, 150), *arc(150, 150, 150, 150, 0, -180)]],
    "K": [[(0, 0), (0, 700)], [(430, 700), (0, 260)], [(140, 400), (450, 0)]],
    "L": [[(0, 700), (0, 0), (390, 0)]],
    "M": [[(0, 0), (0, 700), (290, 160), (580, 700), (580, 0)]],
    "N": [[(0, 0), (0, 700), (460, 0), (460, 700)]],
    "O": [arc(300, 350, 300, 350, 90, 450)],
    "P": [[(0, 0), (0, 700)], bowl(0, 420, 310, 700)],
    "Q": [arc(300, 350, 300, 350, 90, 450), [(380, 170), (580, -60)]],
    "R": [[(0, 0), (0, 700)], bowl(0, 420, 330, 700), [(200, 330), (430, 0)]],
    "S": [[*arc(220, 525, 200, 175, 35, 270), *arc(220, 175, 220, 175, 90, -145)]],
    "T": [[(0, 700), (480, 700)], [(240, 700), (240, 0)]],
    "U": [[(0, 700), (0, 230), *arc(230, 230, 230, 230, 180, 360), (460, 700)]],
    "V": [[(0, 700), (250, 0), (500, 700)]],
    "W": [[(0, 700), (180, 0), (360, 560), (540, 0), (720, 700)]],
    "X": [[(0, 0), (460, 700)], [(0, 700), (460, 0)]],
    "Y": [[(0, 700), (240, 340), (480, 700)], [(240, 340), (240, 0)]],
    "Z": [[(0, 700), (440, 700), (0, 0), (440, 0)]],
    "0": [arc(230, 350, 230, 350, 90, 450)],
    "1": [[(0, 560), (160, 700), (160, 0)]],
    "2": [[*arc(200, 490, 200, 210, 165, -30), (0, 0), (410, 0)]],
    "3": [[*arc(200, 530, 190, 170, 150, -90), *arc(200, 180, 220, 180, 90, -150)]],
    "4": [[(330, 0), (330, 700), (0, 190), (440, 190)]],
    "5": [[(380, 700), (60, 700), (30, 380), *arc(200, 220, 220, 220, 120, -145)]],
    "6": [[(330, 700), *arc(215, 215, 215, 215, 150, 510)]],
    "7": [[(0, 700), (410, 700), (130, 0)]],
    "8": [arc(210, 530, 180, 170, -90, 270), arc(210, 180, 210, 180, 90, 450)],
    "9": [[(100, 0), *arc(215, 485, 215, 215, -30, 330)]],
    "&": [
        [
            *((470, 0), (110, 500), *arc(210, 580, 130, 120, 200, -40)),
            *((140, 350), *arc(180, 180, 180, 180, 105, 300), (450, 300)),
        ],
    ],
    ".": [arc(12, 12, 12, 12, 0, 360)],
    ",": [[(30, 30), (0, -110)]],
    ":": [arc(12, 112, 12, 12, 0, 360), arc(12, 412, 12, 12, 0, 360)],
    ";": [[(30, 130), (0, -10)], arc(20, 412, 12, 12, 0, 360)],
    "!": [[(12, 700), (12, 200)], arc(12, 12, 12, 12, 0, 360)],
    "?": [[*arc(180, 530, 180, 170, 160, -60), (180, 330), (180, 200)], arc(180, 12, 12, 12, 0, 360)],
    "'": [[(0, 700), (0, 540)]],
    "’": [[(30, 700), (0, 560)]],
    "“": [[(0, 560), (30, 700)], [(100, 560), (130, 700)]],
    "”": [[(30, 700), (0, 560)], [(130, 700), (100, 560)]],
    '"': [[(0, 700), (0, 540)], [(110, 700), (110, 540)]],
    "-": [[(0, 300), (240, 300)]],
    "–": [[(0, 300), (400, 300)]],
    "—": [[(0, 300), (640, 300)]],
    "/": [[(0, -40), (300, 740)]],
    "(": [arc(220, 350, 220, 420, 125, 235)],
    ")": [arc(-94, 350, 220, 420, 55, -55)],
    "+": [[(0, 330), (380, 330)], [(190, 140), (190, 520)]],
    "=": [[(0, 400), (380, 400)], [(0, 240), (380, 240)]],
    "°": [arc(90, 610, 90, 90, 0, 360)],
    "·": [arc(12, 350, 12, 12, 0, 360)],
    "№": [[(0, 0), (0, 700), (420, 0), (420, 700)], arc(600, 430, 110, 130, 90, 450), [(490, 230), (710, 230)]],
    "Ø": [arc(300, 350, 300, 350, 90, 450), [(90, 40), (510, 660)]],
    "Æ": [
        [(0, 0), (330, 700), (760, 700)],
        [(400, 700), (400, 0), (760, 0)],
        [(110, 230), (400, 230)],
        [(400, 370), (680, 370)],
    ],
    "Œ": [
        [(820, 700), (460, 700), *arc(300, 350, 300, 350, 60, 300), (460, 0), (820, 0)],
        [(460, 700), (460, 0)],
        [(460, 370), (740, 370)],
    ],
    "ß": [[(0, 0), (0, 520), *arc(190, 520, 190, 180, 180, 0), (230, 380), *arc(210, 180, 210, 190, 75, -120)]],
    "Đ": [[(0, 0), (0, 700), (180, 700), *arc(180, 350, 300, 350, 90, -90), (0, 0)], [(-70, 360), (180, 360)]],
    "Ł": [[(0, 700), (0, 0), (390, 0)], [(-80, 260), (190, 460)]],
}
# Marks over or under the middle of a letter; tops of letters are at 700.
MARKS: dict[str, list[Stroke]] = {
    "\u0300": [[(-90, 890), (40, 780)]],
    "\u0301": [[(90, 890), (-40, 780)]],
    "\u0302": [[(-110, 780), (0, 890), (110, 780)]],
    "\u0303": [[(-130, 800), *arc(-65, 800, 60, 50, 180, 0), *arc(65, 830, 60, 50, 180, 360)]],
    "\u0304": [[(-120, 820), (120, 820)]],
    "\u0306": [arc(0, 880, 110, 90, 180, 360)],
    "\u0307": [arc(0, 830, 12, 12, 0, 360)],
    "\u0308": [arc(-85, 830, 12, 12, 0, 360), arc(85, 830, 12, 12, 0, 360)],
    "\u030a": [arc(0, 840, 75, 75, -90, 270)],
    "\u030b": [[(-60, 780), (0, 890)], [(60, 780), (130, 890)]],
    "\u030c": [[(-110, 890), (0, 780), (110, 890)]],
    "\u0327": [[(20, 0), (0, -70), *arc(0, -125, 65, 55, 90, -120)]],
    "\u0328": [[(120, 0), *arc(120, -90, 90, 90, 135, 300)]],
}


def composed() -> dict[str, list[Stroke]]:
    """Return all Latin letters that are one of ours with one of our marks."""
    made = {}
    for code in (*range(0xC0, 0x180), *range(0x218, 0x21C)):
        parts = unicodedata.normalize("NFD", chr(code))
        if len(parts) == 2 and parts[0] in LETTERS and parts[1] in MARKS:
            middle = max(x for stroke in LETTERS[parts[0]] for x, *_ in stroke) / 2
            mark = [[(x + middle, y, *kind) for x, y, *kind in stroke] for stroke in MARKS[parts[1]]]
            made[chr(code)] = [*LETTERS[parts[0]], *mark]
    return made


def small(strokes: list[Stroke]) -> list[Stroke]:
    """Return a letter as its small capital."""
    return [[(x * SMALL, y * SMALL, *kind) for x, y, *kind in stroke] for stroke in strokes]


def draw(pen: TTGlyphPen, points: list[tuple[int, int, bool]]) -> None:
    """Draw points one after another as one closed contour."""
    pen.moveTo(points[0][:2])
    controls: list[tuple[int, int]] = []
    for x, y, is_control in points[1:]:
        if is_control:
            controls.append((x, y))
        else:
            pen.qCurveTo(*controls, (x, y)) if controls else pen.lineTo((x, y))
            controls = []
    pen.closePath()


def main(target: Path) -> None:
    """Write the font."""
    capitals = {**LETTERS, **composed()}
    lower = {char.lower(): small(strokes) for char, strokes in capitals.items() if len(char.lower()) == 1}
    glyphs = {**{char: strokes for char, strokes in lower.items() if char not in capitals}, **capitals}
    glyphs["ß"] = small(LETTERS["ß"])
    names = {char: f"u{ord(char):04X}" for char in sorted(glyphs)}
    builder = FontBuilder(EM, isTTF=True)
    builder.setupGlyphOrder([".notdef", "space", *names.values()])
    builder.setupCharacterMap({0x20: "space", 0xA0: "space", **{ord(char): name for char, name in names.items()}})
    drawn, metrics = {}, {".notdef": (500, 0), "space": (300, 0)}
    for name in (".notdef", "space"):
        drawn[name] = TTGlyphPen(None).glyph()
    for char, name in names.items():
        pen = TTGlyphPen(None)
        right = 0
        for stroke in glyphs[char]:
            there = [(round(x + SIDE), round(y), any(kind)) for x, y, *kind in stroke]
            points = [point for at, point in enumerate(there) if at == 0 or point[:2] != there[at - 1][:2]]
            draw(pen, [*points, *points[-2::-1]])
            right = max(right, *(x for x, _, _ in points))
        drawn[name], metrics[name] = pen.glyph(), (right + SIDE, min(x for s in glyphs[char] for x, *_ in s) + SIDE)
    builder.setupGlyf(drawn)
    builder.setupHorizontalMetrics({name: (advance, round(left)) for name, (advance, left) in metrics.items()})
    builder.setupHorizontalHeader(ascent=950, descent=-250)
    builder.setupNameTable({"familyName": "Scriber", "styleName": "Regular"})
    builder.setupOS2(sTypoAscender=950, sTypoDescender=-250, sCapHeight=CAP, sxHeight=round(CAP * SMALL))
    builder.setupPost()
    # No dates: the same letters give the same file.
    builder.font["head"].created = builder.font["head"].modified = 0
    builder.font.recalcTimestamp = False
    builder.save(target)


if __name__ == "__main__":
    main(Path(sys.argv[1]))
