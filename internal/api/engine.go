package api

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"reflect"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/around"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/measure"
	"metronix/internal/seen"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// Engine is a sheet of the library in short.
type Engine struct {
	ID          string        `json:"id"`
	Name        string        `json:"name"`
	Cylinders   int           `json:"cylinders"`
	Valves      int           `json:"valves"`
	FiringOrder []int         `json:"firing_order"`
	Layout      string        `json:"layout"`
	Shimmed     bool          `json:"shimmed"`
	Banks       []BankView    `json:"banks"`
	Cards       []seen.Card   `json:"cards"`
	Variants    []VariantView `json:"variants" doc:"how the same engine was also built"`
	Damaged     string        `json:"damaged" doc:"why this sheet cannot be read; empty: it can"`
}

// VariantView is how an engine was also built, in short.
type VariantView struct {
	Name string `json:"name"`
	Says string `json:"says" doc:"how it is told and what is different"`
}

// EngineWhole is a sheet of the library with what is said of it.
type EngineWhole struct {
	ID      string          `json:"id"`
	Version string          `json:"version" doc:"of the stored sheet; send it back as replaces to change the sheet"`
	Sheet   json.RawMessage `json:"sheet" doc:"metronix.engine/1"`
	Look    Look            `json:"look"`
}

// Look is what can be said of a sheet, sound or not: what is wrong, odd and assumed, and its drawing where
// the rows can be drawn.
type Look struct {
	OK       bool        `json:"ok"`
	Problems wire.Faults `json:"problems"`
	Warnings wire.Faults `json:"warnings"`
	Assumed  []string    `json:"assumed"`
	Engine   *EngineView `json:"engine,omitempty" doc:"absent where banks and rows cannot be drawn; without lift and may_set where the sheet is not sound"`
	Margin   wire.Deg    `json:"required_margin_deg"`
}

// UsualOrder is a firing order of the catalogue.
type UsualOrder struct {
	Order []int `json:"order"`
}

// SheetStart is a sheet to begin from, and the usual firing orders of its layout.
type SheetStart struct {
	Sheet  json.RawMessage `json:"sheet" doc:"metronix.engine/1, without a name"`
	Orders []UsualOrder    `json:"orders"`
	Source string          `json:"source" doc:"where the usual orders come from"`
}

// engineRoutes are the library of sheets: listed, read, put, taken out; a sheet looked at without being
// stored; one to begin from; and what can be said of sheets in general, the kinds of adjuster and the schema.
func (s *server) engineRoutes(a huma.API) {
	huma.Get(a, "/api/v1/engines", s.engines, summary("list-engines", "The library of engine sheets"))
	huma.Get(a, "/api/v1/engines/{id}", s.engine,
		summary("get-engine", "One sheet of the library, and what is said of it"))
	huma.Put(a, "/api/v1/engines/{id}", s.putEngine,
		summary("put-engine", "Store an engine sheet (metronix.engine/1)"), strictly[wire.Sheet](a))
	huma.Delete(a, "/api/v1/engines/{id}", s.removeEngine,
		summary("remove-engine", "Take a sheet out of the library; refused while a vehicle has this engine"))
	huma.Post(a, "/api/v1/look-at-sheet", lookAtSheet,
		summary("look-at-sheet", "What is wrong, odd and assumed in a sheet, and its drawing; nothing is "+
			"stored"), strictly[wire.Sheet](a))
	huma.Get(a, "/api/v1/sheet-start", sheetStart, summary("sheet-start", "A sheet to begin from"))
	huma.Get(a, "/api/v1/usual-engines", usualEngines,
		summary("usual-engines", "Firing orders and rows of valves as they are commonly met"))
	huma.Get(a, "/api/v1/gears", gears,
		summary("list-gears", "The kinds of adjuster, and what follows from each"))
	huma.Get(a, "/api/v1/schemas/engine", engineSchema,
		summary("engine-schema", "The JSON Schema of the engine sheet"))
}

// engines lists the library. A sheet that does not read is listed with its reason, in place of vanishing: its
// vehicle still stands in the yard.
func (s *server) engines(ctx context.Context, _ *struct{}) (*listOf[Engine], error) {
	stored, damaged, err := s.store.With(ctx).Engines()
	if err != nil {
		return nil, fault(err)
	}
	out := &listOf[Engine]{Body: []Engine{}}
	for _, e := range stored {
		out.Body = append(out.Body, engineShort(e.ID, e.Sheet, speaksTo(ctx)))
	}
	for _, d := range damaged {
		out.Body = append(out.Body,
			Engine{ID: d.ID, Name: d.Name, FiringOrder: []int{}, Banks: []BankView{}, Cards: []seen.Card{},
				Variants: []VariantView{}, Damaged: d.Why})
	}
	return out, nil
}

// gears are the kinds of adjuster with all that follows from each, so that no screen holds a list of its own.
func gears(context.Context, *struct{}) (*listOf[wire.Gear], error) {
	return &listOf[wire.Gear]{wire.Gears()}, nil
}

// engineSchema is the published schema of the format, for an editor or a validator elsewhere.
func engineSchema(context.Context, *struct{}) (*bodyOf[json.RawMessage], error) {
	return &bodyOf[json.RawMessage]{wire.EngineSchema()}, nil
}

// engineShort is an engine as a list of choices shows it: its shape, and each card with what it says
// otherwise than the first, so that whoever chooses sees the conflict before the choice.
func engineShort(id string, sheet *engine.Sheet, speaks measure.Units) Engine {
	e := Engine{ID: id, Name: sheet.Name, Cylinders: sheet.Cylinders, Valves: len(sheet.Valves()),
		FiringOrder: sheet.FiringOrder, Layout: string(sheet.Layout), Shimmed: sheet.Shimmed(),
		Banks: banksView(sheet), Cards: []seen.Card{}, Variants: []VariantView{}}
	for _, v := range sheet.Variants {
		e.Variants = append(e.Variants, VariantView{v.Name, around.SayVariant(v)})
	}
	for _, c := range sheet.Clearances {
		card := seen.CardOf(c, speaks)
		for _, d := range clearance.Differences(sheet.Clearances[0], c, speaks) {
			card.Differences = append(card.Differences,
				seen.CardDifference{What: d.What, First: d.A, Here: d.B})
		}
		e.Cards = append(e.Cards, card)
	}
	return e
}

// EngineID is the path of an engine.
type EngineID struct {
	ID string `path:"id" minLength:"1" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
}

// engine gives one sheet whole, as text as it is stored and as what is said of it.
func (s *server) engine(ctx context.Context, in *EngineID) (*bodyOf[EngineWhole], error) {
	e, err := s.store.With(ctx).Engine(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	return engineWhole(e)
}

// engineWhole writes a stored sheet out and looks at it as at one that was just sent: what the editor opens
// is what it would get back.
func engineWhole(e store.Engine) (*bodyOf[EngineWhole], error) {
	sheet, err := wire.WriteSheet(e.Sheet)
	if err != nil {
		return nil, fault(err)
	}
	_, report := wire.LookAtSheet(sheet)
	return &bodyOf[EngineWhole]{EngineWhole{ID: e.ID, Version: versionOf(sheet), Sheet: sheet,
		Look: lookView(e.Sheet, report)}}, nil
}

// versionOf tells one stored sheet from another.
func versionOf(sheet []byte) string {
	sum := sha256.Sum256(sheet)
	return hex.EncodeToString(sum[:8])
}

// putEngineInput carries the sheet as sent, because it is read strictly and its faults are placed within it.
type putEngineInput struct {
	ID       string `path:"id" minLength:"1" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
	Replaces string `query:"replaces" maxLength:"64" doc:"the version of the stored sheet that this one replaces; absent: there is none yet"`
	RawBody  []byte `contentType:"application/json"`
}

// putEngine stores a new sheet, or changes a stored one that nobody has changed since it was read. Jobs keep
// the sheet they began with.
func (s *server) putEngine(ctx context.Context, in *putEngineInput) (*bodyOf[EngineWhole], error) {
	sheet, faults := wire.ReadSheet(in.RawBody)
	if len(faults) > 0 {
		return nil, located(http.StatusUnprocessableEntity,
			"This engine sheet cannot be stored: "+counted(len(faults), "fault")+".", faults...)
	}
	if g := sheet.Gear(); g.NotSet != "" {
		return nil, located(http.StatusUnprocessableEntity, g.NotSet,
			wire.Fault{Location: "adjuster.kind", Message: g.NotSet, Value: string(g.Kind)})
	}
	record := store.Engine{ID: in.ID, Sheet: sheet, CreatedAt: s.clock()}
	if in.Replaces == "" {
		err := s.store.With(ctx).AddEngine(record)
		if errors.Is(err, store.ErrExists) { // sent again, because its answer was lost
			if there, e := s.store.With(ctx).Engine(in.ID); e == nil && reflect.DeepEqual(there.Sheet, sheet) {
				return engineWhole(there)
			}
		}
		if err != nil {
			return nil, fault(err)
		}
		return engineWhole(record)
	}
	before, err := s.store.With(ctx).Engine(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	text, err := wire.WriteSheet(before.Sheet)
	if err != nil {
		return nil, fault(err)
	}
	err = store.ErrChanged
	if versionOf(text) == in.Replaces {
		err = s.store.With(ctx).ReplaceEngine(record, before.Sheet)
	}
	switch {
	case errors.Is(err, store.ErrChanged):
		return nil, located(http.StatusConflict, "Somebody changed this sheet meanwhile. Load it again, or "+
			"keep yours as a duplicate.",
			wire.Fault{Location: "replaces", Value: in.Replaces,
				Message: "This is not the version that is stored."})
	case err != nil:
		return nil, fault(err)
	}
	return engineWhole(record)
}

// removeEngine refuses while a vehicle has the engine: what jobs started from is copied into them, but a
// vehicle without an engine could start none.
func (s *server) removeEngine(ctx context.Context, in *EngineID) (*struct{}, error) {
	vehicles, err := s.store.With(ctx).Vehicles()
	if err != nil {
		return nil, fault(err)
	}
	var users []string
	for _, v := range vehicles {
		if v.EngineID == in.ID {
			users = append(users, v.Name)
		}
	}
	if len(users) > 0 {
		message := fmt.Sprintf("This engine sits in %s. Its sheet stays in the library.",
			strings.Join(users, ", "))
		return nil, located(http.StatusConflict, message,
			wire.Fault{Location: "id", Message: message, Value: in.ID})
	}
	if err := s.store.With(ctx).RemoveEngine(in.ID); err != nil {
		return nil, fault(err)
	}
	return nil, nil
}

// rawInput is a body that is read by the handler.
type rawInput struct {
	RawBody []byte `contentType:"application/json"`
}

// lookAtSheet says of a sheet what storing it would say, as often as somebody types. It cannot fail: a text
// that is no sheet is a report with that as its problem.
func lookAtSheet(ctx context.Context, in *rawInput) (*bodyOf[Look], error) {
	sheet, report := wire.LookAtSheet(in.RawBody)
	return &bodyOf[Look]{lookView(sheet, report)}, nil
}

// lookView gives the drawing too where there is enough for one: of a sheet with a fault in it, the engine
// still, so that whoever edits it sees which valve they speak of.
func lookView(sheet *engine.Sheet, report wire.SheetReport) Look {
	l := Look{OK: len(report.Problems) == 0, Problems: wire.List(report.Problems),
		Warnings: wire.List(report.Warnings), Assumed: wire.List(report.Assumed)}
	if sheet == nil {
		return l
	}
	l.Margin = wire.Deg(sheet.EffectiveMargin())
	if l.OK {
		v := engineView(sheet)
		l.Engine = &v
		return l
	}
	if sheet.Drawable() {
		v := stillView(sheet)
		l.Engine = &v
	}
	return l
}

// startInput is the shape of an engine that is begun.
type startInput struct {
	Layout    string `query:"layout" enum:"inline,vee,flat,other" required:"true"`
	Cylinders int    `query:"cylinders" minimum:"1" maximum:"16" required:"true"`
	Valves    int    `query:"valves" minimum:"2" maximum:"5" required:"true" doc:"per cylinder"`
}

// sheetStart is a sheet that reads, made from a shape, with the firing orders that are widely printed for it;
// none is chosen for anybody.
func sheetStart(ctx context.Context, in *startInput) (*bodyOf[SheetStart], error) {
	sheet, err := engine.Start(engine.Layout(in.Layout), in.Cylinders, in.Valves)
	if err != nil {
		return nil, located(http.StatusUnprocessableEntity, err.Error()+".")
	}
	text, err := wire.WriteSheet(sheet)
	if err != nil {
		return nil, fault(err)
	}
	out := SheetStart{Sheet: text, Orders: []UsualOrder{}, Source: engine.UsualSource}
	for _, u := range engine.UsualOrders(sheet.Layout, in.Cylinders) {
		out.Orders = append(out.Orders, UsualOrder{u.Order})
	}
	return &bodyOf[SheetStart]{out}, nil
}
