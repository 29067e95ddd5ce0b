package secret

import (
	"errors"
	"fmt"
	"os"
	"runtime"
)

// ErrReadable says that others than its owner may read a key's file.
var ErrReadable = errors.New("others may read this key")

// OwnersAlone errs where others than its owner may read a file. Windows says nothing of that in a file's
// mode: there the folder of a person's own data is that person's.
func OwnersAlone(path string) error {
	info, err := os.Stat(path)
	if err != nil {
		return err
	}
	if runtime.GOOS != "windows" && info.Mode().Perm()&0o077 != 0 {
		return fmt.Errorf("%w: %s. Make it its owner's alone: chmod 600 %s", ErrReadable, path, path)
	}
	return nil
}

// Groups parts a fingerprint into groups of four, to be compared by eye.
func Groups(fingerprint string) (groups []string) {
	for i := 0; i+4 <= len(fingerprint); i += 4 {
		groups = append(groups, fingerprint[i:i+4])
	}
	return groups
}
