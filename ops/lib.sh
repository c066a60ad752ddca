# Shared by the start and test commands. Needs: ROOT (the project's folder), VAR (the instance's own folder).

RUN="$VAR/run"
# Unix socket paths end at 107 bytes, so a deep folder keeps its sockets elsewhere.
if [ ${#RUN} -gt 80 ]; then RUN="/tmp/plinth-$(printf %s "$VAR" | sha256sum | cut -c1-12)"; fi
ME="$(id -un)"
# Started as root, the servers run as this account; nothing that answers a request is ever root.
SERVICE_USER="${PLINTH_USER:-plinth}"

say() { printf '%s\n' "$*" >&2; }

PACKAGES="php8.2-cli php8.2-fpm php8.2-mysql php8.2-intl php8.2-mbstring php8.2-xml php8.2-zip php8.2-curl php8.2-opcache mariadb-server mariadb-client nginx libvips-tools librsvg2-bin qpdf poppler-utils bubblewrap tesseract-ocr tesseract-ocr-eng composer nodejs npm unzip util-linux"

# need_packages PACKAGE...: installs what is missing as root, or prints the line that root must run.
need_packages() {
  local missing=() p
  for p in "$@"; do
    case "$p" in
      composer) command -v composer >/dev/null || missing+=("$p") ;;
      nodejs) command -v node >/dev/null || missing+=("$p") ;;
      npm) command -v npm >/dev/null || missing+=("$p") ;;
      *) dpkg-query -W -f='${Status}' "$p" 2>/dev/null | grep -q '^install ok installed' || missing+=("$p") ;;
    esac
  done
  [ ${#missing[@]} -eq 0 ] && return 0
  if [ "$(id -u)" = 0 ]; then
    say "Installing ${missing[*]}"
    apt-get update -qq >/dev/null && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
  else
    say "These are missing. As root: apt-get install ${missing[*]}"
    return 1
  fi
}

# install_code: Composer and npm packages, when their lists are newer than what is installed. Which version of each PHP package
# that is, those that others need included, stands in ops/pins: a lock file would name the place that they were fetched from.
install_code() {
  if [ ! -f "$ROOT/vendor/autoload.php" ] || [ "$ROOT/composer.json" -nt "$ROOT/vendor/autoload.php" ] || [ "$ROOT/ops/pins/composer.json" -nt "$ROOT/vendor/autoload.php" ]; then
    say "Installing PHP packages"
    (cd "$ROOT" && COMPOSER_ALLOW_SUPERUSER=1 composer install --optimize-autoloader --quiet --no-interaction --no-progress && chmod -R go+rX vendor && touch vendor/autoload.php)
  fi
  if [ ! -d "$ROOT/node_modules" ] || [ "$ROOT/package-lock.json" -nt "$ROOT/node_modules/.package-lock.json" ]; then
    say "Installing JavaScript packages"
    (cd "$ROOT" && npm ci --no-audit --no-fund --loglevel=error >/dev/null && chmod -R go+rX node_modules && touch node_modules/.package-lock.json)
  fi
}

# build_web OUT: the interface, with compressed copies beside each file.
build_web() {
  local stamp="$1/.built"
  if [ -f "$stamp" ] && [ -z "$(find "$ROOT/web" "$ROOT/api" "$ROOT/docs/guide.md" "$ROOT/package-lock.json" -path '*/node_modules' -prune -o -path "$ROOT/web/dist" -prune -o -path "$ROOT/web/src/api/schema.d.ts" -prune -o -newer "$stamp" -type f -print -quit)" ]; then return 0; fi
  say "Building the interface"
  (cd "$ROOT" && npm run -s -w @plinth/openapi generate >/dev/null && npm run -s -w @plinth/web build -- --outDir "$1" --emptyOutDir --logLevel warn)
  find "$1" -type f \( -name '*.js' -o -name '*.css' -o -name '*.html' -o -name '*.svg' \) -exec gzip -9 -k -f {} +
  touch "$stamp"
}

free_port() { php -r '$s = stream_socket_server("tcp://127.0.0.1:0"); echo explode(":", stream_socket_get_name($s, false))[1];'; }
port_taken() { php -r 'exit(@fsockopen("127.0.0.1", (int) $argv[1], $e, $m, 1) ? 0 : 1);' "$1"; }

# kept_port NAME: a port chosen once for this instance and kept.
kept_port() {
  local file="$VAR/$1.port"
  [ -s "$file" ] || free_port > "$file"
  cat "$file"
}

# secret NAME: random text made once for this instance, readable by its own account alone.
secret() {
  local file="$VAR/$1"
  [ -s "$file" ] || (umask 077; head -c 24 /dev/urandom | base64 | tr '+/' '-_' > "$file")
  chmod 600 "$file" 2>/dev/null || true
  cat "$file"
}

instance_environment() {
  # Several nodes share a store of files, the secret and a database that PLINTH_DATABASE_URL names; ours listens on a socket alone.
  export PLINTH_VAR="$VAR" PLINTH_FILES="${PLINTH_STORE:-$VAR/files}" PLINTH_OBJECTS="${PLINTH_OBJECTS:-}" PLINTH_DROP_IN="${PLINTH_DROP_IN:-$VAR/drop-in}" APP_ENV=prod APP_DEBUG=0 APP_SECRET="${PLINTH_SECRET:-$(secret secret)}"
  export DATABASE_URL="${PLINTH_DATABASE_URL:-mysql://plinth_app:$(secret database-password)@localhost/plinth?unix_socket=$RUN/db.sock&serverVersion=10.11.19-MariaDB&charset=utf8mb4}"
  # An inherited scan folder comes first, ours last.
  export PHP_INI_SCAN_DIR=":$ROOT/ops/php"
}

# closed_folder PATH: the uppermost folder on the way to it that other accounts may not enter; nothing where all are open.
closed_folder() {
  local way="" part
  local IFS=/
  for part in ${1#/}; do
    way="$way/$part"
    [ -n "$(find "$way" -maxdepth 0 -perm -o=x 2>/dev/null)" ] || { printf '%s' "$way"; return; }
  done
}

# become_server COMMAND…: goes on as the account of the servers where we are root, else as ourselves.
become_server() {
  [ "$(id -u)" = 0 ] || exec "$@"
  id "$SERVICE_USER" >/dev/null 2>&1 || useradd --system --no-create-home --home-dir /nonexistent --shell /usr/sbin/nologin "$SERVICE_USER"
  if [ -n "$(find "$ROOT/core/src" "$ROOT/server/src" "$ROOT/vendor/autoload.php" ! -perm -o=r -print -quit)" ]; then
    say "Started as root, the servers run as the account $SERVICE_USER, which may not read this folder. Allow it with: chmod -R go+rX $ROOT"
    exit 1
  fi
  mkdir -p "$VAR/home" "$RUN"
  # All of it the first time; afterwards only what root has put there since, for a store of pictures has many files.
  if [ "$(stat -c %U "$VAR/home")" != "$SERVICE_USER" ]; then chown -R "$SERVICE_USER:" "$VAR"
  else chown "$SERVICE_USER:" "$VAR" "$VAR"/* "$VAR"/log/* 2>/dev/null || true; fi
  chown -R "$SERVICE_USER:" "$RUN"
  chmod 700 "$VAR" "$RUN"
  local closed drop=(setpriv --reuid="$SERVICE_USER" --regid="$(id -g "$SERVICE_USER")" --init-groups --no-new-privs env HOME="$VAR/home" USER="$SERVICE_USER" LOGNAME="$SERVICE_USER" "$@")
  closed="$(closed_folder "$(dirname "$ROOT")")"
  [ -n "$closed" ] || exec "${drop[@]}"
  # The project lies where that account may not go (a home of root's): it gets a view in which nothing but the project is there.
  exec unshare --mount --propagation private bash -c '
    set -e; root="$1" closed="$2"; shift 2
    hold="$(mktemp -d /run/plinth-XXXXXX)"; mount --bind "$root" "$hold"
    mount -t tmpfs -o mode=755,size=1m tmpfs "$closed"; mkdir -p "$root"; mount --move "$hold" "$root"; rmdir "$hold"
    cd "$root"; exec "$@"' _ "$ROOT" "$closed" "${drop[@]}"
}

# sandbox_state: whether children that open files from outside can be shut in (on); else whether to open them all the same
# (off) or not at all (missing).
sandbox_state() {
  if bwrap --unshare-all --ro-bind / / --cap-drop ALL true 2>/dev/null; then echo on
  elif [ "${PLINTH_IMPORTS_WITHOUT_SANDBOX:-0}" = 1 ]; then echo off
  else echo missing; fi
}

console() { php "$ROOT/server/bin/console" --no-interaction "$@"; }

# cache_warm: the compiled application, made anew when any of its code is newer.
cache_warm() {
  local stamp="$VAR/cache/.warm"
  # It names files of the folder that it was made in.
  if [ "$(cat "$stamp" 2>/dev/null)" != "$ROOT" ] || [ -n "$(find "$ROOT/server/src" "$ROOT/server/config" "$ROOT/core/src" "$ROOT/vendor/autoload.php" "$ROOT/.env" -newer "$stamp" -type f -print -quit)" ]; then
    rm -rf "$VAR/cache"
  fi
  console cache:warmup --quiet && printf %s "$ROOT" > "$stamp"
}

database_create() {
  if [ ! -f "$VAR/db/.complete" ]; then
    rm -rf "$VAR/db"
    # Several instances that begin at once would meet in a shared folder of temporary tables.
    TMPDIR="$RUN" mariadb-install-db --no-defaults --datadir="$VAR/db" --user="$ME" --auth-root-socket-user="$ME" --skip-test-db --innodb-log-file-size=32M >"$VAR/log/database-create.log" 2>&1 || return 1
    touch "$VAR/db/.complete"
  fi
}

database_run() {
  # Read by the server with all rights whenever it starts: the application's own account, which may do nothing outside its tables.
  (umask 077; cat > "$RUN/accounts.sql" <<SQL
CREATE DATABASE IF NOT EXISTS plinth;
CREATE USER IF NOT EXISTS 'plinth_app'@'localhost';
ALTER USER 'plinth_app'@'localhost' IDENTIFIED BY '$(secret database-password)';
GRANT ALL ON plinth.* TO 'plinth_app'@'localhost';
DROP USER IF EXISTS 'plinth'@'127.0.0.1';
SQL
  )
  TMPDIR="$RUN" exec mariadbd --no-defaults --datadir="$VAR/db" --socket="$RUN/db.sock" --skip-networking --pid-file="$RUN/db.pid" --init-file="$RUN/accounts.sql" \
    --user="$ME" --log-error="$VAR/log/database.log" --skip-name-resolve --character-set-server=utf8mb4 --collation-server=utf8mb4_unicode_ci --local-infile=OFF --secure-file-priv="$RUN" \
    --innodb-log-file-size=32M --performance-schema=OFF --default-time-zone=+00:00 --innodb-flush-log-at-trx-commit=1 --innodb-flush-method=O_DIRECT --max-allowed-packet=256M --innodb-lock-wait-timeout=15
}

database_wait() {
  local i
  for i in $(seq 200); do mariadb-admin --no-defaults --socket="$RUN/db.sock" ping >/dev/null 2>&1 && return 0; sleep 0.1; done
  say "The database did not start: see $VAR/log/database.log"; return 1
}

database_prepare() { console doctrine:migrations:migrate --allow-no-migration --quiet && console plinth:plan:derive --quiet; }

php_run() { exec php-fpm8.2 -F -y "$RUN/php-fpm.conf"; }

nginx_run() { exec nginx -p "$RUN" -e "$VAR/log/nginx.log" -c "$RUN/nginx.conf"; }

work() { exec php -d opcache.enable_cli=1 -d opcache.jit=tracing -d opcache.jit_buffer_size=64M "$ROOT/server/bin/console" plinth:work "$1" --name="$(uname -n):$VAR:$2" --no-interaction --quiet; }
# Quick and slow work have workers of their own, two each, so that one project's does not hold up another's.
quick1_run() { work quick quick1; }
quick2_run() { work quick quick2; }
slow1_run() { work slow slow1; }
slow2_run() { work slow slow2; }
# What nobody has asked for yet leaves the processor to all others: its session as well, where the kernel shares it out by sessions.
idle_run() {
  renice -n 15 -p "$BASHPID" >/dev/null
  for _ in 1 2 3 4 5; do # which it lets only one in a tenth of a second set
    [ -w "/proc/$BASHPID/autogroup" ] || break
    { echo 10 > "/proc/$BASHPID/autogroup"; } 2>/dev/null && break
    sleep 0.2
  done
  work idle idle
}

# clean_leftovers: ends what a killed run left behind; only processes that carry this instance's folder in their environment or,
# where a server writes its title over that, in their command line.
clean_leftovers() {
  local file pid
  for file in "$RUN"/*.child; do
    [ -e "$file" ] || continue
    pid="$(cat "$file")"
    if { tr '\0' '\n' < "/proc/$pid/environ"; } 2>/dev/null | grep -qxF "PLINTH_VAR=$VAR" ||
      { tr '\0' ' ' < "/proc/$pid/cmdline"; } 2>/dev/null | grep -qF -e "$VAR/" -e "$RUN/"; then
      kill -TERM -- "-$pid" 2>/dev/null || kill -TERM "$pid" 2>/dev/null
      for _ in $(seq 60); do [ -d "/proc/$pid" ] || break; sleep 0.1; done
      kill -KILL -- "-$pid" 2>/dev/null || true
    fi
    rm -f "$file"
  done
}

# write_settings WEB: fills in the settings of nginx and php-fpm.
write_settings() {
  local file proxies="" proxy
  # Addresses of proxies, separated by commas: what they say of a request's sender is believed, by nginx as by PHP.
  for proxy in $(printf %s "${PLINTH_TRUSTED_PROXIES:-}" | tr ',' ' '); do proxies="${proxies}set_real_ip_from $proxy; "; done
  for file in nginx.conf php-fpm.conf headers.conf fastcgi.conf; do
    sed -e "s|@PROXIES@|$proxies|" -e "s|@RUN@|$RUN|g" -e "s|@VAR@|$VAR|g" -e "s|@FILES@|$PLINTH_FILES|g" -e "s|@PORT@|$PORT|g" -e "s|@WEB@|$1|g" -e "s|@ROOT@|$ROOT|g" "$ROOT/ops/$file" > "$RUN/$file"
  done
}
