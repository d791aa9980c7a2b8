# Starts and ends the servers of one stage (demo or test), each with its own data under var/STAGE.
. "$ROOT/bin/lib/setup.sh"

# use_stage NAME FIRST_PORT: names everything of a stage.
use_stage() {
  STAGE=$1
  FIRST_PORT=$2
  STATE=var/$STAGE
  RUN=/tmp/vestigon-$(id -u)-$(printf '%s' "$ROOT/$STAGE" | cksum | cut -d' ' -f1) # short: a socket's path has at most 107 bytes
  mkdir -p "$STATE/log" "$STATE/storage/framework/cache/data" "$STATE/storage/framework/views" "$STATE/storage/framework/sessions" "$STATE/storage/logs" "$RUN"
  touch "$STATE/pids"
  choose_service
  if [ "$SERVICE" != "$(id -un)" ]; then chown -R "$SERVICE": "$STATE" "$RUN"; fi
  chmod 700 "$RUN"
}

# choose_service: who the servers run as: whoever starts them, or, if that is root, a user of their own that can do nothing else.
choose_service() {
  SERVICE=$(id -un)
  AS_SERVICE=()
  [ "$(id -u)" -eq 0 ] || return 0
  id -u vestigon >/dev/null 2>&1 || useradd --system --user-group --no-create-home --home-dir /nonexistent --shell /usr/sbin/nologin vestigon
  AS_SERVICE=(setpriv --reuid=vestigon --regid=vestigon --init-groups --)
  if "${AS_SERVICE[@]}" test -r "$ROOT/artisan" -a -w "$ROOT/$STATE"  2>/dev/null || { chown -R vestigon: "$STATE" && "${AS_SERVICE[@]}" test -r "$ROOT/artisan" -a -w "$ROOT/$STATE"; }; then
    SERVICE=vestigon
  else
    AS_SERVICE=()
    say "the servers run as root, since the user \"vestigon\" can't read $ROOT; put the folder where others can read it (such as /opt/vestigon) to mend that"
  fi
}

# as_service COMMAND…: runs a command as the user that the servers run as.
as_service() { ${AS_SERVICE[@]+"${AS_SERVICE[@]}"} "$@"; }

# rotate_logs: what has grown over 10 MB begins anew; three older ones stay. (Laravel turns its own logs by day.)
rotate_logs() {
  local log
  for log in "$STATE"/log/*.log; do
    [ -f "$log" ] && [ "$(stat -c %s "$log")" -gt 10485760 ] || continue
    mv -f "$log.2" "$log.3" 2>/dev/null || true
    mv -f "$log.1" "$log.2" 2>/dev/null || true
    cp "$log" "$log.1" && : >"$log"
  done
}

# running NAME: is the process that this stage started under that name alive?
running() { local pid; pid=$(awk -v n="$1" '$1==n {p=$2} END {print p}' "$STATE/pids"); [ -n "$pid" ] && kill -0 "$pid" 2>/dev/null; }

# launch NAME COMMAND…: starts a process in the background, as the service user, and notes its id.
launch() {
  local name=$1; shift
  : >>"$STATE/log/$name.log"
  [ "$SERVICE" = "$(id -un)" ] || chown "$SERVICE": "$STATE/log/$name.log"
  setsid ${AS_SERVICE[@]+"${AS_SERVICE[@]}"} "$@" >>"$STATE/log/$name.log" 2>&1 </dev/null &
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
  printf 'APP_PORT=%s\nSTANDINS_PORT=%s\n' "$APP_PORT" "$STANDINS_PORT" >"$STATE/ports"
}

DEMO=${DEMO-1} # empty: no demo and no stand-ins

use_environment() {
  export QUEUE_CONNECTION=database SESSION_DRIVER=database CACHE_STORE=database LOG_CHANNEL=daily VESTIGON_DEMO=$DEMO
  [ -n "$DEMO" ] || export MAIL_MAILER=${MAIL_MAILER:-array} # no mail goes out before somebody says where to
  . "$STATE/ports"
  if [ ! -s "$STATE/secrets" ]; then
    (umask 077; php -r 'echo "APP_KEY=base64:".base64_encode(random_bytes(32))."\nDB_PASSWORD=".bin2hex(random_bytes(12))."\n";' >"$STATE/secrets")
  fi
  if ! grep -q ^DB_OWNER_PASSWORD= "$STATE/secrets"; then php -r 'echo "DB_OWNER_PASSWORD=".bin2hex(random_bytes(12))."\n";' >>"$STATE/secrets"; fi
  chmod 600 "$STATE/secrets"
  . "$STATE/secrets"
  export APP_KEY DB_PASSWORD # the owner's password is for migrations alone
  export VESTIGON_STATE=$STATE STANDINS_PORT APP_URL="http://127.0.0.1:$APP_PORT" APP_ENV=${APP_ENV:-production}
  export DB_SOCKET="$RUN/db.sock" DB_DATABASE=vestigon DB_USERNAME=vestigon
  export APP_SERVICES_CACHE="$ROOT/$STATE/storage/framework/services.php" APP_PACKAGES_CACHE="$ROOT/$STATE/storage/framework/packages.php"
}

# db_admin ARGUMENT…: MariaDB's client as its administrator: over the socket, known by the user of the system.
db_admin() { mariadb --no-defaults --socket="$RUN/db.sock" -u "$(id -un)" "$@"; }

db_answers() { mariadb-admin --no-defaults --socket="$RUN/db.sock" -u "$(id -un)" ping >/dev/null 2>&1; }

# need_database: MariaDB, reached by no network, durable to the last commit. The application may not alter tables; their owner may.
need_database() {
  local data=$STATE/mariadb
  if [ ! -d "$data/mysql" ]; then
    say "making a database folder"
    rm -rf "$data"
    as_service mariadb-install-db --no-defaults --user="$SERVICE" --datadir="$ROOT/$data" --auth-root-authentication-method=socket --auth-root-socket-user="$(id -un)" --skip-test-db >"$STATE/log/mariadb-install.log" 2>&1 \
      || die "MariaDB's data folder could not be made: $(tail -n 3 "$STATE/log/mariadb-install.log")"
  fi
  # A server that starts clears its temporary folder of what others have in it: each has its own.
  rm -rf "$data-tmp" && as_service mkdir -p "$data-tmp"
  launch mariadb /usr/sbin/mariadbd --no-defaults --user="$SERVICE" --datadir="$ROOT/$data" --tmpdir="$ROOT/$data-tmp" --socket="$RUN/db.sock" --skip-networking --skip-name-resolve --local-infile=0 --pid-file="$RUN/db.pid" \
    --innodb-buffer-pool-size=512M --tmp-memory-table-size=64M --max-heap-table-size=64M --innodb-log-file-size=256M --innodb-flush-log-at-trx-commit=1 --sync-binlog=1 --innodb-doublewrite=1 --default-time-zone=+00:00 \
    --character-set-server=utf8mb4 --collation-server=utf8mb4_nopad_bin --log-bin-trust-function-creators=1
  for _ in $(seq 300); do db_answers && break; running mariadb || break; sleep 0.1; done
  db_answers || die "MariaDB did not start: $(tail -n 5 "$STATE/log/mariadb.log")"
  db_admin -e "
    drop user if exists 'root'@'127.0.0.1', 'root'@'::1', 'root'@'%', 'root'@'$(hostname)', 'vestigon'@'127.0.0.1'; alter user 'root'@'localhost' identified via unix_socket;
    create database if not exists vestigon; create database if not exists vestigon_tests;
    create or replace user 'vestigon'@'localhost' identified by '$DB_PASSWORD';
    create or replace user 'vestigon_owner'@'localhost' identified by '$DB_OWNER_PASSWORD';
    grant all on vestigon.* to 'vestigon_owner'@'localhost' with grant option; grant all on vestigon_tests.* to 'vestigon_owner'@'localhost' with grant option;"
}

# migrate: brings the database up to date as its owner, then says what the application may do with each table.
migrate() {
  DB_OWNER_PASSWORD=$DB_OWNER_PASSWORD as_service php artisan migrate --database=owner --force --quiet || die "the database could not be brought up to date; see $STATE/storage/logs"
  DB_OWNER_PASSWORD=$DB_OWNER_PASSWORD as_service php artisan database:rights || die "the application's rights in the database could not be set"
}

need_web() {
  local fpm root= pool=
  # routes and events as they are now, so that no request has to put them together
  local prepared=(env APP_ROUTES_CACHE="$RUN/web/routes.php" APP_EVENTS_CACHE="$RUN/web/events.php")
  as_service mkdir -p "$RUN/web"
  as_service "${prepared[@]}" php artisan route:cache --quiet || die "the routes could not be prepared; see $STATE/storage/logs"
  as_service "${prepared[@]}" php artisan event:cache --quiet || die "the events could not be prepared; see $STATE/storage/logs"
  fpm=$(ls /usr/sbin/php-fpm8* | tail -n 1)
  [ "$SERVICE" != root ] || { root=-R; pool=$'user = root\ngroup = root'; }
  cat >"$STATE/fpm.conf" <<CONF
[global]
daemonize = no
error_log = $ROOT/$STATE/log/fpm.log
[app]
$pool
listen = $RUN/fpm.sock
listen.mode = 0600
pm = static
pm.max_children = 6
clear_env = no
catch_workers_output = yes
php_admin_value[memory_limit] = 512M
php_admin_value[post_max_size] = 32M
php_admin_value[max_input_vars] = 2000
php_admin_flag[zend.exception_ignore_args] = on
php_admin_flag[expose_php] = off
php_admin_value[error_log] = $ROOT/$STATE/log/php.log
CONF
  [ -z "$DEMO" ] || cat >>"$STATE/fpm.conf" <<CONF
[standins]
$pool
listen = $RUN/standins.sock
listen.mode = 0600
pm = static
pm.max_children = 4
clear_env = no
php_admin_value[error_log] = $ROOT/$STATE/log/standins.log
CONF
  sed -e "s|@ROOT@|$ROOT|g; s|@STATE@|$ROOT/$STATE|g; s|@RUN@|$RUN|g; s|@APP_PORT@|$APP_PORT|g; s|@STANDINS_PORT@|$STANDINS_PORT|g" \
      -e "$([ -n "$DEMO" ] || echo '/the simulated outside world/,/^  }$/d')" \
      -e "$([ -n "${BENCH:-}" ] || echo '/what a bench measures against/,/^    }$/d')" \
      -e "s|@USER@|$([ "$SERVICE" != root ] || echo 'user root;')|" bin/lib/nginx.conf >"$STATE/nginx.conf"
  as_service mkdir -p "$RUN/nginx"
  launch fpm "${prepared[@]}" "$fpm" $root -d opcache.enable=1 -F -y "$ROOT/$STATE/fpm.conf"
  launch nginx /usr/sbin/nginx -e "$ROOT/$STATE/log/nginx.log" -c "$ROOT/$STATE/nginx.conf"
  wait_for "http://127.0.0.1:$APP_PORT/" "the application" fpm
  [ -z "$DEMO" ] || wait_for "http://northquay.localhost:$STANDINS_PORT/ads" "the stand-ins" nginx
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
  for n in 1 2; do launch "worker$n" bash -c 'while :; do php artisan queue:work --quiet --sleep=0.2 --max-time=1800 --tries=3; sleep 1; done'; done
  # schedule:work would wait for the next full minute; this one begins at once and goes on without a gap
  launch schedule bash -c 'while :; do php artisan schedule:run --quiet; sleep 0.2; done'
  launch logs bash -c "$(declare -f rotate_logs); STATE=$STATE; while :; do rotate_logs; sleep 600; done"
}

# up: the whole stage, ready to be used.
up() {
  choose_ports
  use_environment
  rotate_logs
  say "starting MariaDB, the web server, workers${DEMO:+ and stand-ins}"
  need_database
  migrate
  need_web
  need_workers
  [ -n "$DEMO" ] || return 0
  as_service php artisan demo:load || die "the demo could not be loaded"
  wait_for_demo
  [ "${PAST:-0}" = 0 ] || as_service php artisan demo:past "$PAST" || die "what has arrived in the demo could not be loaded"
}

wait_for_demo() {
  for _ in $(seq 300); do [ "$(as_service php artisan demo:state)" = ready ] && return 0; sleep 0.3; done
  die "the demo accounts were not imported in time; see $STATE/log"
}
