# Teapot.  `make demo` and `make test` are all that a new machine needs.

PYTHON ?= python3
BIN := .venv/bin
DEMO_DATA := var/demo

.PHONY: demo test check check-latex check-exports bench prove-digits fuzz assets setup chromium screenshots requirements

demo: setup
	TEAPOT_DATA=$(DEMO_DATA) $(BIN)/python manage.py migrate -v0
	TEAPOT_DATA=$(DEMO_DATA) $(BIN)/python manage.py load_demo
	@echo "Teapot is at http://127.0.0.1:8000"
	TEAPOT_DATA=$(DEMO_DATA) $(BIN)/gunicorn teapot.wsgi \
		--bind 127.0.0.1:8000 --worker-class gthread --threads 32

test: setup chromium
	$(BIN)/python -m pytest -n 2 --dist loadfile

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

prove-digits: setup
	$(BIN)/python -m tools.prove_digits

fuzz: setup
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
