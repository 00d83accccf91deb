#!/bin/sh
# Sees to it that Debian's headless Chromium is there, which the browser tests drive.
set -eu
test -x /usr/bin/chromium-headless-shell && exit 0
if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
	apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -qq -y chromium-headless-shell && exit 0
fi
test -x /usr/bin/chromium && exit 0
echo "The browser tests need Chromium: apt-get install chromium-headless-shell" >&2
exit 1
