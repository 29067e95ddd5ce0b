package adjust

import "math"

// assign gives each row a column of its own so that the sum of costs is smallest; −1 where a row can only
// have a forbidden one (cost at least never). Rows may not outnumber columns. Shortest augmenting paths with
// potentials (Kuhn 1955, Munkres 1957; this form after Jonker and Volgenant 1987), in rows² × columns steps.
//
// Each row is brought in by the cheapest path that frees a column for it, reassigning rows on the way;
// potentials keep all reduced costs from going below zero, so that the cheapest path is found as a
// shortest one. What is optimal for the rows so far stays optimal with one row more.
func assign(rows, columns int, cost func(row, column int) int64) []int {
	rowPotential, columnPotential := make([]int64, rows+1), make([]int64, columns+1)
	owner, before := make([]int, columns+1), make([]int, columns+1) // of each column, counted from 1; 0: none
	for row := 1; row <= rows; row++ {
		owner[0] = row
		at := 0
		shortest := make([]int64, columns+1)
		for c := range shortest {
			shortest[c] = math.MaxInt64
		}
		done := make([]bool, columns+1)
		for owner[at] != 0 {
			done[at] = true
			step, next := int64(math.MaxInt64), 0
			for c := 1; c <= columns; c++ {
				if done[c] {
					continue
				}
				if reduced := cost(owner[at]-1,
					c-1) - rowPotential[owner[at]] - columnPotential[c]; reduced < shortest[c] {
					shortest[c], before[c] = reduced, at
				}
				if shortest[c] < step {
					step, next = shortest[c], c
				}
			}
			for c := 0; c <= columns; c++ {
				if done[c] {
					rowPotential[owner[c]] += step
					columnPotential[c] -= step
				} else if shortest[c] != math.MaxInt64 {
					shortest[c] -= step
				}
			}
			at = next
		}
		for at != 0 {
			owner[at] = owner[before[at]]
			at = before[at]
		}
	}
	chosen := make([]int, rows)
	for c := 1; c <= columns; c++ {
		if owner[c] == 0 {
			continue
		}
		chosen[owner[c]-1] = c - 1
		if cost(owner[c]-1, c-1) >= never {
			chosen[owner[c]-1] = -1
		}
	}
	return chosen
}
