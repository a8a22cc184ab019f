"""Word lists in a form: a list of the core comes in, a name, words and a message; and back."""

from typing import Any

from django import forms
from django.http import QueryDict

from yenzo.apps.pages.fields import LineField, LinesField
from yenzo.core.documents.materials import WordList


class WordListForm(forms.Form):
    name = LineField(max_length=200, label="Name of the list, for the workshop")
    words = LinesField(
        max_length=100_000,
        widget=forms.Textarea(attrs={"rows": 8}),
        label="Words that nobody may have made, one a line",
        help_text="Whole words are looked for, in capitals or not.",
    )
    message = LineField(
        required=False,
        max_length=300,
        label="What is said to whoever types one",
        help_text="After the word itself. Without it: “We don't make goods with that.”",
    )

    def __init__(self, word_list: WordList | None, data: QueryDict | None = None) -> None:
        have = word_list.model_dump() if word_list else {}
        super().__init__(data, initial={**have, "words": "\n".join(have.get("words", ()))})

    def clean_words(self) -> list[str]:
        """Return the words, each once."""
        words = list(dict.fromkeys(" ".join(row.split()) for row in self.cleaned_data["words"].splitlines()))
        if any(len(word.split()) > 1 for word in words):
            raise forms.ValidationError("Write one word a line; whole sentences can't be looked for.")
        return [word for word in words if word]

    def document(self) -> dict[str, Any]:
        """Return the list as a set-up document has it."""
        return dict(self.cleaned_data)
