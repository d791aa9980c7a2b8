# Starts and ends the servers of one stage (demo or test), each with its own data under var/STAGE.
. "$ROOT/bin/lib/setup.sh"

# use_stage NAME FIRST_PORT: names everything of a stage.
use_stage() {
  STAGE=$1
  FIRST_PORT=$2
  STATE=var/$STAGE
  RUN=/tmp/vestigon-$(id -u)-$(printf '%s' "$ROOT/$STAGE" | cksum | cut -d' ' -f1) # short: a socket's path has at most 107 bytes
  mkdir -p "$STATE/log" "$STATE/storage/framework/cache/data" "$STATE/storage/framework/views" "$STATE/storage/framework/sessions" "$STATE/storage/logs" "$RUN"
  chmod 700 "$RUN"
  touch "$STATE/pids"
}

# running NAME: is the process that this stage started under that name alive?
running() { local pid; pid=$(awk -v n="$1" '$1==n {p=$2} END {print p}' "$STATE/pids"); [ -n "$pid" ] && kill -0 "$pid" 2>/dev/null; }

# launch NAME COMMAND…: starts a process in the background and notes its id.
launch() {
  local name=$1; shift
  setsid "$@" >>"$STATE/log/$name.log" 2>&1 </dev/null &
  echo "$name $!" >>"$STATE/pids"
}

# end_all: ends what this stage started, the servers after their users, the database last.
end_all() {
  local name pid
  [ -s "$STATE/pids" ] || return 0
  tac "$STATE/pids" | while read -r name pid; do
    kill -0 "$pid" 2>/dev/null || continue
    kill -TERM -- "-$pid" 2>/dev/null || kill -TERM "$pid" 2>/dev/null || true
    for _ in $(seq 100); do kill -0 "$pid" 2>/dev/null || break; sleep 0.1; done
    kill -KILL -- "-$pid" 2>/dev/null || true
  done
  : >"$STATE/pids"
}

port_taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

# free_port WANTED: the first free port from there on.
free_port() {
  local port=$1
  while port_taken "$port"; do
    port=$((port + 1))
    [ "$port" -lt $((${1} + 50)) ] || die "ports $1 to $port are all in use on 127.0.0.1. End what uses them, or set VESTIGON_PORT to another."
  done
  echo "$port"
}

choose_ports() {
  if [ -n "${VESTIGON_PORT:-}" ] && port_taken "$VESTIGON_PORT"; then
    die "port $VESTIGON_PORT is in use. End what uses it, or leave VESTIGON_PORT out to take a free one."
  fi
  APP_PORT=$(free_port "${VESTIGON_PORT:-$FIRST_PORT}")
  # the stand-ins' port is written into demo data: once chosen it stays
  STANDINS_PORT=$(cat "$STATE/standins.port" 2>/dev/null || free_port $((FIRST_PORT + 50)))
  ! port_taken "$STANDINS_PORT" || die "port $STANDINS_PORT, which the demo data names, is in use. End what uses it, or remove $STATE to begin anew."
  echo "$STANDINS_PORT" >"$STATE/standins.port"
  DB_PORT=$(free_port $((FIRST_PORT + 100)))
  printf 'APP_PORT=%s\nSTANDINS_PORT=%s\nDB_PORT=%s\n' "$APP_PORT" "$STANDINS_PORT" "$DB_PORT" >"$STATE/ports"
}

use_environment() {
  export DB_QUEUE_RETRY_AFTER=1900 QUEUE_CONNECTION=database SESSION_DRIVER=database CACHE_STORE=database LOG_CHANNEL=single
  . "$STATE/ports"
  if [ ! -s "$STATE/secrets" ]; then
    (umask 077; php -r 'echo "APP_KEY=base64:".base64_encode(random_bytes(32))."\nDB_PASSWORD=".bin2hex(random_bytes(12))."\n";' >"$STATE/secrets")
  fi
  . "$STATE/secrets"
  export APP_KEY DB_PASSWORD
  export VESTIGON_STATE=$STATE STANDINS_PORT APP_URL="http://127.0.0.1:$APP_PORT" APP_ENV=${APP_ENV:-production}
  export DB_HOST=127.0.0.1 DB_PORT DB_DATABASE=vestigon DB_USERNAME=vestigon
}

need_database() {
  local data=$STATE/mariadb socket=$RUN/db.sock
  if [ ! -d "$data/mysql" ]; then
    say "making a database folder"
    rm -rf "$data"
    mariadb-install-db --no-defaults --user="$(id -un)" --datadir="$ROOT/$data" --auth-root-authentication-method=normal --skip-test-db >"$STATE/log/mariadb-install.log" 2>&1 \
      || die "MariaDB's data folder could not be made: $(tail -n 3 "$STATE/log/mariadb-install.log")"
  fi
  launch mariadb /usr/sbin/mariadbd --no-defaults --user="$(id -un)" --datadir="$ROOT/$data" --socket="$socket" --port="$DB_PORT" --bind-address=127.0.0.1 \
    --pid-file="$RUN/db.pid" --innodb-buffer-pool-size=512M --innodb-flush-log-at-trx-commit=2 --character-set-server=utf8mb4 --collation-server=utf8mb4_unicode_ci --log-bin-trust-function-creators=1
  for _ in $(seq 300); do mariadb-admin --no-defaults --socket="$socket" -u root ping >/dev/null 2>&1 && break; running mariadb || break; sleep 0.1; done
  mariadb-admin --no-defaults --socket="$socket" -u root ping >/dev/null 2>&1 || die "MariaDB did not start: $(tail -n 5 "$STATE/log/mariadb.log")"
  mariadb --no-defaults --socket="$socket" -u root -e "
    create database if not exists vestigon; create database if not exists vestigon_tests;
    create user if not exists 'vestigon'@'127.0.0.1' identified by '$DB_PASSWORD'; alter user 'vestigon'@'127.0.0.1' identified by '$DB_PASSWORD';
    grant all on vestigon.* to 'vestigon'@'127.0.0.1'; grant all on vestigon_tests.* to 'vestigon'@'127.0.0.1';"
}

need_web() {
  local fpm user=
  fpm=$(ls /usr/sbin/php-fpm8* | tail -n 1)
  [ "$(id -u)" -ne 0 ] || user="user = root
group = root"
  cat >"$STATE/fpm.conf" <<CONF
[global]
daemonize = no
error_log = $ROOT/$STATE/log/fpm.log
[app]
$user
listen = $RUN/fpm.sock
listen.mode = 0666
pm = static
pm.max_children = 6
clear_env = no
catch_workers_output = yes
php_admin_value[memory_limit] = 512M
php_admin_value[error_log] = $ROOT/$STATE/log/php.log
[standins]
$user
listen = $RUN/standins.sock
listen.mode = 0666
pm = static
pm.max_children = 4
clear_env = no
php_admin_value[error_log] = $ROOT/$STATE/log/standins.log
CONF
  sed -e "s|@ROOT@|$ROOT|g; s|@STATE@|$ROOT/$STATE|g; s|@RUN@|$RUN|g; s|@APP_PORT@|$APP_PORT|g; s|@STANDINS_PORT@|$STANDINS_PORT|g" \
      -e "s|@USER@|$([ "$(id -u)" -ne 0 ] || echo 'user root;')|" bin/lib/nginx.conf >"$STATE/nginx.conf"
  mkdir -p "$RUN/nginx"
  launch fpm "$fpm" $([ "$(id -u)" -ne 0 ] || echo -R) -d opcache.enable=1 -F -y "$ROOT/$STATE/fpm.conf"
  launch nginx /usr/sbin/nginx -e "$ROOT/$STATE/log/nginx.log" -c "$ROOT/$STATE/nginx.conf"
  wait_for "http://127.0.0.1:$APP_PORT/up" "the application" fpm
  wait_for "http://northquay.localhost:$STANDINS_PORT/ads" "the stand-ins" nginx
}

wait_for() {
  for _ in $(seq 150); do
    php -r '$c = curl_init($argv[1]); curl_setopt_array($c, [CURLOPT_RETURNTRANSFER => true, CURLOPT_TIMEOUT => 5, CURLOPT_RESOLVE => ["northquay.localhost:'"$STANDINS_PORT"':127.0.0.1"]]); curl_exec($c); exit(curl_getinfo($c, CURLINFO_HTTP_CODE) === 200 ? 0 : 1);' "$1" && return 0
    sleep 0.2
  done
  die "$2 did not answer at $1; see $STATE/log: $(tail -n 3 "$STATE/log/$3.log" "$STATE/log/php.log" 2>/dev/null)"
}

need_workers() {
  local n
  for n in 1 2; do launch "worker$n" bash -c 'while :; do php artisan queue:work --sleep=0.2 --max-time=1800 --tries=3; sleep 1; done'; done
  launch watch bash -c 'while :; do php artisan changes:watch; sleep 1; done'
  launch arrivals bash -c 'while :; do php artisan arrivals:watch; sleep 1; done'
}

# up: the whole stage, ready to be used.
up() {
  choose_ports
  use_environment
  say "starting MariaDB, the web server, workers and stand-ins"
  need_database
  php artisan migrate --force --quiet || die "the database could not be brought up to date"
  need_web
  php artisan demo:load || die "the demo could not be loaded"
  need_workers
  for _ in $(seq 300); do [ "$(php artisan demo:state)" = ready ] && return 0; sleep 0.3; done
  die "the demo accounts were not imported in time; see $STATE/log"
}
