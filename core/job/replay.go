package job

import (
	"fmt"
	"slices"
)

// Replay computes the state from a whole stored list. It errs where New does, and where the list does not fit
// together: a happening names what is not there, or takes back what is not the last one standing.
func Replay(setup Setup, list []Happening) (*Job, error) {
	standing, acts := map[string]bool{}, map[string]Act{}
	var order []string
	for _, h := range list {
		undone, ok := h.Act.(Undone)
		if !ok {
			order = append(order, h.ID)
			standing[h.ID], acts[h.ID] = true, h.Act
			continue
		}
		if n := len(order); n == 0 || order[n-1] != undone.Target {
			return nil, refuse("target", fmt.Sprintf("Happening %s takes back %s, which is not the last "+
				"one standing.",
				h.ID, undone.Target))
		}
		delete(standing, order[len(order)-1])
		order = order[:len(order)-1]
	}
	j, err := New(setup)
	if err != nil {
		return nil, err
	}
	for _, h := range list {
		if err := j.again(h, standing[h.ID], acts); err != nil {
			return nil, fmt.Errorf("happening %s: %w", h.ID, err)
		}
	}
	j.upgrade()
	return j, nil
}

// Admit computes the state from a whole list that comes from elsewhere, and asks of each happening that says
// it was taken by today's rules whether they take it. What earlier rules took is believed, but for a
// signature over a valve that was never read, which no rules ever took. Errors are those of Replay, and each
// refusal.
func Admit(setup Setup, list []Happening) (*Job, error) {
	earlier := slices.IndexFunc(list, Happening.todays)
	if earlier < 0 {
		earlier = len(list)
	}
	j, err := Replay(setup, list[:earlier])
	if err != nil {
		return nil, err
	}
	if v := j.find(func(v *ValveState) bool { return v.Last == nil && !v.Outside }); v != nil &&
		j.SignedBy != "" &&
		j.Deferred == (Deferral{}) {
		return nil, refuse("kind", fmt.Sprintf("It is signed, and %s was never read.", v.Name))
	}
	for _, h := range list[earlier:] {
		if j, err = j.Take(h); err != nil {
			return nil, fmt.Errorf("happening %s: %w", h.ID, err)
		}
	}
	return j, nil
}

// again takes a stored happening: into the state where it stands, otherwise into the log alone. acts are
// those that may have been taken back, by their ids.
func (j *Job) again(h Happening, stands bool, acts map[string]Act) error {
	undone, ok := h.Act.(Undone)
	switch {
	case ok:
		j.list = append(j.list, h)
		j.log.back(h, undone.Target, acts[undone.Target], j.epoch)
	case !stands:
		j.list = append(j.list, h)
		j.log.void(h, j)
	default:
		j.upgradeBefore(h)
		return j.apply(h, true)
	}
	return nil
}

// upgradeBefore and upgrade make the crank unknown where a job goes on under newer rules than those it was
// begun under: earlier ones let it stand where it had not been found.
func (j *Job) upgradeBefore(h Happening) {
	if h.by(crankRules) {
		j.upgrade()
	}
}

func (j *Job) upgrade() {
	if n := len(j.effective); n > 0 && j.SignedBy == "" && !j.effective[n-1].by(crankRules) {
		j.lose()
	}
}

// Take gives the state after one more happening; j is not to be used afterwards. A *Refusal leaves the job as
// it was.
func (j *Job) Take(h Happening) (*Job, error) {
	if a, ok := h.Act.(Undone); ok {
		back, err := j.undo(h, a)
		if err == nil {
			back.Speaks, back.shop = j.Speaks, j.shop // who asks is told by the same units and shims
		}
		return back, err
	}
	return j, j.apply(h, false)
}

// Standing is what stands of the list: what was taken back is left out.
func (j *Job) Standing() []Happening { return j.effective }

// HasReadings says whether anything was read that still stands: from then on what the job started from is not
// changed.
func (j *Job) HasReadings() bool {
	return slices.ContainsFunc(j.effective, func(h Happening) bool {
		switch h.Act.(type) {
		case ReadingTaken, DialRead, Sized:
			return true
		}
		return false
	})
}
