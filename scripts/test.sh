#!/usr/bin/env bash
# Every check: types, form, lint, unit and server tests, the production build, the interface in Chromium.
source "$(dirname "$0")/prepare.sh"
install_packages
find_chromium
npm run -s typecheck
npx prettier --check . --log-level warn
npm run -s lint
npx vitest run
build
npx playwright test
