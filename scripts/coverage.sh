#!/usr/bin/env bash
# How much of each part of the source the tests run: npm run coverage [-- --folders]. Counting slows them down by half.
source "$(dirname "$0")/prepare.sh"
install_packages
find_chromium
build
npx vitest run --coverage
rm -rf tmp/e2e-coverage
COUNT=1 npx playwright test
node scripts/coverage.mjs "$@"
