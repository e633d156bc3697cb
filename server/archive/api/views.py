"""The archive API."""

from __future__ import annotations

import tempfile

from django.http import FileResponse
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.views import APIView

from ..pack import pack


class ArchiveView(APIView):
    """Everything of the user's in one file."""

    @extend_schema(operation_id="get_archive", responses={(200, "application/zip"): bytes})
    def get(self, request: Request) -> FileResponse:
        """Return it."""
        # On the disk: years of trips need not fit into the memory.
        out = tempfile.TemporaryFile()  # noqa: SIM115 (the answer closes it)
        pack(request.user, out)
        out.seek(0)
        return FileResponse(
            out, content_type="application/zip", as_attachment=True, filename="coldwake.zip"
        )
