package wire

// In the browser nothing is held against the limits of a schema: what a screen makes keeps them, and the
// program decides again on what it is sent.

// beyond is the check against the schema, which the browser does without: the program makes it when an act
// arrives.
func beyond[T any](Node) Faults { return nil }

// beyond is the same for a kind of act.
func (f form) beyond(Node) Faults { return nil }
