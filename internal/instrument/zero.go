package instrument

import (
	"sync"
	"time"

	"metronix/core/measure"
)

// fresh is how long ago at most a place may have been confirmed for an encoder's count of now to be the count
// of then.
const fresh = 5 * time.Second

// Zero is where the zero of the crank encoder lies, as far as the mechanic has confirmed a place. There is
// one encoder, so it is on one engine at a time: that of the job confirmed last. The zero value knows none;
// its methods may be called from many goroutines.
type Zero struct {
	mu    sync.Mutex
	job   string
	run   int64
	since int64   // the run in which a place was confirmed last, of whichever job; 0: none was
	count float64 // the encoder's, when the place was confirmed
	crank measure.Angle
}

// Confirm says that a job's crank stands at a place, as its mechanic confirmed at a time. It is taken where
// the encoder stands, and tells of about that time; else what was known of this job's crank is gone.
func (z *Zero) Confirm(job string, crank measure.Angle, at, now time.Time, r Reading) {
	z.mu.Lock()
	defer z.mu.Unlock()
	if !r.Still() || now.Sub(at) > fresh || at.Sub(now) > fresh {
		z.forget(job)
		return
	}
	z.job, z.run, z.since, z.count, z.crank = job, r.Run, r.Run, r.Value, crank
}

// Forget says that a job's crank is anywhere.
func (z *Zero) Forget(job string) {
	z.mu.Lock()
	defer z.mu.Unlock()
	z.forget(job)
}

// forget is Forget under the lock.
func (z *Zero) forget(job string) {
	if z.job == job {
		z.job = ""
	}
}

// Followed says that a place was confirmed since the encoder's count began anew: what had happened before is
// over.
func (z *Zero) Followed(r Reading) bool {
	z.mu.Lock()
	defer z.mu.Unlock()
	return r.Run != 0 && z.since == r.Run
}

// Moved is how far the crank was turned since its place was confirmed, degrees, positive in the running
// direction; ok is false where no place was, or the encoder lost its count since.
func (z *Zero) Moved(job string, r Reading) (by float64, from measure.Angle, ok bool) {
	z.mu.Lock()
	defer z.mu.Unlock()
	if z.job != job || r.Run == 0 || z.run != r.Run {
		return 0, 0, false
	}
	return r.Value - z.count, z.crank, true
}
