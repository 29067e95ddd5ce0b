#!/bin/sh
set -e
if [ "$1" = remove ] && [ -z "${DPKG_ROOT:-}" ] && [ -d /run/systemd/system ]; then
	systemctl disable --now metronix.service || true
fi
