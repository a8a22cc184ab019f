"""The first steps of a workshop: rows come in; what is to be done, ticked when it is, goes out."""

from dataclasses import dataclass

from django.urls import reverse

from yenzo.apps.products.models import Product
from yenzo.apps.products.to_core import setup_of_draft


@dataclass(frozen=True)
class Step:
    """Something to do once, where to do it, and whether it is done."""

    words: str
    address: str
    is_done: bool


def first_steps() -> list[Step]:
    """Return the steps from nothing to a product in the shop, by the product that has come farthest; none when done."""
    if Product.objects.live().exists():
        return []
    products = Product.objects.order_by("-draft_version")[:1]
    new = reverse("editor:new_product")
    if not products:
        return [Step("Make a product, with a picture or from an example", new, is_done=False)]
    product = products[0]
    setup, page = setup_of_draft(product), reverse("editor:setup", args=[product.key])
    steps = [Step("Make a product, with a picture or from an example", new, is_done=True)]
    for side in setup.sides:
        scale = reverse("editor:scale", args=[product.key, side.key])
        steps.append(Step(f"Mark the scale of “{side.name}”", scale, is_done=side.scale is not None))
        steps.append(Step(f"Draw an imprint area on “{side.name}”", page, is_done=bool(side.areas)))
    if setup.sides:
        steps.append(Step("Say where a line goes", page, is_done=bool(setup.placements)))
    return [
        *steps,
        Step("Ask for something: add a line to the order slip", page, is_done=bool(setup.fields)),
        Step("Try it as a customer, and publish it", page, is_done=False),
    ]
