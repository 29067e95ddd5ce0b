// Package bench is what a person at an engine sees and may do next: the one instruction, the leaves to try
// and the one to set by, how far the screw is turned, what is written on the drawing of the head.
//
//	core/job: what happened ──▶ what is next, what is settled
//	                              │
//	                           Advise ──▶ Headline · Ladder · SetBy · PreLock · Screw · CrossCheck · NutSays
//	                                      Notes · Side · FirstLeaves
//
// It only says: nothing here changes a job, and nothing that a job takes or refuses follows from it. It knows
// neither HTTP nor JSON and asks nobody the time, so that it says the same in the program and in the browser.
package bench
