package line

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"net"
	"strings"
	"sync"
	"time"
)

// maxLine bounds a line, bytes, so that a stray program on the port cannot fill the memory.
const maxLine = 200

// How long a Reader waits: for a connection, between attempts, and with nobody asking before it lets go.
const (
	dialTime  = 2 * time.Second
	retryTime = time.Second
	idleTime  = 30 * time.Second
)

// State is how it stands with a device.
type State string

// The states: none is set, being connected, telling, lost.
const (
	Off        State = "off"
	Connecting State = "connecting"
	OK         State = "ok"
	Lost       State = "lost"
)

// Protocol is what a kind of device says.
type Protocol[R any] struct {
	What     string        // in words: probe
	Greeting string        // the first line
	Silence  time.Duration // after so long without a line it counts as lost
	// Lost forgets of the reading what does not outlast a connection. nil: it stays as the last known one.
	Lost func(*R)
	// Take reads a line after the greeting into the reading; an error ends the connection.
	Take func(r *R, line string, at time.Time) error
}

// Status is the latest of a device. Reading and At hold where State is OK, and stay as the last known ones
// where it is Lost.
type Status[R any] struct {
	State   State
	Reading R
	At      time.Time
	Detail  string // why it is lost
}

// Reader listens to one device for as long as somebody asks. Only its Protocol is set; its methods may be
// called from many goroutines.
type Reader[R any] struct {
	Protocol Protocol[R]

	mu      sync.Mutex
	address string
	status  Status[R]
	asked   time.Time
	stop    context.CancelFunc // nil: not listening
}

// Ask gives the latest of the device at an address, and begins to listen where nobody asked for a while. An
// empty address is no device.
func (r *Reader[R]) Ask(address string) Status[R] {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.asked = time.Now()
	if address != r.address {
		r.hangUp()
		r.address = address
	}
	if address == "" {
		return Status[R]{State: Off}
	}
	if r.stop == nil {
		ctx, cancel := context.WithCancel(context.Background())
		r.stop, r.status = cancel, Status[R]{State: Connecting}
		go r.listen(ctx, address)
	}
	return r.status
}

// Last is what the device told last, without asking it to go on; the zero reading where it is not telling.
func (r *Reader[R]) Last() (last R) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.status.State == OK {
		last = r.status.Reading
	}
	return last
}

// Close stops listening.
func (r *Reader[R]) Close() {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.hangUp()
}

// hangUp ends the line to the device and forgets what it said.
func (r *Reader[R]) hangUp() {
	if r.stop != nil {
		r.stop()
		r.stop = nil
	}
	r.status = Status[R]{State: Off}
}

// listen connects and reads, again and again, until nobody asks any more.
func (r *Reader[R]) listen(ctx context.Context, address string) {
	for {
		err := r.session(ctx, address)
		r.mu.Lock()
		if ctx.Err() != nil {
			r.mu.Unlock()
			return
		}
		if errors.Is(err, errIdle) || time.Since(r.asked) > idleTime {
			r.hangUp()
			r.mu.Unlock()
			return
		}
		r.status.State, r.status.Detail = Lost, err.Error()
		if r.Protocol.Lost != nil {
			r.Protocol.Lost(&r.status.Reading)
		}
		r.mu.Unlock()
		select {
		case <-ctx.Done():
			return
		case <-time.After(retryTime):
		}
	}
}

// errIdle ends a session that nobody looks at: a device is not kept busy for an empty workshop.
var errIdle = errors.New("nobody asks")

// session is one line to the device: it has to greet in the protocol's words, then tells a value a line. Any
// silence or nonsense ends it with a reason, and it is tried anew.
func (r *Reader[R]) session(ctx context.Context, address string) error {
	dialer := net.Dialer{Timeout: dialTime}
	conn, err := dialer.DialContext(ctx, "tcp", address)
	if err != nil {
		return fmt.Errorf("it cannot be reached at %s", address)
	}
	defer conn.Close()
	defer context.AfterFunc(ctx, func() { conn.Close() })()
	lines := bufio.NewReaderSize(conn, maxLine)
	greeted := false
	for {
		if err := conn.SetReadDeadline(time.Now().Add(r.Protocol.Silence)); err != nil {
			return err
		}
		text, err := lines.ReadSlice('\n')
		switch {
		case errors.Is(err, bufio.ErrBufferFull):
			return fmt.Errorf("a line is longer than %d bytes: this is no %s", maxLine, r.Protocol.What)
		case err != nil:
			return errors.New("it fell silent")
		}
		said := strings.TrimSpace(string(text))
		if !greeted {
			if said != r.Protocol.Greeting {
				return fmt.Errorf("it does not greet with %q: this is no %s", r.Protocol.Greeting, r.Protocol.What)
			}
			greeted = true
			continue
		}
		if err := r.took(ctx, said); err != nil {
			return err
		}
	}
}

// took stores what a line says. It errs where that is nothing, and where nobody has asked in a while.
func (r *Reader[R]) took(ctx context.Context, said string) error {
	r.mu.Lock()
	defer r.mu.Unlock()
	if ctx.Err() != nil {
		return ctx.Err()
	}
	now := time.Now()
	if err := r.Protocol.Take(&r.status.Reading, said, now); err != nil {
		return err
	}
	r.status.State, r.status.At, r.status.Detail = OK, now, ""
	if now.Sub(r.asked) > idleTime {
		return errIdle
	}
	return nil
}
