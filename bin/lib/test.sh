. "$ROOT/bin/lib/services.sh"
. "$ROOT/bin/lib/lanes.sh"

command_test() {
  local parts=("$@") pids=() pid
  [ ${#parts[@]} -gt 0 ] || parts=(core static app front e2e)
  wants() { local p; for p in "${parts[@]}"; do [ "$p" = "$1" ] && return 0; done; return 1; }
  set_up chromium
  rm -f var/task.* var/tasks-failed
  tasks >var/tasks
  trap 'kill "${pids[@]}" 2>/dev/null; wait; exit 130' INT TERM
  # a browser waits for most of its time: one lane has that, the other what computes
  lane test 9700 $(wants e2e && echo browser_tests) & pids+=($!)
  lane test-second 9800 & pids+=($!)
  for pid in "${pids[@]}"; do wait "$pid" || echo "a lane that broke off" >>var/tasks-failed; done
  [ ! -s var/tasks ] || echo "tasks that were not begun" >>var/tasks-failed
  [ ! -s var/tasks-failed ] || die "failed: $(sort -u var/tasks-failed | paste -sd,)"
  say "all passed"
}

# tasks: one a line, the longest first.
tasks() {
  if wants core; then printf '%s\n' core_of_compiler core_of_all_else; fi
  if wants static; then printf '%s\n' analysis_of_application analysis directions style line_lengths shell; fi
  if wants e2e; then echo from_nothing; fi
  if wants front; then printf 'front_end %s\n' unit check lint format; fi
  # of the application: those of reliability are the longest, the others as long or short as their files are large
  if wants app; then
    ls -S tests/Reliability/*Test.php | xargs -n 1 echo on_stage app_tests
    ls -S tests/Feature/*Test.php | xargs -n 4 echo on_stage app_tests
  fi
}

analysis() { vendor/bin/phpstan analyse --no-progress --memory-limit=2G; }
analysis_of_application() { vendor/bin/phpstan analyse -c phpstan-app.neon --no-progress --memory-limit=2G; }
directions() { vendor/bin/phpstan analyse -c phpstan-directions.neon --no-progress --memory-limit=2G; }
style() { vendor/bin/pint --test -q; }
line_lengths() { vendor/bin/phpcs -q; }
shell() { bash -n vestigon bin/lib/*.sh; }
front_end() { npm run --silent "$1"; }

# The core's tests: those of the compiler take as long as all others. They compute for minutes: what PHP makes better in
# code that it keeps is worth it.
LONG_CORE='(CompilerTest|InPartsTest)::'
core_tests() { php -d opcache.enable_cli=1 vendor/bin/phpunit --testsuite core "$@"; }
core_of_compiler() { core_tests --filter "$LONG_CORE"; }
core_of_all_else() { core_tests --exclude-filter "$LONG_CORE"; }

app_tests() {
  as_service env DB_DATABASE=vestigon_tests DB_OWNER_PASSWORD="$DB_OWNER_PASSWORD" APP_ENV=testing \
    php -d opcache.enable_cli=1 vendor/bin/phpunit --cache-directory "$STATE/phpunit" "$@"
}

# browser_tests: those that drive a browser, on the demo; then what they have left there is backed up and restored.
browser_tests() {
  up_test
  reset_standins
  env BASE_URL="$APP_URL" STANDINS_PORT="$STANDINS_PORT" npm run --silent e2e
  backup_and_restore
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
  use_stage test-empty 9600
  end_all
  rm -rf "$STATE"
  use_stage test-empty 9600
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
