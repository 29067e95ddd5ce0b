package api

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"

	"metronix/internal/photo"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// maxSound bounds a recording: some minutes of what a telephone records.
const maxSound = 4 << 20

// soundInput is a recording as the browser made it.
type soundInput struct {
	JobID
	RawBody []byte `contentType:"audio/mp4"`
}

// soundRoutes keep and give recordings.
func (s *server) soundRoutes(a huma.API) {
	binary := map[string]*huma.MediaType{}
	for kind := range store.SoundTypes {
		binary[kind] = &huma.MediaType{Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}
	}
	huma.Register(a, huma.Operation{OperationID: "add-sound", Method: http.MethodPost,
		Path: "/api/v1/jobs/{id}/sounds", MaxBodyBytes: maxSound, SkipValidateBody: true,
		Summary:     "Keep a recording of how the engine sounds: WebM, Ogg, MP4, WAV or MP3, as it is",
		Errors:      []int{http.StatusUnprocessableEntity},
		RequestBody: &huma.RequestBody{Required: true, Content: binary}}, s.addSound)
	huma.Get(
		a,
		"/api/v1/sounds/{hash}",
		s.sound,
		summary("get-sound", "A recording, or a part of it"),
		gives("audio/*"),
	)
}

// gives documents an answer of bytes.
func gives(media string) func(*huma.Operation) {
	return func(o *huma.Operation) {
		o.Responses = map[string]*huma.Response{
			"200": {Description: "The file", Content: map[string]*huma.MediaType{
				media: {Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}}},
		}
	}
}

// soundType tells a recording by its first bytes, whatever its name or what it was sent as; empty: it is
// none that is kept. From memory: EBML (RFC 8794), Ogg (RFC 3533), the file type box of ISO/IEC 14496-12,
// RIFF with the form WAVE, and for MPEG audio an ID3 tag or eleven set bits with the layer not reserved.
func soundType(data []byte) string {
	has := func(at int, mark string) bool {
		return len(data) >= at+len(mark) && bytes.Equal(data[at:at+len(mark)], []byte(mark))
	}
	switch {
	case has(0, "\x1a\x45\xdf\xa3") && bytes.Contains(data[:min(len(data), 64)], []byte("webm")):
		return "audio/webm" // and not another of the EBML's, such as Matroska video
	case has(0, "OggS"):
		return "audio/ogg"
	case has(4, "ftyp") && !photo.IsHEIF(data):
		return "audio/mp4"
	case has(0, "RIFF") && has(8, "WAVE"):
		return "audio/wav"
	case has(0, "ID3"), len(data) > 3 && data[0] == 0xff && data[1]&0xe0 == 0xe0 && data[1]&0x06 != 0:
		return "audio/mpeg"
	}
	return ""
}

// addSound keeps one as it is. Its kind is told by its first bytes and not by what the client says.
func (s *server) addSound(ctx context.Context, in *soundInput) (*bodyOf[PhotoKept], error) {
	media := soundType(in.RawBody)
	if media == "" {
		why := "This is no recording that can be played here: WebM, Ogg, MP4, WAV or MP3. Nothing was kept."
		return nil, located(http.StatusUnprocessableEntity, why, wire.Fault{Location: "body", Message: why})
	}
	if _, err := s.store.With(ctx).Job(in.ID); err != nil {
		return nil, fault(err)
	}
	hash, err := s.store.With(ctx).AddSound(in.ID, media, in.RawBody, s.clock())
	if err != nil {
		return nil, fault(err)
	}
	return &bodyOf[PhotoKept]{PhotoKept{hash}}, nil
}

// sound gives one back, or the part that a player asks for.
func (s *server) sound(ctx context.Context, in *photoPath) (*huma.StreamResponse, error) {
	data, media, err := s.store.With(ctx).Sound(in.Hash)
	if err != nil {
		return nil, fault(err)
	}
	return seekable(media, in.Hash, in.Hash[:12]+"."+store.SoundTypes[media], data), nil
}

// seekable answers with a file, or with the part of it that is asked for: a player seeks in a recording by
// parts (RFC 9110, 14). Its hash is its tag, because it never changes.
func seekable(media, hash, name string, data []byte) *huma.StreamResponse {
	return &huma.StreamResponse{Body: func(h huma.Context) {
		c := humagin.Unwrap(h)
		c.Header("Content-Type", media)
		c.Header("Content-Disposition", fmt.Sprintf("inline; filename=%q", name))
		c.Header("ETag", `"`+hash+`"`)
		http.ServeContent(c.Writer, c.Request, name, time.Time{}, bytes.NewReader(data))
	}}
}
