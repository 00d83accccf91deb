#!/bin/sh
# What the container does: the database is brought up to date, then all that serves is looked after.
set -eu
python manage.py migrate -v0
python manage.py collectstatic --noinput -v0
python manage.py tidy --at-start
exec python -m teapot.serve --bind 0.0.0.0:8000
