#!/bin/sh
# What the container does: the database is brought up to date, then all that serves is looked after.
set -eu
python manage.py migrate -v0
python manage.py collectstatic --noinput -v0
python manage.py tidy --at-start
cores=$(nproc)
export TEAPOT_BIND="${TEAPOT_BIND:-0.0.0.0:8000}" TEAPOT_RUN="${TEAPOT_RUN:-/tmp}" TEAPOT_PYTHON=python
export TEAPOT_WEB="${TEAPOT_WEB:-$cores}" TEAPOT_EVALUATORS="${TEAPOT_EVALUATORS:-$((cores + 1))}"
exec supervisord -c deploy/supervisord.conf
