#!/bin/sh
# Sees to it that Debian's Chromium is there, which the browser tests drive.
set -eu
test -x /usr/bin/chromium && exit 0
if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
	apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -qq -y chromium
	exit 0
fi
echo "The browser tests need Chromium at /usr/bin/chromium: apt-get install chromium" >&2
exit 1
