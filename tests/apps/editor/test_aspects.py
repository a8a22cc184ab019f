import pytest
from django.core.exceptions import ValidationError
from django.http import QueryDict

from tests.core.conftest import board
from yenzo.apps.editor.aspects import ASPECTS, FormLine, sentence_of
from yenzo.apps.editor.aspects.sentence import MORE_TEXT, PATTERNS
from yenzo.apps.products.kinds import KIND_WORDS
from yenzo.core.documents.edits import OPERATIONS, apply_operations
from yenzo.core.documents.fields import AnyField
from yenzo.core.documents.reading import dump_document, read_setup
from yenzo.core.errors import DocumentError

PLACED = {"height", "align", "face", "paint", "fit", "artwork-paint", "layout", *MORE_TEXT}


def lines_and_aspects():
    """Every underlined value of every line of the board."""
    setup = read_setup(board())
    for field in setup.fields:
        for part in sentence_of(FormLine(setup, field)):
            if part.aspect and (part.aspect != "charge" or part.charge):
                yield field.key, part.aspect, part.of


def kinds():
    return {model.model_fields["kind"].default for model in AnyField.__origin__.__args__}


def words(setup, key):
    field = setup.field(key)
    said = (part.words for part in sentence_of(FormLine(setup, field)) if not part.is_offer)
    return "".join([field.label, *said])


def line_of(setup, field_key, of):
    """The line of a field, meaning one of its placements or charges when that is named."""
    placement = next((one for one in setup.placements_of(field_key) if one.key == of), None)
    charge = next((one for one in setup.charges_of(field_key) if one.key == of), None)
    return FormLine(setup, setup.field(field_key), placement, charge)


def posted(form, **others):
    """What a browser sends when the form is saved as it opened, but for others."""
    data = QueryDict(mutable=True)
    for name, field in form.fields.items():
        value = others.get(name, form.get_initial_for_field(field, name))
        if isinstance(value, list | tuple):
            data.setlist(name, [str(part) for part in value])
        elif value is True:
            data[name] = "on"
        elif value is not None and value is not False:
            data[name] = str(value)
    return data


def saved(document, line, aspect, data):
    form = aspect.form(line, data)
    assert form.is_valid(), form.errors
    operations = OPERATIONS.validate_python(aspect.operations(line, form.cleaned_data))
    changed, _ = apply_operations(document, operations)
    return read_setup(changed)


def test_sentences_exist_for_every_kind_of_field():
    assert kinds() == set(PATTERNS) == set(KIND_WORDS)


def test_sentence_reads_like_a_work_order():
    setup = read_setup(board())
    assert words(setup, "name") == (
        "Name of the boat — a text, needed, up to 18 characters, letters, digits, space, - & ', "
        "in capitals, no sample. Goes on Front / Panel, in one line, as large as fits, letters 30 to 80 mm, centered, in the "
        "customer's “Lettering”, in the customer's “Finish”. Adds 0.40 a character beyond the first 6. Asked always."
    )
    assert words(setup, "photo").endswith("Adds nothing. Asked when With a photo is yes.")
    assert "Adds 24.00 for Oak." in words(setup, "wood")


@pytest.mark.parametrize(("field_key", "aspect_key", "placement_key"), list(lines_and_aspects()))
def test_saving_a_form_as_it_opened_changes_nothing(product, field_key, aspect_key, placement_key):
    setup = read_setup(board())
    line, aspect = line_of(setup, field_key, placement_key), ASPECTS[aspect_key]
    again = saved(board(), line, aspect, posted(aspect.form(line)))
    assert again == setup


@pytest.mark.parametrize(
    ("field_key", "aspect_key", "given", "said"),
    [
        ("name", "label", {"label": "Boat"}, "Boat — a text"),
        ("name", "required", {"required": False}, "may stay empty"),
        ("name", "limit", {"least": 2, "most": 9}, "2 to 9 characters"),
        ("name", "limit", {"least": None, "most": 1}, "up to 1 character,"),
        ("name", "limit", {"most_words": 5}, "up to 18 characters and up to 5 words"),
        ("name", "allowed", {"any": True}, "any characters"),
        ("name", "allowed", {"any": True, "emoji": False}, "any characters, no emoji"),
        ("name", "case", {"case": "typed"}, "as typed"),
        ("name", "case", {"case": "words"}, "each word with a capital"),
        (
            "name",
            "pattern",
            {"shapes": "AA 9999\nA-99[9]", "passes": "PH 1931", "fails": "1931"},
            "It has the shape of two letters, a space and four digits, or one letter, a hyphen, two digits and perhaps one digit.",
        ),
        ("name", "word-lists", {"word_lists": False, "direction": "right_to_left"}, "any words, from right to left."),
        ("name", "sample", {"sample": "OTTER"}, "sample “OTTER”"),
        ("name", "places", {"areas": ["front/photo", "front/panel"]}, "Front / Panel and Front / Photo"),
        ("name", "places", {"areas": []}, "no area, only the ticket"),
        ("name", "height", {"least_mm": 50, "most_mm": 50}, "50 mm high"),
        ("name", "align", {"align": "left", "vertical": "top"}, "at the left at the top"),
        ("name", "align", {"align": "center", "vertical": "capitals"}, "centered in the middle by its capitals"),
        ("name", "face", {"typeface": "fixed/levant"}, "in Levant"),
        ("name", "paint", {"color": "finishes/white"}, "in White"),
        ("name", "layout", {"way": "block"}, "as a block that wraps, as large as fits"),
        ("name", "layout", {"way": "stack"}, "letters below each other"),
        ("name", "layout", {"way": "base", "base_angle": 7}, "mm long sloping by 7°"),
        ("name", "layout", {"way": "arc", "stand": "under"}, "on an arc under the circle, radius"),
        ("name", "layout", {"way": "curve", "points": "0 30, 30 10, 60 50, 90 20"}, "along a curve"),
        ("name", "layout", {"way": "edge", "tops": "in"}, "round the edge of its area, letters' tops in, as large"),
        ("name", "letters", {"letter_spacing": 8}, "letters 8% of the em apart"),
        ("name", "letters", {"features": ["swashes", "old_style_figures"]}, "swashes and old-style figures"),
        ("name", "joined", {"joined": "{Name of the boat} of {Wood}"}, "as “{Name of the boat} of {Wood}”"),
        (
            "name",
            "stroke",
            {"is_on": True, "width_mm": 1.5, "color": "finishes/white"},
            "a 1.5 mm stroke outside the letters in White",
        ),
        (
            "name",
            "shadow",
            {"is_on": True, "across_mm": 2, "down_mm": -1, "color": "field/finish"},
            "a shadow 2 mm across and -1 mm down in the customer's “Finish”",
        ),
        ("name", "plate", {"is_on": True, "color": "finishes/white"}, "on a plate in White, 3 mm around"),
        (
            "name",
            "plate",
            {"is_on": True, "knock_out": True, "color": "finishes/white"},
            "cut out of a plate in White, 3 mm around",
        ),
        ("name", "second-color", {"is_on": True, "color": "finishes/white"}, "going over into White"),
        ("name", "second-color", {"is_on": True, "kind": "dots", "color": "finishes/white"}, "dotted with White"),
        ("name", "lands-when", {"test-0": "with_photo is yes"}, "when With a photo is yes"),
        ("photo", "fit", {"fit": "contain"}, "fitting inside the area"),
        (
            "photo",
            "kinds",
            {"kinds": ["png"], "most_megabytes": 8, "least_pixels": 400, "most_files": 1},
            "PNG, up to 8 MB, at least 400 pixels",
        ),
        (
            "photo",
            "one-color",
            {"is_on": True, "threshold": 40},
            "made into outlines of what is darker than 40 %. Goes",
        ),
        ("photo", "artwork-paint", {"is_on": True, "color": "field/finish"}, "painted in the customer's “Finish”."),
        ("photo", "artwork-paint", {"color": "finishes/white"}, "painted as it is."),
        ("photo", "ask-when", {"test-0": ""}, "Asked always"),
        (
            "wood",
            "ask-when",
            {"test-0": "with_photo is yes", "test-1": "lettering is_not levant", "match": "any"},
            "Asked when With a photo is yes or Lettering is not Levant.",
        ),
        (
            "wood",
            "ask-when",
            {"test-0": "name contains …", "value-0": "&"},
            "Asked when Name of the boat contains “&”.",
        ),
        (
            "wood",
            "ask-when",
            {"test-0": "name one_of …", "value-0": "TERN, OTTER"},
            "Asked when Name of the boat is one of “TERN”, “OTTER”.",
        ),
        (
            "wood",
            "ask-when",
            {"match": "none", "test-0": "name empty", "test-1": "with_photo is yes"},
            "Asked when neither Name of the boat is empty nor With a photo is yes.",
        ),
        (
            "wood",
            "required-when",
            {"test-0": "lettering is levant"},
            "Asked always. Needed when Lettering is Levant.",
        ),
        (
            "wood",
            "options",
            {"options": "Cedar\nLarch = LRX"},
            "Cedar or Larch; at first Cedar. Goes on no area, only the ticket. Adds 24.00 for Larch.",
        ),
        ("lettering", "faces", {"typefaces": ["levant"]}, "among Levant; at first nothing"),
        ("wood", "kind", {"kind": "several"}, "Wood — a choice of several, may stay empty: any number of Cedar or Oak"),
        ("wood", "stands", {"width": "half"}, "It is half as wide."),
        ("wood", "explanation", {"explanation": "Cedar grows soft"}, "Explained by “Cedar grows soft…”."),
        ("wood", "looks", {"shown": "list"}, "Shown as a list."),
        (
            "wood",
            "offered-when",
            {"test-oak": "name filled"},
            "Offered: Oak only when Name of the boat is filled.",
        ),
        (
            "wood",
            "ask-when",
            {
                "match": "all",
                "test-0": "name filled",
                "inner-match": "any",
                "inner-test-0": "with_photo is yes",
                "inner-test-1": "lettering is levant",
            },
            "Asked when Name of the boat is filled and (With a photo is yes or Lettering is Levant).",
        ),
        ("finish", "colors", {"colors": ["finishes/white"]}, "White of Finishes; at first nothing"),
        ("with_photo", "default", {"default": "yes"}, "at first yes"),
    ],
)
def test_saving_a_form_says_what_was_given(product, field_key, aspect_key, given, said):
    setup = read_setup(board())
    placement = next((p.key for p in setup.placements_of(field_key)), "") if aspect_key in PLACED else ""
    line, aspect = line_of(setup, field_key, placement), ASPECTS[aspect_key]
    again = saved(board(), line, aspect, posted(aspect.form(line), **given))
    assert said in words(again, field_key)


@pytest.mark.parametrize(
    ("kind", "given", "aspect_key", "said"),
    [
        ("number", {"least": "9", "most": "3"}, "range", "The least is above the most"),
        ("number", {"step": "0"}, "range", "more than nothing"),
        ("line", {"shapes": "AA", "passes": "", "fails": "1"}, "pattern", "Give an example of each"),
        ("line", {"shapes": "AA", "passes": "A", "fails": "1"}, "pattern", "“A” should pass, but hasn't the shape AA"),
        ("line", {"shapes": "AA", "passes": "AB", "fails": "BA"}, "pattern", "“BA” should not pass"),
        ("line", {"shapes": "A[A", "passes": "AB", "fails": "B"}, "pattern", "brackets must be closed"),
        ("date", {"closed_weekdays": list("0123456")}, "days", "no day is left"),
        ("date", {"closed_days": "Christmas"}, "days", "2031-12-25"),
    ],
)
def test_typed_kinds_without_sense_are_refused_in_words(kind, given, aspect_key, said):
    document = board()
    document["fields"].append({"key": "more", "kind": kind, "label": "More"})
    line, aspect = line_of(read_setup(document), "more", ""), ASPECTS[aspect_key]
    form = aspect.form(line, posted(aspect.form(line), **given))
    assert form.is_valid(), form.errors
    with pytest.raises(ValidationError, match=said):
        aspect.operations(line, form.cleaned_data)


def in_turn(document, changes):
    """The board after the forms of a text were saved one after another."""
    for aspect_key, given in changes:
        line, aspect = line_of(read_setup(document), "name", "name"), ASPECTS[aspect_key]
        form = aspect.form(line, posted(aspect.form(line), **given))
        assert form.is_valid(), form.errors
        document, _ = apply_operations(document, OPERATIONS.validate_python(aspect.operations(line, form.cleaned_data)))
    return read_setup(document).placements[0]


def test_text_takes_every_layout_after_every_other():
    ways = ["line", "base", "block", "arc", "curve", "edge", "stack"]
    for first in ways:
        for second in ways:
            changes = [("layout", {"way": first}), ("layout", {"way": second})]
            assert in_turn(board(), changes).kind == {"base": "line"}.get(second, second)


def test_justified_block_becomes_a_centered_line():
    changes = [("layout", {"way": "block"}), ("align", {"align": "justified"}), ("layout", {"way": "arc"})]
    assert in_turn(board(), changes[:2]).align == "justified"
    assert in_turn(board(), changes).align == "center"


@pytest.mark.parametrize(
    ("aspect", "given", "said"),
    [
        ("layout", {"way": "curve", "points": "0 30, 30"}, "two numbers"),
        ("layout", {"way": "curve", "points": "0 0, 1 1"}, "4, 7, 10 … points"),
        ("layout", {"way": "arc", "stand": "over", "x_mm": "1"}, "Please fill in all the numbers"),
        ("joined", {"joined": "{Nobody} & {Name of the boat}"}, "must be the name of a line"),
        ("joined", {"joined": "{Wood} only"}, "must name this line too"),
    ],
)
def test_layout_without_sense_is_refused_in_words(sign_in, product, aspect, given, said):
    answer = sign_in("seller").post(f"/workshop/products/board/lines/name/{aspect}/?placement=name", given)
    assert answer.status_code == 422
    assert said in answer.content.decode()


def test_least_letter_height_above_the_most_is_refused_at_its_form(sign_in, product):
    seller = sign_in("seller")
    address = "/workshop/products/board/lines/name/height/?placement=name"
    answer = seller.post(address, {"least_mm": "90", "most_mm": "80"})
    assert (answer.status_code, answer["HX-Retarget"]) == (422, f'form[hx-post="{address}"]')
    assert "The least letter height is above the most." in answer.content.decode()


def test_rule_keeps_what_is_written_and_its_groups_and_needs_something_beside():
    document = board()
    group = {"match": "any", "conditions": [{"field": "name", "test": "filled"}, {"field": "wood", "value": "oak"}]}
    document["fields"][3]["ask_when"] = {
        "conditions": [{"field": "name", "test": "contains", "value": "&"}, {"field": "with_photo", "value": True}],
        "groups": [group],
    }
    setup = read_setup(document)
    said = "Asked when Name of the boat contains “&” and With a photo is yes and (Name of the boat is filled or Wood is Oak)."
    assert said in words(setup, "photo")
    line, aspect = line_of(setup, "photo", ""), ASPECTS["ask-when"]
    again = saved(document, line, aspect, posted(aspect.form(line)))
    assert again.field("photo").ask_when == setup.field("photo").ask_when
    form = aspect.form(line, posted(aspect.form(line), **{"value-0": ""}))
    assert form.is_valid()
    with pytest.raises(ValidationError, match="Write beside the condition"):
        aspect.operations(line, form.cleaned_data)


def test_kind_that_is_changed_and_changed_back_has_its_choices_again(product):
    document = board()
    for kind in ("yes_no", "choice"):
        setup = read_setup(document)
        line, aspect = line_of(setup, "wood", ""), ASPECTS["kind"]
        document["charges"] = [charge for charge in document["charges"] if charge.get("field") != "wood"]
        line = FormLine(read_setup(document), line.field)
        document = dump_document(saved(document, line, aspect, posted(aspect.form(line), kind=kind)))
    again, before = (read_setup(one).field("wood") for one in (document, board()))
    assert again.options == before.options
    assert again.default == before.default


def test_kind_that_another_line_leans_on_is_refused_in_words(product):
    document = board()
    line, aspect = line_of(read_setup(document), "with_photo", ""), ASPECTS["kind"]
    with pytest.raises(DocumentError, match="never answered with yes or no"):
        saved(document, line, aspect, posted(aspect.form(line), kind="line"))


AXES = [{"key": "edge", "name": "Edge", "values": [{"key": "rope", "name": "Rope"}, {"key": "plain", "name": "Plain"}]}]
VARIANTS = [{"key": key, "name": key.title(), "at": {"edge": key}} for key in ("rope", "plain")]


@pytest.mark.parametrize(
    ("code", "said"),
    [
        ("@signed_in is yes", "Asked when the customer is signed in."),
        ("@signed_in is no", "Asked when the customer is not signed in."),
        ("@axis/edge is rope", "Asked when Edge is Rope."),
        ("@axis/edge is_not rope", "Asked when Edge is not Rope."),
    ],
)
def test_lines_and_choices_are_asked_by_sign_in_and_by_the_place_on_an_axis(code, said):
    document = board()
    document["offer"] |= {"axes": AXES, "variants": VARIANTS}
    line = line_of(read_setup(document), "wood", "")
    aspect = ASPECTS["ask-when"]
    form = aspect.form(line)
    assert code in dict(form.fields["test-0"].choices)
    made = saved(document, line, aspect, posted(form, **{"test-0": code}))
    assert words(made, "wood").endswith(said)
    offered = ASPECTS["offered-when"]
    made = saved(document, line, offered, posted(offered.form(line), **{"test-oak": code}))
    assert made.field("wood").option("oak").ask_when is not None


def test_rule_has_as_many_conditions_as_are_needed():
    line = line_of(read_setup(board()), "wood", "")
    aspect = ASPECTS["ask-when"]
    form = aspect.form(line)
    given = {f"test-{row}": "name is_not …" for row in range(9)} | {f"value-{row}": f"Tern {row}" for row in range(9)}
    made = saved(board(), line, aspect, posted(form, **given))
    rule = made.field("wood").ask_when
    assert len(rule.conditions) == 9
    assert len([name for name in aspect.form(line_of(made, "wood", "")).fields if name.startswith("test-")]) > 9
