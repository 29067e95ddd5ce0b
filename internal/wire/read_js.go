package wire

// In the browser nothing is held against the limits of a schema: what a screen makes keeps them, and the
// program decides again on what it is sent.

func beyond[T any](Node) Faults { return nil }

func (f form) beyond(Node) Faults { return nil }
