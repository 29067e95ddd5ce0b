package store

import (
	"archive/zip"
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"io"
	"path"
	"strings"
)

// refuse says why an archive is not taken in; nothing of it is.
func refuse(format string, args ...any) error {
	return fmt.Errorf("%w: %s", ErrArchive, fmt.Sprintf(format, args...))
}

// Bounds of what is held at a time, unpacked: the manifest, and one file of the archive.
const (
	largestManifest = 512 << 20
	largestFile     = 64 << 20
)

// archive is an open archive whose manifest was read: what is in it, how large and with which sum.
type archive struct {
	files    map[string]*zip.File
	named    map[string]ManifestFile
	manifest Manifest
	seen     map[string]bool // those that were read
}

// openArchive reads the manifest and compares it with the table of the zip, before anything else is unpacked.
func openArchive(from io.ReaderAt, size int64) (*archive, error) {
	z, err := zip.NewReader(from, size)
	if err != nil {
		return nil, refuse("it is no zip file, or not all of one")
	}
	a := &archive{files: map[string]*zip.File{}, named: map[string]ManifestFile{}, seen: map[string]bool{}}
	for _, f := range z.File {
		clean := path.Clean(f.Name)
		if clean != f.Name || path.IsAbs(f.Name) || strings.HasPrefix(clean,
			"..") || strings.ContainsAny(f.Name, "\\:\x00") {
			return nil, refuse("the name %q leads out of the archive. It was not made by this "+
				"program: nothing of it is used", f.Name)
		}
		if _, twice := a.files[f.Name]; twice {
			return nil, refuse("%s is in it twice", f.Name)
		}
		a.files[f.Name] = f
	}
	if err := a.readManifest(); err != nil {
		return nil, err
	}
	for _, f := range a.manifest.Files {
		if _, there := a.files[f.Name]; !there {
			return nil, refuse("%s is named in its manifest and missing", f.Name)
		}
		a.named[f.Name] = f
	}
	if len(a.files) != len(a.named)+1 {
		return nil, refuse("it holds files that its manifest does not name, or that it names twice")
	}
	return a, nil
}

// readManifest reads what an archive says of itself. The format is looked at before all else, so that a newer
// one is told to be newer and not to be broken; unknown fields are refused after that.
func (a *archive) readManifest() error {
	f, ok := a.files[manifestName]
	if !ok {
		return refuse("it has no manifest.json")
	}
	text, err := unpacked(f, largestManifest)
	if err != nil {
		return err
	}
	var format struct{ Format string }
	if err := json.Unmarshal(text, &format); err != nil {
		return refuse("its manifest.json does not read: %v", err)
	}
	if format.Format != ArchiveFormat {
		return refuse(
			"its format is %q, and this program reads %s. A newer program may read it",
			format.Format,
			ArchiveFormat,
		)
	}
	d := json.NewDecoder(bytes.NewReader(text))
	d.DisallowUnknownFields()
	if err := d.Decode(&a.manifest); err != nil {
		return refuse("its manifest.json does not read: %v", err)
	}
	return nil
}

// unpacked reads one file, and no more than it may hold, whatever its header says.
func unpacked(f *zip.File, most int64) ([]byte, error) {
	var data bytes.Buffer
	n, err := unpackInto(&data, f, most)
	if n > most {
		return nil, refuse(
			"%s is larger than anything of this program: over %d MB unpacked",
			f.Name,
			most>>20,
		)
	}
	return data.Bytes(), err
}

// unpackInto unpacks at most so many bytes of a file: what a zip says of its own sizes is not believed.
func unpackInto(to io.Writer, f *zip.File, most int64) (n int64, err error) {
	r, err := f.Open()
	if err != nil {
		return 0, refuse("%s cannot be unpacked: %v", f.Name, err)
	}
	defer r.Close()
	n, err = io.Copy(to, io.LimitReader(r, most+1))
	if err != nil {
		return n, refuse(
			"%s cannot be unpacked: %v. The file was cut short or changed: fetch it again",
			f.Name,
			err,
		)
	}
	return n, nil
}

// bytesOf reads one file and compares it with the manifest.
func (a *archive) bytesOf(name string) ([]byte, error) {
	f, ok := a.files[name]
	if !ok {
		return nil, refuse("it has no %s", name)
	}
	a.seen[name] = true
	data, err := unpacked(f, largestFile)
	if err != nil {
		return nil, err
	}
	return data, a.asNamed(name, int64(len(data)), sha256.Sum256(data))
}

// asNamed holds a file to the size and hash that the manifest gives it.
func (a *archive) asNamed(name string, bytes int64, sum [sha256.Size]byte) error {
	if is := a.named[name]; bytes != is.Bytes || hex.EncodeToString(sum[:]) != is.SHA256 {
		return refuse("%s is not as it was exported: its hash differs. Fetch the archive again", name)
	}
	return nil
}

// read reads one file of JSON, strictly.
func (a *archive) read(name string, into any) error {
	data, err := a.bytesOf(name)
	if err != nil {
		return err
	}
	d := json.NewDecoder(bytes.NewReader(data))
	d.DisallowUnknownFields()
	if err := d.Decode(into); err != nil {
		return refuse("%s does not read: %v", name, err)
	}
	return nil
}
