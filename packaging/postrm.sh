#!/bin/sh
set -e
# What was stored stays, also when the package is purged: a workshop's sheets are not a package's to delete.
if [ "$1" = purge ]; then
	echo "What was stored stays in ${DPKG_ROOT:-}/var/lib/metronix and ${DPKG_ROOT:-}/var/backups/metronix."
fi
if [ -z "${DPKG_ROOT:-}" ] && [ -d /run/systemd/system ]; then
	systemctl daemon-reload || true
fi
