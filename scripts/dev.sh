#!/usr/bin/env bash
# Serves the working tree and reloads on changes.
source "$(dirname "$0")/prepare.sh"
install_packages
npx tsx src/cli/main.ts seed
exec npx next dev --hostname "${HOST:-127.0.0.1}" --port "${PORT:-3210}"
