package instrument

import (
	"bufio"
	"context"
	"fmt"
	"io"
	"math"
	"net"
	"strconv"
	"strings"
	"sync"
	"time"

	"metronix/internal/line"
)

// often is how often a simulated instrument tells its value.
const often = 100 * time.Millisecond

// Commands are the lines that work a simulated instrument, as they are explained to whoever types them.
const Commands = `  to VALUE     the value goes there, at --speed a second
  by VALUE     it goes on by so much
  press [VALUE]  its button or click takes the value shown, or this one
  jump VALUE   it is there at once
  drop         every line is broken off once
  silent       it says nothing more; again: it goes on
`

// Bench is a simulated instrument: a value that goes where it is told, at a speed a second.
type Bench struct {
	Kind  Kind
	Speed float64 // in the value's unit a second, above 0

	mu          sync.Mutex
	value, goal float64
	silent      bool
	lines       map[net.Conn]chan string
}

// Serve tells every client that connects, until the context ends.
func (b *Bench) Serve(ctx context.Context, listener net.Listener) error {
	go b.goOn(ctx)
	return line.Serve(ctx, listener, b.tell)
}

// goOn moves the value on and tells it.
func (b *Bench) goOn(ctx context.Context) {
	tick := time.NewTicker(often)
	defer tick.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
			b.mu.Lock()
			most := b.Speed * often.Seconds()
			b.value += math.Max(-most, math.Min(most, b.goal-b.value))
			b.say(b.told("V", b.value))
			b.mu.Unlock()
		}
	}
}

// told is the line of a value.
func (b *Bench) told(what string, value float64) string {
	return what + " " + strconv.FormatFloat(value, 'f', b.Kind.Trait().Places, 64)
}

// say sends a line to whoever listens; one who is slow misses it.
func (b *Bench) say(said string) {
	if b.silent {
		return
	}
	for _, to := range b.lines {
		select {
		case to <- said:
		default:
		}
	}
}

// tell is one client's session.
func (b *Bench) tell(ctx context.Context, conn net.Conn) {
	if _, err := fmt.Fprintln(conn, b.Kind.Greeting()); err != nil {
		return
	}
	said := make(chan string, 8)
	b.mu.Lock()
	if b.lines == nil {
		b.lines = map[net.Conn]chan string{}
	}
	b.lines[conn] = said
	b.mu.Unlock()
	defer func() {
		b.mu.Lock()
		delete(b.lines, conn)
		b.mu.Unlock()
	}()
	for {
		select {
		case <-ctx.Done():
			return
		case text := <-said:
			if _, err := fmt.Fprintln(conn, text); err != nil {
				return // the client is gone
			}
		}
	}
}

// Work carries out the commands of a reader, a line each, until it ends; what is none is answered.
func (b *Bench) Work(in io.Reader, out io.Writer) {
	lines := bufio.NewScanner(in)
	for lines.Scan() {
		fields := strings.Fields(lines.Text())
		if len(fields) == 0 {
			continue
		}
		if err := b.Do(fields[0], fields[1:]...); err != nil {
			fmt.Fprintf(out, "%v. It knows:\n%s", err, Commands)
		}
	}
}

// Do carries out one command, as Commands explains it.
func (b *Bench) Do(command string, args ...string) error {
	t := b.Kind.Trait()
	value := math.NaN()
	if len(args) == 1 {
		v, err := strconv.ParseFloat(args[0], 64)
		if err != nil || !(v >= t.Lowest && v <= t.Most) {
			return fmt.Errorf("%q is no value of a %s: %v to %v %s", args[0], t.Name, t.Lowest, t.Most, t.Unit)
		}
		value = v
	}
	b.mu.Lock()
	defer b.mu.Unlock()
	switch given := !math.IsNaN(value); {
	case command == "to" && given:
		b.goal = value
	case command == "by" && given:
		b.goal += value
	case command == "jump" && given:
		b.value, b.goal = value, value
	case command == "press" && t.Takes && len(args) < 2:
		if given {
			b.value, b.goal = value, value
		}
		b.say(b.told("P", b.value))
	case command == "drop" && len(args) == 0:
		for conn := range b.lines {
			conn.Close()
		}
	case command == "silent" && len(args) == 0:
		b.silent = !b.silent
	default:
		return fmt.Errorf("%q is nothing that a %s can be told", strings.Join(append([]string{command}, args...), " "), t.Name)
	}
	return nil
}
