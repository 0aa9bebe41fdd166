#!/bin/sh
# Makes sure that there is a Chromium for the browser tests, from Debian's packages where it can.
set -u
has() {
  for name in "$@"; do
    command -v "$name" >/dev/null 2>&1 && return 0
  done
  return 1
}
installed() {
  command -v apt-get >/dev/null 2>&1 || return 1
  if [ "$(id -u)" = 0 ]; then as=""; else as="sudo -n"; fi
  echo "Installing $1 from Debian's packages …"
  DEBIAN_FRONTEND=noninteractive $as apt-get install -y -qq "$1" >/dev/null 2>&1 && return 0
  $as apt-get update -qq >/dev/null 2>&1
  DEBIAN_FRONTEND=noninteractive $as apt-get install -y -qq "$1" >/dev/null 2>&1
}

[ -n "${FAIRSTAND_CHROMIUM:-}" ] && exit 0
# The shell without windows is quicker; not every release of Debian has it.
has chromium-headless-shell && exit 0
installed chromium-headless-shell && exit 0
has chromium chromium-browser && exit 0
installed chromium && exit 0
echo "The browser tests need Chromium and it could not be installed here. Install the package chromium-headless-shell or chromium, or name one with FAIRSTAND_CHROMIUM=/path/to/chromium." >&2
exit 1
