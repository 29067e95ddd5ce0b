//go:build js && wasm

// Command bench is the bench beside its screen: the same Go that judges in the program, compiled to
// WebAssembly. It keeps one job open and says its state at a time; it asks nobody anything.
//
// Each call gives an object: "state" where it is asked for, as the program sends it, "refused" where the job
// itself refuses a happening, with its sentence, and "why" where something cannot be done. Times are as RFC
// 3339 writes them.
//
//	metronixBench.open(opening)
//	metronixBench.state(time, screen, others)
//	metronixBench.take(happening, time)
package main

import (
	"encoding/json"
	"errors"
	"runtime/debug"
	"syscall/js"
	"time"

	"metronix/core/job"
	"metronix/internal/seen"
)

func main() {
	debug.SetGCPercent(400) // a state is some hundred kilobytes: what is let go of is not looked for with each tap
	var at seen.At
	say := func(err error) any {
		var refusal *job.Refusal
		switch {
		case errors.As(err, &refusal):
			return map[string]any{"refused": refusal.Message}
		case err != nil:
			return map[string]any{"why": err.Error()}
		}
		return map[string]any{}
	}
	js.Global().Set("metronixBench", map[string]any{
		"open": js.FuncOf(func(_ js.Value, args []js.Value) any {
			opened, err := seen.Open([]byte(args[0].String()))
			if err == nil {
				at = opened
			}
			return say(err)
		}),
		"state": js.FuncOf(func(_ js.Value, args []js.Value) any {
			now, err := time.Parse(time.RFC3339Nano, args[0].String())
			if err != nil {
				return say(err)
			}
			at.Now, at.Screen, at.Others = now, args[1].String(), nil
			for i := range args[2].Length() {
				at.Others = append(at.Others, args[2].Index(i).String())
			}
			text, err := json.Marshal(seen.StateOf(at))
			if err != nil {
				return say(err)
			}
			return map[string]any{"state": string(text)}
		}),
		"take": js.FuncOf(func(_ js.Value, args []js.Value) any {
			now, err := time.Parse(time.RFC3339Nano, args[1].String())
			if err != nil {
				return say(err)
			}
			return say(at.Take([]byte(args[0].String()), now))
		}),
	})
	select {} // until the page goes
}
