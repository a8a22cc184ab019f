"""How the shop is found by machines: canonical addresses, structured data (schema.org), the map of the site."""

from collections.abc import Iterable
from datetime import datetime
from typing import Any

from django.conf import settings
from django.contrib.sitemaps import Sitemap
from django.http import HttpRequest, HttpResponse
from django.urls import reverse
from django.utils.html import json_script
from django.utils.safestring import SafeString, mark_safe
from django.views.decorators.http import require_safe

from yenzo.apps.products.models import Product, Revision
from yenzo.apps.workshop.current import workshop_name
from yenzo.core.documents.setup import Setup

LARGE_PX = 720


def absolute(path: str) -> str:
    """Return the address of a page as others know it."""
    return f"{settings.SITE_ADDRESS}{path}"


def product_data(product: Product, revision: Revision, setup: Setup, *, is_left: bool) -> SafeString:
    """Return what machines read of a product: schema.org's Product with its Offer, as JSON-LD.

    `is_left` tells that there are goods to make it of.
    """
    path = reverse("shop:product", args=[product.key])
    picture = reverse("shop:sample_picture", args=[product.key, revision.sha256, LARGE_PX])
    data: dict[str, Any] = {
        "@context": "https://schema.org",
        "@type": "Product",
        "name": setup.offer.name,
        "url": absolute(path),
        "image": absolute(picture),
        "offers": {
            "@type": "Offer",
            "url": absolute(path),
            "price": f"{revision.least_price:.2f}",
            "priceCurrency": revision.currency,
            "availability": f"https://schema.org/{'InStock' if is_left else 'OutOfStock'}",
            "seller": {"@type": "Organization", "name": workshop_name()},
        },
    }
    others = {"description": setup.offer.story, "sku": setup.offer.sku, "category": setup.offer.category}
    data |= {name: value for name, value in others.items() if value}
    # The escaping is Django's; only its type is another one.
    return mark_safe(json_script(data).replace("application/json", "application/ld+json", 1))


class Goods(Sitemap):  # type: ignore[type-arg]
    """All that can be personalized now."""

    def get_domain(self, site: Any = None) -> str:  # noqa: ARG002 - the settings know it
        """Return the host that the shop is known by."""
        return str(settings.SITE_ADDRESS).partition("://")[2]

    def get_protocol(self, protocol: str | None = None) -> str:  # noqa: ARG002 - as above
        """Return how it is reached."""
        return str(settings.SITE_ADDRESS).partition("://")[0]

    def items(self) -> Iterable[Product]:
        """Return the products."""
        return Product.objects.live()

    def location(self, item: Product) -> str:
        """Return where a product's page is."""
        return reverse("shop:product", args=[item.key])

    def lastmod(self, item: Product) -> datetime:
        """Return when it was published."""
        assert item.live is not None
        return item.live.published_at


class Home(Goods):
    """The shop's list."""

    def items(self) -> Iterable[Product]:
        """Return the newest product: the list is as new as that."""
        return Product.objects.live().order_by("-live__published_at")[:1]

    def location(self, item: Product) -> str:  # noqa: ARG002 - one page
        """Return where the list is."""
        return reverse("shop:home")


@require_safe
def robots(request: HttpRequest) -> HttpResponse:  # noqa: ARG001 - the same for everybody
    """Tell machines what is for them, and where the map is."""
    closed = ("/workshop/", "/order/", *(reverse(f"shop:{page}") for page in ("basket", "checkout", "account")))
    lines = ["User-agent: *", *(f"Disallow: {path}" for path in closed), f"Sitemap: {absolute('/sitemap.xml')}", ""]
    return HttpResponse("\n".join(lines), content_type="text/plain; charset=utf-8")
