package e2e
import ("testing";"os";"fmt")
func TestZZ(t *testing.T) {
	r := demo(t)
	p := open(t, r, "/practice", 1280, 800)
	p.press("Guided: the bench leads")
	p.MustElementR(".exercise", "hot").MustClick()
	p.press("One cylinder at a time")
	p.waits(`() => !document.body.innerText.includes('How do you go')`,"x")
	os.WriteFile("/tmp/w/a.png", p.pictured(), 0o644)
	fmt.Println(p.text())
	path:=p.MustEval(`() => location.pathname`).Str()
	l := &led{t: t, at: r.base + "/api/v1" + path}
	l.asks()
	fmt.Println(l.now.View.State.Now)
	l.does("/happenings", map[string]any{"kind":"prepared","engine_c":85,"ambient_c":20,"reason":"x"})
	l.until()
	p.again()
	p.see(".now h2")
	os.WriteFile("/tmp/w/b.png", p.pictured(), 0o644)
	fmt.Println(p.text())
}
