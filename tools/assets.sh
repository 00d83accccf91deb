#!/bin/sh
# Builds the style sheet and copies scripts and fonts from the pinned npm packages
# to where Django serves them from. The results are committed.
set -eu
cd "$(dirname "$0")/.."
out=teapot/static/teapot/dist
npm install --no-save --no-audit --no-fund
rm -rf "$out" && mkdir -p "$out/fonts"
npx tailwindcss -i assets/teapot.css -o "$out/teapot.css" --minify
for module in htmx:htmx.org/dist/htmx.esm.js idiomorph:idiomorph/dist/idiomorph.esm.js alpine:@alpinejs/csp/dist/module.esm.js; do
  npx esbuild "node_modules/${module#*:}" --minify --format=esm --outfile="$out/${module%%:*}.js"
done
# The scripts of a page as one file, and what several pages share as another.  The sources import
# each other by the paths under which they are served, so they are laid out like that first.
served=$(mktemp -d)
for folder in teapot/static teapot/*/static; do cp -R "$folder/." "$served"; done
npx esbuild --bundle --splitting --minify --format=esm --log-override:direct-eval=silent \
  --entry-names=[name] --chunk-names=shared-[hash] --outdir="$out/pages" \
  "$served/teapot/js/page.js" "$served/console/js/sheet.js" "$served/procedures/procedure.js" \
  "$served/handbook/handbook.js" "$served/shelf/tables.js"
cat $(find teapot -path '*/static/*' -name '*.js' -not -path '*/pages/*' | LC_ALL=C sort) \
  | sha256sum | cut -c1-64 > "$out/pages/sources.sha256"
rm -rf "$served"
next=node_modules/@fontsource-variable/atkinson-hyperlegible-next
mono=node_modules/@fontsource-variable/atkinson-hyperlegible-mono
maths=node_modules/@fontsource/noto-sans-math
cp "$next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2" "$out/fonts/words.woff2"
cp "$next/files/atkinson-hyperlegible-next-latin-ext-wght-normal.woff2" "$out/fonts/words-ext.woff2"
cp "$mono/files/atkinson-hyperlegible-mono-latin-wght-normal.woff2" "$out/fonts/typed.woff2"
cp "$maths/files/noto-sans-math-latin-400-normal.woff2" "$out/fonts/maths.woff2"
mkdir -p "$out/licences"
cp node_modules/htmx.org/LICENSE "$out/licences/htmx.txt"
cp node_modules/idiomorph/LICENSE "$out/licences/idiomorph.txt"
cp assets/licences/alpine.txt "$out/licences/alpine.txt" # its package has none
cp "$next/LICENSE" "$out/licences/atkinson-hyperlegible-next.txt"
cp "$mono/LICENSE" "$out/licences/atkinson-hyperlegible-mono.txt"
cp "$maths/LICENSE" "$out/licences/noto-sans-math.txt"
mkdir -p tests/vendor
cp node_modules/axe-core/axe.min.js tests/vendor/axe.min.js
