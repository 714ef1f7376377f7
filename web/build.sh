#!/bin/sh
# Builds dist/ when a source is newer than it. Installs what package-lock.json pins when that changed.
set -eu
cd "$(dirname "$0")"
if [ ! -f node_modules/.installed ] || [ package-lock.json -nt node_modules/.installed ]; then
  npm ci --no-audit --no-fund
  touch node_modules/.installed
fi
if [ -f dist/index.html ] && [ -z "$(find src public index.html vite.config.ts package-lock.json ../docs/words.md -newer dist/index.html -type f 2>/dev/null)" ]; then
  exit 0
fi
npm run --silent check
npm run --silent build
