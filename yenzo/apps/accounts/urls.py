from django.urls import path

from yenzo.apps.accounts.views import sign_in

app_name = "accounts"
urlpatterns = [
    path("", sign_in.front_door, name="front_door"),
    path("sign-in/", sign_in.SignIn.as_view(), name="sign_in"),
    path("sign-out/", sign_in.SignOut.as_view(), name="sign_out"),
]
