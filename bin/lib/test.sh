. "$ROOT/bin/lib/services.sh"

FAILED=()
part() { local name=$1; shift; say "$name"; "$@" || FAILED+=("$name"); }

command_test() {
  local parts=("$@")
  [ ${#parts[@]} -gt 0 ] || parts=(core static app front e2e)
  wants() { local p; for p in "${parts[@]}"; do [ "$p" = "$1" ] && return 0; done; return 1; }
  use_stage test 9700
  end_all
  set_up chromium
  trap 'end_all' EXIT
  trap 'exit 130' INT TERM

  if wants core; then part "core" both core_of_all_else core_of_compiler; fi
  if wants static; then
    part "static analysis" vendor/bin/phpstan analyse --no-progress --memory-limit=2G
    part "static analysis of the application" vendor/bin/phpstan analyse -c phpstan-app.neon --no-progress --memory-limit=2G
    part "style" vendor/bin/pint --test -q
    part "line lengths" vendor/bin/phpcs -q
    part "directions" vendor/bin/phpstan analyse -c phpstan-directions.neon --no-progress --memory-limit=2G
    part "shell" bash -n vestigon bin/lib/*.sh
  fi
  if wants front; then
    part "front end: types" npm run --silent check
    part "front end: lint" npm run --silent lint
    part "front end: format" npm run --silent format
    part "front end: unit tests" npm run --silent unit
  fi
  if wants app || wants e2e; then
    rm -f "$STATE"/world.sqlite*
    up_test
    if wants app; then part "app" app_side_by_side; fi
    if wants e2e; then
      part "end to end" e2e_tests
      part "backup and restore; from nothing" both backup_and_restore from_nothing
    fi
  fi

  if [ ${#FAILED[@]} -gt 0 ]; then die "failed: $(IFS=,; echo "${FAILED[*]}")"; fi
  say "all passed"
}

# both FIRST SECOND: at once, one on each core; what the second has printed comes last.
both() {
  local second failed=0 log=var/$2.log
  "$2" >"$log" 2>&1 & second=$!
  "$1" || failed=1
  wait $second || failed=1
  cat "$log"
  return $failed
}

# on_second_stage COMMAND: with a database and stand-ins of its own.
on_second_stage() (
  set -e
  use_stage test-second 9800
  end_all
  trap end_all EXIT
  rm -f "$STATE"/world.sqlite*
  up_test
  "$@"
)

# The core's tests: those of the compiler take as long as all others. They compute for minutes: what PHP makes better in
# code that it keeps is worth it.
LONG_CORE='(CompilerTest|InPartsTest)::'
core_tests() { php -d opcache.enable_cli=1 vendor/bin/phpunit --testsuite core "$@"; }
core_of_compiler() { core_tests --filter "$LONG_CORE"; }
core_of_all_else() { core_tests --exclude-filter "$LONG_CORE"; }

# The application's tests on two stages: whoever is through takes the next few files, the largest first.
app_side_by_side() {
  ls -S tests/Reliability/*Test.php tests/Feature/*Test.php >var/app-left
  both app_tests app_tests_too
}
app_tests_too() { on_second_stage app_tests; }

# app_tests: runs files of tests until none is left that no stage has taken.
app_tests() {
  local files failed=0
  while files=$(flock var/app-left.lock sh -c 'head -n 3 var/app-left; sed -i 1,3d var/app-left') && [ -n "$files" ]; do
    # shellcheck disable=SC2086 # file names of ours, without spaces
    as_service env DB_DATABASE=vestigon_tests DB_OWNER_PASSWORD="$DB_OWNER_PASSWORD" APP_ENV=testing \
      vendor/bin/phpunit --cache-directory "$STATE/phpunit" $files || failed=1
  done
  return $failed
}

# e2e_tests: with the demo anew, one after the other: beside others they would wait longer than they are ready to.
e2e_tests() {
  reset_standins
  env BASE_URL="$APP_URL" STANDINS_PORT="$STANDINS_PORT" npm run --silent e2e
}

# up_test: like up, on an empty application database.
up_test() {
  choose_ports
  use_environment
  need_database
  db_admin -e "drop database vestigon; create database vestigon; drop database vestigon_tests; create database vestigon_tests;"
  migrate
  DB_DATABASE=vestigon_tests migrate
  need_web
}

# What is backed up while everything runs is there again after a restore, all of it, and nothing that came later; a damaged file changes nothing.
backup_and_restore() (
  set -e
  local file; file=$(mktemp -u --suffix=.tar); cp -p "$STATE/secrets" "$STATE/secrets.kept"
  trap 'rm -f "$file" "$file.bad"; mv "$STATE/secrets.kept" "$STATE/secrets"' EXIT
  sums() { db_admin -N vestigon -e "checksum table $(db_admin -N -e "select group_concat(table_name) from information_schema.tables where table_schema = 'vestigon' and table_name in ('users','clients','accounts','nodes','texts','plans','changes','change_writes','ledger','audit','connections')")"; }
  local before after key
  before=$(sums)
  key=$(grep ^APP_KEY= "$STATE/secrets")
  local list=$STATE/storage/feeds/990099/list
  as_service mkdir -p "${list%/*}"; as_service tee "$list" >/dev/null <<<"id,link"
  [ "$(wc -l <<<"$before")" -ge 10 ] || { echo "there is nothing to back up"; return 1; }
  VESTIGON_STAGE=test ./vestigon backup "$file"
  ! VESTIGON_STAGE=test ./vestigon backup "$file" 2>/dev/null || { echo "a file that is there was overwritten"; return 1; }
  ! VESTIGON_STAGE=test ./vestigon restore "$file" 2>/dev/null || { echo "restored over a running installation"; return 1; }
  db_admin vestigon -e "delete from findings; update nodes set name = 'lost'; update clients set name = 'lost'"
  echo lost >"$list"; as_service tee "${list%/*}/later" >/dev/null <<<"came later"
  end_all
  head -c -100 "$file" | tr '\000' '\001' >"$file.bad"
  ! VESTIGON_STAGE=test ./vestigon restore "$file.bad" 2>/dev/null || { echo "a damaged file was restored"; return 1; }
  sed -i 's/^APP_KEY=.*/APP_KEY=base64:another-machine/' "$STATE/secrets"
  VESTIGON_STAGE=test ./vestigon restore "$file"
  [ "$(grep ^APP_KEY= "$STATE/secrets")" = "$key" ] || { echo "the key did not come back"; return 1; }
  [ "$(cat "$list")" = id,link ] && [ ! -e "${list%/*}/later" ] || { echo "files did not come back as they were"; return 1; }
  rm -rf "${list%/*}"
  use_environment; need_database
  after=$(sums)
  [ "$before" = "$after" ] || { diff <(echo "$before") <(echo "$after"); return 1; }
  end_all
  rm -f var/before-restore-*.tar
)

# A stranger's way, from an installation without the demo.
from_nothing() (
  set -e
  DEMO=
  use_stage test-empty 9850
  end_all
  rm -rf "$STATE"
  use_stage test-empty 9850
  trap 'end_all' EXIT
  up
  FIRST_OWNER=$(as_service php artisan people:begin) BASE_URL="$APP_URL" \
    npx playwright test -c e2e/empty/playwright.config.ts
)

# bench NAME [ARGUMENTS]: one of tests/Bench, with code that is kept as on the web.
bench() {
  as_service env DB_OWNER_PASSWORD="$DB_OWNER_PASSWORD" \
    php -d opcache.enable_cli=1 tests/bench.php "bench:$1" "${@:2}"
}

# bench_sheets [ADS]: what comes in as sheets, against LOAD DATA: for that, the tables' owner may read and write files
# for once.
bench_sheets() {
  local folder=$ROOT/$STATE/outfiles failed=0
  as_service mkdir -p "$folder"
  db_admin -e "grant file on *.* to 'vestigon_owner'@'localhost'"
  bench sheets "$folder" "${1:-1000000}" || failed=1
  db_admin -e "revoke file on *.* from 'vestigon_owner'@'localhost'"
  return $failed
}

reset_standins() {
  php -r '$c = curl_init($argv[1]); curl_setopt_array($c, [CURLOPT_POST => true, CURLOPT_POSTFIELDS => "", CURLOPT_RETURNTRANSFER => true, CURLOPT_RESOLVE => [$argv[2]]]); curl_exec($c); exit(curl_getinfo($c, CURLINFO_HTTP_CODE) === 200 ? 0 : 1);' "http://control.localhost:$STANDINS_PORT/reset" "control.localhost:$STANDINS_PORT:127.0.0.1" || die "the stand-ins could not be reset"
  need_workers
  as_service php artisan demo:load || die "the demo could not be loaded"
  wait_for_demo
}

command_bench() {
  BENCH=1
  export LIMIT_COLLECT=1000000
  use_stage test 9700
  end_all
  set_up
  trap 'end_all' EXIT
  local name failed=0
  php core/bench/clicks.php || failed=1
  php core/bench/dialects.php || failed=1
  php -d memory_limit=2G core/bench/accounts.php || failed=1
  php core/bench/compile.php || failed=1
  php core/bench/events.php || failed=1
  php core/bench/agree.php || failed=1
  php -d memory_limit=4G core/bench/decode.php || failed=1
  rm -f "$STATE"/world.sqlite*
  up_test
  reset_standins
  for name in pages proof draft audit keys rollout; do bench "$name" || failed=1; done
  bench_sheets || failed=1
  for name in workbook results balance feeds links arrivals; do bench "$name" || failed=1; done
  node bin/bundle-size.mjs || failed=1
  [ "$failed" -eq 0 ] || die "some figures missed their goal"
}
