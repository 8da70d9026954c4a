"""WSGI entry point. Loaded once by the server's parent: a worker that dies is back at once."""

import importlib
import os
import sys

from django.core.wsgi import get_wsgi_application
from gunicorn.http import wsgi

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
# A thread that waits for the store gets the processor back soon, also beside one that computes.
sys.setswitchinterval(0.001)
wsgi.SERVER = "Bell Crumb"  # whoever serves it is nobody's business
application = get_wsgi_application()
# The routes with all they import, and the solver's library: not while the first cook waits.
for module in ("config.urls", "scipy.optimize"):
    importlib.import_module(module)
# Who started this brings the store up to date meanwhile: nobody is served before it says so.
prepared = os.environ.pop("CRUMB_PREPARED_FD", "")
if prepared and not os.read(int(prepared), 1):
    raise SystemExit("The store was not brought up to date.")
