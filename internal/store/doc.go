// Package store keeps engines, vehicles, gauge sets, jobs and their happenings in a database through GORM. It
// is the only place that knows SQL.
//
// # What is stored
//
//	engines      a sheet each, as text in its own format        shims, settings   the workshop
//	gauge_sets   leaves, in the wire's form                     photos            files of jobs, by their hash
//	vehicles ── intervals
//	   │
//	  jobs       what each started from, whole: engine, card, leaves, rule
//	   ├── happenings     the list, in order, each with the checksum of itself and of the one before
//	   ├── job_states     what the board shows of it           derived
//	   ├── visits ── visit_valves, visit_remarks  once it is finished  derived
//	   ├── lock_pairs     what locking did                     derived
//	   └── shims_used     what it took from the shop           derived
//	  dues       when each vehicle is due, and why             derived
//
// Only the lists and what was typed are the truth. What is derived stands as codes and figures in rows and
// columns of its own and is put in words when it is told; it can be thrown away and made anew at any time.
//
// # What is promised
//
// What was acknowledged is on the disk: every write is one transaction, synced, and an error of the disk is
// an error of the request. A list cannot lose its middle, its end or a bit of it unnoticed: the chain of sums
// begins in the job's own row and its end stands there too. Two programs do not share a file: it is held by a
// lock. A file that was swapped or removed under the running program is noticed before the next
// acknowledgement.
//
// # How a file grows older
//
// migrations holds a step a released version; a step is never changed, and uses rows of its own
// (released.go), so that a change of today's rows does not change what an old file becomes. A file is copied
// before it is migrated, and one that is newer than the program is not opened. testdata holds a file of every
// version, and a test that each still says what it said.
//
// # Where things are
//
// jobs, vehicles, records, photos, shop and visits are the rows with what reads and writes them; chain the
// sums; check what metronix check looks at; backup, copies and archive how all of it leaves and comes in.
// What is SQLite's own is in sqlite.go and sqlite_file.go; codes.go is how small values lie in a column.
package store
