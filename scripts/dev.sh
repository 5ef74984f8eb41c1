#!/usr/bin/env bash
# Serves the working tree and reloads on changes.
source "$(dirname "$0")/prepare.sh"
install_packages
npx tsx src/cli/main.ts seed
exec node --import tsx src/server/main.ts
