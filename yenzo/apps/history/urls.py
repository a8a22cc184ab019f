from django.urls import path

from yenzo.apps.history import views

app_name = "history"
urlpatterns = [path("step/", views.step, name="step")]
