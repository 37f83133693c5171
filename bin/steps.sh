# Steps that both README commands share. Sourced, never run.

step() {
  printf '\n== %s\n' "$*"
}

need() {
  command -v "$1" >/dev/null 2>&1 || { echo "derecho: $1 is missing: $2" >&2; exit 1; }
}

need cargo "install Rust with rustup"
need npm "install Node.js 20 or newer with npm"

# True where a stamp file is missing or older than any of the files and folders after it.
older_than() {
  local stamp="$1"
  shift
  [ ! -e "$stamp" ] || [ -n "$(find "$@" -newer "$stamp" -print -quit)" ]
}

install_packages() {
  if older_than web/node_modules/.derecho-installed web/package.json web/package-lock.json web/tools/package.json; then
    step "Installing the web client's packages (about half a minute)"
    (cd web && npm ci --no-audit --no-fund)
    touch web/node_modules/.derecho-installed
  fi
}

build_client() {
  install_packages
  if older_than web/dist/index.html web/src web/public web/index.html web/vite.config.ts web/node_modules/.derecho-installed; then
    step "Building the web client"
    (cd web && npx vite build --logLevel warn)
  fi
}
