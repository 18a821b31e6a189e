# Everything a builder or a developer types. Each target sets up what it needs.
PYTHON ?= python3
PY := .venv/bin/python
WORKERS ?= 2

# What computes and what changes a build; how much of its branches the tests go through, at least.
CORE := $(addprefix --cov=urgens.,physics quantity document solve studies plumbing guidance bench printed)
CORE_TESTS := tests/physics tests/quantity tests/document tests/solve tests/studies tests/plumbing tests/guidance tests/bench tests/sources
FLOOR := 94

.PHONY: setup demo test coverage lint bench screenshots manual dist wheel bare fuzz mutants clean

setup: .venv/.test

.venv/.run: tools/setup.sh pyproject.toml requirements/base.txt requirements/build.txt
	PYTHON="$(PYTHON)" bash tools/setup.sh run

.venv/.test: .venv/.run requirements/dev.txt
	PYTHON="$(PYTHON)" bash tools/setup.sh test

demo: .venv/.run
	bash tools/demo.sh

test: .venv/.test
	QT_QPA_PLATFORM=offscreen $(PY) -m pytest -n $(WORKERS) -q

coverage: .venv/.test
	QT_QPA_PLATFORM=offscreen $(PY) -m pytest -n $(WORKERS) -q $(CORE_TESTS) tests/test_cli.py tests/test_cli_trace.py tests/test_cli_record.py tests/test_little_effort.py $(CORE) --cov-branch --cov-fail-under=$(FLOOR) --cov-report=term:skip-covered

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

# The fuzzers, long and with new seeds.
MINUTES ?= 30
fuzz: .venv/.test
	QT_QPA_PLATFORM=offscreen FUZZ_MINUTES=$(MINUTES) $(PY) -m pytest -n $(WORKERS) -q --timeout 3600 \
	  -o faulthandler_timeout=3700 -m fuzz

# Small changes planted in what was changed, and which of them no test sees.
COUNT ?= 150
SEED ?= 1
SINCE ?= HEAD~1
mutants: .venv/.test
	$(PY) -m tools.mutants --count $(COUNT) --seed $(SEED) --since $(SINCE)

clean:
	rm -rf .venv build dist .pytest_cache .mypy_cache .ruff_cache .hypothesis
