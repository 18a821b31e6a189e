#!/usr/bin/env bash
# Tries both commands of the README in bare Debian roots made by debootstrap, as root and as a user: what a newcomer's
# machine is. Wants root, debootstrap and a network; DEBIAN="bookworm trixie" says which, BARE where the roots lie.
set -euo pipefail
cd "$(dirname "$0")/.."
releases=${DEBIAN:-bookworm trixie}
place=${BARE:-/var/tmp/urgens-bare}
sources() { cat /etc/apt/sources.list /etc/apt/sources.list.d/* 2>/dev/null || true; }
mirror=${MIRROR:-$(sources | sed -n 's/^URIs: *//p; s/^deb \([^ ]*\) .*/\1/p' | sed -n 1p)}
patience=${PATIENCE:-900} # s that setting up may take
stays=10 # s that the demo has to stay open

say() { printf '%s\n' "bare: $*" >&2; }
[ "$(id -u)" = 0 ] || { say "a root is made as root: sudo make bare"; exit 1; }
command -v debootstrap >/dev/null || { say "debootstrap is not here: apt-get install debootstrap"; exit 1; }

made() { # a root kept between tries, as debootstrap left it
  local base=$place/$1.base
  if [ ! -e "$base/bin/sh" ]; then
    mkdir -p "$place"
    debootstrap --variant=minbase "$1" "$base.new" "$mirror" >"$place/$1.log" 2>&1 || { tail -5 "$place/$1.log"; exit 1; }
    mv "$base.new" "$base"
  fi
  printf '%s' "$base"
}

furnished() { # a fresh copy, with this machine's way to its package sources and the source as git has it
  local root=$place/$1.try
  gone "$root"
  cp -a "$(made "$1")" "$root"
  cp /etc/resolv.conf "$root/etc/"
  mkdir -p "$root/home/builder"
  if [ -e /etc/ssl/certs/ca-certificates.crt ]; then # whom this machine trusts, the root trusts
    cp -L /etc/ssl/certs/ca-certificates.crt "$root/etc/trusted-here.crt"
    printf '[global]\ncert = /etc/trusted-here.crt\n' >"$root/etc/pip.conf"
  fi
  mount --bind /proc "$root/proc"
  for part in /dev /dev/pts /dev/shm; do mount --bind "$part" "$root$part"; done
  git archive --prefix=urgens/ HEAD | tar -x -C "$root/root"
  git archive --prefix=urgens/ HEAD | tar -x -C "$root/home/builder"
  printf '%s' "$root"
}

gone() {
  local root=$1
  for part in /dev/shm /dev/pts /dev /proc; do umount "$root$part" 2>/dev/null || true; done
  if mountpoint -q "$root/dev" || mountpoint -q "$root/proc"; then say "$root is still in use"; exit 1; fi
  rm -rf "$root"
}

inside() { # root, home, command: an environment with nothing in it
  chroot "$1" env -i PATH=/usr/local/sbin:/usr/local/bin:/usr/sbin:/usr/bin:/sbin:/bin HOME="$2" LANG=C.UTF-8 \
    sh -c "cd $2/urgens && $3"
}

as_user() { chroot "$1" env -i PATH=/usr/local/bin:/usr/bin:/bin HOME=/home/builder LANG=C.UTF-8 \
  setpriv --reuid=1000 --regid=1000 --clear-groups sh -c "cd /home/builder/urgens && $2"; }

demo_opens() { # root: set up, shown until it is stopped
  local running=".venv/bin/python -m urgens demo" waited=0
  inside "$1" /root "make demo" >"$1/demo.log" 2>&1 &
  until pgrep -f "^$running" >/dev/null; do
    sleep 1
    waited=$((waited + 1))
    if ! kill -0 $! 2>/dev/null || [ $waited -gt "$patience" ]; then tail -15 "$1/demo.log" >&2; return 1; fi
  done
  sleep "$stays"
  pgrep -f "^$running" >/dev/null || { tail -15 "$1/demo.log" >&2; return 1; }
  pkill -INT -f "^$running"
  wait || true
  cat "$1/demo.log" >&2
}

tried() { # release
  local root
  root=$(furnished "$1")
  inside "$root" /root "apt-get update -qq && apt-get install -y -qq --no-install-recommends make python3 python3-venv >/dev/null 2>&1"
  say "$1: $(chroot "$root" python3 --version), root: make demo"
  demo_opens "$root"
  say "$1, root: make test"
  inside "$root" /root "make test" 2>&1 | tail -30
  chroot "$root" useradd -m -u 1000 builder 2>/dev/null || true
  chown -R 1000:1000 "$root/home/builder"
  say "$1, user: make test"
  as_user "$root" "make test" 2>&1 | tail -30
  gone "$root"
}

for release in $releases; do
  tried "$release"
  say "$release: both commands work"
done
