. "$ROOT/bin/lib/services.sh"

command_start() {
  use_stage demo 8700
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

command_stop() {
  use_stage demo 8700
  [ -s "$STATE/pids" ] || { say "nothing is running"; return 0; }
  end_all
  say "stopped"
}

addresses() {
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
