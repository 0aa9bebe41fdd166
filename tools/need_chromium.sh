#!/bin/sh
# Makes sure that there is a Chromium for the browser tests, from Debian's packages where it can.
set -u
for name in chromium chromium-browser; do
  command -v "$name" >/dev/null 2>&1 && exit 0
done
[ -n "${FAIRSTAND_CHROMIUM:-}" ] && exit 0
if command -v apt-get >/dev/null 2>&1; then
  if [ "$(id -u)" = 0 ]; then as=""; else as="sudo -n"; fi
  echo "Installing Chromium from Debian's packages …"
  if $as apt-get update -qq && DEBIAN_FRONTEND=noninteractive $as apt-get install -y -qq chromium >/dev/null; then
    exit 0
  fi
fi
echo "The browser tests need Chromium and it could not be installed here. Install the package chromium, or name one with FAIRSTAND_CHROMIUM=/path/to/chromium." >&2
exit 1
