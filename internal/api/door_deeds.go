package api

import (
	"cmp"
	"encoding/json"
	"log/slog"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/people"
	"metronix/internal/wire"
)

// deeds are what each operation is, by which its person may do it or not: one table, and an operation that
// stands in no row nobody may do once people are set up. What is done in a job is looked at once more, by
// what it says.
var deeds = map[people.Deed][]string{
	people.Look: {
		"board-events",
		"compute",
		"due-calendar",
		"due-list",
		"engine-schema",
		"exercise-schema",
		"find-crank",
		"gauge-set-csv",
		"get-backups",
		"get-engine",
		"get-engine-ways",
		"get-gauge-study",
		"get-handbook",
		"get-instruments",
		"get-reach",
		"get-job",
		"get-job-shims",
		"get-photo",
		"get-practice",
		"get-practice-shims",
		"get-practice-ways",
		"get-progress",
		"get-study",
		"list-gauge-studies",
		"list-studies",
		"list-drills",
		"get-practice-score",
		"get-probe",
		"get-seal",
		"get-shop",
		"get-sound",
		"get-ways",
		"job-csv",
		"job-events",
		"job-json",
		"job-pdf",
		"job-sheet",
		"list-engines",
		"list-gauge-sets",
		"list-gears",
		"list-jobs",
		"list-exercises",
		"list-practice",
		"list-practice-acts",
		"list-vehicles",
		"look-at-sheet",
		"my-way",
		"open-demo",
		"open-job",
		"prove-order",
		"prove-job-order",
		"put-screen",
		"delete-screen",
		"read-gauge-csv",
		"sheet-start",
		"usual-engines",
		"vehicle-calendar",
		"vehicle-history",
		"change-pin",
	},
	people.Work: {
		"add-practice-hand",
		"answer-drill",
		"ask-drill",
		"read-gauge-study",
		"read-study",
		"slide-study",
		"start-gauge-study",
		"start-study",
		"add-practice-happening",
		"end-practice",
		"start-practice",
		"add-happening",
		"add-photo",
		"add-sound",
		"correct-job",
		"delete-hands-clear",
		"note-left-out",
		"put-hands-clear",
		"put-my-pull",
		"start-job",
	},
	people.Vouch: {
		"add-exercise",
		"agree-feel",
		"exercise-from-job",
		"get-exercise",
		"learners-csv",
		"list-learners",
		"put-skill",
		"remove-exercise",
	},
	people.Keep: {
		"add-gauge-set",
		"add-vehicle",
		"put-engine",
		"put-gauge-set",
		"put-intervals",
		"put-job-on-board",
		"put-outside-visits",
		"put-own-cards",
		"put-instruments",
		"put-shop",
		"put-vehicle",
		"put-vehicle-on-board",
		"remove-engine",
		"remove-gauge-set",
	},
	people.Run: {
		"add-person",
		"change-person",
		"export-archive",
		"import-archive",
		"list-audit",
		"list-people",
		"make-backup",
		"put-sign-out",
	},
}

// anybodys are the operations by which somebody signs in: they need nobody to be.
var anybodys = []string{"get-session", "sign-in", "sign-out"}

// deedOf is the deed that an operation is; ok is false where it stands in no row.
func deedOf(operation string) (d people.Deed, ok bool) {
	if strings.HasPrefix(operation, "compute-") {
		return people.Look, true
	}
	for d, list := range deeds {
		if slices.Contains(list, operation) {
			return d, true
		}
	}
	return "", false
}

// mayDo lets an operation be done by whoever may do it, and notes what was changed in the audit list.
func (s *server) mayDo(ctx huma.Context, next func(huma.Context)) {
	operation := ctx.Operation().OperationID
	deed, known := deedOf(operation)
	v := visitorOf(ctx.Context())
	switch {
	case known && !s.places.may(deed), operation == "import-archive" && len(s.places) > 0:
		refuseVisitor(ctx, http.StatusForbidden, notAllowedType, lookedAt)
		return
	case slices.Contains(anybodys, operation), v.open:
	case operation == "add-person" && s.nobody():
		if err := s.mayFound(ctx.Context()); err != nil {
			refuseVisitor(ctx, err.GetStatus(), "sign_in", err.Error())
			return
		}
	case v.person == nil:
		refuseVisitor(
			ctx,
			http.StatusUnauthorized,
			"sign_in",
			"Nobody is signed in here, or not any more. Sign in; nothing is lost.",
		)
		return
	case !known, !v.person.Role.May(deed):
		refuseVisitor(ctx, http.StatusForbidden, notAllowedType, notAllowed(v.person.Role))
		return
	}
	next(ctx)
	changes := slices.Contains([]people.Deed{people.Keep, people.Run, people.Vouch}, deed) && !slices.Contains(looksOnly, operation) ||
		operation == "start-job" ||
		operation == "correct-job"
	if changes && ctx.Status() < 300 && !slices.Contains(notesItself, operation) {
		if err := s.store.Note(v.noted(s.clock(), operation, aboutOf(ctx))); err != nil {
			slog.Error(
				"what was done could not be noted in the audit list",
				"operation",
				operation,
				"error",
				err,
			)
		}
	}
}

// describeSecurity writes into the document by what each operation is let in.
func describeSecurity(doc *huma.OpenAPI) {
	for _, item := range doc.Paths {
		for _, o := range []*huma.Operation{item.Get, item.Put, item.Post, item.Delete, item.Patch} {
			switch {
			case o == nil:
			case slices.Contains(anybodys, o.OperationID):
				o.Security = []map[string][]string{}
			default:
				o.Security = []map[string][]string{{"session": {}}}
			}
		}
	}
}

// looksOnly are the operations that change nothing though not everybody may do them.
var looksOnly = []string{"list-audit", "list-people", "get-exercise", "list-learners", "learners-csv"}

// notesItself are the operations that are noted together with what they store.
var notesItself = []string{"add-person", "change-person", "put-sign-out", "put-skill"}

// notAllowed says that a role may not do something, and who may.
func notAllowed(role people.Role) string {
	return "This is not for a " + string(role) + " to do. Ask a foreman, or let somebody sign in who may."
}

// aboutOf is what an operation is about: the id in its address, else in its body.
func aboutOf(ctx huma.Context) string {
	body := parsed(ctx.Context())
	return cmp.Or(ctx.Param("id"), wire.TextAt(body, "id"), wire.TextAt(body, "name"))
}

// refuseVisitor answers with a problem that a screen knows by its type.
func refuseVisitor(ctx huma.Context, status int, code, say string) {
	m := problemModel(status, say)
	m.Type = "urn:metronix:" + code
	ctx.SetHeader("Content-Type", "application/problem+json")
	ctx.SetStatus(status)
	data, err := json.Marshal(m)
	if err != nil {
		panic(err) // a problem of plain strings always encodes
	}
	_, _ = ctx.BodyWriter().Write(data)
}

// forbidden is a refusal that a screen knows by its type.
func forbidden(code, say string, faults ...wire.Fault) error {
	m := problemModel(http.StatusForbidden, say, faults...)
	m.Type = "urn:metronix:" + code
	return m
}
