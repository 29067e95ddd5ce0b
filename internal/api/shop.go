package api

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/adjust"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/internal/seen"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// Shop is what the workshop has set up for all its jobs.
type Shop struct {
	ProbeAddress string           `json:"probe_address" maxLength:"80" doc:"of a temperature probe, 127.0.0.1:7070; empty: none"`
	ShimSizes    ShimSizes        `json:"shim_sizes" doc:"the sizes that can be bought"`
	ShimStock    []seen.ShimCount `json:"shim_stock" maxItems:"200" doc:"the shims that lie in the shop: as counted, less those that went into engines since"`
	Version      string           `json:"version,omitempty" maxLength:"64" doc:"of what is stored; sent back, it is refused where somebody changed it, or a shim of the stock was used, meanwhile"`
	Damaged      string           `json:"damaged,omitempty" maxLength:"200" doc:"what of it cannot be read; not taken"`
}

// ShimSizes are sizes from one to another in steps.
type ShimSizes struct {
	FromMM wire.MM `json:"from_mm"`
	ToMM   wire.MM `json:"to_mm"`
	StepMM wire.MM `json:"step_mm"`
}

// usualSizes is taken until the workshop says otherwise: twentieths of a millimetre (from memory).
var usualSizes = ShimSizes{wire.MM(2 * measure.Millimetre), wire.MM(3200 * measure.Micrometre),
	wire.MM(50 * measure.Micrometre)}

// ProbeStatus is how it stands with the temperature probe.
type ProbeStatus struct {
	State    string        `json:"state" enum:"off,connecting,ok,lost"`
	EngineC  *wire.Celsius `json:"engine_c" nullable:"true" doc:"the last reading; null: none yet"`
	AmbientC *wire.Celsius `json:"ambient_c" nullable:"true"`
	At       *time.Time    `json:"at"`
	Detail   string        `json:"detail" doc:"why it is lost"`
}

// shopRoutes are what the workshop has set up: its probe, the shims it can buy and those that lie there.
func (s *server) shopRoutes(a huma.API) {
	huma.Get(a, "/api/v1/shop", s.shop, summary("get-shop", "What the workshop has set up"))
	huma.Put(a, "/api/v1/shop", s.putShop, summary("put-shop", "Change what the workshop has set up"),
		strictly[Shop](a))
	huma.Get(a, "/api/v1/probe", s.probeStatus, summary("get-probe", "The latest of the temperature probe"))
	huma.Get(a, "/api/v1/jobs/{id}/shims", s.jobShims,
		summary("get-job-shims", "The choice of shims over the whole engine"))
}

// readShop is the workshop as it stands, the shims that jobs used since the last count taken off.
func readShop(ctx context.Context, st *store.Store) (Shop, error) {
	stored, err := st.With(ctx).Shop()
	return shopView(stored), err
}

// shopView is what is stored; what does not read is said, and nothing is made of it.
func shopView(stored store.Shop) Shop {
	shop := Shop{ProbeAddress: stored.Probe, ShimSizes: usualSizes, ShimStock: []seen.ShimCount{},
		Version: stored.Version}
	if stored.Damaged != "" {
		shop.Damaged = "When the shims were counted does not read: count them again."
	}
	if stored.Sizes != "" {
		if err := json.Unmarshal([]byte(stored.Sizes), &shop.ShimSizes); err != nil {
			shop.ShimSizes, shop.Damaged = usualSizes, "The sizes of shims do not read: enter them again."
		}
	}
	for _, c := range stored.Stock {
		shop.ShimStock = append(shop.ShimStock, seen.ShimCount{ShimMM: wire.MM(c.Shim), Count: c.N})
	}
	return shop
}

// shop gives it.
func (s *server) shop(ctx context.Context, _ *struct{}) (*bodyOf[Shop], error) {
	shop, err := readShop(ctx, s.store)
	if err != nil {
		return nil, fault(err)
	}
	return &bodyOf[Shop]{shop}, nil
}

// putShop stores it whole. Somebody who counted before a job took a shim is told by the version, and counts
// again.
func (s *server) putShop(ctx context.Context, in *rawInput) (*bodyOf[Shop], error) {
	shop, err := readBody[Shop](in.RawBody)
	if err != nil {
		return nil, err
	}
	var faults wire.Faults
	if shop.ProbeAddress != "" {
		if message := s.probeAllowed.Check(shop.ProbeAddress); message != "" {
			faults = append(faults, wire.Fault{Location: "body.probe_address", Value: shop.ProbeAddress,
				Message: message})
		}
	}
	sizesOf(shop.ShimSizes, &faults)
	stock := stockOf(shop.ShimStock, &faults)
	if len(faults) > 0 {
		return nil, located(http.StatusUnprocessableEntity,
			"This cannot be stored: "+counted(len(faults), "fault")+".", faults...)
	}
	sizes, err := json.Marshal(shop.ShimSizes)
	if err != nil {
		return nil, fault(err)
	}
	now := s.clock()
	anew := store.Shop{Probe: shop.ProbeAddress, Sizes: string(sizes), Stock: stock,
		Version: strconv.FormatInt(now.UnixNano(), 36)}
	if err := s.store.With(ctx).PutShop(anew, shop.Version, now); err != nil {
		return nil, fault(err)
	}
	if err := s.desk.shimsChanged(ctx); err != nil {
		return nil, fault(err)
	}
	return s.shop(ctx, nil)
}

// maxSizes bounds a list of sizes.
const maxSizes = 200

// sizesOf is the range of sizes that can be bought, as the sizes themselves; a range too fine to be one is
// refused.
func sizesOf(z ShimSizes, faults *wire.Faults) []measure.Length {
	from, to, step := shimLength(z.FromMM, "body.shim_sizes.from_mm", faults), shimLength(z.ToMM,
		"body.shim_sizes.to_mm", faults), shimLength(z.StepMM, "body.shim_sizes.step_mm", faults)
	if len(*faults) > 0 {
		return nil
	}
	if to < from || (to-from)/step >= maxSizes {
		*faults = append(*faults,
			wire.Fault{Location: "body.shim_sizes",
				Message: fmt.Sprintf("Sizes run upwards, and are at most %d: from %s "+
					"to %s in steps of %s is "+
					"not that.", maxSizes, from, to, step)})
		return nil
	}
	var sizes []measure.Length
	for size := from; size <= to; size += step {
		sizes = append(sizes, size)
	}
	return sizes
}

// stockOf is the stock as typed; a size named twice is a slip and not a sum.
func stockOf(list []seen.ShimCount, faults *wire.Faults) []adjust.Count {
	var stock []adjust.Count
	for i, c := range list {
		at := fmt.Sprintf("body.shim_stock[%d].shim_mm", i)
		size := shimLength(c.ShimMM, at, faults)
		for _, before := range stock {
			if before.Shim == size {
				*faults = append(*faults,
					wire.Fault{Location: at, Value: c.ShimMM,
						Message: fmt.Sprintf("The size %s is listed twice.", size)})
			}
		}
		stock = append(stock, adjust.Count{Shim: size, N: c.Count})
	}
	return stock
}

// shimLength is a thickness that a shim can have.
func shimLength(mm wire.MM, at string, faults *wire.Faults) measure.Length {
	l := measure.Length(mm)
	if l <= 0 || l > job.MaxShim {
		*faults = append(*faults,
			wire.Fault{Location: at, Value: mm,
				Message: fmt.Sprintf("%s is not the thickness of a shim: above 0, at most %s.", l,
					job.MaxShim)})
	}
	return l
}

// probeStatus is the probe's latest. An address that was allowed when it was set, and is no more, is not
// reached.
func (s *server) probeStatus(ctx context.Context, _ *struct{}) (*bodyOf[ProbeStatus], error) {
	stored, err := s.store.With(ctx).Shop()
	if err != nil {
		return nil, fault(err)
	}
	address := stored.Probe
	if s.probeAllowed.Check(address) != "" {
		address = "" // set under another allowance
	}
	status := s.probe.Ask(address)
	out := ProbeStatus{State: string(status.State), Detail: status.Detail}
	if !status.At.IsZero() {
		engine, ambient, at := status.Reading.EngineC, status.Reading.AmbientC, status.At.UTC()
		out.EngineC, out.AmbientC, out.At = (*wire.Celsius)(&engine), (*wire.Celsius)(&ambient), &at
	}
	return &bodyOf[ProbeStatus]{out}, nil
}

// supply tells a job of a shimmed engine what the workshop has of shims, from which what is next follows.
func (d *desk) supply(ctx context.Context, o *openJob) (shop job.Shop, err error) {
	if !o.record.Sheet.Shimmed() {
		return shop, nil
	}
	stored, err := readShop(ctx, d.store)
	if err != nil {
		return shop, err
	}
	var faults wire.Faults
	shop = job.Shop{Sizes: sizesOf(stored.ShimSizes, &faults), Stock: stockOf(stored.ShimStock, &faults)}
	o.state.Supply(shop)
	return shop, nil
}
