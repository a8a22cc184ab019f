"""PDF: a page comes in; a true-size file of outlines and pictures, without live fonts, goes out.

Page boxes by ISO 32000-2 section 14.11.2: media and bleed box are the page, the trim box is where the goods end.
The file carries no dates and an id made from its content, so the same page gives the same bytes.
"""

import hashlib
import io
import math
import zlib
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import pikepdf
from PIL import Image, ImageCms

from yenzo.core.documents.assets import Assets
from yenzo.core.errors import RenderError
from yenzo.core.measure import mm_to_points, plain_number
from yenzo.core.render.micrometres import PER_MM, micrometres
from yenzo.core.render.page import Page, paint_page
from yenzo.core.render.pictures import has_alpha, open_picture
from yenzo.core.render.process import CONDITION, as_process, process_profile, process_shares
from yenzo.core.scene.paints import Fill, GradientPaint, Paint, PlateNames
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import POINTS_OF_VERB, Outline

RGB, CMYK = "/DeviceRGB", "/DeviceCMYK"
PDF_VERSION = "1.6"
# Where an ICC profile (ICC.1, 7.2) has the date it was made and its checksum, which tell nothing of the colors.
PROFILE_DATE, PROFILE_ID = slice(24, 36), slice(84, 100)
OPERATORS = {"M": "m", "L": "l", "C": "c", "Z": "h"}
FAST_COMPRESSION = 1
# A rectangle, with and without the way back to where it began.
RECTANGLES = ("MLLLZ", "MLLLLZ")


@dataclass(frozen=True)
class PdfColors:
    """How colors are written. Spots: each that has a name is a plate of that name (a Separation, ISO 32000-2, 8.6.6.4).

    Process: each that a palette gives in CMYK is written so, all others and pictures by the profile of `process`, which
    is the output intent. Else all is RGB, which the output intent says is sRGB. Without transparency pictures lie on
    white.
    """

    spots: bool = False
    process: bool = False
    transparency: bool = True


SCREEN_COLORS = PdfColors()


def render_pdf(
    page: Page,
    assets: Assets,
    *,
    compression: int = FAST_COMPRESSION,
    colors: PdfColors = SCREEN_COLORS,
    bends_rectangles: bool = False,
) -> bytes:
    """Return the page as a PDF file; `compression` is zlib's level for its pictures.

    With `bends_rectangles` an edge of each plain rectangle is a curve that is straight: renderers that draw rectangles
    by whole pixels then draw it as large as it is.
    """
    pdf = pikepdf.new()
    canvas = _PdfCanvas(pdf, page.height_mm, assets, compression, colors, bends_rectangles=bends_rectangles)
    paint_page(page, canvas)
    width, height = mm_to_points(page.width_mm), mm_to_points(page.height_mm)
    trim = page.trim
    whole = _numbers(0, 0, width, height)
    pdf.pages.append(
        pikepdf.Page(
            pikepdf.Dictionary(
                Type=pikepdf.Name.Page,
                MediaBox=whole,
                BleedBox=_page_box(page.bleed, height) if page.bleed else whole,
                TrimBox=_page_box(trim, height),
                Resources=pikepdf.Dictionary(
                    XObject=pikepdf.Dictionary(canvas.pictures),
                    Pattern=pikepdf.Dictionary(canvas.patterns),
                    ColorSpace=pikepdf.Dictionary(canvas.spots),
                ),
                Contents=pdf.make_stream(canvas.content()),
            )
        )
    )
    pdf.pages[0].obj.Parent = pdf.Root.Pages
    pdf.Root.OutputIntents = pikepdf.Array([_output_intent(pdf, colors)])
    output = io.BytesIO()
    pdf.save(
        output,
        deterministic_id=True,
        object_stream_mode=pikepdf.ObjectStreamMode.disable,
        # Soft masks are of PDF 1.4; the header says no less than what is inside.
        min_version=PDF_VERSION,
    )
    return output.getvalue()


def _page_box(box: Box, height: float) -> pikepdf.Array:
    """Return a box in mm, y down, as a page has it: in points, y up."""
    left, top, right, bottom = map(mm_to_points, box)
    return _numbers(left, height - bottom, right, height - top)


class _PdfCanvas:
    most_drawn_points = math.inf

    def __init__(
        self,
        pdf: pikepdf.Pdf,
        height_mm: float,
        assets: Assets,
        compression: int,
        colors: PdfColors,
        *,
        bends_rectangles: bool,
    ) -> None:
        self._colors = colors
        self._bends_rectangles = bends_rectangles
        self.spots: dict[str, pikepdf.Object] = {}
        self._plates = PlateNames()
        k = mm_to_points(1)
        self._pdf = pdf
        self._assets = assets
        self._compression = compression
        self._to_points = Matrix(k, 0, 0, -k, 0, mm_to_points(height_mm))
        small = k / PER_MM
        self._parts = [f"{small:.12f} 0 0 {-small:.12f} 0 {mm_to_points(height_mm):.6f} cm"]
        self.pictures: dict[str, pikepdf.Object] = {}
        self.patterns: dict[str, pikepdf.Object] = {}

    def fill(self, outline: Outline, paint: Fill, clip: Outline | None = None) -> None:
        """Fill an outline with a color, in `clip` only; raises RenderError for a gradient on plates."""
        if not outline:
            return
        if clip:
            self._parts.append("q")
            self._path(clip)
            self._parts.append("W n")
        self._color(paint)
        is_rectangle = self._bends_rectangles and outline.verbs in RECTANGLES
        self._path(_bent(outline) if is_rectangle else outline)
        self._parts.append("f Q" if clip else "f")

    def _color(self, paint: Fill) -> None:
        is_named = isinstance(paint, Paint) and self._colors.spots and paint.name
        is_on_all = isinstance(paint, Paint) and paint.is_registration and (self._colors.spots or self._colors.process)
        if isinstance(paint, Paint) and (is_named or is_on_all):
            self._parts.append(f"{self._spot(paint)} cs 1 scn")
        elif isinstance(paint, Paint):
            space, shares = self._shares(paint)
            self._parts.append(" ".join(map(plain_number, shares)) + (" k" if space == CMYK else " rg"))
        elif self._colors.spots:
            raise RenderError("gradient", "pdf", "A color that goes over into another one has no plate of its own.")
        else:
            self._parts.append(f"/Pattern cs {self._gradient(paint)} scn")

    def _spot(self, paint: Paint) -> str:
        plate_name = self._plates.of(paint)
        name = f"/S{hashlib.sha256(plate_name.encode()).hexdigest()[:8]}"
        space, shares = (CMYK, (1.0, 1.0, 1.0, 1.0)) if paint.is_registration else self._shares(paint)
        none = (0, 0, 0, 0) if space == CMYK else (1, 1, 1)
        tint = pikepdf.Dictionary(FunctionType=2, Domain=_numbers(0, 1), C0=_numbers(*none), C1=_numbers(*shares), N=1)
        plate = pikepdf.Name(f"/{plate_name}")
        self.spots[name] = pikepdf.Array([pikepdf.Name.Separation, plate, pikepdf.Name(space), tint])
        return name

    def _shares(self, paint: Paint) -> tuple[str, tuple[float, ...]]:
        """Return in which space a color is written, and its shares from 0 to 1."""
        if not self._colors.process:
            return RGB, _rgb(paint)
        return CMYK, process_shares(paint.screen) if paint.cmyk is None else tuple(share / 100 for share in paint.cmyk)

    def _path(self, outline: Outline) -> None:
        numbers, at = micrometres(outline), 0
        for verb in outline.verbs:
            end = at + 2 * POINTS_OF_VERB[verb]
            self._parts.append(" ".join([*numbers[at:end], OPERATORS[verb]]))
            at = end

    def _gradient(self, paint: GradientPaint) -> str:
        """Return the name of an axial shading (ISO 32000-2, 8.7.4.5.3) that goes on evenly beyond its ends."""
        name = f"/G{len(self.patterns)}"
        (space, first), (other, last) = self._shares(paint.start), self._shares(paint.end)
        assert space == other
        function = pikepdf.Dictionary(
            FunctionType=2, Domain=_numbers(0, 1), C0=_numbers(*first), C1=_numbers(*last), N=1
        )
        shading = pikepdf.Dictionary(
            ShadingType=2,
            ColorSpace=pikepdf.Name(space),
            Coords=_numbers(*paint.first_mm, *paint.last_mm),
            Function=function,
            Extend=pikepdf.Array([True, True]),
        )
        self.patterns[name] = pikepdf.Dictionary(
            Type=pikepdf.Name.Pattern, PatternType=2, Shading=shading, Matrix=_numbers(*self._to_points)
        )
        return name

    def picture(self, asset: str, matrix: Matrix, clip: Outline) -> None:
        """Place a picture's unit square by `matrix`, in `clip` only; raises AssetError."""
        name = f"/P{asset[:16]}"
        if name not in self.pictures:
            picture = open_picture(self._assets.read(asset), asset)
            if not self._colors.transparency and has_alpha(picture):
                white = Image.new("RGBA", picture.size, "white")
                picture = Image.alpha_composite(white, picture.convert("RGBA")).convert("RGB")
            self.pictures[name] = _picture_object(self._pdf, picture, self._compression, self._colors)
        # An image's own square has y up: turn it over before placing it.
        upright = Matrix(1, 0, 0, -1, 0, 1).then(matrix).then(Matrix(PER_MM, 0, 0, PER_MM, 0, 0))
        numbers = " ".join(plain_number(value, 3) for value in upright)
        self._parts.append("q")
        self._path(clip)
        self._parts.append(f"W n {numbers} cm {name} Do Q")

    def content(self) -> bytes:
        """Return the page's content stream."""
        return "\n".join(self._parts).encode()


def _output_intent(pdf: pikepdf.Pdf, colors: PdfColors) -> pikepdf.Dictionary:
    """Return what says which print the process colors are of, or which RGB this is (ISO 32000-2, 14.11.5)."""
    profile = pdf.make_stream(process_profile() if colors.process else _srgb_profile())
    profile.N = 4 if colors.process else 3
    condition = CONDITION if colors.process else "sRGB IEC61966-2.1"
    return pikepdf.Dictionary(
        Type=pikepdf.Name.OutputIntent,
        S=pikepdf.Name.GTS_PDFX if colors.process else pikepdf.Name.GTS_PDFA1,
        OutputConditionIdentifier=condition,
        Info=condition,
        DestOutputProfile=pdf.make_indirect(profile),
    )


@lru_cache(maxsize=1)
def _srgb_profile() -> bytes:
    data = bytearray(ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes())
    data[PROFILE_DATE] = bytes(12)
    data[PROFILE_ID] = bytes(16)
    return bytes(data)


def _picture_object(pdf: pikepdf.Pdf, picture: Image.Image, compression: int, colors: PdfColors) -> pikepdf.Object:
    if colors.process:
        stream = _pixels(pdf, as_process(picture), pikepdf.Name.DeviceCMYK, compression)
    else:
        stream = _pixels(pdf, picture.convert("RGB"), pikepdf.Name.DeviceRGB, compression)
    if has_alpha(picture):
        stream.SMask = _pixels(pdf, picture.convert("RGBA").getchannel("A"), pikepdf.Name.DeviceGray, compression)
    return stream


def _pixels(pdf: pikepdf.Pdf, picture: Image.Image, color_space: pikepdf.Name, compression: int) -> pikepdf.Stream:
    stream = pikepdf.Stream(pdf, zlib.compress(picture.tobytes(), compression))
    stream.stream_dict = pikepdf.Dictionary(
        Type=pikepdf.Name.XObject,
        Subtype=pikepdf.Name.Image,
        Width=picture.width,
        Height=picture.height,
        ColorSpace=color_space,
        BitsPerComponent=8,
        Filter=pikepdf.Name.FlateDecode,
    )
    return pdf.make_indirect(stream)


def _bent(rectangle: Outline) -> Outline:
    """Return a rectangle whose first edge is a curve that is straight."""
    first, second, *others = rectangle.points
    controls = [first + (second - first) * share for share in (1 / 3, 2 / 3)]
    return Outline(rectangle.verbs.replace("L", "C", 1), np.array([first, *controls, second, *others]))


def _rgb(paint: Paint) -> tuple[float, float, float]:
    red, green, blue = (int(paint.screen[at : at + 2], 16) / 255 for at in (1, 3, 5))
    return red, green, blue


def _numbers(*values: float) -> pikepdf.Array:
    return pikepdf.Array([pikepdf.Object.parse(plain_number(value, 6).encode()) for value in values])
