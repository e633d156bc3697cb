"""The locker API: tackle, boats, CSV in and out."""

from __future__ import annotations

from typing import Any

from django.db.models import Prefetch, Q
from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from coldwake_core.decode import encode
from coldwake_core.errors import UnknownItemError
from coldwake_core.gear.locker import PIECES
from coldwake_core.gear.plugs import plug_catalogue
from coldwake_core.gear.tackle import USUAL_SOUNDER
from coldwake_core.gear.usual import USUAL_PLACES
from coldwake_core.lines.materials import MATERIALS
from common.csv import CsvParser
from common.errors import body_of
from common.keys import key_of
from common.schemas import ErrorSerializer

from ..actions.import_pieces import ImportPieces, add_starter
from ..actions.save_outfit import SaveOutfit
from ..actions.save_piece import SavePiece, delete_piece, duplicate_piece, set_aboard
from ..boats import usual_boats
from ..csv_io import write_csv
from ..models import Aboard, Outfit, TacklePiece
from ..permissions import own_outfit, own_piece
from .schemas import (
    BoatRowSerializer,
    BoatSerializer,
    CatalogueSerializer,
    ImportSerializer,
    NewPieceSerializer,
    PieceListSerializer,
    PieceSerializer,
    RetireSerializer,
    SetAboardSerializer,
)

_ERRORS = {404: ErrorSerializer, 409: ErrorSerializer, 422: ErrorSerializer}
_OUTFIT = OpenApiParameter("outfit_id", int, OpenApiParameter.QUERY)
MOST_SHOWN = 1000


def _piece(piece: TacklePiece) -> dict[str, Any]:
    return {
        "id": piece.pk, "kind": piece.kind, "key": piece.key, "name": piece.name,
        "is_retired": piece.is_retired, "properties": {**piece.data, "id": piece.key},
        "aboard": [
            {"outfit_id": row.outfit_id, "count": row.count} for row in piece.aboard.all()
        ],
    }


def _outfit(outfit: Outfit) -> dict[str, Any]:
    return {"id": outfit.pk, "boat": outfit.data}


def _chosen_outfit(request: Request) -> Outfit | None:
    text = request.query_params.get("outfit_id")
    if text is None:
        return None
    return own_outfit(request.user, key_of(text))


class PieceListView(APIView):
    """The user's tackle."""

    @extend_schema(
        operation_id="list_pieces", responses=PieceListSerializer,
        parameters=[OpenApiParameter(name, str) for name in ("search", "kind", "retired")],
    )
    def get(self, request: Request) -> Response:
        """List pieces; every word of the search must be found in name, colour or key."""
        query = request.query_params
        rows = TacklePiece.objects.filter(
            owner_id=request.user.pk, is_retired=query.get("retired") == "yes"
        )
        if query.get("kind") in PIECES:
            rows = rows.filter(kind=query["kind"])
        for word in query.get("search", "").replace("\x00", " ").split()[:8]:
            rows = rows.filter(
                Q(name__icontains=word) | Q(key__icontains=word) | Q(kind__icontains=word)
                | Q(data__colour__icontains=word) | Q(data__finish__icontains=word)
            )
        total = rows.count()
        shown = rows.prefetch_related(Prefetch("aboard", Aboard.objects.order_by("outfit_id")))
        return Response({
            "pieces": [_piece(piece) for piece in shown[:MOST_SHOWN]], "total": total
        })

    @extend_schema(
        operation_id="add_piece", request=NewPieceSerializer,
        responses={201: PieceSerializer, **_ERRORS},
    )
    def post(self, request: Request) -> Response:
        """Add a piece."""
        body = body_of(request)
        piece = SavePiece(
            owner=request.user, kind=body.get("kind"), data=body.get("properties")
        ).execute()
        return Response(_piece(piece), status=201)


class PieceView(APIView):
    """One piece of tackle."""

    @extend_schema(
        operation_id="change_piece", request=NewPieceSerializer,
        responses={200: PieceSerializer, **_ERRORS},
    )
    def put(self, request: Request, piece_id: int) -> Response:
        """Change its properties; trips that had it aboard keep what they had."""
        piece = own_piece(request.user, piece_id)
        body = body_of(request)
        data = body.get("properties")
        if isinstance(data, dict):
            data = {name: value for name, value in data.items() if name != "id"}
        return Response(_piece(SavePiece(
            owner=request.user, kind=piece.kind, data=data, piece=piece
        ).execute()))

    @extend_schema(operation_id="delete_piece", responses={204: None, **_ERRORS})
    def delete(self, request: Request, piece_id: int) -> Response:
        """Delete it, if no trip ever had it aboard."""
        delete_piece(own_piece(request.user, piece_id))
        return Response(status=204)


class DuplicateView(APIView):
    """A copy of a piece."""

    @extend_schema(
        operation_id="duplicate_piece", request=None, responses={201: PieceSerializer, **_ERRORS}
    )
    def post(self, request: Request, piece_id: int) -> Response:
        """Make one."""
        return Response(_piece(duplicate_piece(own_piece(request.user, piece_id))), status=201)


class RetireView(APIView):
    """Retiring a piece."""

    @extend_schema(
        operation_id="retire_piece", request=RetireSerializer,
        responses={200: PieceSerializer, **_ERRORS},
    )
    def post(self, request: Request, piece_id: int) -> Response:
        """Retire it, or take it up again."""
        piece = own_piece(request.user, piece_id)
        form = RetireSerializer(data=body_of(request))
        form.is_valid(raise_exception=True)
        piece.is_retired = form.validated_data["is_retired"]
        piece.save(update_fields=["is_retired"])
        return Response(_piece(piece))


class CsvView(APIView):
    """The locker as a CSV file."""

    @extend_schema(
        operation_id="export_locker", parameters=[_OUTFIT],
        responses={(200, "text/csv"): str, 404: ErrorSerializer},
    )
    def get(self, request: Request) -> HttpResponse:
        """Return all pieces, retired ones left out, with how many are aboard one boat."""
        outfit = _chosen_outfit(request)
        counts = {} if outfit is None else dict(outfit.aboard.values_list("piece_id", "count"))
        pieces = TacklePiece.objects.filter(owner_id=request.user.pk, is_retired=False)
        return HttpResponse(
            write_csv(pieces, counts), content_type="text/csv; charset=utf-8",
            headers={"Content-Disposition": 'attachment; filename="locker.csv"'},
        )


class ImportView(APIView):
    """Tackle from a CSV file."""

    parser_classes = [CsvParser]

    @extend_schema(
        operation_id="import_locker",
        request={"text/csv": OpenApiTypes.STR},
        parameters=[
            OpenApiParameter("rows", str, enum=["check", "all", "good"], required=True), _OUTFIT,
        ],
        responses={200: ImportSerializer, 413: ErrorSerializer, **_ERRORS},
    )
    def post(self, request: Request) -> Response:
        """Look at it, import it if all is well, or import only the good rows."""
        raw = request.data if isinstance(request.data, bytes) else b""
        return Response(ImportPieces(
            owner=request.user, raw=raw, rows=request.query_params.get("rows"),
            outfit=_chosen_outfit(request),
        ).execute())


class StarterView(APIView):
    """The starter locker."""

    @extend_schema(
        operation_id="add_starter", request=None, parameters=[_OUTFIT],
        responses={200: ImportSerializer, **_ERRORS},
    )
    def post(self, request: Request) -> Response:
        """Put some eighty generic pieces in."""
        return Response(add_starter(request.user, _chosen_outfit(request)))


class CatalogueView(APIView):
    """What a locker is filled from."""

    @extend_schema(operation_id="catalogue", responses=CatalogueSerializer)
    def get(self, request: Request) -> Response:
        """Return line materials and generic plugs."""
        return Response({
            "materials": [
                {
                    "id": item.id, "name": item.name, "diameter_m": item.diameter_m,
                    "density_kgpm3": item.mean_density_kgpm3,
                    "strength_n": item.strength_n, "has_core": item.core_diameter_m > 0.0,
                    "is_cable": item.id.startswith("cable-"), "origin": item.source,
                }
                for item in MATERIALS.values()
            ],
            "plugs": encode(plug_catalogue()),
            "places": encode(USUAL_PLACES),
            "sounder": encode(USUAL_SOUNDER),
            "boats": usual_boats(),
        })


class OutfitListView(APIView):
    """The user's boats."""

    @extend_schema(operation_id="list_outfits", responses=BoatRowSerializer(many=True))
    def get(self, request: Request) -> Response:
        """List them."""
        return Response([_outfit(o) for o in Outfit.objects.filter(owner_id=request.user.pk)])

    @extend_schema(
        operation_id="add_outfit", request=BoatSerializer,
        responses={201: BoatRowSerializer, **_ERRORS},
    )
    def post(self, request: Request) -> Response:
        """Add a boat."""
        outfit = SaveOutfit(owner=request.user, data=body_of(request)).execute()
        return Response(_outfit(outfit), status=201)


class OutfitView(APIView):
    """One boat."""

    @extend_schema(
        operation_id="change_outfit", request=BoatSerializer,
        responses={200: BoatRowSerializer, **_ERRORS},
    )
    def put(self, request: Request, outfit_id: int) -> Response:
        """Change its rods and places."""
        outfit = own_outfit(request.user, outfit_id)
        return Response(_outfit(SaveOutfit(
            owner=request.user, data=body_of(request), outfit=outfit
        ).execute()))


class AboardView(APIView):
    """What is aboard a boat."""

    @extend_schema(
        operation_id="set_aboard", request=SetAboardSerializer,
        responses={200: PieceSerializer, **_ERRORS},
    )
    def put(self, request: Request, outfit_id: int) -> Response:
        """Say how many of a piece are aboard."""
        outfit, body = own_outfit(request.user, outfit_id), body_of(request)
        key = body.get("piece_id")
        if not isinstance(key, int) or isinstance(key, bool) or not 0 < key < 2**53:
            raise UnknownItemError("piece_id", key, "one of your pieces")
        piece = own_piece(request.user, key)
        set_aboard(outfit, piece, body.get("count"))
        return Response(_piece(piece))
