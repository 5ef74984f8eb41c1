#!/usr/bin/env bash
# Every check: types, lint, unit and server tests, the production build, the interface in Chromium.
source "$(dirname "$0")/prepare.sh"
install_packages
find_chromium
npm run -s typecheck
npm run -s lint
npx vitest run
build
npx playwright test
