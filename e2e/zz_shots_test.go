package e2e

import (
	"fmt"
	"os"
	"testing"
)

func TestShots(t *testing.T) {
	r := demo(t)
	shot := func(name, path string, w, h int, theme string, do func(p *tab)) {
		p := open(t, r, "/", w, h)
		p.MustEval(`t => localStorage.setItem('metronix.theme', t)`, theme)
		p.visit(path)
		if do != nil {
			do(p)
		}
		p.MustWaitStable()
		b := p.MustScreenshot()
		os.WriteFile("/tmp/shot-"+name+".png", b, 0o644)
		p.MustClose()
		fmt.Println(name)
	}
	switch os.Getenv("SHOTS") {
	case "zoom":
		job, _ := atAStop(t, r, "brindlow-1600")
		shot("zoom", "/jobs/"+job, 640, 400, "night", func(p *tab) { p.see(".rung.cursor"); p.Keyboard.Type(50); p.see(".strip") })
	case "b":
		atAStop(t, r, "brindlow-6000")
		shot("board", "/", 1280, 800, "night", func(p *tab) { p.see(".strip") })
	case "a":
		job, _ := atAStop(t, r, "brindlow-6000")
		shot("v12", "/jobs/"+job, 1280, 800, "day", func(p *tab) { p.see(".rung.cursor") })
		shot("v12find", "/jobs/"+job, 1280, 800, "night", func(p *tab) { p.see(".rung.cursor"); p.press("Where am I?"); p.see(".find") })
		shot("phone", "/jobs/"+job, 360, 740, "day", func(p *tab) { p.see(".rung.cursor") })
		shot("start", "/start", 1280, 960, "day", func(p *tab) { p.press("Bakery round van"); p.press("Correct Bakery"); p.see(".new") })
		shot("tidy", "/", 1280, 800, "night", func(p *tab) { p.see(".strip"); p.press("Tidy"); p.see("[aria-label='Taken off the board']") })
		shot("sum", "/sums/judge?in=thou&lower=8&upper=10&readings=8+%2B+2+drag&owned=8+10+12&rule=workshop&feel=.2", 1280, 800, "day", func(p *tab) { p.see(".large, .faults") })
	}
}
