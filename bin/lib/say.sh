# Words to the person at the terminal.
say() { printf '\033[1m·\033[0m %s\n' "$*"; }
die() { printf 'vestigon: %s\n' "$*" >&2; exit 1; }
