import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from demo.installation import ROOT
from tests.core.conftest import board
from yenzo.core.cli import SHIPPED_TYPEFACES
from yenzo.core.documents.assets import FolderAssets
from yenzo.core.documents.kit_use import KitUse
from yenzo.core.documents.kits import with_kits
from yenzo.core.documents.reading import dump_document, read_setup
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.wording import in_language, language_read, missing_words, read_words, used_wording
from yenzo.core.errors import DocumentError
from yenzo.core.evaluation import evaluate, sample_entries
from yenzo.core.translation import override_language

GERMAN = {"Board": "Brett", "Cedar": "Zeder", "Wood": "Holz", "Front": "Vorderseite", "Gold leaf": "Blattgold"}


def worded(**wording):
    return read_setup({**board(), "wording": wording})


def test_all_that_customers_read_is_found_once_with_its_place():
    found = {one.words: one.place for one in read_words(read_setup(board()))}
    assert found["Board"] == ("offer", "name")
    assert found["Name of the boat"] == ("fields", "name", "label")
    assert found["Oak"] == ("fields", "wood", "options", "oak", "label")
    assert found["Gold leaf"] == ("materials", "palettes", "finishes", "colors", "gold", "name")
    assert len(found) == len(read_words(read_setup(board())))


def test_set_up_is_read_in_a_language_as_far_as_it_has_words():
    setup = in_language(worded(de=GERMAN), "de")
    assert (setup.offer.name, setup.sides[0].name, setup.field("wood").label) == ("Brett", "Vorderseite", "Holz")
    assert setup.materials.palettes["finishes"].color("gold").name == "Blattgold"
    assert setup.field("name").label == "Name of the boat"
    assert "Name of the boat" in {one.words for one in missing_words(worded(de=GERMAN), "de")}
    assert "Wood" not in {one.words for one in missing_words(worded(de=GERMAN), "de")}


def test_words_of_a_language_count_in_its_countries_too_and_those_of_the_country_first():
    setup = worded(**{"de": GERMAN, "de-AT": {"Board": "Brettl"}})
    assert in_language(setup, "de-AT").offer.name == "Brettl"
    assert in_language(setup, "de-AT").field("wood").label == "Holz"
    assert in_language(setup, "de-CH").offer.name == "Brett"


def test_own_language_and_unknown_ones_leave_the_set_up_as_it_is():
    setup = worded(de=GERMAN)
    for language in ("en", "en-GB", "ar"):
        assert in_language(setup, language) is setup
    assert missing_words(setup, "en-GB") == ()
    assert len(missing_words(setup, "ar")) == len(read_words(setup))
    assert in_language(setup, "de") is in_language(setup, "de")


def test_what_customers_write_is_of_the_language_that_they_read():
    setup = worded(de=GERMAN)
    assert [language_read(setup, language) for language in ("de-AT", "en-GB", "ar")] == ["de-AT", "en-GB", "en"]
    turkish = read_setup({**board(), "language": "tr"})
    assert language_read(turkish, "en-GB") == "tr"


def test_words_that_were_changed_are_missing_again():
    document = board()
    document["offer"]["name"] = "Plank"
    setup = read_setup({**document, "wording": {"de": GERMAN}})
    assert in_language(setup, "de").offer.name == "Plank"
    assert used_wording(setup)["de"].keys() == GERMAN.keys() - {"Board"}


def test_what_a_choice_makes_stays_in_the_words_of_the_set_up():
    option = in_language(worded(de=GERMAN), "de").field("wood").option("cedar")
    assert (option.label, option.produced) == ("Zeder", "Cedar")
    document = board()
    document["fields"][4]["options"][0]["produced"] = "CEDRUS"
    setup = read_setup({**document, "wording": {"de": GERMAN}})
    assert in_language(setup, "de").field("wood").option("cedar").produced == "CEDRUS"


def test_texts_of_the_workshop_itself_are_not_translated():
    document = board()
    document["fields"].append({"key": "own", "kind": "fixed_text", "label": "Our mark", "text": "Board"})
    setup = in_language(read_setup({**document, "wording": {"de": GERMAN}}), "de")
    assert setup.field("own").text == "Board"


def test_kit_brings_its_words_and_the_product_has_the_last():
    kit = read_setup(
        {
            "offer": {"name": "Kit", "base_price": "0"},
            "fields": [{"key": "card", "kind": "line", "label": "Card"}],
            "wording": {"de": {"Card": "Karte", "Wood": "Wald"}, "ar": {"Card": "بطاقة"}},
        }
    )
    setup = with_kits(worded(de=GERMAN), [KitUse(key="gift", name="Gift", setup=kit)])
    assert in_language(setup, "de").field("gift-card").label == "Karte"
    assert in_language(setup, "de").field("wood").label == "Holz"
    assert in_language(setup, "ar").field("gift-card").label == "بطاقة"


@pytest.mark.parametrize("wording", [{"de": {"Board": ""}}, {"de": {"": "x"}}, {"DEUTSCH": {}}, {"de": ["x"]}])
def test_wording_that_says_nothing_is_refused(wording):
    with pytest.raises(DocumentError):
        read_setup({**board(), "wording": wording})


def test_document_without_wording_has_none_written():
    assert "wording" not in dump_document(read_setup(board()))
    assert dump_document(worded(de=GERMAN))["wording"] == {"de": GERMAN}


def _demo(name):
    folder = ROOT / "demo" / "products" / name
    return read_setup((folder / "setup.json").read_bytes()), FolderAssets([folder / "assets", SHIPPED_TYPEFACES])


def test_unit_of_length_is_no_word_that_a_translation_could_change():
    setup, _ = _demo("windbreak")
    assert "m" not in {one.words for one in read_words(setup)}
    assert {one.unit for one in setup.fields if getattr(one, "unit", "")} >= {"m", "m²"}
    worded = setup.model_copy(update={"wording": {"ar": {"m": "م", "m²": "م²"}}})
    units = {one.unit for one in in_language(worded, "ar").fields if getattr(one, "unit", "")}
    assert {"m", "م²"} <= units


@pytest.mark.parametrize("name", ["ships-bell", "harbor-pass", "deck-cushion", "windbreak"])
def test_language_of_who_reads_changes_no_scene_and_no_amount(name):
    setup, assets = _demo(name)
    entries = sample_entries(setup)
    plain = evaluate(setup, entries, assets)
    for language in ("de", "ar"):
        with override_language(language):
            read = evaluate(in_language(setup, language), entries, assets)
        assert [side.digest for side in read.scene.sides] == [side.digest for side in plain.scene.sides]
        assert [(line.key, line.amount) for line in read.quote.lines] == [
            (line.key, line.amount) for line in plain.quote.lines
        ]
        assert read.quote.total == plain.quote.total
        assert read.asked == plain.asked
        assert [item.code for item in read.verdict.blocking] == [item.code for item in plain.verdict.blocking]


@given(
    st.dictionaries(
        st.sampled_from(sorted({one.words for one in read_words(read_setup(board()))})), st.text(min_size=1)
    )
)
def test_any_wording_leaves_keys_kinds_and_amounts_alone(wording):
    def bare(setup):
        return json.loads(Setup.model_dump_json(setup, exclude={"wording"}))

    try:
        setup = worded(de=wording)
    except DocumentError:
        return  # Nothing but control characters.
    read = in_language(setup, "de")
    known = {**setup.wording.get("de", {})}

    def same(was, now, name=""):
        if isinstance(was, dict):
            assert was.keys() == now.keys()
            for key in was:
                same(was[key], now[key], key)
        elif isinstance(was, list):
            for one, other in zip(was, now, strict=True):
                same(one, other, name)
        elif was != now:
            assert now == known.get(was) or name == "produced"

    same(bare(setup), bare(read))
