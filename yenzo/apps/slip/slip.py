"""The slip: a set-up and entries come in; all that the order slip and the goods beside it show goes out."""

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from functools import cached_property

from yenzo.apps.designs.answers import meant_value
from yenzo.apps.designs.picture_addresses import picture_address
from yenzo.apps.designs.request_context import request_context
from yenzo.apps.designs.to_core import Uploads
from yenzo.apps.slip.fingerprints import Fingerprints, fingerprints_of
from yenzo.apps.slip.goods import SlipSide, drawn_sides
from yenzo.apps.slip.hands import MovableItem, list_fingerprints, movable_items, settled_hands, strip_fingerprints
from yenzo.apps.slip.lines import LineDrawing, SlipLine
from yenzo.apps.slip.options import SlipOption
from yenzo.core.asking.ask import Context
from yenzo.core.asking.problems import GOODS
from yenzo.core.documents.assets import Assets
from yenzo.core.documents.axes import Axis, AxisValue, variant_at
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.setup import Setup
from yenzo.core.evaluation import Evaluation, evaluate, stand_ins
from yenzo.core.preflight.verdict import Verdict
from yenzo.core.pricing.quote import Quote


@dataclass(frozen=True)
class SlipAxis:
    """An axis that the goods differ by, with its values."""

    key: str
    name: str
    values: tuple[SlipOption, ...]


@dataclass(frozen=True)
class SlipSection:
    """A section of the slip with its lines; the one that has no key holds what stands before all sections."""

    key: str
    title: str
    introduction: str
    lines: tuple[SlipLine, ...]
    blocked: bool
    is_hidden: bool = False

    @property
    def is_asked(self) -> bool:
        """Whether anything in it is asked."""
        return any(line.is_asked for line in self.lines)

    @property
    def begins_open(self) -> bool:
        """Whether something in it is needed or wrong, so that it shouldn't begin folded."""
        return any(line.is_asked and (line.is_needed or line.problems) for line in self.lines)


@dataclass(frozen=True)
class Slip:
    """Everything that a product page or a try-out shows of one customer's entries; `page` is the section in view."""

    setup: Setup
    entries: Entries
    evaluation: Evaluation
    sections: tuple[SlipSection, ...]
    sides: tuple[SlipSide, ...]
    variants: tuple[SlipOption, ...]
    axes: tuple[SlipAxis, ...] = ()
    page: str = ""
    uploads: Uploads = field(default_factory=dict)
    movable: tuple[MovableItem, ...] = ()
    selected: str = ""

    @property
    def hands(self) -> str:
        """What was changed by hand, as the next request carries it."""
        return settled_hands(self.entries, self.evaluation)

    @property
    def meant(self) -> tuple[str, ...]:
        """What the customer said that is right so, as the form is sent with it."""
        return tuple(meant_value(key, one) for key, answers in self.entries.meant.items() for one in answers)

    @property
    def selected_item(self) -> MovableItem | None:
        """What is held by hand now."""
        return next((item for item in self.movable if item.key == self.selected), None)

    @cached_property
    def list_fingerprints(self) -> Fingerprints:
        """What tells apart the list of what can be changed by hand."""
        return list_fingerprints(self.movable)

    @property
    def lines(self) -> tuple[SlipLine, ...]:
        """Every line, in the order that it is shown."""
        return tuple(line for section in self.sections for line in section.lines)

    @property
    def picture(self) -> str:
        """Where the goods' own picture is, shown while no side shows them."""
        picture = self.setup.offer.picture
        return picture_address(picture.asset) if picture else ""

    @property
    def pages(self) -> tuple[SlipSection, ...]:
        """The sections that are shown one after another; none when they are shown together."""
        is_paged = self.setup.form.shown == "pages"
        return tuple(section for section in self.sections if section.is_asked) if is_paged else ()

    @property
    def neighbors(self) -> tuple[str | None, str | None]:
        """The pages before and after the one in view."""
        keys = [section.key for section in self.pages]
        at = keys.index(self.page) if self.page in keys else 0
        return keys[at - 1] if at else None, keys[at + 1] if at + 1 < len(keys) else None

    @property
    def hidden(self) -> str:
        """Names of the sections that are not shown now, separated by spaces."""
        return " ".join(f"section-{section.key}" for section in self.sections if section.is_hidden)

    @property
    def quote(self) -> Quote:
        """The price as it has built up."""
        return self.evaluation.quote

    @property
    def verdict(self) -> Verdict:
        """What blocks, and what is advice."""
        return self.evaluation.verdict

    @property
    def goods_problems(self) -> tuple[str, ...]:
        """What is the matter with the goods themselves: too few are left."""
        return tuple(item.message for item in self.verdict.blocking if item.field == GOODS)

    @cached_property
    def price_fingerprints(self) -> Fingerprints:
        """What tells one price from another, as it is shown."""
        return fingerprints_of("price", repr(self.quote), ())

    @cached_property
    def goods_said_fingerprints(self) -> Fingerprints:
        """What tells apart what is said of the goods themselves."""
        return fingerprints_of("goods-said", "\n".join(self.goods_problems), ())

    @cached_property
    def lines_with_beside(self) -> tuple[SlipLine, ...]:
        """The lines that are asked and have something beside their control that may change with each key."""
        return tuple(line for line in self.lines if line.is_asked and line.beside)

    @cached_property
    def beside_fingerprints(self) -> Fingerprints:
        """What tells apart what stands beside controls."""
        lines = self.lines_with_beside
        return fingerprints_of("beside", " ".join(line.field.key for line in lines), [line.beside for line in lines])

    @property
    def shown(self) -> str:
        """What is shown of the goods, for hands, as the price and beside controls, as the next request carries it."""
        parts = [layer.fingerprints for side in self.sides for layer in side.layers]
        hands = (self.list_fingerprints, strip_fingerprints(self.selected_item))
        said = (self.price_fingerprints, self.goods_said_fingerprints, self.beside_fingerprints)
        return " ".join(one.token for one in (*parts, *hands, *said))

    @property
    def messages_shown(self) -> str:
        """The lines that something is said of, and what, as the next request carries it."""
        return " ".join(line.message_digest for line in self.lines if line.messages)

    @property
    def asked(self) -> str:
        """The shapes of the lines that are asked, as the next request carries them."""
        return " ".join(line.shape for line in self.lines if line.is_asked)


@dataclass(frozen=True)
class Turn:
    """Which page is in view, and which one is wanted instead."""

    page: str = ""
    wanted: str | None = None


def build_slip(
    setup: Setup,
    entries: Entries,
    assets: Assets,
    uploads: Uploads,
    *,
    pending: Uploads | None = None,
    signed_in: bool = False,
    shows_missing: bool = False,
    keeps_page: bool = False,
    turn: Turn = Turn(),
    selected: str = "",
    context: Context | None = None,
) -> Slip:
    """Evaluate the entries once and lay out what shows. What is still empty is said when asked for, or of a page left.

    Where it is said, the first page that has any of it comes into view, unless the page is kept. `pending` are files
    that are still to be looked at, or were refused. The item that is `selected` gets its strip of controls.
    Unless a `context` is given, it is asked as of now.
    """
    evaluation = evaluate(setup, entries, assets, context or request_context([setup], signed_in=signed_in))
    blocking = {item.field for item in evaluation.verdict.blocking}
    stays = _stays(setup, turn, {field.section or "" for field in setup.fields if field.key in blocking})
    held_back = turn.page if stays and turn.wanted is not None else None

    def shows_missing_of(key: str) -> bool:
        field = setup.field(key)
        return shows_missing or (field is not None and (field.section or "") == held_back)

    drawing = LineDrawing(evaluation, entries, uploads, pending or {}, shows_missing_of)
    sections = tuple(_sections(setup, drawing, blocking))
    page = turn.page if stays else turn.wanted or ""
    page = _page_in_view(sections, page, goes_to_blocked=shows_missing and not keeps_page)
    return Slip(
        setup=setup,
        entries=entries,
        evaluation=evaluation,
        sections=_with_hidden(setup, sections, page),
        sides=drawn_sides(evaluation, uploads, stand_ins(evaluation, assets)),
        variants=() if setup.offer.axes else _variants(evaluation),
        axes=_axes(evaluation),
        page=page,
        uploads=uploads,
        movable=movable_items(evaluation, selected),
        selected=selected,
    )


def _stays(setup: Setup, turn: Turn, blocked: set[str]) -> bool:
    """Tell whether the page in view stays: none other is wanted, or this one must be finished first."""
    if turn.wanted is None:
        return True
    order = ["", *(section.key for section in setup.sections)]
    if not setup.form.finish_pages or turn.wanted not in order or turn.page not in order:
        return False
    before = order[: order.index(turn.wanted)]
    return any(key in blocked for key in before[order.index(turn.page) :])


def _sections(setup: Setup, drawing: LineDrawing, blocking: set[str]) -> Iterator[SlipSection]:
    """Yield the sections that have lines, first what stands before all of them."""
    for section, fields in setup.form_order:
        lines = tuple(drawing.line(field) for field in fields)
        if lines:
            key, title, introduction = (section.key, section.title, section.introduction) if section else ("", "", "")
            yield SlipSection(key, title, introduction, lines, any(field.key in blocking for field in fields))


def _page_in_view(sections: tuple[SlipSection, ...], page: str, *, goes_to_blocked: bool) -> str:
    """Return the page that comes into view: the one that is wanted, if it is there, or the first that blocks."""
    if goes_to_blocked:
        page = next((section.key for section in sections if section.blocked), page)
    keys = [section.key for section in sections if section.is_asked]
    return page if page in keys else next(iter(keys), "")


def _with_hidden(setup: Setup, sections: tuple[SlipSection, ...], page: str) -> tuple[SlipSection, ...]:
    """Return the sections, those hidden that ask nothing, or are another page than the one in view."""
    is_paged = setup.form.shown == "pages"
    return tuple(
        replace(section, is_hidden=section.key != page if is_paged else not section.is_asked) for section in sections
    )


def _axes(evaluation: Evaluation) -> tuple[SlipAxis, ...]:
    """Return the axes as they look from the variant that is chosen: what another value costs more, and moves."""
    offer = evaluation.setup.offer
    now = offer.variant(evaluation.asked.variant)
    if now is None:
        return ()

    def option(axis: Axis, value: AxisValue) -> SlipOption:
        wanted = {**now.at, axis.key: value.key}
        then = variant_at(offer.variants, wanted, now) or now
        more = then.price_difference - now.price_difference
        is_chosen = now.at.get(axis.key) == value.key
        return SlipOption(value.key, value.name, is_chosen, more or None, value.swatch, moves_others=then.at != wanted)

    return tuple(SlipAxis(one.key, one.name, tuple(option(one, value) for value in one.values)) for one in offer.axes)


def _variants(evaluation: Evaluation) -> tuple[SlipOption, ...]:
    return tuple(
        SlipOption(
            variant.key,
            variant.name,
            variant.key == evaluation.asked.variant,
            variant.price_difference or None,
            swatch=variant.swatch,
        )
        for variant in evaluation.setup.offer.variants
    )
