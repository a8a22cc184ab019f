"""What is known of an outside file, and within which bounds it is looked at."""

from yenzo.core.documents.values import Frozen


class ArtworkLimits(Frozen):
    """Bounds of every decode: bytes of the file, pixels, seconds and memory of the process that does it."""

    most_bytes: int = 50_000_000
    most_pixels: int = 120_000_000
    most_seconds: int = 20
    most_memory_bytes: int = 2_000_000_000


class ArtworkFacts(Frozen):
    """An accepted file: its kind and its size as a picture, upright."""

    kind: str
    size_bytes: int
    width_px: int
    height_px: int
    dpi: float | None = None
    notes: tuple[str, ...] = ()


class PreparedArtwork(Frozen):
    """An accepted file with the two pictures that the core made from it: for production and for the screen."""

    facts: ArtworkFacts
    prepared: bytes
    shown: bytes
