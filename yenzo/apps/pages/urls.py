from django.urls import path

from yenzo.apps.pages.views import glossary

app_name = "pages"
urlpatterns = [path("words/", glossary.glossary, name="glossary")]
