package format

import (
	"time"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// checkLies checks where parts of a fit lie: each part once, and one that is there or can
// be; each plate left off once.
func checkLies(ps *Problems, path string, f *fleet.Fit) {
	off := map[string]string{}
	for i, id := range f.LeftOff {
		once(ps, off, path+"."+indexed("leftOff", i), id)
	}
	if a := f.Antennas; a != nil && len(a.Stands) > len(a.Models) {
		ps.add(path+".antennas.stands", "expected a place for each of %d antennas at most, got %d", len(a.Models),
			len(a.Stands))
	}
	lies := map[string]string{}
	for i, p := range f.Places {
		at := path + "." + indexed("places", i)
		once(ps, lies, at+".part", p.Part)
		if !f.CanLie(p.Part) {
			ps.add(at+".part", "expected airUnit, board, receiver, camera, pack, or the id of a part of this fit, %q is none",
				p.Part)
		}
	}
}

// checkRoom checks the blocks of a frame: edges and ends the right way round.
func checkRoom(ps *Problems, path string, f *gear.Frame) {
	before, plates := len(*ps), map[string]string{}
	for i, p := range f.Plates {
		at := path + "." + indexed("plates", i)
		once(ps, plates, at+".id", p.ID)
		if p.ToXMM <= p.FromXMM {
			ps.add(at+".toXMM", "expected a front edge before the rear edge at %s, got %s", p.FromXMM, p.ToXMM)
		}
		checkPlate(ps, at, &f.Plates[i])
	}
	named := func(at, id string) {
		if id != "" && len(f.Plates) > 0 && plates[id] == "" {
			ps.add(path+"."+at, "expected the id of one of its plates, %q is none", id)
		}
	}
	named("cameraCover", f.CameraCover)
	for i := range f.Bays {
		named(indexed("bays", i)+".on", f.Bays[i].On)
		named(indexed("bays", i)+".cover", f.Bays[i].Cover)
	}
	if len(*ps) == before { // else what is wrong is said already
		checkHoles(ps, path, f)
	}
	for i, p := range f.Posts {
		if p.FromMM != nil && p.ToMM != nil && *p.ToMM <= *p.FromMM {
			ps.add(path+"."+indexed("posts", i)+".toMM", "expected a top over the foot at %s, got %s", p.FromMM, p.ToMM)
		}
	}
}

// checkHoldings checks how parts of a fit are held: each part once, and one that is there or
// can be; a second way that is another; a day only beside what comes on it.
func checkHoldings(ps *Problems, path string, f *fleet.Fit) {
	held := map[string]string{}
	for i, h := range f.Holdings {
		at := path + "." + indexed("holdings", i)
		once(ps, held, at+".part", h.Part)
		if !f.CanHold(h.Part) {
			ps.add(at+".part", "expected airUnit, camera, antennas, receiver, or the id of a part of this fit, %q is none",
				h.Part)
		}
		if h.Bracket != "" && !h.Formed() {
			ps.add(at+".bracket", "what holds it is stated to be %s: a model is stated of a bracket, a cage or a clip", h.Way)
		}
		if h.Second == h.Way {
			ps.add(at+".second", "expected another way than the first, got %q twice", h.Way)
		}
		if h.InsideMM != nil && h.Part != fleet.NodeCamera {
			ps.add(at+".insideMM", "a clear width is asked of what holds the camera, not of what holds %s", h.Part)
		}
		if h.Due == "" {
			continue
		}
		if _, err := time.Parse(time.DateOnly, h.Due); err != nil {
			ps.add(at+".due", "%s is no day of the calendar", h.Due)
		}
		if h.Awaits == "" {
			ps.add(at+".due", "nothing is awaited: state what comes on that day")
		}
	}
}
