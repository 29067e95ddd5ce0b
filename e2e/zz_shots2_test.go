package e2e
import ("testing";"os")
func TestShotsB(t *testing.T) {
	r := demo(t)
	for _, c := range []struct{e, st string; w, h int}{{"holmgarth-2000","lock",1024,768},{"ostrane-1300","conflict",1024,768},{"sarnmoor-500","adjust",360,740}} {
		d := driven(t, r, c.e, waysOf(t, r, c.e)[0])
		if !d.until(c.st) { t.Log("no"); continue }
		p := open(t, r, "/jobs/"+d.job, c.w, c.h)
		p.see(".now h2")
		if c.st == "conflict" { p.see(".rung.cursor"); d.disagree(p) }
		p.MustWaitStable()
		os.WriteFile("/tmp/shot-"+c.st+".png", p.MustScreenshot(), 0o644)
	}
}
