"""Fonts made on the spot."""

import io

from fontTools.fontBuilder import FontBuilder
from fontTools.pens.ttGlyphPen import TTGlyphPen
from fontTools.ttLib.tables.TupleVariation import TupleVariation


def variable_font(letter="H"):
    """A font with one letter, 100 to 200 units wide by its weight, and one named instance."""
    builder = FontBuilder(1000, isTTF=True)
    builder.setupGlyphOrder([".notdef", "H"])
    builder.setupCharacterMap({ord(letter): "H"})
    pen = TTGlyphPen(None)
    pen.moveTo((50, 0))
    for corner in ((50, 700), (150, 700), (150, 0)):
        pen.lineTo(corner)
    pen.closePath()
    builder.setupGlyf({".notdef": TTGlyphPen(None).glyph(), "H": pen.glyph()})
    builder.setupHorizontalMetrics({".notdef": (500, 0), "H": (200, 50)})
    builder.setupHorizontalHeader(ascent=800, descent=-200)
    builder.setupNameTable({"familyName": "Vary", "styleName": "Regular"})
    builder.setupOS2()
    builder.setupPost()
    builder.setupFvar([("wght", 400, 400, 700, "Weight")], [{"location": {"wght": 700}, "stylename": "Bold"}])
    wider = [(0, 0), (0, 0), (100, 0), (100, 0), (0, 0), (100, 0), (0, 0), (0, 0)]
    builder.setupGvar({"H": [TupleVariation({"wght": (0, 1, 1)}, wider)]})
    output = io.BytesIO()
    builder.save(output)
    return output.getvalue()
