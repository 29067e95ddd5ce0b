package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"time"

	"metronix/internal/api"
	"metronix/internal/store"
)

const backupHelp = `metronix backup [--data FILE] COPY

Writes a copy of the data file, also while the program runs, and checks the copy. It is never written over a file that is there.
  --data FILE  the data file; default metronix.db in the user's data folder
`

const restoreHelp = `metronix restore [--data FILE] COPY

Puts a copy made by metronix backup in the data file's place. What was there is kept aside. Stop the program first.
  --data FILE  the data file; default metronix.db in the user's data folder
`

const checkHelp = `metronix check [--data FILE]

Checks the whole data file: its pages, every job's list from its first entry to its last, and that what is stored
beside the lists follows from them. Stop the program first.
  --data FILE  the data file; default metronix.db in the user's data folder
`

const rebuildHelp = `metronix rebuild [--data FILE]

Makes anew what is stored beside the jobs' lists and follows from them: what the board shows, what was learned of
locking, which shims were used. The lists stay as they are. Stop the program first.
  --data FILE  the data file; default metronix.db in the user's data folder
`

// dataArgs reads --data and the n names that follow it.
func dataArgs(name, help string, n int, args []string, errs io.Writer) (data string, names []string,
	ok bool) {
	flags := flag.NewFlagSet(name, flag.ContinueOnError)
	flags.SetOutput(errs)
	flags.Usage = func() { fmt.Fprint(errs, help) }
	flags.StringVar(&data, "data", defaultData("metronix.db"), "")
	if err := flags.Parse(args); err != nil {
		return "", nil, false
	}
	if flags.NArg() != n {
		fmt.Fprint(errs, help)
		return "", nil, false
	}
	return data, flags.Args(), true
}

// absent says that there is no data file, which opening would make.
func absent(data string, errs io.Writer) bool {
	if _, err := os.Stat(data); err == nil {
		return false
	}
	fmt.Fprintf(errs, "There is no data file %s. Name it with --data.\n", data)
	return true
}

func backup(args []string, _ io.Reader, out, errs io.Writer) int {
	data, names, ok := dataArgs("backup", backupHelp, 1, args, errs)
	if !ok {
		return exitRequest
	}
	if absent(data, errs) {
		return exitData
	}
	n, err := store.Backup(data, names[0])
	if err != nil {
		fmt.Fprintln(errs, copyTrouble(err))
		return exitData
	}
	fmt.Fprintf(out, "%s holds all of %s and was checked: %d entries in the jobs' lists.\n", names[0], data,
		n)
	return exitOK
}

func restore(args []string, _ io.Reader, out, errs io.Writer) int {
	data, names, ok := dataArgs("restore", restoreHelp, 1, args, errs)
	if !ok {
		return exitRequest
	}
	if absent(names[0], errs) {
		return exitData
	}
	n, aside, err := store.Restore(data, names[0], time.Now())
	if err != nil {
		fmt.Fprintln(errs, copyTrouble(err))
		return exitData
	}
	fmt.Fprintf(out, "%s is now what %s holds: %d entries in the jobs' lists.\n", data, names[0], n)
	if aside != "" {
		fmt.Fprintf(out, "What was there is kept as %s.\n", aside)
	}
	return exitOK
}

func copyTrouble(err error) string {
	switch {
	case errors.Is(err, store.ErrThere):
		return fmt.Sprintf("%v. Choose another name: nothing is written over.", err)
	case errors.Is(err, store.ErrCopy):
		return fmt.Sprintf("%v. Nothing was changed.", err)
	}
	return dataTrouble(err)
}

// opened opens the data file that a command names; nil where it cannot, which is said.
func opened(name, help string, args []string, errs io.Writer) (st *store.Store, data string, code int) {
	data, _, ok := dataArgs(name, help, 0, args, errs)
	if !ok {
		return nil, "", exitRequest
	}
	if absent(data, errs) {
		return nil, "", exitData
	}
	st, err := store.Open(data)
	if err != nil {
		fmt.Fprintln(errs, dataTrouble(err))
		return nil, "", exitData
	}
	return st, data, exitOK
}

func check(args []string, _ io.Reader, out, errs io.Writer) int {
	st, data, code := opened("check", checkHelp, args, errs)
	if st == nil {
		return code
	}
	defer st.Close()
	n, troubles := st.Check()
	beside, err := api.Compare(context.Background(), st)
	if err != nil {
		fmt.Fprintln(errs, dataTrouble(err))
		return exitData
	}
	for _, t := range append(troubles, beside...) {
		fmt.Fprintf(errs, "%s\n", t.What)
	}
	if len(beside) > 0 {
		fmt.Fprintln(errs, "The lists are what counts: metronix rebuild makes the rest anew from them.")
	}
	if len(troubles)+len(beside) > 0 {
		return exitData
	}
	fmt.Fprintf(out, "%s is sound: %d entries in the jobs' lists, each as it was stored.\n", data, n)
	return exitOK
}

func rebuild(args []string, _ io.Reader, out, errs io.Writer) int {
	st, data, code := opened("rebuild", rebuildHelp, args, errs)
	if st == nil {
		return code
	}
	defer st.Close()
	n, err := api.Rebuild(context.Background(), st)
	if err != nil {
		fmt.Fprintln(errs, dataTrouble(err))
		return exitData
	}
	fmt.Fprintf(out, "%s: made anew what follows from the lists of %d jobs.\n", data, n)
	return exitOK
}
