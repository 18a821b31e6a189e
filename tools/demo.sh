#!/usr/bin/env bash
# Starts Urgens on the demo builds: in a window, or without a screen under Xvfb or offscreen, until it is stopped.
set -u
cd "$(dirname "$0")/.."
if [ -n "${DISPLAY:-}${WAYLAND_DISPLAY:-}" ]; then
  exec .venv/bin/python -m urgens demo
elif command -v xvfb-run >/dev/null && command -v xauth >/dev/null; then
  echo "No display here: Urgens runs on a virtual screen (Xvfb). Stop it with Ctrl+C."
  QT_QPA_PLATFORM=xcb exec xvfb-run -a -s '-screen 0 1280x800x24' .venv/bin/python -m urgens demo
else
  echo "No display here and no Xvfb: Urgens runs offscreen. Stop it with Ctrl+C."
  QT_QPA_PLATFORM=offscreen exec .venv/bin/python -m urgens demo
fi
