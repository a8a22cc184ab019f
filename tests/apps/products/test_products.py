import pytest

from tests.core.artwork import samples
from tests.core.conftest import board
from yenzo.apps.materials.services.materials import add_font, save_material
from yenzo.apps.products.models import Revision, RevisionFile
from yenzo.apps.products.readiness import unready
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.pictures import add_goods_picture
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import DocumentError, TypefaceError, YenzoError


def test_published_revision_holds_all_it_depends_on(product):
    document = product.live.document
    assert set(document["materials"]["typefaces"]) == {"quayside", "log-book", "levant"}
    assert setup_of_revision(product.live).materials.methods["carving"].least_letter_mm == 20
    # The goods' picture and three fonts.
    assert RevisionFile.objects.filter(revision=product.live).count() == 4


def test_changing_the_materials_never_changes_the_past(owner, product):
    save_material(owner, "methods", "carving", {"name": "Carving", "done": "carved", "least_letter_mm": 55})
    product.live.refresh_from_db()
    assert setup_of_revision(product.live).materials.methods["carving"].least_letter_mm == 20


def test_publishing_twice_makes_a_second_revision_and_keeps_the_first(owner, product):
    first = product.live
    edit_draft(
        owner,
        product.pk,
        [{"do": "set", "path": ["offer", "base_price"], "value": "99.00"}],
        seen_version=0,
        label="Price",
    )
    second = publish_setup(owner, product.pk, seen_version=1)
    first.refresh_from_db()
    assert (first.number, str(first.base_price), second.number, str(second.base_price)) == (1, "86.000", 2, "99.00")
    assert first.sha256 != second.sha256


def test_publishing_a_draft_that_changed_meanwhile_is_refused(owner, product):
    edit_draft(owner, product.pk, [{"do": "set", "path": ["offer", "sku"], "value": "B"}], seen_version=0, label="SKU")
    with pytest.raises(DocumentError, match="has changed since you opened it"):
        publish_setup(owner, product.pk, seen_version=0)


@pytest.mark.parametrize(
    ("operation", "words"),
    [
        ({"do": "set", "path": ["sides", "front", "scale"], "value": None}, "Mark the scale of “Front” first"),
        ({"do": "set", "path": ["sides", "front", "areas", "panel", "x_mm"], "value": 300}, "“Panel” reaches beyond"),
        ({"do": "set", "path": ["fields", "finish", "colors"], "value": ["pink"]}, "offers the color “pink”"),
    ],
)
def test_draft_that_is_not_ready_is_not_published_and_says_why(owner, product, operation, words):
    operations = [operation]
    if "colors" in operation["path"]:
        operations += [
            {"do": "set", "path": ["fields", "finish", "default"], "value": None},
            {"do": "remove", "path": ["charges"], "key": "finish"},
        ]
    edit_draft(owner, product.pk, operations, seen_version=0, label="x")
    with pytest.raises(DocumentError, match=words):
        publish_setup(owner, product.pk, seen_version=1)


def test_materials_and_fonts_that_are_none_are_refused(owner, db):
    with pytest.raises(ValueError, match="least_letter_mm"):
        save_material(owner, "methods", "x", {"name": "X", "done": "x", "least_letter_mm": -1})
    with pytest.raises(TypefaceError, match="not a font file"):
        add_font(owner, b"no font at all", "fake.ttf")


def test_goods_picture_that_is_none_is_refused_in_words(owner, tmp_path):
    path = tmp_path / "goods.png"
    path.write_bytes(b"%PDF-1.7 something")
    with pytest.raises(YenzoError, match=r"“goods\.png” is damaged"):
        add_goods_picture(owner, path, "goods.png")


def test_goods_drawing_is_kept_as_a_picture(owner, tmp_path):
    path = tmp_path / "goods.svg"
    path.write_bytes(samples.svg(samples.LOGO))
    picture = add_goods_picture(owner, path, "goods.svg")
    assert (picture["width_px"], picture["height_px"]) == (4000, 2400)


def test_two_products_of_the_same_name_get_keys_of_their_own(owner, product):
    from yenzo.apps.products.services.products import import_product

    assert import_product(owner, board(), key="board").key == "board-2"


@pytest.mark.parametrize(
    ("place", "is_off"),
    [
        # The side is 700 x 220 mm: what fits its width need not fit its height.
        ({"y_mm": 121, "height_mm": 98}, False),
        ({"y_mm": 123, "height_mm": 98}, True),
        ({"x_mm": 161, "width_mm": 540}, True),
        ({"x_mm": -1}, True),
        ({"x_mm": 80, "y_mm": 61, "turn_deg": 90}, True),
        ({"x_mm": 80, "y_mm": 61, "width_mm": 200, "turn_deg": 45}, False),
    ],
)
def test_area_off_the_goods_is_found_at_each_edge_and_turned_as_it_is(place, is_off):
    document = board()
    document["sides"][0]["areas"][0] |= place
    faults = unready(read_setup(document))
    assert any("“Panel” reaches beyond the picture of “Front”." in fault for fault in faults) is is_off


def test_revision_that_later_rules_would_refuse_stays_readable(product):
    document = {**product.live.document, "placements": [{**product.live.document["placements"][0], "field": "gone"}]}
    with pytest.raises(DocumentError, match="gone"):
        read_setup(document)
    Revision.objects.filter(pk=product.live_id).update(document=document, sha256="0" * 64)
    assert setup_of_revision(Revision.objects.get(pk=product.live_id)).placements[0].field == "gone"
