package mount

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// way is what a way of holding is worth.
type way struct {
	loose   bool   // it lets go in the end: caution at best
	sticks  bool   // it holds by what sticks
	screwed bool   // it has, or has not, screws of its own
	minds   string // what it suffers from
	does    string // how it is put on
}

// ways are the ways of holding beside screws (common practice).
var ways = map[fleet.Way]way{
	fleet.HeldByBracket: {
		screwed: true,
		does:    "Try the part in its bracket before anything is screwed down: it goes in without force.",
	},
	fleet.HeldByCage: {
		screwed: true,
		does:    "Try the camera in its cage first: it turns without force and does not rattle.",
	},
	fleet.HeldByClip: {
		screwed: true,
		does:    "Press the clip onto the standoff before the top plate goes on.",
	},
	fleet.HeldBySoft: {
		loose:  true,
		sticks: true,
		minds:  "it swings in flight, so the leads want slack, and warmth loosens it",
		does:   "Clean both sides with alcohol, stick the pad on without stretching it, and leave slack in the leads.",
	},
	fleet.HeldByTape: {
		loose:  true,
		sticks: true,
		minds:  "warmth softens it and a crash shears it off",
		does:   "Clean both sides with alcohol, stick it on at room temperature and press for half a minute.",
	},
	fleet.HeldByStrap: {
		loose: true,
		minds: "edges of carbon rub it through, and it stretches",
		does:  "Lay the strap where no edge of carbon rubs it, and pull it tight again after the first packs.",
	},
	fleet.HeldByTies: {
		loose: true,
		minds: "edges of carbon cut them, and sun makes them brittle",
		does:  "Two ties at least, something round under each edge of carbon, their ends cut off short.",
	},
}

// HowToHold says what to do for a holding, a sentence each.
func HowToHold(h *fleet.Hold) []string {
	list := []string{}
	for _, w := range []fleet.Way{h.Way, h.Second} {
		if does := ways[w].does; does != "" && (w != h.Way || len(list) == 0) {
			list = append(list, does)
		}
	}
	return list
}

// leastSoftensC is what holds a part that gets hot has to stand, in degrees Celsius: a unit
// without moving air gets to 80 and more (common practice; from memory).
const leastSoftensC = 90.0

// holdValue is a value of a holding that is not stated.
func (s *seat) holdValue(h *fleet.Hold, field, words string) verdict.Missing {
	return verdict.FitValue(s.Case, "holdings."+h.Part+"."+field, words)
}

// checkHoldings judges every part that is held in another way than by its own screws.
func (s *seat) checkHoldings() (findings []verdict.Finding) {
	for _, h := range s.HeldParts() {
		for _, f := range s.checkHolding(h.Hold, h.Label) {
			f.Subject, f.Source = h.Label, verdict.Practice
			if h.Part != fleet.NodeCamera && h.Part != fleet.NodeAntennas {
				f.Part = h.Part
			}
			findings = append(findings, f)
		}
	}
	return findings
}

func (s *seat) checkHolding(h *fleet.Hold, label string) (findings []verdict.Finding) {
	is := ways[h.Way]
	alone := single(h)
	switch {
	case alone && h.NearProps == nil:
		findings = append(findings, verdict.CannotTell(verdict.Mount, CodeHeld, label,
			s.holdValue(h, "nearProps", "whether "+label+" reaches a propeller should it come loose")))
	case alone && *h.NearProps:
		findings = append(findings, verdict.Finding{Code: CodeOnce, Level: verdict.Unfit,
			Compares: []verdict.Compare{{
				What:   "holds that do not depend on one another",
				Needed: "2 beside a propeller",
				There:  "1",
			}},
			Says: fmt.Sprintf("%s is held by %s alone, and reaches a propeller when that lets go. Beside propellers two "+
				"holds are wanted that do not depend on one another.", label, h.Words())})
	case is.loose:
		f := verdict.Finding{Code: CodeHeld, Level: verdict.Caution, Says: fmt.Sprintf(
			"%s is held by %s: %s. Look at it after the first packs and after each crash.", label, h.Words(), minds(h))}
		if independent(h) {
			f.Code = CodeTwice
		}
		findings = append(findings, f)
	case is.screwed && h.Screws == nil:
		findings = append(findings, verdict.CannotTell(verdict.Mount, CodeHeld, label,
			s.holdValue(h, "screws", "how many screws of its own hold what holds "+label)))
	}
	findings = append(findings, s.checkBracket(h, label)...)
	findings = append(findings, s.checkSoftening(h, label)...)
	if h.Awaits != "" {
		f := verdict.Finding{Code: CodeStopGap, Level: verdict.Caution, Says: fmt.Sprintf(
			"%s is held by %s as a stop-gap, until this comes: %s.", label, h.Words(), h.Awaits)}
		if h.Due != "" {
			f.Compares = []verdict.Compare{{What: "what it waits for", Needed: "by " + h.Due, There: "open"}}
		}
		findings = append(findings, f)
	}
	return findings
}

// single says whether a part hangs on one hold that lets go: what clamps without a screw does
// in a crash, as tape does.
func single(h *fleet.Hold) bool {
	is := ways[h.Way]
	return (is.loose || is.screwed && h.Screws != nil && *h.Screws == 0) && !independent(h)
}

// independent says whether the second hold of a part stays when the first lets go: it is
// another way, and not both of them stick.
func independent(h *fleet.Hold) bool {
	if h.Second == "" || h.Second == h.Way {
		return false
	}
	return !ways[h.Way].sticks || !ways[h.Second].sticks
}

// minds is what the ways of a holding want.
func minds(h *fleet.Hold) string {
	text := ways[h.Way].minds
	if second := ways[h.Second].minds; second != "" && h.Second != h.Way {
		text += "; " + second
	}
	return text
}

// checkSoftening asks whether what is formed around a part that gets hot stands it.
func (s *seat) checkSoftening(h *fleet.Hold, label string) []verdict.Finding {
	hot := h.Part == fleet.NodeAirUnit && (h.Way == fleet.HeldByBracket || h.Way == fleet.HeldByCage)
	switch {
	case !hot || h.SoftensC != nil && *h.SoftensC >= leastSoftensC:
		return nil
	case h.SoftensC == nil:
		return []verdict.Finding{{Code: CodeSoftens, Level: verdict.Caution, Says: fmt.Sprintf("%s gets hot, and where its "+
			"bracket softens is not stated: common prints give way from 60 °C.", label)}}
	}
	return []verdict.Finding{{Code: CodeSoftens, Level: verdict.Caution,
		Compares: []verdict.Compare{{
			What:   "what holds it softens",
			Needed: fmt.Sprintf("not below %.0f °C", leastSoftensC),
			There:  fmt.Sprintf("%.0f °C", *h.SoftensC),
		}},
		Says: fmt.Sprintf("The bracket of %s softens at %.0f °C: without moving air the unit gets hotter. Keep the runs on "+
			"the bench short, or print it of something that stands more.", label, *h.SoftensC)}}
}

// checkHeldCamera asks whether the camera goes into what holds it in the place of the
// frame's cage.
func (s *seat) checkHeldCamera(cam *gear.Camera, h *fleet.Hold) (f verdict.Finding, missing []verdict.Missing) {
	if h.Way != fleet.HeldByCage && h.Way != fleet.HeldByBracket {
		f.Code, f.Level = CodeCage, verdict.Caution
		f.Says = "The camera is in no cage: it turns in a crash, and the recording shakes."
		return f, nil
	}
	if cam.WidthMM == nil {
		missing = append(missing, s.cameraValue("widthMM", "camera width"))
	}
	if h.InsideMM == nil {
		missing = append(missing, s.holdValue(h, "insideMM", "clear width of the camera's own cage"))
	}
	if len(missing) > 0 {
		return f, missing
	}
	gap := unit.Less(*h.InsideMM, *cam.WidthMM)
	switch {
	case unit.Over(-cageSlack, gap):
		f.Code, f.Level = CodeCage, verdict.Unfit
		f.Says = fmt.Sprintf("The camera is %s wide, its own cage %s: it does not go in.", cam.WidthMM, h.InsideMM)
	case unit.Over(gap, cageSlack):
		f.Code, f.Level = CodeCage, verdict.Caution
		f.Says = fmt.Sprintf("The camera is %s wide in a cage of %s: spacers of %s on each side.", cam.WidthMM, h.InsideMM,
			gap/2)
	}
	return f, nil
}

// secondHolds are the holdings of the fit that are too few, each with a second way.
func (s *seat) secondHolds() (list []fleet.Hold) {
	for _, held := range s.HeldParts() {
		if !single(held.Hold) {
			continue
		}
		h := *held.Stated
		for _, second := range []fleet.Way{fleet.HeldByStrap, fleet.HeldByTies} {
			if h.Second = second; independent(&h) {
				list = append(list, h)
			}
		}
	}
	return list
}
