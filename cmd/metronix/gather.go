package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"strings"
	"time"

	"metronix/internal/api"
	"metronix/internal/store"
)

const gatherHelp = `metronix gather --data FILE NAME=ARCHIVE.zip [NAME=ARCHIVE.zip ...]

Gathers the workshops of one owner into one that is looked at: the archive of each, as metronix export or the program itself makes it,
under a name of its own. Each vehicle shows whose it is, and where a vehicle with its plate is known too; nothing is merged. The file is
made anew each time. Then look at it with metronix serve --data FILE.
  --data FILE  the gathered data file; one that is there is only replaced where it was gathered too
`

// gather makes the file beside the one that is there, which stays until all was taken in.
func gather(args []string, _ io.Reader, out, errs io.Writer) int {
	data, names, ok := dataArgs("gather", gatherHelp, -1, args, errs)
	if !ok {
		return exitRequest
	}
	if data == defaultData("metronix.db") {
		fmt.Fprintf(
			errs,
			"Name the gathered file with --data: it is not the workshop's own.\n\n%s",
			gatherHelp,
		)
		return exitRequest
	}
	if why := notGathered(data); why != "" {
		fmt.Fprintln(errs, why)
		return exitData
	}
	fresh := data + ".gathering"
	store.Forget(fresh)
	code := gatherInto(fresh, names, out, errs)
	if code != exitOK {
		store.Forget(fresh)
		return code
	}
	store.Forget(data)
	if err := os.Rename(fresh, data); err != nil {
		fmt.Fprintf(errs, "%s cannot be put in place: %v. It is complete as %s.\n", data, err, fresh)
		return exitData
	}
	fmt.Fprintf(out, "Look at it with: metronix serve --data %s\n", data)
	return exitOK
}

// notGathered says why a file is not to be replaced; empty: it may be.
func notGathered(data string) string {
	if _, err := os.Stat(data); errors.Is(err, fs.ErrNotExist) {
		return ""
	}
	st, err := store.Open(data)
	if err != nil {
		return err.Error()
	}
	defer st.Close()
	if places, err := st.Places(); err != nil || len(places) == 0 {
		return data + " was not gathered: it may be a workshop's own. Name another file."
	}
	return ""
}

// gatherInto takes the archives into a new file, one after the other.
func gatherInto(data string, names []string, out, errs io.Writer) int {
	st, err := store.Open(data)
	if err != nil {
		fmt.Fprintf(errs, "%v\n", err)
		return exitData
	}
	defer st.Close()
	for _, arg := range names {
		name, path, named := strings.Cut(arg, "=")
		if name = strings.TrimSpace(name); !named || name == "" {
			fmt.Fprintf(errs, "%q names no workshop: write North=north.zip.\n\n%s", arg, gatherHelp)
			return exitRequest
		}
		f, err := os.Open(path)
		if err != nil {
			fmt.Fprintf(errs, "%s cannot be read: %v.\n", path, err)
			return exitData
		}
		info, err := f.Stat()
		var in store.TakenIn
		if err == nil {
			in, err = st.Gather(f, info.Size(), name, time.Now(), api.Admission())
		}
		f.Close()
		if err != nil {
			fmt.Fprintf(errs, "%s: %v.\n", path, err)
			return exitData
		}
		leftOut(in.Damaged, "could not be read when "+path+" was made, and are not in it", errs)
		fmt.Fprintf(
			out,
			"%s: %d engines, %d gauge sets, %d vehicles, %d jobs.\n",
			name,
			in.Engines,
			in.GaugeSets,
			in.Vehicles,
			in.Jobs,
		)
	}
	if _, err := api.Ready(context.Background(), st, api.Options{}); err != nil { // what follows from the lists
		fmt.Fprintf(errs, "%v.\n", err)
		return exitData
	}
	return exitOK
}
