"""Addresses: the shop at the root, the workshop below /workshop/."""

from django.urls import include, path
from django.views.i18n import set_language

from yenzo.apps.pages.views.errors import reached

urlpatterns = [
    path("workshop/", include("yenzo.apps.accounts.urls")),
    path("workshop/", include("yenzo.apps.pages.urls")),
    path("workshop/", include("yenzo.apps.workshop.urls")),
    path("workshop/", include("yenzo.apps.files.urls")),
    path("workshop/products/materials/", include("yenzo.apps.materials.urls")),
    path("workshop/products/shared/", include("yenzo.apps.history.urls")),
    path("workshop/products/", include("yenzo.apps.editor.urls")),
    path("workshop/", include("yenzo.apps.orders.urls")),
    path("workshop/", include("yenzo.apps.production.urls")),
    path("", include("yenzo.apps.desk.urls")),
    path("workshop/", include("yenzo.apps.outbox.urls")),
    path("reached/", reached, name="reached"),
    path("language/", set_language, name="language"),
    path("uploads/", include("yenzo.apps.slip.urls")),
    path("", include("yenzo.apps.designs.urls")),
    path("", include("yenzo.apps.shop.urls")),
]
handler400 = "yenzo.apps.pages.views.errors.bad_request"
handler404 = "yenzo.apps.pages.views.errors.page_not_found"
handler403 = "yenzo.apps.pages.views.errors.permission_denied"
handler500 = "yenzo.apps.pages.views.errors.server_error"
