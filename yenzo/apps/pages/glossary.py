"""The workshop's words: each trade word of its pages with what it means, in one place."""

import re
from dataclasses import dataclass


@dataclass(frozen=True)
class Term:
    """A trade word, other forms of it that pages use, and what it means."""

    key: str
    word: str
    meaning: str
    forms: tuple[str, ...] = ()

    def stands_in(self, text: str) -> bool:
        """Whether a text uses the word."""
        return any(re.search(rf"\b{re.escape(form)}\b", text, re.IGNORECASE) for form in (self.word, *self.forms))


TERMS = (
    Term(
        "area", "imprint area", "The part of a side that can be decorated. Its crop ticks show its corners.", ("area",)
    ),
    Term("axis", "axis", "What variants differ by, like size or cloth. Customers pick along each one.", ("axes",)),
    Term(
        "bleed", "bleed", "What is made beyond the edge of an area, so that no bare rim shows where it is cut or laid."
    ),
    Term("charge", "charge", "What an entry adds to the price, beside the price without extras.", ("charges",)),
    Term(
        "cmyk",
        "CMYK",
        "Cyan, magenta, yellow and black: the four process inks that pictures are printed in.",
        ("process colors",),
    ),
    Term("dpi", "dpi", "Dots an inch: how fine a picture is at the size at which it is made. More is sharper."),
    Term("draft", "draft", "A set-up as it is being changed. Customers see it once it is published.", ("drafts",)),
    Term(
        "gap",
        "gap",
        "Bare ground between two shapes, or inside one, as in an e. Each method has a least one.",
        ("gaps",),
    ),
    Term("kit", "kit", "Lines that several products share, and are changed in one place.", ("kits",)),
    Term(
        "letter-height",
        "letter height",
        "The height of a capital H, in mm; scripts without capitals have a letter of their own for it.",
        ("letters",),
    ),
    Term(
        "method",
        "method",
        "How an area is decorated: carved, engraved, printed. It has limits of its own.",
        ("methods",),
    ),
    Term("mirrored", "mirrored", "Left and right exchanged, as transfers need it: they are laid on face down."),
    Term(
        "pack",
        "pack",
        "All that is needed to make a piece, in one ZIP file: ticket, files, and what stands where.",
        ("packs",),
    ),
    Term(
        "palette",
        "palette",
        "The colors that can be had, with the references that inks and threads are ordered by.",
        ("palettes",),
    ),
    Term(
        "placement",
        "placement",
        "How an entry lands in an area: how large, where, in which typeface and color.",
        ("placements",),
    ),
    Term("plate", "plate", "What prints or cuts one color; also a field of color that letters stand on.", ("plates",)),
    Term("registration", "registration marks", "Crosses by which one plate is laid exactly over another."),
    Term("relief", "relief", "Decoration that shows by its depth and not by its color, like carving."),
    Term(
        "revision",
        "revision",
        "A set-up as it was published. Orders keep theirs, whatever is changed later.",
        ("revisions",),
    ),
    Term(
        "safe", "safe margin", "How far texts keep from the edge of their area, so that nothing is cut off.", ("safe",)
    ),
    Term("scale", "scale", "How many pixels of a side's picture are a millimetre of the goods."),
    Term("set-up", "set-up", "All that is said of a product: its sides and areas, what is asked, what it costs."),
    Term(
        "side",
        "side",
        "One view of the goods with a picture of its own: front, reverse, inside of the lid.",
        ("sides",),
    ),
    Term("sku", "SKU", "The number that stock of something is kept under.", ("SKUs",)),
    Term("slip", "order slip", "The form that a customer fills in, with its numbered lines and the price at its foot."),
    Term("spot", "spot color", "An ink that is mixed before printing, with a plate of its own.", ("spot colors",)),
    Term("stroke", "stroke", "The line of a letter; also a line in another color around it.", ("strokes",)),
    Term(
        "ticket",
        "ticket",
        "The paper that goes with a piece through the workshop: what to make, and out of what.",
        ("tickets",),
    ),
    Term("typeface", "typeface", "What letters look like. A font is the file that it comes in.", ("typefaces",)),
    Term("underbase", "underbase", "White that is printed first, so that colors show on dark goods."),
    Term(
        "variant",
        "variant",
        "One of the forms that goods come in, with a price, a SKU and pictures of its own.",
        ("variants",),
    ),
    Term("window", "window", "A hole in the picture of the goods, behind which a picture shows.", ("windows",)),
)


def terms_in(text: str) -> tuple[Term, ...]:
    """Return the trade words that a text uses."""
    return tuple(term for term in TERMS if term.stands_in(text))
