package e2e
import ("testing";"os";"github.com/go-rod/rod/lib/input")
func TestZZ(t *testing.T) {
	r := demo(t)
	p := open(t, r, "/practice", 1280, 800)
	p.press("Guided: the bench leads")
	p.MustElementR(".exercise", "hot").MustClick()
	p.press("One cylinder at a time")
	p.shows("Go on by it")
	os.WriteFile("/tmp/w/a.png", p.pictured(), 0o644)
	p.keys(input.Enter)
	p.says("until")
	path:=p.MustEval(`() => location.pathname`).Str()
	l := &led{t: t, at: r.base + "/api/v1" + path}
	l.asks()
	l.until()
	p.again()
	p.see(".now h2")
	q := themed(t, r, "dark", path, 360, 740)
	q.see(".now h2")
	os.WriteFile("/tmp/w/b.png", q.pictured(), 0o644)
	// a twelve with 48 valves: a handbook page from it on a phone
}
