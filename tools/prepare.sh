# Sourced by bin/start and bin/test: installs what is missing, and builds what changed.
say() { printf '%s\n' "$*" >&2; }
fail() { say "$*"; exit 1; }

need_node() {
  command -v node >/dev/null 2>&1 || fail 'Node.js 20 is not installed; Jam Ledger needs version 20.20 or a later 20.'
  case "$(node --version)" in
    v20.*) ;;
    *) fail "Jam Ledger needs Node.js 20 (20.20 or later); here it is $(node --version)." ;;
  esac
}

# need_debian NAME PACKAGE TEST: installs a Debian package unless the test passes.
need_debian() {
  if sh -c "$3" >/dev/null 2>&1; then return; fi
  command -v apt-get >/dev/null 2>&1 || fail "$1 is not installed and apt-get is not here to install it; install $1 (Debian package “$2”) and try again."
  if [ "$(id -u)" = 0 ]; then as_root=''
  elif command -v sudo >/dev/null 2>&1; then as_root='sudo'
  else fail "$1 is not installed; ask an administrator to install the Debian package “$2”."; fi
  say "Installing $1 …"
  $as_root apt-get update -qq >/dev/null 2>&1 || say 'The list of Debian packages could not be renewed; trying with the old one.'
  DEBIAN_FRONTEND=noninteractive $as_root apt-get install -y -qq --no-install-recommends "$2" >/tmp/jam-ledger-apt.log 2>&1 \
    || fail "The Debian package “$2” could not be installed; the end of its log: $(tail -n 2 /tmp/jam-ledger-apt.log)"
}

need_postgres() { need_debian PostgreSQL postgresql 'ls /usr/lib/postgresql/*/bin/initdb'; }
# What reads our files back in the tests: a schema checker, readers of MIDI, sound, PDF and calendars; and what plays guitars that others recorded.
need_readers() {
  need_debian xmllint libxml2-utils 'command -v xmllint'
  need_debian midicsv midicsv 'command -v midicsv'
  need_debian SoX sox 'command -v sox'
  need_debian 'the readers of PDF' poppler-utils 'command -v pdfinfo'
  need_debian FluidSynth fluidsynth 'command -v fluidsynth'
  need_debian 'recorded guitars' timgm6mb-soundfont 'test -e /usr/share/sounds/sf2/TimGM6mb.sf2'
  need_debian 'the calendar reader of Python' python3-icalendar '/usr/bin/python3 -c "import icalendar, dateutil"'
}
# What the page of running for real is tried with.
need_proxy() {
  need_debian nginx nginx-light 'test -x /usr/sbin/nginx'
  need_debian OpenSSL openssl 'command -v openssl'
  need_debian systemd systemd 'command -v systemd-analyze'
}
need_chromium() { need_debian Chromium chromium 'command -v chromium'; }

need_packages() {
  wanted=$(cat package-lock.json patches/* | sha256sum | cut -d' ' -f1)
  if [ "$(cat node_modules/.jam-ledger-lock 2>/dev/null)" = "$wanted" ]; then return; fi
  say 'Installing the packages …'
  npm ci --no-audit --no-fund --loglevel=error >&2 || fail 'The packages could not be installed (npm ci failed).'
  echo "$wanted" > node_modules/.jam-ledger-lock
}

# Builds only when a source changed since the last build, told by names, times and sizes.
need_build() {
  state=$(find packages/*/src apps/*/src apps/web/index.html apps/web/public apps/web/*.ts \
    packages/*/package.json apps/*/package.json packages/*/tsconfig.json apps/*/tsconfig.json tsconfig.base.json package-lock.json \
    -type f -printf '%p %T@ %s\n' | LC_ALL=C sort | sha256sum | cut -d' ' -f1)
  if [ "$(cat node_modules/.jam-ledger-build 2>/dev/null)" = "$state" ] && [ -f apps/web/dist/index.html ] && [ -f apps/server/dist/main.js ]; then return; fi
  say 'Building …'
  NODE_ENV=production npm run --silent build >/tmp/jam-ledger-build.log 2>&1 || { tail -n 20 /tmp/jam-ledger-build.log >&2; fail 'The build failed.'; }
  echo "$state" > node_modules/.jam-ledger-build
}
