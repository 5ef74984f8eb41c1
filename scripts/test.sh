#!/usr/bin/env bash
# Every check: types, form, lint, unit and server tests, the production build, the interface in Chromium.
source "$(dirname "$0")/prepare.sh"
install_packages
find_chromium
# The checks that only read run side by side.
npx tsc --noEmit &
types=$!
npx tsc --noEmit -p tsconfig.core.json && npx prettier --check . --log-level warn && npm run -s lint || {
  wait "$types" || true
  exit 1
}
wait "$types"
# The build needs the processor in bursts only: the unit tests run beside it.
npx vitest run &
units=$!
build
wait "$units"
npx playwright test
npx tsx attack/main.ts --short
