"""Outside files made on the spot: good ones and bad ones."""

import io
import struct
import subprocess
import zipfile
import zlib

import pikepdf
from PIL import Image, ImageDraw

SVG_NS = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"'
LOGO = """
<style>.hull{fill:#aa3300}</style>
<defs><clipPath id="c"><circle cx="50" cy="30" r="20"/></clipPath>
<linearGradient id="g"><stop offset="0" stop-color="red"/><stop offset="1" stop-color="blue"/></linearGradient>
<path id="leaf" d="M0 0 C5 -5 10 -5 15 0 C10 5 5 5 0 0"/></defs>
<rect class="hull" x="5" y="5" width="30" height="20" rx="4"/>
<path d="M10 40 L40 50 L60 35" fill="none" stroke="navy" stroke-width="3" stroke-linecap="round"/>
<g clip-path="url(#c)" transform="rotate(10 50 30)"><rect x="40" y="10" width="50" height="30" fill="#1a8033"/></g>
<use xlink:href="#leaf" x="70" y="20" fill="green"/><use href="#leaf" transform="translate(70 40) scale(1.5)"/>
<circle cx="85" cy="50" r="5" fill="url(#g)"/>
<path fill-rule="evenodd" d="M60 5h20v20h-20z M65 10h10v10h-10z"/>
"""


def svg(inside, size="0 0 100 60"):
    return f'<svg {SVG_NS} viewBox="{size}">{inside}</svg>'.encode()


def picture(size=(60, 40), kind="PNG", mode="RGB", color=None, **options):
    output = io.BytesIO()
    made = Image.new(mode, size, color) if color is not None else Image.new(mode, size)
    made.save(output, kind, **options)
    return output.getvalue()


def logo_picture(size=(300, 200), ground="white", ink="#203040"):
    """A disc with a hole and a free-standing white patch inside it, on a plain ground with soft edges."""
    large = Image.new("RGB", (size[0] * 4, size[1] * 4), ground)
    draw = ImageDraw.Draw(large)
    x, y = size[0] * 2, size[1] * 2
    for radius, color in ((size[1] * 1.4, ink), (size[1] * 0.7, ground)):
        draw.ellipse([x - radius, y - radius, x + radius, y + radius], fill=color)
    output = io.BytesIO()
    large.resize(size, Image.Resampling.BOX).save(output, "PNG")
    return output.getvalue()


def chunk(kind, data):
    return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))


def png_bomb(width, height):
    header = struct.pack(">IIBBBBB", width, height, 8, 0, 0, 0, 0)
    pixels = chunk(b"IDAT", zlib.compress(bytes(1000)))
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", header) + pixels + chunk(b"IEND", b"")


def animation(count):
    frames = [Image.new("RGB", (16, 16), (number % 250, number // 250, 0)) for number in range(count)]
    output = io.BytesIO()
    frames[0].save(output, "WEBP", save_all=True, append_images=frames[1:], lossless=True)
    return output.getvalue()


def pdf(content=b"1 0 0 rg 10 10 50 30 re f", pages=1, size=(100, 60), **saving):
    document = pikepdf.new()
    for number in range(pages):
        page = document.add_blank_page(page_size=size)
        page.Contents = document.make_stream(content if number == 0 else b"0 0 1 rg 20 20 60 10 re f")
    return saved_pdf(document, **saving)


def saved_pdf(document, **saving):
    output = io.BytesIO()
    document.save(output, **saving)
    return output.getvalue()


def pdf_with_script():
    document = pikepdf.open(io.BytesIO(pdf()))
    document.Root.OpenAction = pikepdf.Dictionary(S=pikepdf.Name.JavaScript, JS="app.alert(1)")
    return saved_pdf(document)


def pdf_with_text():
    document = pikepdf.open(io.BytesIO(pdf(b"BT /F1 12 Tf 10 20 Td (Ahoy) Tj ET")))
    font = pikepdf.Dictionary(Type=pikepdf.Name.Font, Subtype=pikepdf.Name.Type1, BaseFont=pikepdf.Name("/Barnacle"))
    document.pages[0].Resources = pikepdf.Dictionary(Font=pikepdf.Dictionary(F1=document.make_indirect(font)))
    return saved_pdf(document)


def pdf_with_spots(*names):
    """A square in each spot color, one of them within a form."""
    content = b" ".join(b"/S%d cs 1 scn %d 10 12 20 re f" % (at, 5 + 15 * at) for at in range(len(names)))
    document = pikepdf.open(io.BytesIO(pdf(content)))
    tint = pikepdf.Dictionary(FunctionType=2, Domain=[0, 1], C0=[0, 0, 0, 0], C1=[1, 0.5, 0, 0.2], N=1)
    spaces = {
        f"/S{at}": pikepdf.Array([pikepdf.Name.Separation, pikepdf.Name(f"/{name}"), pikepdf.Name.DeviceCMYK, tint])
        for at, name in enumerate(names)
    }
    document.pages[0].Resources = pikepdf.Dictionary(ColorSpace=pikepdf.Dictionary(spaces))
    return saved_pdf(document)


def pdf_of_forms_in_each_other(count):
    """Forms that share their resources, so that each holds all; a spot color stands among them."""
    document = pikepdf.open(io.BytesIO(pdf_with_spots("Sea Blue")))
    page = document.pages[0]
    page.Resources.XObject = pikepdf.Dictionary()
    page.Resources = document.make_indirect(page.Resources)
    for number in range(count):
        form = document.make_stream(b"", Type=pikepdf.Name.XObject, Subtype=pikepdf.Name.Form, BBox=[0, 0, 9, 9])
        form.Resources = page.Resources
        page.Resources.XObject[f"/F{number}"] = form
    return saved_pdf(document)


def pdf_of_endless_pages():
    """A page tree whose only child is itself."""
    return pdf().replace(b"/Kids [ 3 0 R ]", b"/Kids [ 2 0 R ]").replace(b"/Kids [ 4 0 R ]", b"/Kids [ 3 0 R ]")


def pdf_bomb():
    """A page whose content is a hundred megabytes of drawing."""
    return pdf(b"0 0 m 100 60 l S\n" * 6_000_000, compress_streams=True)


def with_zip(data):
    output = io.BytesIO()
    with zipfile.ZipFile(output, "w") as archive:
        archive.writestr("a.txt", "a")
    return data + output.getvalue()


def heic(folder, size=(64, 48)):
    source, made = folder / "source.png", folder / "photo.heic"
    source.write_bytes(picture(size, color="#c02030"))
    subprocess.run(["heif-enc", "-q", "90", str(source), "-o", str(made)], check=True, capture_output=True)
    return made.read_bytes()


def filtered(primitive, parts=1):
    """A drawing whose parts have a filter."""
    inside = f'<filter id="f">{primitive}</filter>' + '<rect width="100" height="60" filter="url(#f)"/>' * parts
    return svg(inside)


def _photo_with(segment):
    """A photo with a segment of notes right after its beginning."""
    photo = picture((120, 80), "JPEG", color="#446688")
    return photo[:2] + segment + photo[2:]


def _segment(marker, content):
    return bytes([0xFF, marker]) + struct.pack(">H", len(content) + 2) + content


NOISY_PHOTOS = {
    "EXIF that is cut off": _photo_with(_segment(0xE1, b"Exif\0\0II*\0\x08\0\0\0\xff\x00")),
    "EXIF of nonsense": _photo_with(_segment(0xE1, b"Exif\0\0" + bytes(range(200)))),
    "EXIF whose turn is no number": _photo_with(
        _segment(0xE1, b"Exif\0\0II*\0\x08\0\0\0\x01\0\x12\x01\x02\0\x04\0\0\0abc\0\0\0\0\0")
    ),
    "a head of several pictures that isn't one": _photo_with(
        _segment(0xE2, b"MPF\0II*\0\x08\0\0\0\xff\xff" + bytes(30))
    ),
    "a profile of nonsense": _photo_with(_segment(0xE2, b"ICC_PROFILE\0\x01\x02" + bytes(40))),
    "a density of nothing": _photo_with(_segment(0xE0, b"JFIF\0\x01\x02\x01\0\0\0\0\0\0")),
}
