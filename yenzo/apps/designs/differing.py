"""What differs between a piece as it was made and as its product is sold now: both come in, sentences go out."""

from collections.abc import Iterator

from django.utils.translation import gettext

from yenzo.core.asking.words import entries_in_words
from yenzo.core.pricing.quote import Quote
from yenzo.core.record import Recorded, RecordedSide, TextRecord
from yenzo.core.translation import decimal, money


def what_differs(before: Recorded, quote_before: Quote, now: Recorded, quote_now: Quote) -> tuple[str, ...]:
    """Return in words what is otherwise now: what is asked, the texts as made, how sides look, each row of the price.

    Empty where a customer would notice nothing.
    """
    return (
        *_asked(before, now),
        *_texts(before, now),
        *_looks(before, now),
        *_prices(quote_before, quote_now),
    )


def _asked(before: Recorded, now: Recorded) -> Iterator[str]:
    was, is_now = ({entry.field: entry for entry in entries_in_words(one.setup, one.asked)} for one in (before, now))
    for key, entry in was.items():
        if key not in is_now:
            field = now.setup.field(key)
            gone = gettext("“{line}” isn’t asked any more") if field is None else gettext("“{line}” lost its entry")
            yield gone.format(line=entry.label)
        elif entry.words != is_now[key].words:
            said = gettext("“{line}” was {before} and is {now}")
            yield said.format(line=entry.label, before=entry.words, now=is_now[key].words)
    known = {field.key for field in before.setup.fields}
    for field in now.setup.fields:
        if field.key not in known:
            yield gettext("“{line}” is asked as well now").format(line=field.label)


def _texts(before: Recorded, now: Recorded) -> Iterator[str]:
    was, is_now = ({(text.placement, text.text): text for text in _made(one)} for one in (before, now))
    for key, text in was.items():
        other = is_now.get(key)
        if other is None:
            continue
        if other.typeface != text.typeface:
            said = gettext("“{text}” stands in {now} instead of {before}")
            yield said.format(text=text.text, before=text.typeface, now=other.typeface)
        if abs(other.letter_height_mm - text.letter_height_mm) >= 0.1:
            said = gettext("The letters of “{text}” were {before} mm high and are {now} mm")
            heights = {"before": decimal(text.letter_height_mm, 1), "now": decimal(other.letter_height_mm, 1)}
            yield said.format(text=text.text, **heights)


def _made(recorded: Recorded) -> Iterator[TextRecord]:
    return (text for area in recorded.areas for text in area.texts)


def _looks(before: Recorded, now: Recorded) -> Iterator[str]:
    was: dict[str, RecordedSide] = {side.key: side for side in before.sides}
    for side in now.sides:
        if side.key not in was:
            yield gettext("There is another side: {side}").format(side=side.name)
        elif was[side.key].digest != side.digest:
            yield gettext("{side} looks otherwise").format(side=side.name)
    left = {side.key for side in now.sides}
    for key, side in was.items():
        if key not in left:
            yield gettext("There is no side {side} any more").format(side=side.name)


def _prices(before: Quote, now: Quote) -> Iterator[str]:
    was, is_now = ({row.key: row for row in quote.lines} for quote in (before, now))
    for key in dict.fromkeys([*was, *is_now]):
        one, other = was.get(key), is_now.get(key)
        amounts = (one.amount if one else None, other.amount if other else None)
        if amounts[0] == amounts[1]:
            continue
        label = (other or one).label  # type: ignore[union-attr] # a key stands in one of both
        if amounts[0] is None:
            assert other is not None
            yield gettext("{charge}: {amount}, which wasn’t charged").format(
                charge=label, amount=money(other.amount, now.currency)
            )
        elif amounts[1] is None:
            yield gettext("{charge} isn’t charged any more").format(charge=label)
        else:
            said = gettext("{charge}: {now} instead of {before}")
            yield said.format(
                charge=label, now=money(amounts[1], now.currency), before=money(amounts[0], before.currency)
            )
