package api_test

import (
	"database/sql"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	_ "github.com/mattn/go-sqlite3"
	"github.com/stretchr/testify/require"
)

// One reading over HTTP, acknowledged on disk, against a bare insert of the same row with the same durability
// and against the machine's plain fsync: the three take turns in one run, and the ratio is of their medians.
func BenchmarkStoredReading(b *testing.B) {
	d := withJob(b).begun()
	server := httptest.NewServer(d.http)
	defer server.Close()
	client := server.Client()
	bare := bareInsert(b)
	file, err := os.Create(filepath.Join(b.TempDir(), "plain"))
	require.NoError(b, err)
	defer file.Close()

	var viaHTTP, viaSQL, plain []time.Duration
	n, newest := 0, "happening-003"
	timed := func(list *[]time.Duration, f func()) {
		began := time.Now()
		f()
		*list = append(*list, time.Since(began))
	}
	for b.Loop() {
		n++
		send := func(kind, more string) {
			body := fmt.Sprintf(`{"id":"bench-%06d-%s","kind":%q,"valve":"E1","seen":%q%s}`,
				n, kind, kind, newest, more)
			newest = fmt.Sprintf("bench-%06d-%s", n, kind)
			answer, err := client.Post(server.URL+"/api/v1/jobs/job-0001/happenings?changes=true",
				"application/json",
				strings.NewReader(body))
			if err != nil || answer.StatusCode != http.StatusOK {
				b.Fatal(err, answer)
			}
			// so that the connection is used again, as a browser does
			_, err = io.Copy(io.Discard, answer.Body)
			require.NoError(b, err)
			answer.Body.Close()
		}
		timed(&viaHTTP, func() { send("reading", `,"leaves_mm":[0.3],"feel":"drag"`) })
		send("withdrawn", `,"index":0`)
		timed(&viaSQL, func() { bare(n) })
		timed(&plain, func() {
			if _, err := file.Write(make([]byte, 4096)); err != nil {
				b.Fatal(err)
			}
			if err := file.Sync(); err != nil {
				b.Fatal(err)
			}
		})
	}
	median := func(list []time.Duration) float64 {
		slices.Sort(list)
		return float64(list[len(list)/2]) / float64(time.Microsecond)
	}
	h, s, p := median(viaHTTP), median(viaSQL), median(plain)
	b.ReportMetric(h, "µs-http")
	b.ReportMetric(s, "µs-bare-insert")
	b.ReportMetric(p, "µs-fsync")
	b.ReportMetric(h/s, "http/bare")
	b.ReportMetric(0, "ns/op")
}

func bareInsert(b *testing.B) func(n int) {
	db, err := sql.Open("sqlite3",
		"file:"+filepath.Join(b.TempDir(), "bare.db")+
			"?_journal_mode=WAL&_synchronous=FULL&_foreign_keys=on&_txlock=immediate")
	require.NoError(b, err)
	b.Cleanup(func() { db.Close() })
	db.SetMaxOpenConns(1)
	_, err = db.Exec(`CREATE TABLE jobs (id TEXT PRIMARY KEY); INSERT INTO jobs VALUES ('job-0001');
		CREATE TABLE happenings (seq INTEGER PRIMARY KEY AUTOINCREMENT, job_id TEXT NOT NULL REFERENCES jobs(id), place INTEGER NOT NULL,
		client_id TEXT NOT NULL, kind TEXT NOT NULL, body TEXT NOT NULL, at DATETIME NOT NULL, UNIQUE (job_id, place), UNIQUE (job_id, client_id))`)
	require.NoError(b, err)
	insert, err := db.Prepare(
		`INSERT INTO happenings (job_id, place, client_id, kind, body, at) VALUES (?, ?, ?, ?, ?, ?)`)
	require.NoError(b, err)
	return func(n int) {
		if _, err := insert.Exec("job-0001", n, fmt.Sprintf("bench-%06d", n), "reading",
			`{"valve":"E1","leaves_nm":[300000],"feel":"drag"}`, time.Now()); err != nil {
			b.Fatal(err)
		}
	}
}
