from django.urls import path

from yenzo.apps.slip.views import album, parts, uploads

app_name = "slip"
urlpatterns = [
    path("", uploads.send, name="send_upload"),
    path("<uuid:upload_id>/", uploads.state, name="upload_state"),
    path("parts/", parts.begin, name="begin_parts"),
    path("parts/<uuid:file_id>/", parts.add, name="add_part"),
    path("album/", album.pictures, name="album"),
    path("album/begin/", album.begin, name="begin_album"),
    path("album/back/", album.back, name="album_back"),
    path("album/take/", album.take, name="take_from_album"),
    path("album/small/<str:key>/", album.small, name="album_small"),
    path("<uuid:upload_id>/prepare/", uploads.prepare, name="prepare_upload"),
]
