"""Draws the tables: the models come in, docs/data.md goes out.

Usage: python scripts/tables.py
"""

import os
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parent.parent
PAGE = ROOT / "docs" / "data.md"
BEGINS = """# What is kept: the tables

Made by `scripts/tables.py` from the models; a test fails when it isn't true any more (`make tables` makes it anew). One
app after another, lowest first: each refers to those before it. Tables of Django itself (sessions, permissions) and the
job queue's tables are left out.
"""


def page() -> str:
    """Return the page as it should be."""
    from django.apps import apps

    parts = [BEGINS]
    for config in apps.get_app_configs():
        if not config.name.startswith("yenzo.apps."):
            continue
        models = sorted(config.get_models(), key=lambda model: model.__name__)
        if models:
            parts += [f"## {config.name.rpartition('.')[2]}\n", drawing(models), *(table(model) for model in models)]
    return "\n".join(parts)


def drawing(models: list[Any]) -> str:
    """Return how the tables of an app refer to each other and to others."""
    lines = []
    for model in models:
        references = list(own_references(model))
        lines += [f'    {model.__name__} }}o--{end} {target} : "{name}"' for name, target, end in references]
        if not references:
            lines.append(f"    {model.__name__}")
    return "\n".join(["```mermaid", "erDiagram", *lines, "```", ""])


def own_references(model: Any) -> Iterator[tuple[str, str, str]]:
    """Yield the name, the target and how many there are of it for each reference of a model."""
    for field in (*model._meta.fields, *model._meta.many_to_many):
        if field.is_relation and field.related_model.__module__.startswith("yenzo."):
            end = "{" if field.many_to_many else "o|" if field.null else "||"
            yield field.name, field.related_model.__name__, end if end != "{" else "o{"


def table(model: Any) -> str:
    """Return the columns of a model, and what the database holds them to."""
    first = (model.__doc__ or "").strip().partition("\n\n")[0]
    is_own = not first.startswith(f"{model.__name__}(")
    said = " ".join(line.strip() for line in first.splitlines()) if is_own else ""
    rows = [f"### {model.__name__} (`{model._meta.db_table}`)\n"]
    rows += [f"{said}\n"] if said else []
    rows += ["| column | is | |", "| --- | --- | --- |"]
    rows += [row(field) for field in (*model._meta.fields, *model._meta.many_to_many)]
    rules = sorted(constraint.name for constraint in model._meta.constraints)
    return "\n".join([*rows, *([f"\nHeld by the database: {', '.join(rules)}."] if rules else []), ""])


def row(field: Any) -> str:
    """Return what a column is."""
    kind = field.get_internal_type().removesuffix("Field")
    if field.is_relation:
        kind = f"{'many' if field.many_to_many else 'one'} {field.related_model.__name__}"
    more = [f"to {field.max_length} characters"] if getattr(field, "max_length", None) else []
    more += ["may be empty"] if field.null else []
    more += ["unique"] if field.unique and not field.primary_key else []
    help_text = str(field.help_text).replace("|", "\\|")
    return f"| `{field.name}` | {', '.join([kind, *more])} | {help_text} |"


def main() -> None:
    """Write the page."""
    sys.path.insert(0, str(ROOT))
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "yenzo.config.settings")
    os.environ.setdefault("YENZO_MODE", "practice")
    import django

    django.setup()
    PAGE.write_text(page())


if __name__ == "__main__":
    main()
