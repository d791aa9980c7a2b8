. "$ROOT/bin/lib/services.sh"

command_start() {
  use_own_stage "${1:-}"
  if running nginx && running mariadb; then
    use_environment
    say "already up"
    addresses
    return 0
  fi
  end_all
  set_up
  trap 'echo; say "stopping"; end_all; exit 0' INT TERM
  trap 'end_all' EXIT
  up
  addresses
  say "Ctrl+C ends it, so does ./vestigon stop"
  echo "vestigon $$" >"$STATE/main"
  while running nginx; do sleep 1 & wait $! || true; done
}

# The demo, or an installation without one: each on a stage of its own.
use_own_stage() {
  case "$1" in
    '') PAST=90; use_stage demo 8700 ;;
    --empty) DEMO=; use_stage own 8600 ;;
    *) die "there is only --empty" ;;
  esac
}

command_stop() {
  use_own_stage "${1:-}"
  [ -s "$STATE/pids" ] || { say "nothing is running"; return 0; }
  local main; main=$(awk '{print $2}' "$STATE/main" 2>/dev/null || true)
  if [ -n "$main" ] && grep -q vestigon "/proc/$main/cmdline" 2>/dev/null && kill -TERM "$main" 2>/dev/null; then # it ends all it has started; what is started after it has ended is not its own
    for _ in $(seq 300); do kill -0 "$main" 2>/dev/null || break; sleep 0.1; done
  fi
  end_all
  rm -f "$STATE/main"
  say "stopped"
}

addresses() {
  if [ -z "$DEMO" ]; then
    local first; first=$(as_service php artisan people:begin)
    printf '\n  Vestigon          http://127.0.0.1:%s\n' "$APP_PORT"
    if [ -n "$first" ]; then
      printf '  its first owner   %s\n                    comes in there, once, within three days\n' "$first"
    fi
    echo
    return 0
  fi
  cat <<TEXT

  Vestigon          http://127.0.0.1:$APP_PORT
  live ads          http://northquay.localhost:$STANDINS_PORT/ads
  mailbox           http://mailbox.localhost:$STANDINS_PORT

  sign in as        mara@saltmarsh.example    (owner of both clients)
                    ivo@saltmarsh.example     (editor of both)
                    odile@velmar.example      (reviewer, Velmar Ferries)
                    runa@ninefold.example     (viewer, Ninefold Museum of Clocks)
  password          tide-table

TEXT
}
