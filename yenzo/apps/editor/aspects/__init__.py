"""Aspects: each underlined value of a sentence, with the form that opens in its place.

An aspect says in words what the set-up has, offers a form for it, and turns what was filled in into operations.
Sentences are made from these words alone: there is no second source.
"""

from yenzo.apps.editor.aspects.interface import Aspect, FormLine
from yenzo.apps.editor.aspects.sentence import ASPECTS, Part, sentence_of

__all__ = ["ASPECTS", "Aspect", "FormLine", "Part", "sentence_of"]
