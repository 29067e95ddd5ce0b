package adjust

import (
	"fmt"
	"slices"

	"metronix/core/measure"
)

// lacking says why a valve is not served.
func lacking(v ShimValve, valves []ShimValve, sizes []measure.Length, stock []Count) string {
	wanted := v.wanted()
	if wanted.Lower > wanted.Upper {
		return fmt.Sprintf("The gap of %s is known to ±%s only, which is more than its "+
			"limits %s leave room for. "+
			"Measure it again with the leaf that drags.", v.Valve, v.Uncertainty, v.Window)
	}
	if slices.ContainsFunc(within(valves, sizes, stock), wanted.Contains) {
		return fmt.Sprintf("%s needs a shim of %s, and the ones that fit serve other valves or stay where "+
			"they are.", v.Valve, wanted)
	}
	if shim, slack, ok := safest(v, valves, sizes, stock); ok {
		lands := "on a limit"
		if slack > 0 {
			lands = slack.String() + " from a limit"
		}
		return fmt.Sprintf(
			"%s would bring %s to %s, %s, and its gap is known to ±%s only: no size surely serves it. "+
				"Measure it closer, or get a size between.",
			shim,
			v.Valve,
			v.gap(shim),
			lands,
			v.Uncertainty,
		)
	}
	return fmt.Sprintf("%s needs a shim of %s: no size on the list and none in the engine lies there.",
		v.Valve, wanted)
}

// within are the shims that there are anywhere: to buy, in the shop, under a valve.
func within(valves []ShimValve, sizes []measure.Length, stock []Count) (list []measure.Length) {
	list = slices.Clone(sizes)
	for _, c := range stock {
		if c.N > 0 {
			list = append(list, c.Shim)
		}
	}
	for _, v := range valves {
		if !v.Out {
			list = append(list, v.Fitted)
		}
	}
	return slices.DeleteFunc(list, func(shim measure.Length) bool { return shim <= 0 })
}

// safest is the shim that would land furthest inside a valve's limits if its gap were known exactly, and how
// far inside; ok is false where none lands there.
func safest(v ShimValve, valves []ShimValve, sizes []measure.Length, stock []Count) (
	shim, slack measure.Length, ok bool) {
	slack = -1
	for _, s := range within(valves, sizes, stock) {
		gap := v.gap(s)
		if inside := min(gap-v.Window.Lower, v.Window.Upper-gap); inside > slack {
			shim, slack = s, inside
		}
	}
	return shim, slack, slack >= 0
}

// mayServe is what may be tried under a valve that no shim surely serves: one in stock, else one that can be
// bought; 0: none. It is another than the one that is in, and only one is tried.
func mayServe(v ShimValve, sizes []measure.Length, stock []Count) (try, order measure.Length) {
	if len(v.Tried) > 0 {
		return 0, 0
	}
	is := func(shim measure.Length) bool { return !v.Out && shim == v.Fitted }
	others := slices.DeleteFunc(slices.Clone(stock), func(c Count) bool { return is(c.Shim) })
	if try, _, ok := safest(v, nil, nil, others); ok {
		return try, 0
	}
	order, _, _ = safest(v, nil, slices.DeleteFunc(slices.Clone(sizes), is), nil)
	return 0, order
}
