#!/usr/bin/env bash
# Makes .venv with the locked packages ("run"), then the ones for tests and checks ("test").
# As root on Debian or Ubuntu it also installs the system libraries Qt needs; otherwise it names what is missing.
set -euo pipefail
cd "$(dirname "$0")/.."
PYTHON=${PYTHON:-python3}
want=${1:-run}
libraries=src/urgens/data/system_libraries.txt # name, package, always or screen

say() { printf '%s\n' "$*" >&2; }

missing_packages() {
  local known name package needed
  known=$( (ldconfig -p 2>/dev/null || /sbin/ldconfig -p) | awk '{print $1}' )
  while read -r name package needed; do
    [ "$needed" != "$1" ] || grep -qxF "$name" <<<"$known" || printf '%s ' "$package"
  done < <(grep -v '^#' "$libraries")
}

can_install() { [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; }

install_packages() {
  say "Installing system packages (30 to 150 MB, a minute or two): $*"
  export DEBIAN_FRONTEND=noninteractive
  apt-get update -qq
  apt-get install -y -qq --no-install-recommends "$@" >/dev/null
}

"$PYTHON" -c 'import sys; sys.exit(sys.version_info < (3, 11))' 2>/dev/null || {
  say "Urgens needs Python 3.11 or newer; '$PYTHON' is not. Name another one: make PYTHON=python3.12 …"; exit 1; }

need_venv=""
"$PYTHON" -c 'import ensurepip, venv' 2>/dev/null || need_venv=python3-venv
need=$(missing_packages always)
window=$(missing_packages screen)
command -v xvfb-run >/dev/null || window="$window xvfb xauth"
# tests start the window in other countries' settings, which are made from their sources
[ "$want" = run ] || [ -d /usr/share/i18n/locales ] || window="$window locales"
# and look at the menu entry, the file type and the application's data as a desktop would
for pair in desktop-file-validate:desktop-file-utils appstreamcli:appstream update-mime-database:shared-mime-info; do
  [ "$want" = run ] || command -v "${pair%%:*}" >/dev/null || window="$window ${pair##*:}"
done

if can_install; then
  all="$need_venv $need $window"
  # shellcheck disable=SC2086
  [ -z "${all// /}" ] || install_packages $all
else
  all=$(echo $need_venv $need $window)
  if [ -n "${need_venv}${need// /}" ]; then
    say "Missing system packages, those for a screen of its own among them. Install them, then try again:"
    say "  sudo apt-get update && sudo apt-get install -y --no-install-recommends $all"
    exit 1
  fi
  if [ -n "$all" ]; then
    say "For a window on this machine's own screen (or Xvfb), or for all tests, these are missing:"
    say "  sudo apt-get update && sudo apt-get install -y --no-install-recommends $all"
  fi
fi

# A venv whose making was stopped has a python but no pip yet: it is made anew.
.venv/bin/python -m pip --version >/dev/null 2>&1 || "$PYTHON" -m venv --clear .venv
pip() { .venv/bin/python -m pip --disable-pip-version-check --quiet "$@"; }
if [ "$want" = run ]; then
  say "Installing the packages that Urgens needs into .venv: some 250 MB to fetch, 650 MB on the disk, one to three minutes"
  pip install --require-hashes -r requirements/base.txt
  pip install --require-hashes -r requirements/build.txt
  pip install --no-deps --no-build-isolation --editable .
else
  say "Installing the packages for tests and checks: some 60 MB to fetch, half a minute to two"
  pip install --require-hashes -r requirements/dev.txt
fi
touch ".venv/.$want"
