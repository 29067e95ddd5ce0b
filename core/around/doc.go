// Package around is what stands around the work at the valves: the steps from taking a vehicle in to the road
// test, the tools counted out and back, sealant and its clocks, findings, sounds, what came off.
//
//	Engine: sheet, adjuster, card ──┐
//	                                ├── Work ──▶ Tasks · Tools · Missing · CoverBy · StartFrom
//	Book: what was ticked, counted, ┘
//	      found and felt
//
// Which steps there are follows from the engine; what became of them is in the book. What may be ticked when,
// and what a tick does to the job, stands with the acts of core/job.
package around
