#!/bin/sh
set -e
root="${DPKG_ROOT:-}"
if ! grep -q '^metronix:' "$root/etc/passwd"; then
	useradd ${root:+--prefix "$root"} --system --user-group --home-dir /var/lib/metronix --no-create-home \
		--shell /usr/sbin/nologin metronix
fi
owner=$(awk -F: '$1 == "metronix" { print $3 ":" $4 }' "$root/etc/passwd")
for folder in /var/lib/metronix /var/backups/metronix; do
	mkdir -p "$root$folder"
	chmod 700 "$root$folder"
	chown "$owner" "$root$folder"
done
if [ -z "$root" ] && [ -d /run/systemd/system ]; then
	systemctl daemon-reload
	systemctl enable metronix.service
	systemctl restart metronix.service
	echo 'Metronix serves at http://127.0.0.1:8080 on this machine.'
	echo 'For tablets: METRONIX_LISTEN=0.0.0.0:8080 in /etc/default/metronix, sudo systemctl restart metronix, and scan the'
	echo 'code that this shows: sudo journalctl -u metronix -o cat'
fi
