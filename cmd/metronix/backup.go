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

Writes a copy of the data file, also while the program runs, and checks the copy as metronix check does. It appears under
its name when it is whole, and never over a file that is there. Where the check finds something, the copy is kept, what
was found is told, and the exit code is 4.
  --data FILE  the data file; default metronix.db in the user's data folder
`

const restoreHelp = `metronix restore [--data FILE] [--anyway] COPY

Puts a copy made by metronix backup, or any other data file with its log, in the data file's place, after checking it as
metronix check does. What was there is kept aside. One that is cut off leaves the old or the new, and is said by whatever
opens the file next. Stop the program first.
  --data FILE  the data file; default metronix.db in the user's data folder
  --anyway     take a copy in which the check finds something
`

const checkHelp = `metronix check [--data FILE]

Checks the whole data file, for reading alone: its pages, every record, every picture by its hash, every job's list from
its first entry to its last, each job played through, and that what is stored beside the lists follows from them. Nothing
is changed. While the program runs, and for a file of an earlier version, a copy is checked, which needs room for it.
  --data FILE  the data file; default metronix.db in the user's data folder
`

const rebuildHelp = `metronix rebuild [--data FILE]

Makes anew what is stored beside the jobs' lists and follows from them: what the board shows, what was learned of
locking, which shims were used, when a vehicle is due. The lists stay as they are. Stop the program first.
  --data FILE  the data file; default metronix.db in the user's data folder
`

// dataArgs reads --data, further flags, and the n names that follow them.
func dataArgs(name, help string, n int, args []string, errs io.Writer,
	more ...func(*flag.FlagSet)) (data string, names []string, ok bool) {
	flags := flag.NewFlagSet(name, flag.ContinueOnError)
	flags.SetOutput(errs)
	flags.Usage = func() { fmt.Fprint(errs, help) }
	flags.StringVar(&data, "data", defaultData("metronix.db"), "")
	for _, add := range more {
		add(flags)
	}
	if err := flags.Parse(args); err != nil {
		return "", nil, false
	}
	if flags.NArg() != n && (n >= 0 || flags.NArg() == 0) { // below 0: one or more
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
	found, err := store.Backup(data, names[0], api.Check(context.Background()))
	if err != nil {
		fmt.Fprintln(errs, copyTrouble(err))
		return exitData
	}
	if code := tell(found.Troubles, errs); code != exitOK {
		fmt.Fprintf(
			errs,
			"%s holds all of %s, and this with it. Keep the backup before this one.\n",
			names[0],
			data,
		)
		return code
	}
	fmt.Fprintf(out, "%s holds all of %s and was checked: %d entries in the jobs' lists.\n", names[0], data,
		found.Entries)
	return exitOK
}

// tell says what a check found.
func tell(troubles []store.Trouble, errs io.Writer) (code int) {
	beside := false
	for _, t := range troubles {
		fmt.Fprintf(errs, "%s\n", t.What)
		beside = beside || t.Beside
		code = exitData
	}
	if beside {
		fmt.Fprintln(errs, "The lists are what counts: metronix rebuild makes what follows from them anew.")
	}
	return code
}

func restore(args []string, _ io.Reader, out, errs io.Writer) int {
	anyway := false
	data, names, ok := dataArgs("restore", restoreHelp, 1, args, errs,
		func(f *flag.FlagSet) { f.BoolVar(&anyway, "anyway", false, "") })
	if !ok {
		return exitRequest
	}
	if absent(names[0], errs) {
		return exitData
	}
	done, err := store.Restore(data, names[0], time.Now(), anyway, api.Check(context.Background()))
	tell(done.Troubles, errs)
	if err != nil {
		fmt.Fprintln(errs, copyTrouble(err))
		if len(done.Troubles) > 0 && !anyway {
			fmt.Fprintln(errs, "Take an older copy, or this one as it is with --anyway.")
		}
		return exitData
	}
	fmt.Fprintf(
		out,
		"%s is now what %s holds: %d entries in the jobs' lists.\n",
		data,
		names[0],
		done.Entries,
	)
	if done.Aside != "" {
		fmt.Fprintf(out, "What was there is kept as %s.\n", done.Aside)
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
	data, _, ok := dataArgs("check", checkHelp, 0, args, errs)
	if !ok {
		return exitRequest
	}
	if absent(data, errs) {
		return exitData
	}
	found, err := store.Inspect(data, api.Check(context.Background()))
	if err != nil {
		fmt.Fprintln(errs, dataTrouble(err))
		return exitData
	}
	if code := tell(found.Troubles, errs); code != exitOK {
		return code
	}
	fmt.Fprintf(
		out,
		"%s is sound: %d entries in the jobs' lists, each as it was stored.\n",
		data,
		found.Entries,
	)
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
