from django.urls import path

from yenzo.apps.files.views import files

app_name = "files"
urlpatterns = [
    path("files/", files.kept_files, name="files"),
    path("files/check/", files.check_now, name="check"),
    path("files/clear/", files.clear_now, name="clear"),
]
