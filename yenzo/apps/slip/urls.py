from django.urls import path

from yenzo.apps.slip import views

app_name = "slip"
urlpatterns = [
    path("", views.send, name="send_upload"),
    path("<uuid:upload_id>/", views.state, name="upload_state"),
    path("<uuid:upload_id>/prepare/", views.prepare, name="prepare_upload"),
]
