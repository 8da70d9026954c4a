"""WSGI entry point."""

import importlib
import os
import threading

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
application = get_wsgi_application()
# The solver's library takes a second to load: not while the first cook waits for it.
threading.Thread(target=lambda: importlib.import_module("scipy.optimize"), daemon=True).start()
