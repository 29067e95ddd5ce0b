// Package api serves the store and the core over HTTP: routes, requests and answers, problems, and the built
// front end. It holds no rule of the trade.
//
// # A request on its way
//
//	guard       a host that is ours, an origin that is ours, a body of a size that can be meant
//	inTime, few the time it has; how many are answered at once, the rest wait their turn or are told to
//	spoken      the person's units, by a cookie
//	whois       who is signed in, by another; mayDo: whether that person may do this, by one table
//	strictly    the body read once: unknown, doubled and mistyped fields are faults with their places
//	handler     asks core or store, and shapes the answer
//	fault       what went wrong, as a problem (RFC 9457) with what, where, why and what to do
//
// # A tap
//
//	POST /jobs/{id}/happenings ── desk.with ── openJob (its lock held)
//	       │                                     │
//	       │   wire.HappeningFrom                │  job.Take: the rules of today
//	       ▼                                     ▼
//	     answer ◀── seen.StateOf ◀── core/bench ◀── store.Append: the entry and all that follows from it,
//	                                                in one transaction, on disk before the answer goes out
//
// A job that somebody is at stays computed on the desk, so that a tap costs one insert and no replay. What
// the desk holds is what the stored list says: where storing fails it is thrown away and read anew. The same
// entry sent twice is known by its id and taken once. A client that says which state it knows gets what
// changed.
//
// # What is derived
//
// The board, a vehicle's visits, what was learned of a mechanic's locking and when a vehicle is due follow
// from the jobs' lists. They are reckoned when a job changes and stored beside it, as codes and figures;
// nothing that is read often opens a job. derivedBy counts up when the reckoning changes, and then all of it
// is made anew at the next start. metronix check compares, metronix rebuild makes anew.
//
// # Where things are
//
// A file's name begins with its subject: door_ is what stands before every request and the built pages; job_
// the jobs, from the desk to what the board shows; engine_ the library; vehicle_ the vehicles over the years;
// gauge_sets, shop, photos, sounds and compute one resource each; archive and admission what comes in and
// goes out whole. openapi.json is the document as it is served, compared by a test; the front end's types are
// made of it.
package api
