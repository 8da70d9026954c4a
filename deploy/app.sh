#!/bin/sh
# The application beside a store it reaches by name: bring the store up to date, then serve.
set -eu
: "${CRUMB_SECRET_KEY:?set CRUMB_SECRET_KEY to a long random text}"
: "${CRUMB_DB_PASSWORD:?set CRUMB_DB_PASSWORD}"
export PYTHONPATH="$PWD/core:$PWD/server:$PWD" DJANGO_SETTINGS_MODULE=config.settings
export OMP_NUM_THREADS=1 OPENBLAS_NUM_THREADS=1
cd server
../var/venv/bin/python manage.py prepare ${CRUMB_EMPTY:+--empty}
exec ../var/venv/bin/gunicorn config.wsgi:application --bind 0.0.0.0:8642 --preload \
  --workers "${CRUMB_WORKERS:-2}" --threads 16 --worker-class gthread --worker-tmp-dir /dev/shm \
  --graceful-timeout 5 --keep-alive 75 --no-control-socket --forwarded-allow-ips "${CRUMB_PROXY_IPS:-127.0.0.1}"
