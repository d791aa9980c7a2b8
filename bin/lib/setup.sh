# Installs what the project needs and builds what it serves. Every step finds out whether there is anything to do.
. "$ROOT/bin/lib/say.sh"

as_root() {
  if [ "$(id -u)" -eq 0 ]; then "$@"
  elif command -v sudo >/dev/null; then sudo "$@"
  else die "\"$1 $2 …\" needs root, and there is no sudo. Run it as root once, then start again."
  fi
}

need_disk() {
  local free
  free=$(df -Pk "$ROOT" | awk 'NR==2 {print $4}')
  [ "$free" -gt 1048576 ] || die "only $((free / 1024)) MB are free on the disk of $ROOT; 1024 MB are needed. Free some space, then start again."
}

need_tools() {
  local tool
  for tool in php composer node npm; do
    command -v "$tool" >/dev/null || die "\"$tool\" is missing. Install PHP 8.2, Composer and Node 20 (Debian: apt-get install php-cli composer nodejs npm), then start again."
  done
  php -r 'exit(PHP_VERSION_ID >= 80200 ? 0 : 1);' || die "PHP 8.2 or newer is needed; this is $(php -r 'echo PHP_VERSION;')."
  node -e 'process.exit(process.versions.node.split(".")[0] >= 20 ? 0 : 1)' || die "Node 20 or newer is needed; this is $(node --version)."
}

# need_system [chromium]: the system's packages. Services that a package would start stay off: the project runs its own.
need_system() {
  local php missing=() ext modules
  modules=$(php -m)
  php=php$(php -r 'echo PHP_MAJOR_VERSION.".".PHP_MINOR_VERSION;')
  for ext in mysql:pdo_mysql curl:curl zip:zip gd:gd sqlite3:pdo_sqlite mbstring:mbstring xml:dom intl:intl apcu:apcu; do
    grep -qix "${ext#*:}" <<<"$modules" || missing+=("$php-${ext%%:*}")
  done
  [ -x "$(command -v "php-fpm${php#php}" || echo "/usr/sbin/php-fpm${php#php}")" ] || missing+=("$php-fpm")
  [ -x /usr/sbin/mariadbd ] || missing+=(mariadb-server)
  [ -x /usr/sbin/nginx ] || missing+=(nginx)
  if [ "${1:-}" = chromium ]; then command -v chromium >/dev/null || missing+=(chromium); fi
  [ ${#missing[@]} -gt 0 ] || return 0
  say "installing system packages: ${missing[*]}"
  local guard=/usr/sbin/policy-rc.d made=
  if [ ! -e $guard ]; then printf '#!/bin/sh\nexit 101\n' | as_root tee $guard >/dev/null; as_root chmod +x $guard; made=1; fi
  mkdir -p "$ROOT/var"
  as_root apt-get update -qq >"$ROOT/var/apt.log" 2>&1 || true
  as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "${missing[@]}" >>"$ROOT/var/apt.log" 2>&1 || { [ -z "$made" ] || as_root rm -f $guard; die "apt-get could not install ${missing[*]}; the last lines of var/apt.log say why: $(tail -n 3 "$ROOT/var/apt.log")"; }
  [ -z "$made" ] || as_root rm -f $guard
}

# stale TARGET SOURCE…: is the target missing, or older than a source?
stale() {
  local target=$1; shift
  [ -e "$target" ] || return 0
  [ -n "$(find "$@" -newer "$target" -type f -print -quit 2>/dev/null)" ]
}

need_composer() {
  if stale vendor/autoload.php composer.json; then
    say "installing PHP packages"
    # every version is pinned in composer.json; one package (openspout) says that it wants an older PHP, and runs on this one
    COMPOSER_ALLOW_SUPERUSER=1 COMPOSER_IGNORE_PLATFORM_REQ=php composer update --no-interaction --no-progress --quiet || die "Composer could not install the PHP packages; run \"composer update\" to see why."
    chmod -R a+rX vendor # archives may say otherwise; the servers run as a user of their own
    touch vendor/autoload.php
  fi
}

need_npm() {
  if stale node_modules/.package-lock.json package-lock.json; then
    say "installing npm packages"
    npm ci --no-audit --no-fund --loglevel=error 2>&1 | grep -v 'Unknown user config' || true
    [ -e node_modules/.package-lock.json ] || die "npm could not install its packages; run \"npm ci\" to see why."
    touch node_modules/.package-lock.json
  fi
}

need_build() {
  stale resources/js/api/schema.d.ts docs/formats/openapi.yaml && npm run --silent types >/dev/null 2>&1
  if stale public/build/manifest.json resources/js vite.config.ts package.json; then
    say "building the front end"
    npm run --silent build >"$ROOT/var/build.log" 2>&1 || die "the front end did not build: $(tail -n 20 "$ROOT/var/build.log")"
  fi
}

need_programs() {
  if stale redirector/programs.php bin/programs.mjs node_modules/.package-lock.json; then node bin/programs.mjs; fi
}

set_up() {
  need_tools; need_disk
  mkdir -p "$ROOT/var"
  need_system "${1:-}"
  need_composer; need_npm; need_programs; need_build
}
