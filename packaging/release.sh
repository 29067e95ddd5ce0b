#!/bin/bash
# Builds what is released into a folder: release.sh VERSION FOLDER. make release calls it.
set -euo pipefail
shopt -s inherit_errexit
version=$1
out=$(realpath -m "$2")
nfpm='go run github.com/goreleaser/nfpm/v2/cmd/nfpm@v2.43.0'
rm -rf "$out"
mkdir -p "$out" "$out.parts"
build() { # goos goarch cc: one program that needs no library of its machine
	local program="$out.parts/$1-$2/metronix"
	[ "$1" = windows ] && program="$program.exe"
	echo "— $1 $2" >&2
	CGO_ENABLED=1 GOOS=$1 GOARCH=$2 CC=$3 CGO_CFLAGS=-O2 go build -trimpath -tags netgo,osusergo,sqlite_omit_load_extension \
		-ldflags "-s -w -X main.version=$version -extldflags -static" -o "$program" ./cmd/metronix
	echo "$program"
}
for arch in amd64 arm64; do
	cc=gcc
	[ "$arch" = arm64 ] && cc=aarch64-linux-gnu-gcc
	program=$(build linux "$arch" "$cc")
	VERSION=$version ARCH=$arch PROGRAM=$program $nfpm package --config packaging/nfpm.yaml --packager deb --target "$out/" >&2
	cp packaging/BEGIN.txt "$(dirname "$program")/"
	tar --owner=0 --group=0 --transform "s,^\./,metronix-$version/," -czf "$out/metronix-$version-linux-$arch.tar.gz" \
		-C "$(dirname "$program")" ./metronix ./BEGIN.txt
done
program=$(build windows amd64 x86_64-w64-mingw32-gcc)
cp packaging/BEGIN.txt "$(dirname "$program")/"
cp packaging/start-windows.cmd "$(dirname "$program")/Start Metronix.cmd"
(cd "$(dirname "$program")" && zip -q9 "$out/metronix-$version-windows-amd64.zip" metronix.exe 'Start Metronix.cmd' BEGIN.txt)
# the key of whoever releases: named by RELEASE_KEY, else one of this machine's own
key=${RELEASE_KEY:-data/release.key}
[ -f "$key" ] || (umask 077 && openssl genpkey -algorithm ed25519 -out "$key")
openssl pkey -in "$key" -pubout -out "$out/metronix.pub"
cp packaging/BEGIN.txt "$out/"
(cd "$out" && sha256sum -- *.deb *.tar.gz *.zip BEGIN.txt metronix.pub > SHA256SUMS)
openssl pkeyutl -sign -inkey "$key" -rawin -in "$out/SHA256SUMS" -out "$out/SHA256SUMS.sig"
ls -l "$out"
