"""Addresses of the locker API."""

from django.urls import path

from .views import (
    AboardView,
    CatalogueView,
    CsvView,
    DuplicateView,
    ImportView,
    OutfitListView,
    OutfitView,
    PieceListView,
    PieceView,
    RetireView,
    StarterView,
)

urlpatterns = [
    path("pieces/", PieceListView.as_view()),
    path("pieces/<int:piece_id>/", PieceView.as_view()),
    path("pieces/<int:piece_id>/duplicate/", DuplicateView.as_view()),
    path("pieces/<int:piece_id>/retire/", RetireView.as_view()),
    path("pieces.csv", CsvView.as_view()),
    path("import/", ImportView.as_view()),
    path("starter/", StarterView.as_view()),
    path("catalogue/", CatalogueView.as_view()),
    path("outfits/", OutfitListView.as_view()),
    path("outfits/<int:outfit_id>/", OutfitView.as_view()),
    path("outfits/<int:outfit_id>/aboard/", AboardView.as_view()),
]
