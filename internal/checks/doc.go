// Package checks holds values that come from outside the program against what the program makes of the same
// question.
//
//	a test ── checks.Equal, checks.Near ──▶ passes or fails
//	               └── a line in a folder ── make checks ──▶ docs/checks.md
//
// Each value names where it comes from: a published standard, a sum done by hand, a reference library, common
// practice, or memory. The page is gathered from what the tests really asserted, and make test fails where it
// tells anything else: no check is claimed that was not made.
package checks
