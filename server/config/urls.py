"""The API below /api, static files below /static, and the application everywhere else."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie

from config.api import api


@ensure_csrf_cookie
def application(request: HttpRequest) -> HttpResponse:
    """The front end: one page that routes itself."""
    response = render(request, "index.html")
    response["Cache-Control"] = "no-cache"
    return response


urlpatterns = [
    path("api/", api.urls),
    re_path(r"^(?!api/|static/).*$", application),
]
