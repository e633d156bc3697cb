"""Addresses of the archive API."""

from django.urls import path

from .views import ArchiveView

urlpatterns = [path("", ArchiveView.as_view())]
