# Everything of a stage that can't be made again, in one file: the database, and the key that its secrets are encrypted with.
. "$ROOT/bin/lib/services.sh"

stage_of_backup() { case "${VESTIGON_STAGE:-demo}" in demo) use_stage demo 8700 ;; test) use_stage test 9700 ;; *) die "VESTIGON_STAGE is demo or test" ;; esac; }

# command_backup FILE: consistent as of one moment, while everything runs.
command_backup() {
  local file=${1:-} work
  [ -n "$file" ] || die "usage: ./vestigon backup FILE"
  [ ! -e "$file" ] || die "$file is there already; nothing was written. Name another file, or move that one away."
  stage_of_backup
  [ -s "$STATE/secrets" ] || die "nothing has been started here yet, so there is nothing to keep"
  db_answers || die "the database does not answer. Start Vestigon, then back it up: it need not stand still for it."
  work=$(mktemp -d); chmod 700 "$work"; trap "rm -rf '$work'" EXIT
  mariadb-dump --no-defaults --socket="$RUN/db.sock" -u "$(id -un)" --single-transaction --quick --routines --triggers --hex-blob --tz-utc --no-tablespaces "${VESTIGON_DATABASE:-vestigon}" >"$work/database.sql" \
    || die "the database could not be read; $file was not written"
  tail -n 1 "$work/database.sql" | grep -q '^-- Dump completed' || die "the database could not be read to its end; $file was not written"
  gzip "$work/database.sql"
  grep ^APP_KEY= "$STATE/secrets" >"$work/secrets"
  keep_files "$work/files.tar" || die "the files that people have put in could not be read; $file was not written"
  printf 'vestigon.backup/2\n' >"$work/format"
  (cd "$work" && sha256sum format database.sql.gz secrets files.tar >sums)
  (umask 077; tar -C "$work" -cf "$file.part" format sums secrets files.tar database.sql.gz)
  mv "$file.part" "$file"
  say "kept in $file ($(stat -c %s "$file") bytes). Who has it has all data and the key to it."
}

# keep_files TAR: product lists, sheets and logs as they were put in; one that goes meanwhile is not missed.
keep_files() {
  local folder=$STATE/storage kind kinds=() status=0
  for kind in feeds intakes logs-in; do [ ! -d "$folder/$kind" ] || kinds+=("$kind"); done
  tar -C "$folder" --warning=no-file-changed --warning=no-file-removed --ignore-failed-read -cf "$1" -T /dev/null "${kinds[@]}" || status=$?
  [ "$status" -le 1 ] # 1: something has changed while it was read
}

put_files_back() {
  as_service mkdir -p "$STATE/storage"
  rm -rf "$STATE"/storage/{feeds,intakes,logs-in}
  as_service tar -C "$STATE/storage" -xf - <"$1"
}

# command_restore FILE: puts a backup in place of what is there; that is kept beside first. Nothing may be running.
command_restore() {
  local file=${1:-} work before
  [ -n "$file" ] || die "usage: ./vestigon restore FILE"
  [ -r "$file" ] || die "$file can't be read; nothing was changed"
  stage_of_backup
  ! running nginx || die "Vestigon is running. Stop it first (./vestigon stop); nothing was changed."
  set_up
  work=$(mktemp -d); chmod 700 "$work"; trap "rm -rf '$work'; end_all" EXIT
  tar -C "$work" -xf "$file" format sums secrets database.sql.gz 2>/dev/null || die "$file is no backup of Vestigon; nothing was changed"
  case "$(cat "$work/format")" in
    vestigon.backup/1) tar -cf "$work/files.tar" -T /dev/null ;; # has no files in it
    vestigon.backup/2) tar -C "$work" -xf "$file" files.tar || die "$file is not whole; nothing was changed" ;;
    *) die "$file is a backup of another format ($(head -c 60 "$work/format")); nothing was changed" ;;
  esac
  (cd "$work" && sha256sum --status -c sums) || die "$file is damaged: its sums do not agree; nothing was changed"
  choose_ports; use_environment; need_database
  if [ "$(db_admin -N -e "select count(*) from information_schema.tables where table_schema = '${VESTIGON_DATABASE:-vestigon}'")" -gt 0 ]; then
    before=var/before-restore-$(date -u +%Y%m%dT%H%M%S).tar
    (command_backup "$before") || die "what is there now could not be kept; nothing was changed"
  fi
  db_admin -e "drop database if exists ${VESTIGON_DATABASE:-vestigon}; create database ${VESTIGON_DATABASE:-vestigon} character set utf8mb4 collate utf8mb4_nopad_bin"
  gunzip -c "$work/database.sql.gz" | db_admin "${VESTIGON_DATABASE:-vestigon}" || die "the backup could not be read in. What was there before is in ${before:-no file: there was nothing}; restore that."
  sed -i '/^APP_KEY=/d' "$STATE/secrets"; cat "$work/secrets" >>"$STATE/secrets"
  . "$STATE/secrets"; export APP_KEY
  DB_DATABASE=${VESTIGON_DATABASE:-vestigon} migrate
  put_files_back "$work/files.tar" || die "the files could not be put back: is the disk full? All else is restored."
  say "restored from $file${before:+; what was there before is in $before}"
}
