package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"time"

	"metronix/internal/api"
	"metronix/internal/keeping"
	"metronix/internal/store"
)

const drillHelp = `metronix drill [--data FILE] --backups FOLDER

Shows that the newest backup can be taken back: restores it into a scratch file, checks it there as metronix check does, opens it as
the program would, and compares it with the data file. Nothing of either is changed, and the program may run.
  --data FILE       the data file; default metronix.db in the user's data folder
  --backups FOLDER  the folder that metronix serve --backups writes to
`

const takeOverHelp = `metronix takeover [--data FILE] --backups FOLDER [--anyway]

On another machine, when the workshop's own is lost: puts the newest backup in the data file's place and says up to which minute it
reaches. What was there is kept aside. Then start the program here with metronix serve, and point each tablet's camera at the code
that it shows; what a tablet holds that the lost machine never had stays on it, under the old address. The folder is marked, so that
the other machine, should it come back, makes no more backups there and says why.
  --data FILE       the data file on this machine; default metronix.db in the user's data folder
  --backups FOLDER  the folder that the other machine's metronix serve --backups writes to
  --anyway          also where the data file here holds what the backup does not
`

// backupArgs reads --data and --backups.
func backupArgs(name, help string, args []string, errs io.Writer, more ...func(*flag.FlagSet)) (data, folder string, ok bool) {
	data, _, ok = dataArgs(name, help, 0, args, errs,
		append(more, func(f *flag.FlagSet) { f.StringVar(&folder, "backups", "", "") })...)
	if ok && folder == "" {
		fmt.Fprintf(errs, "Name the folder of the backups with --backups.\n\n%s", help)
	}
	return data, folder, ok && folder != ""
}

func drill(args []string, _ io.Reader, out, errs io.Writer) int {
	data, folder, ok := backupArgs("drill", drillHelp, args, errs)
	if !ok {
		return exitRequest
	}
	if absent(data, errs) {
		return exitData
	}
	now := time.Now()
	d, err := keeping.Drill(data, folder, now, api.Check(context.Background()))
	tell(d.Troubles, errs)
	if err != nil {
		fmt.Fprintln(errs, backupTrouble(err))
		return exitData
	}
	fmt.Fprintf(out, "The newest backup is of %s, %s ago: %s.\nTaken back into a scratch file in %.1f s, checked and opened: %d "+
		"jobs, %d entries in their lists.\n", when(d.At), ago(now.Sub(d.At)), d.Path, d.Took.Seconds(), d.Jobs, d.Entries)
	switch {
	case d.Since == 0 && len(d.Changed) == 0:
		fmt.Fprintln(out, "The data file holds exactly these.")
	case d.Since > 0:
		fmt.Fprintf(out, "The data file holds %d more since: they would be lost with it today.\n", d.Since)
	}
	if n := len(d.Changed); n > 0 {
		fmt.Fprintf(out, "%d of the jobs were corrected before their first reading, or taken out, since: %s.\n", n, some(d.Changed))
	}
	return exitOK
}

func takeOver(args []string, _ io.Reader, out, errs io.Writer) int {
	anyway := false
	data, folder, ok := backupArgs("takeover", takeOverHelp, args, errs,
		func(f *flag.FlagSet) { f.BoolVar(&anyway, "anyway", false, "") })
	if !ok {
		return exitRequest
	}
	now := time.Now()
	t, err := keeping.TakeOver(data, folder, now, anyway, api.Check(context.Background()))
	tell(t.Troubles, errs)
	if err != nil {
		fmt.Fprintln(errs, backupTrouble(err))
		return exitData
	}
	fmt.Fprintf(out, "%s is now what the backup of %s holds, %s ago: %d entries in the jobs' lists.\n"+
		"What was acknowledged after that minute is not here. What a tablet still holds stays on it, under the old address.\n",
		data, when(t.At), ago(now.Sub(t.At)), t.Entries)
	if t.Aside != "" {
		fmt.Fprintf(out, "What was there is kept as %s.\n", t.Aside)
	}
	if t.Unmarked != nil {
		fmt.Fprintf(errs, "%s could not be marked (%v): see to it that the other machine does not come back.\n", folder, t.Unmarked)
	}
	fmt.Fprintf(out, "Start the program with: metronix serve --listen 0.0.0.0:8080 --data %s\n", data)
	return exitOK
}

func when(t time.Time) string { return t.Local().Format("2 January 2006, 15:04:05") }

// ago is a time in the largest unit that says enough.
func ago(d time.Duration) string {
	for _, u := range []struct {
		of   time.Duration
		name string
	}{{24 * time.Hour, "day"}, {time.Hour, "hour"}, {time.Minute, "minute"}, {time.Second, "second"}} {
		if n := int(d / u.of); n > 1 || n == 1 && u.of <= time.Minute {
			return fmt.Sprintf("%d %s%s", n, u.name, map[bool]string{true: "s"}[n > 1])
		}
	}
	return "a moment"
}

// some are the first few of a list.
func some(list []string) string {
	const most = 5
	text := ""
	for i, name := range list {
		switch {
		case i == most:
			return fmt.Sprintf("%s and %d more", text, len(list)-most)
		case i > 0:
			text += ", "
		}
		text += name
	}
	return text
}

func backupTrouble(err error) string {
	switch {
	case errors.Is(err, keeping.ErrNone):
		return fmt.Sprintf("%v. metronix serve --backups makes them.", err)
	case errors.Is(err, store.ErrAnotherShop):
		return fmt.Sprintf("%v. Name the folder and the data file of one workshop. Nothing was changed.", err)
	case errors.Is(err, keeping.ErrMore):
		return fmt.Sprintf("%v. Take over into another file with --data, or give these up with --anyway: what is there is kept aside.", err)
	case errors.Is(err, os.ErrNotExist), errors.Is(err, os.ErrPermission):
		return fmt.Sprintf("The folder of the backups does not read: %v.", err)
	}
	return copyTrouble(err)
}

// keeper makes backups of a data file while the program serves; nil where no folder was named.
func keeper(ctx context.Context, w wishes, st *store.Store) (*keeping.Keeper, error) {
	if w.backups == "" {
		return nil, nil
	}
	shop, err := st.Workshop()
	if err != nil {
		return nil, err
	}
	data, err := filepath.Abs(w.data)
	if err != nil {
		return nil, err
	}
	k := keeping.New(keeping.Plan{Data: data, Folder: w.backups, Workshop: shop, Every: w.every, Check: api.Check(ctx)})
	go k.Run(ctx)
	return k, nil
}
