// Metronix plans, leads and records the setting of valve clearances. See metronix help.
package main

import (
	"fmt"
	"io"
	"os"

	"metronix/internal/wire"
)

// version is set by the build.
var version = "dev"

// Exit codes.
const (
	exitOK      = 0
	exitFailed  = 1
	exitRequest = 2 // the command line or the request cannot be right
	exitAddress = 3 // the address cannot be listened on
	exitData    = 4 // the data file cannot be used
)

const usage = `Metronix sets valve clearances with you: which valves at which crank position, valve by valve, judged and recorded.

  metronix serve [--listen 127.0.0.1:8080] [--data FILE] [--host NAME] [--backups FOLDER]
                       serve the program; the data file is made when absent
  metronix demo [--listen 127.0.0.1:8080] [--data FILE]
                       the same with a made-up workshop in it
  metronix backup [--data FILE] COPY
                       a checked copy of the data file, also while the program runs
  metronix restore [--data FILE] [--anyway] COPY
                       such a copy put in the data file's place
  metronix drill [--data FILE] --backups FOLDER
                       shows that the newest backup can be taken back
  metronix takeover [--data FILE] --backups FOLDER
                       the newest backup of another machine, to go on with here
  metronix verify [--key FINGERPRINT] SHEET
                       whether a sheet that was handed over is what its workshop sealed
  metronix export [--data FILE] ARCHIVE.zip
                       engines, feelers, vehicles and jobs, as a zip of JSON and CSV
  metronix import [--data FILE] ARCHIVE.zip
                       such an archive taken in
  metronix gather --data FILE NAME=ARCHIVE.zip ...
                       the archives of several workshops, to be looked at as one
  metronix check [--data FILE]
                       the whole data file checked
  metronix rebuild [--data FILE]
                       what follows from the jobs' lists made anew
  metronix compute OPERATION < request.json > response.json
                       one computation without a screen
  metronix probe       a simulated temperature probe
  metronix instrument  a simulated crank encoder, dial indicator, torque wrench or pull scale
  metronix schema      print the JSON Schema of the engine sheet
  metronix version     print the version
  metronix help [COMMAND]

Exit codes: 0 done, 1 failed, 2 the command or request cannot be right, 3 the address cannot be used, 4 the data file cannot be used.
`

type command struct {
	run  func(args []string, in io.Reader, out, errs io.Writer) int
	help string
}

func commands() map[string]command {
	return map[string]command{
		"serve":      {serve, serveHelp},
		"demo":       {serveDemo, demoHelp},
		"backup":     {backup, backupHelp},
		"restore":    {restore, restoreHelp},
		"verify":     {verify, verifyHelp},
		"drill":      {drill, drillHelp},
		"takeover":   {takeOver, takeOverHelp},
		"export":     {exportAll, exportHelp},
		"import":     {importAll, importHelp},
		"gather":     {gather, gatherHelp},
		"check":      {check, checkHelp},
		"rebuild":    {rebuild, rebuildHelp},
		"compute":    {runCompute, computeHelp()},
		"probe":      {simulateProbe, probeHelp},
		"instrument": {simulateInstrument, instrumentHelp},
		"schema": {printSchema, "metronix schema\n\nPrints the JSON Schema of the engine sheet, " +
			"metronix.engine/1.\n"},
		"version": {printVersion, "metronix version\n\nPrints the version.\n"},
	}
}

func main() { os.Exit(run(os.Args[1:], os.Stdin, os.Stdout, os.Stderr)) }

func run(args []string, in io.Reader, out, errs io.Writer) int {
	if len(args) == 0 {
		fmt.Fprint(errs, usage)
		return exitRequest
	}
	name, rest := args[0], args[1:]
	if name == "help" || name == "-h" || name == "--help" {
		return help(rest, out, errs)
	}
	c, ok := commands()[name]
	if !ok {
		fmt.Fprintf(errs, "There is no command %q.\n\n%s", name, usage)
		return exitRequest
	}
	if len(rest) > 0 && (rest[0] == "-h" || rest[0] == "--help") {
		return help([]string{name}, out, errs)
	}
	return c.run(rest, in, out, errs)
}

func help(args []string, out, errs io.Writer) int {
	if len(args) == 0 {
		fmt.Fprint(out, usage)
		return exitOK
	}
	c, ok := commands()[args[0]]
	if !ok {
		fmt.Fprintf(errs, "There is no command %q.\n\n%s", args[0], usage)
		return exitRequest
	}
	fmt.Fprint(out, c.help)
	return exitOK
}

func printSchema(_ []string, _ io.Reader, out, errs io.Writer) int {
	if _, err := out.Write(wire.EngineSchema()); err != nil {
		fmt.Fprintf(errs, "The schema cannot be written: %v.\n", err)
		return exitFailed
	}
	return exitOK
}

func printVersion(_ []string, _ io.Reader, out, _ io.Writer) int {
	fmt.Fprintln(out, "metronix", version)
	return exitOK
}
