# Two lanes of tasks, one for each core: whoever is through takes the next of what is left. Each has a stage of its own.

# task COMMAND…: prints what it has said once it is over. In the background, as a process group of its own: so "set -e"
# holds in it, and it can be ended with all that it has begun.
task() {
  local log begin=$SECONDS how=passed
  log=$(mktemp "$ROOT/var/task.XXXXXX")
  set -m
  "$@" >"$log" 2>&1 &
  TASK=$!
  set +m # a stage's servers are begun without it
  wait "$TASK" || { how=failed; echo "$1" >>var/tasks-failed; }
  TASK=
  (flock 9; say "$*: $how, $((SECONDS - begin)) s"; cat "$log") 9>var/tasks.lock
  rm -f "$log"
}

# take: the first of the tasks that are left, one a line; nothing if there is none.
take() { (flock 9; head -n 1 var/tasks; sed -i 1d var/tasks) 9>var/tasks.lock; }

# on_stage: brings the lane's stage up for a task, if it is not; a task of its own that has failed can have left it so.
on_stage() { [ -n "$IS_UP" ] || { end_all; up_test; IS_UP=1; }; }

# lane STAGE FIRST_PORT [TASK…]: its own tasks, then of those that are left. "on_stage TASK…" is a task of a stage.
lane() {
  local task own=("${@:3}")
  TASK= IS_UP=
  use_stage "$1" "$2"
  end_all
  trap '[ -z "$TASK" ] || kill -- "-$TASK" 2>/dev/null || true; end_all' EXIT
  trap 'exit 130' INT TERM
  rm -f "$STATE"/world.sqlite*
  while :; do
    if [ ${#own[@]} -gt 0 ]; then task=${own[0]}; own=("${own[@]:1}"); else task=$(take); fi
    [ -n "$task" ] || break
    if [ "${task%% *}" = on_stage ]; then on_stage; task=${task#* }; fi
    # shellcheck disable=SC2086 # words of ours
    task $task
  done
}
