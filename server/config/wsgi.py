"""WSGI entry point. Loaded once by the server's parent: a worker that dies is back at once."""

import importlib
import os
import sys

import django
from django.core.wsgi import get_wsgi_application
from gunicorn.http import wsgi

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
# A thread that waits for the store gets the processor back soon, also beside one that computes.
sys.setswitchinterval(0.001)
wsgi.SERVER = "Bell Crumb"  # whoever serves it is nobody's business
# The routes with all they import, and the solver's library: not while the first cook waits.
django.setup()
for module in ("config.urls", "scipy.optimize"):
    importlib.import_module(module)
# Who started this brings the store up to date and collects the scripts meanwhile: nobody is served
# before it says so, and what there is to serve is looked for only then.
prepared = os.environ.pop("CRUMB_PREPARED_FD", "")
if prepared and not os.read(int(prepared), 1):
    raise SystemExit("The store was not brought up to date.")
application = get_wsgi_application()
