# Makes a fresh machine ready; sourced by the other scripts. Says one sentence where something is missing.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
export NEXT_TELEMETRY_DISABLED=1

fail() {
  echo "$1" >&2
  exit 1
}

command -v node >/dev/null || fail 'Node.js 20 or later is needed and was not found; install it and try again.'
node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 15) ? 0 : 1)' ||
  fail "Node.js 20.15 or later is needed; this is $(node --version)."

install_packages() {
  local stamp=node_modules/.enstegon-lock
  if [ ! -f "$stamp" ] || ! cmp -s package-lock.json "$stamp"; then
    command -v python3 >/dev/null && command -v make >/dev/null && command -v g++ >/dev/null ||
      fail 'The database driver is compiled while it is installed: python3, make and g++ are needed (Debian: apt-get install python3 make g++).'
    echo 'Installing packages; the database driver is compiled, which takes a few minutes the first time.'
    JOBS=max npm ci --no-audit --no-fund --loglevel=error || fail 'The packages could not be installed; see the lines above.'
    cp package-lock.json "$stamp"
  fi
  npm run -s kernel
}

find_chromium() {
  if [ -z "${CHROMIUM:-}" ]; then CHROMIUM=$(command -v chromium || command -v chromium-browser || command -v google-chrome || true); fi
  if [ -z "$CHROMIUM" ] && command -v apt-get >/dev/null && [ "$(id -u)" = 0 ]; then
    echo 'Installing Chromium for the interface tests.'
    (apt-get update -qq && apt-get install -y -qq chromium) >/dev/null 2>&1 || true
    CHROMIUM=$(command -v chromium || true)
  fi
  [ -n "$CHROMIUM" ] || fail 'Chromium is needed for the interface tests and could not be installed; install it (Debian: apt-get install chromium) or set CHROMIUM to its path.'
  export CHROMIUM
}

build() {
  # A build stands for the sources it was made from.
  local now
  now=$( (cat package-lock.json next.config.ts tsconfig.json; find src -type f ! -name '*.test.ts' -print0 | sort -z | xargs -0 cat) | sha256sum | cut -d' ' -f1)
  if [ ! -f .next/BUILD_ID ] || [ "$(cat .next/enstegon-sources 2>/dev/null || true)" != "$now" ]; then
    ENSTEGON_BUILD=${now:0:16} npx next build || fail 'The production build failed; see the lines above.'
    # Maps of sources are for whoever builds, not for whoever is served.
    rm -rf .next/maps && mkdir .next/maps
    find .next/static -name '*.map' -exec mv -t .next/maps {} +
    echo "$now" >.next/enstegon-sources
  fi
}
