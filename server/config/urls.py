"""The API below /api, static files below /static, and the application everywhere else."""

import hashlib
import json
from functools import cache

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie

from bellcrumb.words import LANGUAGE
from config.api import api
from config.settings import ROOT

_DIST = ROOT / "web" / "dist"
# The scripts and styles, and the faces in the scripts most kitchens write in.
_SHELL = (
    "assets/*.js",
    "assets/*.css",
    "assets/*-latin-wght-*.woff2",
    "assets/*-latin-opsz-*.woff2",
)


@ensure_csrf_cookie
def application(request: HttpRequest) -> HttpResponse:
    """The front end: one page that routes itself."""
    response = render(request, "index.html", {"language": LANGUAGE})
    response["Cache-Control"] = "no-cache"
    return response


@cache
def _worker() -> str:
    files = sorted(f"/static/{p.relative_to(_DIST)}" for part in _SHELL for p in _DIST.glob(part))
    name = hashlib.sha256("\n".join(files).encode()).hexdigest()[:12]
    source = (_DIST / "sw.js").read_text() if (_DIST / "sw.js").exists() else ""
    return f"const SHELL = {json.dumps(name)};\nconst FILES = {json.dumps(files)};\n{source}"


def worker(request: HttpRequest) -> HttpResponse:
    """The service worker, at the root so that it may serve every page of the program."""
    response = HttpResponse(_worker(), content_type="text/javascript; charset=utf-8")
    response["Cache-Control"] = "no-cache"
    return response


urlpatterns = [
    path("api/", api.urls),
    path("sw.js", worker),
    re_path(r"^(?!api/|static/).*$", application),
]
