package api

import (
	"context"
	"log/slog"
	"time"

	"metronix/core/record"
	"metronix/internal/seal"
)

// SheetProof is a sheet's statement under the workshop's seal: whoever gets the sheet checks it with metronix
// verify, by the fingerprint.
type SheetProof struct {
	Text        string `json:"text"        doc:"what is sealed, a fact a line, with the public key and the signature over it (Ed25519)"`
	Fingerprint string `json:"fingerprint" doc:"of the workshop's key"`
	CodeSize    int    `json:"code_size"   doc:"width and height of the code that carries the text, in its squares"`
	Code        string `json:"code"        doc:"the dark squares of that code, as the path of a drawing"`
}

// proofText is a job's statement under the seal; empty where it is not signed, or the program has no key.
func (s *server) proofText(o *openJob, r record.Report) string {
	if s.seal == nil || o.state.SignedBy == "" {
		return ""
	}
	return s.seal.Seal(r.Statement(o.record.ID, o.list.Sum()))
}

// proofView is it as it is sent; nil: there is none.
func (s *server) proofView(text string) *SheetProof {
	if text == "" {
		return nil
	}
	p := &SheetProof{Text: text, Fingerprint: s.seal.Fingerprint()}
	squares, err := seal.Squares(text)
	if err != nil {
		slog.Warn("a sheet's code does not hold what is sealed", "error", err)
		return p
	}
	p.CodeSize, p.Code = len(squares), drawn(squares)
	return p
}

// SealKeys are the keys by which the workshop seals and has sealed sheets.
type SealKeys struct {
	Fingerprint string     `json:"fingerprint" doc:"of the key in use; empty: sheets bear no seal"`
	Before      []SealedBy `json:"before"      doc:"those before it, the newest first"`
}

// SealedBy is a key that is in use no more.
type SealedBy struct {
	Fingerprint string    `json:"fingerprint"`
	Since       time.Time `json:"since"`
	Until       time.Time `json:"until"`
}

// sealKeys gives them.
func (s *server) sealKeys(ctx context.Context, _ *struct{}) (*bodyOf[SealKeys], error) {
	v := SealKeys{Before: []SealedBy{}}
	if s.seal == nil {
		return &bodyOf[SealKeys]{v}, nil
	}
	v.Fingerprint = s.seal.Fingerprint()
	keys, err := s.store.With(ctx).Keys()
	if err != nil {
		return nil, fault(err)
	}
	for i := len(keys) - 2; i >= 0; i-- {
		v.Before = append(v.Before, SealedBy{keys[i].Fingerprint, keys[i].Since, keys[i+1].Since})
	}
	return &bodyOf[SealKeys]{v}, nil
}
