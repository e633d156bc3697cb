"""A trip for maps and other programs: its track and what happened, as GPX and GeoJSON."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

import gpxpy.gpx

from coldwake_core.places.review.happened import Happening, happened

from .models import Trip
from .queries import trip_now


def _when(at_s: float) -> datetime:
    return datetime.fromtimestamp(at_s, UTC)


def gpx_of_trip(trip: Trip) -> str:
    """Return a trip as GPX 1.1: places that were noted as its track, what happened as waypoints."""
    state = trip_now(trip).state
    gpx = gpxpy.gpx.GPX()
    gpx.creator = "Cold Wake"
    gpx.name = trip.name
    track = gpxpy.gpx.GPXTrack(name=trip.name)
    segment = gpxpy.gpx.GPXTrackSegment()
    segment.points = [
        gpxpy.gpx.GPXTrackPoint(fix.latitude_deg, fix.longitude_deg, time=_when(at_s))
        for at_s, fix in state.fixes
    ]
    track.segments.append(segment)
    gpx.tracks.append(track)
    gpx.waypoints = [
        gpxpy.gpx.GPXWaypoint(
            one.place.latitude_deg, one.place.longitude_deg, time=_when(one.at_s), name=one.kind,
            type=one.kind, description=one.text or None,
        )
        for one in happened(state)
    ]
    return gpx.to_xml(version="1.1")


def geojson_of_trip(trip: Trip) -> dict[str, Any]:
    """Return a trip as GeoJSON (RFC 7946): longitude first."""
    state = trip_now(trip).state
    line = [[fix.longitude_deg, fix.latitude_deg] for _, fix in state.fixes]
    features = [_point(one) for one in happened(state)]
    if len(line) > 1:
        features.insert(0, {
            "type": "Feature", "geometry": {"type": "LineString", "coordinates": line},
            "properties": {
                "kind": "track", "times": [_when(at_s).isoformat() for at_s, _ in state.fixes]
            },
        })
    return {"type": "FeatureCollection", "features": features}


def _point(one: Happening) -> dict[str, Any]:
    return {
        "type": "Feature",
        "geometry": {
            "type": "Point", "coordinates": [one.place.longitude_deg, one.place.latitude_deg]
        },
        "properties": {
            "kind": one.kind, "at": _when(one.at_s).isoformat(), "text": one.text,
            "doubt_m": round(one.doubt_m, 1),
        },
    }
