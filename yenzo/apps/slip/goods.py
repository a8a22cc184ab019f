"""The goods as drawn: an evaluation comes in; each side with its ink, in pieces replaceable alone, goes out."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from django.urls import reverse

from yenzo.apps.designs.picture_addresses import SMALL, picture_address
from yenzo.apps.designs.to_core import Uploads
from yenzo.apps.slip.fingerprints import Fingerprints, fingerprints_of
from yenzo.core.documents.used import own_artwork
from yenzo.core.evaluation import Evaluation
from yenzo.core.render.page import side_page
from yenzo.core.render.svg import Ink, ink_for_hands, ink_markup
from yenzo.core.scene.description import describe_side
from yenzo.core.scene.nodes import SideScene

# A drawing of more points goes to the browser once, as a picture file of its own, and not with every key.
MOST_DRAWN_POINTS = 1500


@dataclass(frozen=True)
class InkLayer:
    """Ink of a side, on its picture or under it: what may be moved by hand stands in groups that are called apart."""

    fingerprints: Fingerprints
    ink: Ink

    @property
    def markup(self) -> str:
        """All of it."""
        movable = (f'<g id="{self.group(at)}">{one}</g>' for at, one in enumerate(self.ink.movable))
        return "".join(piece for pair in zip(self.ink.frame, (*movable, ""), strict=True) for piece in pair)

    def group(self, at: int) -> str:
        """Return what the group of something is called that may be moved."""
        return f"{self.fingerprints.key}-{at}"


@dataclass(frozen=True)
class SlipSide:
    """One side of the goods: `ink` lies on it, `under` shows through its windows, `overlays` lie on its picture."""

    key: str
    name: str
    picture: str
    small: str
    said: str
    width_mm: float
    height_mm: float
    digest: str
    ink: InkLayer
    under: InkLayer
    overlays: tuple[str, ...] = ()

    @property
    def layers(self) -> tuple[InkLayer, InkLayer]:
        """All ink of it."""
        return self.ink, self.under


@dataclass(frozen=True)
class ChangedSide:
    """What looks otherwise on a side: all ink of a layer, or groups of it by what they are called."""

    side: SlipSide
    ink: bool
    under: bool
    groups: tuple[tuple[str, str], ...]


def changed_side(side: SlipSide, seen: Mapping[str, Fingerprints]) -> ChangedSide | None:
    """Return what looks otherwise on a side than what is seen; None if nothing does."""
    changed = [layer.fingerprints.changed(seen) for layer in side.layers]
    groups = tuple(
        (layer.group(at), layer.ink.movable[at])
        for layer, which in zip(side.layers, changed, strict=True)
        for at in which or ()
    )
    ink, under = (which is None for which in changed)
    return ChangedSide(side, ink, under, groups) if ink or under or groups else None


def drawn_sides(
    evaluation: Evaluation, uploads: Uploads, samples_by_side: Mapping[str, SideScene]
) -> tuple[SlipSide, ...]:
    """Return every side; `samples_by_side` are those with samples in windows that nothing shows in yet."""
    addresses = {file.prepared: picture_address(file.prepared) for file in own_artwork(evaluation.setup)}
    addresses |= {
        one.prepared_id: reverse("designs:upload_picture", args=[one.pk])
        for sent in uploads.values()
        for one in sent
        if one.prepared_id
    }
    return tuple(_drawn(side, samples_by_side.get(side.key), addresses.__getitem__) for side in evaluation.scene.sides)


def _drawn(side: SideScene, samples_by_side: SideScene | None, address: Callable[[str], str]) -> SlipSide:
    picture, small = picture_address(side.picture), picture_address(side.picture, SMALL)
    overlays = tuple(picture_address(asset) for asset in side.overlays)

    def layer(name: str, *around: object, under: bool) -> InkLayer:
        ink = ink_for_hands(side_page(side, with_goods=False, under=under), address, MOST_DRAWN_POINTS)
        if samples_by_side:
            faint = ink_markup(side_page(samples_by_side, with_goods=False, under=under), address, MOST_DRAWN_POINTS)
            first, *others = ink.frame
            ink = Ink((f'<g class="stand-in">{faint}</g>{first}', *others), ink.movable)
        return InkLayer(fingerprints_of(f"{name}-{side.key}", repr((ink.frame, around)), ink.movable), ink)

    return SlipSide(
        key=side.key,
        name=side.name,
        picture=picture,
        small=small,
        said=describe_side(side),
        width_mm=side.width_mm,
        height_mm=side.height_mm,
        digest=side.digest + (samples_by_side.digest if samples_by_side else ""),
        ink=layer("ink", picture, small, overlays, side.width_mm, side.height_mm, under=False),
        under=layer("under", under=True),
        overlays=overlays,
    )
