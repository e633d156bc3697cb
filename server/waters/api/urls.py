"""Addresses of the waters API."""

from django.urls import path

from .chart import ChartGeoJsonView, ChartGpxView, ChartView, SurveysView, SurveyView
from .sonar import SonarView
from .views import WaterListView, WaterView

urlpatterns = [
    path("", WaterListView.as_view()),
    path("sonar/", SonarView.as_view()),
    path("<int:water_id>/", WaterView.as_view()),
    path("<int:water_id>/chart/", ChartView.as_view()),
    path("<int:water_id>/chart.geojson", ChartGeoJsonView.as_view()),
    path("<int:water_id>/chart.gpx", ChartGpxView.as_view()),
    path("<int:water_id>/surveys/", SurveysView.as_view()),
    path("<int:water_id>/surveys/<int:survey_id>/", SurveyView.as_view()),
]
