#!/usr/bin/env bash
# Builds the wheel and tries it as whoever installs it: in fresh venvs, by pip without the lock, on every Python from
# 3.11 up that is at hand. What is not at hand is said. With "core" the tests of the core run there as well.
set -euo pipefail
cd "$(dirname "$0")/.."
root=$PWD
what=${1:-commands}
place=$(mktemp -d)
trap 'rm -rf "$place"' EXIT

say() { printf '%s\n' "wheel: $*" >&2; }

pythons() {  # one path a minor release, the newest first
  local minor found
  for minor in 15 14 13 12 11; do
    found=""
    for found in $(type -aP "python3.$minor" || true) "$HOME/.pyenv/versions/3.$minor."*/bin/python; do
      if "$found" -c 'import ensurepip, venv' 2>/dev/null \
        && [ "$("$found" -c 'import sys; print(sys.version_info[1])')" = "$minor" ]; then
        printf '%s\n' "$found"
        continue 2
      fi
    done
    say "no Python 3.$minor at hand: not tried"
  done
}

for copy in dist again; do
  .venv/bin/python -m build --wheel --no-isolation --outdir "$place/$copy" . >/dev/null
done
wheel=$(echo "$place"/dist/*.whl)
cmp "$wheel" "$place"/again/*.whl || { say "built twice it is not the same"; exit 1; }
mapfile -t found < <(pythons)
[ ${#found[@]} -gt 0 ] || { say "no Python from 3.11 up is at hand"; exit 1; }
[ ${#found[@]} -gt 1 ] || say "one Python only: another one is worth installing"

commands() {  # in a folder that holds nothing of the project
  local bin=$1/bin own=$1/work
  mkdir "$own" && cd "$own"
  "$bin/urgens" --version
  "$bin/urgens" new own.urgens.json
  "$bin/urgens" solve own.urgens.json >solved.json
  "$bin/urgens" check own.urgens.json >said || [ $? = 1 ]
  "$bin/urgens" sheet own.urgens.json -o sheet.pdf
  "$bin/urgens" man >page && "$bin/urgens" completion bash >script
  for file in solved.json said sheet.pdf page script; do
    [ -s "$file" ] || { say "$file is empty"; return 1; }
  done
  [ "$(QT_QPA_PLATFORM=offscreen "$bin/python" "$root/tools/shown.py")" = "Bookmoor" ] || {
    say "its window does not show"; return 1
  }
  "$bin/urgens" install-desktop --prefix "$own/prefix" >/dev/null
  "$bin/urgens" install-desktop --prefix "$own/prefix" --remove >/dev/null
  if [ -e "$own/prefix" ] && [ -n "$(ls -A "$own/prefix")" ]; then
    say "left behind:"; find "$own/prefix" >&2; return 1
  fi
  cd "$root"
}

core() {  # the tests lie beside nothing of the source, so that the wheel is what they try
  local bin=$1/bin own=$1/core
  mkdir "$own" && cp -r tests "$own/tests" && cp pyproject.toml "$own/"
  grep -vE '^(-c|build|mypy|ruff|import-linter|setuptools|shtab|argparse-manpage|pytest-(cov|benchmark))' \
    requirements/dev.in | "$bin/pip" install --quiet --disable-pip-version-check -r /dev/stdin
  cd "$own"
  QT_QPA_PLATFORM=offscreen "$bin/python" -m pytest -q -n 2 tests/physics tests/quantity tests/document tests/solve \
    tests/studies tests/plumbing tests/guidance tests/bench tests/sources \
    --ignore tests/document/test_kinds.py # which follows a recipe on the source itself
  cd "$root"
}

for python in "${found[@]}"; do
  venv=$place/$(basename "$(dirname "$(dirname "$python")")")-$RANDOM
  say "$("$python" --version): about 250 MB to fetch, where pip has not kept them"
  "$python" -m venv "$venv"
  "$venv/bin/pip" install --quiet --disable-pip-version-check "$wheel"
  commands "$venv"
  [ "$what" != core ] || core "$venv"
  rm -rf "$venv"
  say "$("$python" --version): works"
done
