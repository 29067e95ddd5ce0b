package main

import (
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"strings"

	"metronix/internal/seal"
)

const verifyHelp = `metronix verify [--key FINGERPRINT] FILE

Checks a sheet that was handed over: its PDF, its JSON file, or the text that a camera reads off its code. Shows what was sealed, for
comparing with the paper, and by which key. No data file is needed, nor the workshop's machine. Exit codes: 0 what is shown was sealed
by the key, 1 it was not, 2 there is nothing sealed in the file.
  --key FINGERPRINT  the workshop's fingerprint, as its page Workshop shows it or as it was given to you: any other key is refused.
                     Without it anybody's key is taken, and its fingerprint shown to be compared
  FILE               a file, or - for what comes in
`

// mostSheet is how large a sheet's file is read, bytes: photographs are in it.
const mostSheet = 200 << 20

func verify(args []string, in io.Reader, out, errs io.Writer) int {
	flags := flag.NewFlagSet("verify", flag.ContinueOnError)
	flags.SetOutput(errs)
	flags.Usage = func() { fmt.Fprint(errs, verifyHelp) }
	key := flags.String("key", "", "")
	if err := flags.Parse(args); err != nil {
		return exitRequest
	}
	if flags.NArg() != 1 {
		fmt.Fprint(errs, verifyHelp)
		return exitRequest
	}
	name := flags.Arg(0)
	if name != "-" {
		f, err := os.Open(name)
		if err != nil {
			fmt.Fprintf(errs, "The sheet does not read: %v.\n", err)
			return exitRequest
		}
		defer f.Close()
		in = f
	}
	data, err := io.ReadAll(io.LimitReader(in, mostSheet))
	if err != nil {
		fmt.Fprintf(errs, "The sheet does not read: %v.\n", err)
		return exitRequest
	}
	s, err := seal.Read(data)
	switch {
	case errors.Is(err, seal.ErrNone):
		fmt.Fprintf(errs, "%s: %v. Sheets that are signed bear one, on paper as the code at their end.\n", name, err)
		return exitRequest
	case err != nil:
		fmt.Fprintf(errs, "NOT GENUINE. %s: %v. It was changed after it was sealed, or was never sealed.\n", name, err)
		return exitFailed
	}
	if want := strings.ToLower(strings.Join(strings.Fields(*key), "")); want != "" && want != s.Fingerprint {
		fmt.Fprintf(errs, "NOT GENUINE. %s was sealed by another key, %s. A workshop that lost its key has a new one: its page "+
			"Workshop shows those that it had.\n", name, seal.Groups(s.Fingerprint))
		return exitFailed
	}
	for _, line := range s.Lines {
		fmt.Fprintln(out, line)
	}
	fmt.Fprintf(out, "\nThis is what was sealed, by the key %s.\n", seal.Groups(s.Fingerprint))
	if *key == "" {
		fmt.Fprintln(out, "Compare the key with the workshop's, and these figures with those on the paper.")
	} else {
		fmt.Fprintln(out, "It is the workshop's. Compare these figures with those on the paper.")
	}
	return exitOK
}
