package practice

// Page is a page of the handbook: what is told there is told in the words of the bench, of the score and of
// the drills, and each ends in its drills.
type Page struct {
	ID     string
	Title  string
	Drills []Item
}

// Pages are all of them, in the order in which one learns.
func Pages() []Page {
	return []Page{
		{"schools", "Going round an engine", []Item{MayBeSet, Partner}},
		{"drag", "What a drag tells", []Item{ReadDrag, WhichLeaf}},
		{"adjusters", "Each adjuster in the hand", []Item{WhichWay}},
		{"heat", "Hot and cold", []Item{WhichCard}},
		{"wrong", "What goes wrong, and how it shows", []Item{OneOut, WhatNext}},
	}
}
