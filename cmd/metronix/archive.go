package main

import (
	"bufio"
	"context"
	"fmt"
	"io"
	"os"
	"time"

	"metronix/internal/api"
	"metronix/internal/store"
)

const exportHelp = `metronix export [--data FILE] ARCHIVE.zip

Writes engines, feelers, vehicles and jobs to a zip of JSON and CSV with a manifest and hashes (docs/formats.md);
people, the audit list and practice are in backups only. Stop the program
first. It is never written over a file that is there.
  --data FILE  the data file; default metronix.db in the user's data folder
`

const importHelp = `metronix import [--data FILE] ARCHIVE.zip

Takes such an archive in, all of it or nothing; the data file is made when absent. What is stored already is left where
it is the same; where it differs nothing is taken in. Stop the program first.
  --data FILE  the data file; default metronix.db in the user's data folder
`

func exportAll(args []string, _ io.Reader, out, errs io.Writer) int {
	data, names, ok := dataArgs("export", exportHelp, 1, args, errs)
	if !ok {
		return exitRequest
	}
	if absent(data, errs) {
		return exitData
	}
	st, err := store.Open(data)
	if err != nil {
		fmt.Fprintf(errs, "%v\n", err)
		return exitData
	}
	defer st.Close()
	var of store.Manifest
	err = store.Publish(names[0], func(f *os.File) error {
		to := bufio.NewWriterSize(f, 1<<20)
		if of, err = st.WriteArchive(to, "Metronix "+version, time.Now()); err != nil {
			return err
		}
		return to.Flush()
	})
	if err != nil {
		fmt.Fprintln(errs, copyTrouble(err))
		return exitData
	}
	if len(of.Damaged) > 0 {
		leftOut(of.Damaged, "do not read and are not in "+names[0], errs)
		return exitData
	}
	fmt.Fprintf(out, "%s holds the record of %s.\n", names[0], data)
	return exitOK
}

// leftOut names the records that are not in an archive.
func leftOut(list []store.DamagedRecord, say string, errs io.Writer) {
	if len(list) == 0 {
		return
	}
	fmt.Fprintf(errs, "These %s; everything else is:\n", say)
	for _, d := range list {
		fmt.Fprintf(errs, "  %s %s: %s\n", d.What, d.ID, d.Why)
	}
}

func importAll(args []string, _ io.Reader, out, errs io.Writer) int {
	data, names, ok := dataArgs("import", importHelp, 1, args, errs)
	if !ok {
		return exitRequest
	}
	f, err := os.Open(names[0])
	if err != nil {
		fmt.Fprintf(errs, "%s cannot be read: %v.\n", names[0], err)
		return exitData
	}
	defer f.Close()
	info, err := f.Stat()
	if err != nil {
		fmt.Fprintf(errs, "%s cannot be read: %v.\n", names[0], err)
		return exitData
	}
	st, err := store.Open(data)
	if err != nil {
		fmt.Fprintf(errs, "%v\n", err)
		return exitData
	}
	defer st.Close()
	in, err := st.ReadArchive(f, info.Size(), time.Now(), api.Admission())
	if err != nil {
		fmt.Fprintf(errs, "%v.\n", err)
		return exitData
	}
	// what follows from the lists
	if _, err := api.Ready(context.Background(), st, api.Options{}); err != nil {
		fmt.Fprintf(errs, "%v.\n", err)
		return exitData
	}
	leftOut(in.Damaged, "could not be read when the archive was made, and are not in it", errs)
	fmt.Fprintf(out, "Taken in: %d engines, %d gauge sets, %d vehicles, %d jobs; %d were here already.\n",
		in.Engines,
		in.GaugeSets, in.Vehicles, in.Jobs, in.Already)
	return exitOK
}
