"""Names that change: lists of names, or a set-up before and after, come in; what each was called before goes out.

Names are not identities: keys stay whatever is written, and with them rules, charges, pictures and translations.
"""

from collections.abc import Sequence
from difflib import SequenceMatcher

from yenzo.core.documents.setup import Setup
from yenzo.core.documents.wording import placed_words

# Of 1: names that share so much are one name, spelt otherwise.
ALIKE = 0.6


def named_before(before: Sequence[str], after: Sequence[str]) -> list[int | None]:
    """Return for each name after which one of those before it is, by its index; none for what is new.

    The same name is the same thing wherever it stands. Of the rest, a run that takes the place of as many others is
    those, renamed; where there are more or fewer of them, those whose names are alike.
    """
    known = {name: at for at, name in reversed(list(enumerate(before)))}
    found: list[int | None] = [known.get(name) for name in after]
    kept = {at for at in found if at is not None}
    for kind, first, last, new_first, new_last in SequenceMatcher(None, before, after, autojunk=False).get_opcodes():
        if kind != "replace":
            continue
        gone = [at for at in range(first, last) if at not in kept]
        new = [at for at in range(new_first, new_last) if found[at] is None]
        pairs = zip(new, gone, strict=True) if len(gone) == len(new) else _alike(before, after, gone, new)
        for at, old in pairs:
            found[at] = old
    return found


def _alike(before: Sequence[str], after: Sequence[str], gone: list[int], new: list[int]) -> list[tuple[int, int]]:
    """Return which new names are which old ones, each once, those first that are most alike."""
    alike = sorted(
        (
            (SequenceMatcher(None, before[old].casefold(), after[at].casefold()).ratio(), -at, -old)
            for at in new
            for old in gone
        ),
        reverse=True,
    )
    pairs: dict[int, int] = {}
    for ratio, at, old in alike:
        if ratio >= ALIKE and -at not in pairs and -old not in pairs.values():
            pairs[-at] = -old
    return list(pairs.items())


def followed_wording(before: Setup, after: Setup) -> dict[str, dict[str, str]]:
    """Return the translations that words which changed in their place take along, by language, whole and renewed.

    Only languages that change are in it. What is still said elsewhere in the old words keeps its translation there.
    """
    if not after.wording:
        return {}
    old, new = placed_words(before), placed_words(after)
    said = set(new.values())
    moved = {words: new[place] for place, words in old.items() if place in new and new[place] != words}
    changed: dict[str, dict[str, str]] = {}
    for language, known in after.wording.items():
        taken = {now: known[words] for words, now in moved.items() if words in known and now not in known}
        if taken:
            gone = {words for words in moved if words in known and words not in said}
            changed[language] = {words: text for words, text in known.items() if words not in gone} | taken
    return changed
