# Everything a builder or a developer types. Each target sets up what it needs.
PYTHON ?= python3
PY := .venv/bin/python
WORKERS ?= 2

# What computes and what changes a build, its own tests, and how much of its branches these go through, at least: told
# by `make test COVERAGE=1`, which is the same run and takes half as long again.
CORE := $(addprefix --cov=urgens.,physics quantity document solve studies plumbing guidance bench printed)
CORE_TESTS := $(addprefix tests/,agreement physics quantity document solve studies plumbing guidance bench sources sheet test_cli.py \
  test_cli_trace.py test_cli_record.py test_little_effort.py)
FLOOR := 95
COVERED := $(if $(COVERAGE),$(CORE) --cov-branch --cov-fail-under=$(FLOOR) --cov-report=term:skip-covered)

.PHONY: setup demo test lint bench screenshots manual dist wheel bare fuzz mutants clean

setup: .venv/.test

.venv/.run: tools/setup.sh pyproject.toml requirements/base.txt requirements/build.txt
	PYTHON="$(PYTHON)" bash tools/setup.sh run

.venv/.test: .venv/.run requirements/dev.txt
	PYTHON="$(PYTHON)" bash tools/setup.sh test

demo: .venv/.run
	bash tools/demo.sh

test: .venv/.test
	QT_QPA_PLATFORM=offscreen $(PY) -m pytest -n $(WORKERS) --dist worksteal -q $(CORE_TESTS) $(COVERED)
	QT_QPA_PLATFORM=offscreen $(PY) -m pytest -n $(WORKERS) --dist worksteal -q tests $(addprefix --ignore=,$(CORE_TESTS))

lint: .venv/.test
	.venv/bin/ruff check .
	.venv/bin/ruff format --check .
	.venv/bin/mypy
	.venv/bin/lint-imports

bench: .venv/.test
	QT_QPA_PLATFORM=offscreen $(PY) -m pytest benchmarks -q -p no:xdist --benchmark-columns=min,median,rounds --benchmark-sort=name --benchmark-warmup=on

screenshots: .venv/.test
	QT_QPA_PLATFORM=offscreen $(PY) tools/screenshots.py docs/screenshots

# The manual page and completion that are shipped, when what can be typed has changed.
manual: .venv/.test
	$(PY) -m tools.manual

dist: .venv/.test
	$(PY) -m build --wheel --no-isolation

# The wheel, installed without the lock on every Python at hand; the core's tests there as well.
wheel: .venv/.test
	bash tools/wheel.sh core

# Both commands of the README in bare Debian roots, as root and as a user (wants root and debootstrap).
bare:
	bash tools/bare.sh

# The fuzzers, long, and every property: with new seeds, where `make test` draws the same each time.
MINUTES ?= 30
fuzz: .venv/.test
	QT_QPA_PLATFORM=offscreen FUZZ_MINUTES=$(MINUTES) $(PY) -m pytest -n $(WORKERS) --dist worksteal -q --timeout 3600 \
	  -o faulthandler_timeout=3700 -m "fuzz or hypothesis"

# Small changes planted in what was changed, and which of them no test sees.
COUNT ?= 150
SEED ?= 1
SINCE ?= HEAD~1
mutants: .venv/.test
	$(PY) -m tools.mutants --count $(COUNT) --seed $(SEED) --since $(SINCE)

clean:
	rm -rf .venv build dist .pytest_cache .mypy_cache .ruff_cache .hypothesis
