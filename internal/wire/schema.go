package wire

import _ "embed"

// EngineSchema is the JSON Schema of the engine sheet, draft 2020-12.
//
//go:embed engine.schema.json
var EngineSchema []byte
