"""Addresses of the practice API."""

from django.urls import path

from .lessons import LessonsView, TaskView, TryView
from .views import PracticeListView, PracticeView, ScoreView, TruthView

urlpatterns = [
    path("", PracticeListView.as_view()),
    path("lessons/", LessonsView.as_view()),
    path("lessons/task/", TaskView.as_view()),
    path("lessons/try/", TryView.as_view()),
    path("<uuid:trip_id>/", PracticeView.as_view()),
    path("<uuid:trip_id>/truth/", TruthView.as_view()),
    path("<uuid:trip_id>/score/", ScoreView.as_view()),
]
