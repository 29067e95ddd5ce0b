package probe

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

// How long a Reader waits: for a connection, for the next line before the probe counts as lost, between
// attempts, and with nobody asking before it lets go of the line.
const (
	dialTime  = 2 * time.Second
	lineTime  = 10 * time.Second
	retryTime = time.Second
	idleTime  = 30 * time.Second
)

// State is how it stands with the probe.
type State string

// The states: none is set, being connected, telling, lost.
const (
	Off        State = "off"
	Connecting State = "connecting"
	OK         State = "ok"
	Lost       State = "lost"
)

// Status is the latest of a probe. Reading and At hold where State is OK, and stay as the last known ones
// where it is Lost.
type Status struct {
	State   State
	Reading Reading
	At      time.Time
	Detail  string // why it is lost
}

// Reader listens to one probe for as long as somebody asks. The zero value has no probe; its methods may be
// called from many goroutines.
type Reader struct {
	mu      sync.Mutex
	address string
	status  Status
	asked   time.Time
	stop    context.CancelFunc // nil: not listening
}

// Ask gives the latest of the probe at an address, and begins to listen where nobody asked for a while. An
// empty address is no probe.
func (r *Reader) Ask(address string) Status {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.asked = time.Now()
	if address != r.address {
		r.hangUp()
		r.address = address
	}
	if address == "" {
		return Status{State: Off}
	}
	if r.stop == nil {
		ctx, cancel := context.WithCancel(context.Background())
		r.stop, r.status = cancel, Status{State: Connecting}
		go r.listen(ctx, address)
	}
	return r.status
}

// Close stops listening.
func (r *Reader) Close() {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.hangUp()
}

// hangUp ends the line to the probe and forgets what it said.
func (r *Reader) hangUp() {
	if r.stop != nil {
		r.stop()
		r.stop = nil
	}
	r.status = Status{State: Off}
}

// listen connects and reads, again and again, until nobody asks any more.
func (r *Reader) listen(ctx context.Context, address string) {
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
		r.mu.Unlock()
		select {
		case <-ctx.Done():
			return
		case <-time.After(retryTime):
		}
	}
}

// errIdle ends a session that nobody looks at: a probe is not kept busy for an empty workshop.
var errIdle = errors.New("nobody asks")

// session is one line to the probe: it has to greet in the protocol's words, then tells a reading a line. Any
// silence or nonsense ends it with a reason, and it is tried anew.
func (r *Reader) session(ctx context.Context, address string) error {
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
		if err := conn.SetReadDeadline(time.Now().Add(lineTime)); err != nil {
			return err
		}
		text, err := lines.ReadSlice('\n')
		switch {
		case errors.Is(err, bufio.ErrBufferFull):
			return fmt.Errorf("a line is longer than %d bytes: this is no probe", maxLine)
		case err != nil:
			return errors.New("it fell silent")
		}
		line := strings.TrimSpace(string(text))
		if !greeted {
			if line != Greeting {
				return fmt.Errorf("it does not greet with %q: this is no probe", Greeting)
			}
			greeted = true
			continue
		}
		reading, err := parse(line)
		if err != nil {
			return err
		}
		if r.took(ctx, reading) {
			return errIdle
		}
	}
}

// took stores a reading and says whether nobody has asked for it in a while.
func (r *Reader) took(ctx context.Context, reading Reading) (idle bool) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if ctx.Err() == nil {
		r.status = Status{State: OK, Reading: reading, At: time.Now()}
	}
	return time.Since(r.asked) > idleTime
}
