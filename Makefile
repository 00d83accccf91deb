# Teapot.  `make demo` and `make test` are all that a new machine needs.

PYTHON ?= python3
BIN := .venv/bin
DEMO_DATA := var/demo

# Compiled modules are kept, whatever the environment says: many processes are started.
export PYTHONDONTWRITEBYTECODE =

.PHONY: demo test test-engine test-thorough check check-latex check-exports bench load prove-digits prove-calculus fuzz assets setup chromium screenshots requirements

demo: export TEAPOT_DATA = $(DEMO_DATA)
demo: export TEAPOT_COLLECTED = 1
demo: export TEAPOT_DEMO = 1
demo: setup
	$(BIN)/python manage.py migrate -v0
	$(BIN)/python manage.py load_demo
	$(BIN)/python manage.py collectstatic --noinput -v0
	$(BIN)/python manage.py tidy --at-start
	@echo "Teapot is at http://127.0.0.1:8000"
	$(BIN)/python -m teapot.serve --bind 127.0.0.1:8000

test: setup chromium
	$(BIN)/python -m pytest -n 3 --dist loadfile --no-loadscope-reorder --durations 30

# What a developer runs again and again: the engine alone, without Django and without a browser.
test-engine: setup
	$(BIN)/python -m pytest -n 2 --dist worksteal -p no:django -p no:playwright -p no:base_url \
	  -o addopts=--strict-markers -m "not slow" tests/engine

# Every test, with all the examples of which the others try a part: an hour.
test-thorough: export TEAPOT_THOROUGH = 1
test-thorough: test

check: setup
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy
	$(BIN)/lint-imports
	$(BIN)/python manage.py makemigrations --check --dry-run

check-latex: setup
	$(BIN)/python -m tools.check_latex

check-exports: setup chromium
	$(BIN)/python -m tools.check_exports

bench: setup chromium
	$(BIN)/python -m tools.bench
	$(BIN)/python -m tools.bench_data
	$(BIN)/python -m tools.bench_shelf
	$(BIN)/python -m tools.large_sheet
	$(BIN)/python -m tools.key_to_paint

load: setup
	$(BIN)/python -m tools.load
	$(BIN)/python -m tools.load --people 40
	$(BIN)/python -m tools.load --people 40 --abusers 32

prove-digits: setup
	$(BIN)/python -m tools.prove_digits

prove-calculus: setup
	$(BIN)/python -m tools.prove_calculus

fuzz: setup
	TEAPOT_THOROUGH=1 $(BIN)/python -m pytest -n 2 -m hypothesis
	$(BIN)/python -m tools.fuzz

screenshots: setup chromium
	$(BIN)/python -m tools.screenshots

assets:
	sh tools/assets.sh

requirements: setup
	for set in base test; do \
		$(BIN)/pip-compile --quiet --strip-extras --no-emit-index-url --no-emit-find-links \
			--no-emit-options -o requirements/$$set.txt requirements/$$set.in; done

setup: .venv/.installed

.venv/.installed: requirements/test.txt
	test -x $(BIN)/python || $(PYTHON) -m venv .venv
	$(BIN)/python -m pip install --quiet --disable-pip-version-check -r requirements/test.txt
	touch $@

chromium:
	@sh tools/chromium.sh
