"""The pipeline as a whole: a set-up and entries come in; what is asked, verdict, scene and quote go out."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from yenzo.core.asking.ask import Asked, Context, ask
from yenzo.core.asking.check import check, is_awaited
from yenzo.core.asking.kinds import kind_of
from yenzo.core.asking.kinds.own_items import example_items
from yenzo.core.asking.second_look.look import Question, second_look
from yenzo.core.documents.assets import Assets
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.fields import ArtworkField
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.setup import Setup
from yenzo.core.preflight.inspect import preflight
from yenzo.core.preflight.verdict import Verdict, judge
from yenzo.core.pricing.amounts import Amounts, measure_amounts
from yenzo.core.pricing.charging import Charged
from yenzo.core.pricing.order import OrderLine, quote_order
from yenzo.core.pricing.quote import Quote, price
from yenzo.core.scene.compose import compose
from yenzo.core.scene.nodes import Scene, SideScene
from yenzo.core.text.typefaces import Typefaces
from yenzo.core.translation import SOURCE_LANGUAGE, current_language, override_language


@dataclass(frozen=True)
class Evaluation:
    """Everything that follows from one customer's entries; its sentences are in `language` (BCP 47)."""

    setup: Setup
    asked: Asked
    scene: Scene
    verdict: Verdict
    amounts: Amounts
    quote: Quote
    language: str = SOURCE_LANGUAGE
    questions: tuple[Question, ...] = ()


def evaluate(setup: Setup, entries: Entries, assets: Assets, context: Context | None = None) -> Evaluation:
    """Go from raw entries to scene, verdict and quote; raises AssetError when the set-up's files are missing."""
    return evaluate_asked(setup, ask(setup, entries, context), assets, typed=entries.values)


def evaluate_asked(
    setup: Setup,
    asked: Asked,
    assets: Assets,
    *,
    language: str | None = None,
    typed: Mapping[str, object] | None = None,
) -> Evaluation:
    """Go from what was asked, as an order has frozen it: nothing is asked again.

    `language` is that of its sentences, whoever reads now where none is given; nothing else depends on it. The second
    look knows by `typed`, the raw entries, what was put in order already.
    """
    with override_language(language or current_language()):
        typefaces = Typefaces(setup.materials, assets)
        scene = compose(setup, asked, typefaces, assets)
        amounts = measure_amounts(scene)
        problems = [*check(setup, asked, typefaces), *Charged(setup, asked, amounts).problems()]
        verdict = judge(problems, preflight(scene, setup.materials))
        questions = second_look(setup, asked, typed)
        return Evaluation(
            setup, asked, scene, verdict, amounts, price(setup, asked, amounts), current_language(), questions
        )


def stand_ins(evaluation: Evaluation, assets: Assets) -> dict[str, SideScene]:
    """Return, by side, what samples look like on the goods where a file must still be sent: none of it is made."""
    setup, asked = evaluation.setup, evaluation.asked
    samples = {
        field.key: field.sample
        for field in setup.fields
        if isinstance(field, ArtworkField) and field.sample and is_awaited(setup, field, asked)
    }
    if not samples:
        return {}
    shown_placements = tuple(one for one in setup.placements if one.field in samples)
    shown = setup.model_copy(update={"placements": shown_placements})
    filled = asked.model_copy(update={"values": {**asked.values, **samples}})
    scene = compose(shown, filled, Typefaces(setup.materials, assets), assets)
    return {side.key: side for side in scene.sides if any(area.nodes for area in side.areas)}


def quoted_together(pieces: Sequence[tuple[str, Evaluation]]) -> list[Evaluation]:
    """Return the pieces of one order, each given with what identifies its product, with their quotes.

    What is charged once an order stands in one of them only.
    """
    quotes = quote_order(OrderLine(product, one.setup, one.asked, one.amounts) for product, one in pieces)
    return [replace(one, quote=quote) for (_, one), quote in zip(pieces, quotes, strict=True)]


def sample_entries(setup: Setup) -> Entries:
    """Return entries that show the goods off: each text its sample, each choice its default or first possibility.

    Uploads are filled by their sample pictures, as far as they have some.
    """
    samples = {field.key: field.sample for field in setup.fields if isinstance(field, ArtworkField) and field.sample}
    values = {field.key: kind_of(field).sample(field, setup) for field in setup.fields}
    items = {field.key: example_items(field, setup) for field in setup.fields if isinstance(field, OwnItemsField)}
    return Entries(values=values, uploads=samples, items=items)
