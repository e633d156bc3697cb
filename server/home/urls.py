"""Addresses of the trust page."""

from django.urls import path

from . import views

urlpatterns = [
    path("", views.trust),
    path("cold-wake.crt", views.authority),
    path("address.svg", views.code),
]
