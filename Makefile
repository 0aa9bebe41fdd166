# Fair Stand. Python 3.11 is all that `make demo` and `make test` need to begin with.
PYTHON ?= python3
PORT ?= 8000
VENV := .venv
BIN := $(VENV)/bin

.PHONY: demo test test-deep bench bench-check assets lint format clean

demo: $(VENV)/.runtime
	@exec $(BIN)/fairstand serve --demo --port $(PORT)

# Servers and workers are started dozens of times: what Python has read once is kept.
test test-deep: export PYTHONDONTWRITEBYTECODE :=

test: $(VENV)/.dev
	@sh tools/need_chromium.sh
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/lint-imports
	@echo "Compiling (the first time two to three minutes) …"
	@$(BIN)/python -c "from fairstand.warm_up import warm_up; warm_up()"
	$(BIN)/python -m pytest -n 3 --dist worksteal

# Five times as many random cases.
test-deep: $(VENV)/.dev
	@sh tools/need_chromium.sh
	FAIRSTAND_DEPTH=5 $(BIN)/python -m pytest -n 3 --dist worksteal

bench: $(VENV)/.dev
	$(BIN)/python -m benchmarks

bench-check: $(VENV)/.dev
	$(BIN)/python -m benchmarks --check

assets: node_modules/.package-lock.json
	node tools/build_assets.mjs

format: $(VENV)/.dev
	$(BIN)/ruff format .
	$(BIN)/ruff check --fix .

clean:
	rm -rf $(VENV) node_modules

node_modules/.package-lock.json: package-lock.json
	npm ci --no-audit --no-fund

$(BIN)/python:
	@$(PYTHON) -c 'import sys; sys.exit(not (3, 11) <= sys.version_info < (3, 13))' || \
	  { echo "Fair Stand needs Python 3.11 or 3.12; name one with PYTHON=python3.11."; exit 1; }
	@$(PYTHON) -m venv $(VENV) || \
	  { echo "The virtual environment could not be made; on Debian, install python3-venv."; exit 1; }

$(VENV)/.runtime: requirements.lock pyproject.toml | $(BIN)/python
	$(BIN)/python -m pip install --quiet --disable-pip-version-check -r requirements.lock
	$(BIN)/python -m pip install --quiet --disable-pip-version-check --no-deps -e .
	@touch $@

$(VENV)/.dev: requirements-dev.lock $(VENV)/.runtime
	$(BIN)/python -m pip install --quiet --disable-pip-version-check -r requirements-dev.lock
	@touch $@
