#!/usr/bin/env bash
# Installs what is missing: Debian packages (with sudo when not root) and the virtual environment.
# Usage: setup.sh runtime|test. Does nothing, quickly, when all is there.
set -euo pipefail
cd "$(dirname "$0")/.."

packages=(python3-venv postgresql-15 nginx-light libheif-examples librsvg2-bin poppler-utils bubblewrap openssl esbuild)
locks=(requirements/app.txt)
if [ "${1:-runtime}" = test ]; then
    packages+=(chromium-headless-shell unicode-data libatomic1 libharfbuzz-bin gdal-bin faketime ghostscript)
    locks+=(requirements/dev.txt)
fi

missing=()
for package in "${packages[@]}"; do
    status=$(dpkg-query -W -f='${db:Status-Status}' "$package" 2>/dev/null || true)
    [ "$status" = installed ] || missing+=("$package")
done
if [ "${#missing[@]}" -gt 0 ]; then
    echo "Installing Debian packages: ${missing[*]}"
    as_root=()
    [ "$(id -u)" = 0 ] || as_root=(sudo)
    # Without this, Debian's package would start a cluster of its own beside ours.
    "${as_root[@]}" mkdir -p /etc/postgresql-common/createcluster.d
    echo 'create_main_cluster = false' | "${as_root[@]}" tee /etc/postgresql-common/createcluster.d/yenzo.conf >/dev/null
    # And nginx's a server on port 80: while we install, no service is started (101: forbidden by policy).
    policy=/usr/sbin/policy-rc.d
    if [ ! -e "$policy" ]; then
        printf '#!/bin/sh\nexit 101\n' | "${as_root[@]}" tee "$policy" >/dev/null
        "${as_root[@]}" chmod 755 "$policy"
        trap '"${as_root[@]}" rm -f "$policy"' EXIT
    fi
    "${as_root[@]}" apt-get update -qq
    "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
fi

python=/usr/bin/python3
[ -x .venv/bin/python ] || $python -m venv .venv
if ! .venv/boot/bin/uv --version >/dev/null 2>&1; then
    $python -m venv .venv/boot
    .venv/boot/bin/python -m pip install --quiet --disable-pip-version-check --require-hashes --only-binary :all: -r requirements/boot.txt
fi

# A test environment also serves the demo: never take packages away when only the runtime is asked for.
if [ "${1:-runtime}" != test ] && [ -x .venv/bin/pytest ]; then locks+=(requirements/dev.txt); fi
stamp=.venv/.installed-$(cat "${locks[@]}" | sha256sum | cut -c1-16)
if [ ! -e "$stamp" ]; then
    VIRTUAL_ENV=.venv .venv/boot/bin/uv pip sync --quiet --require-hashes --only-binary :all: --compile-bytecode "${locks[@]}"
    rm -f .venv/.installed-*
    touch "$stamp"
    PYTHONDONTWRITEBYTECODE= .venv/bin/python -m compileall -q yenzo || true
fi
.venv/bin/python scripts/words.py compile
