"""Addresses of an account."""

from django.conf import settings
from django.urls import path
from django.views.generic import TemplateView

from teapot.accounts import views

urlpatterns = [
    path("", views.account, name="account"),
    path("new", views.sign_up, name="sign-up"),
    path("new/<token>", views.finish_sign_up, name="finish-sign-up"),
    path("sign-in", views.sign_in, name="sign-in"),
    path("sign-in/anew", views.sign_in, {"said": views.SAID["password"]}, name="sign-in-anew"),
    path("sign-in/new", views.sign_in, {"said": views.SAID["new"]}, name="sign-in-new"),
    path(
        "sign-in/out",
        views.sign_in,
        {"said": views.SAID["out"], "is_out": True},
        name="sign-in-out",
    ),
    path("sign-out", views.sign_out, name="sign-out"),
    path("password", views.change_password, name="change-password"),
    path("elsewhere", views.end_elsewhere, name="end-elsewhere"),
    path("delete", views.delete, name="delete-account"),
    path("recover", views.RecoverView.as_view(), name="recover"),
    path(
        "recover/sent",
        TemplateView.as_view(
            template_name="accounts/recover_sent.html", extra_context={"demo": settings.DEMO}
        ),
        name="recover-sent",
    ),
    path("recover/<uidb64>/<token>", views.RecoveredView.as_view(), name="recovered"),
    path("mails", views.mails, name="mails"),
]
