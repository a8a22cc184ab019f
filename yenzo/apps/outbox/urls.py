from django.urls import path

from yenzo.apps.outbox.views import outbox

app_name = "outbox"
urlpatterns = [
    path("outbox/", outbox.outbox, name="outbox"),
    path("outbox/<int:mail_id>/again/", outbox.again, name="again"),
    path("outbox/<slug:key>.eml", outbox.mail_file, name="mail_file"),
]
