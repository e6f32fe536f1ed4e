// Package verdict holds the one finding type of the whole product, from the
// gates to the command line, the API and the screen.
package verdict

import (
	"yokeswap/core/facts/fleet"
)

// Level grades a finding. A gate's verdict is the worst of its findings, a
// quad's the worst of its gates.
type Level string

// The levels, from best to worst.
const (
	Fits    Level = "fits"    // works as planned
	Caution Level = "caution" // works, with a warning
	Change  Level = "change"  // works after a change the plan can make
	Unknown Level = "unknown" // a value needed to judge is missing
	Unfit   Level = "unfit"   // does not work
)

// Rank orders the levels: 0 for fits up to 4 for unfit. A level that is none
// of the five ranks worst of all.
func (l Level) Rank() int {
	switch l {
	case Fits:
		return 0
	case Caution:
		return 1
	case Change:
		return 2
	case Unknown:
		return 3
	case Unfit:
		return 4
	}
	return 5
}

// WorseThan orders two levels.
func (l Level) WorseThan(m Level) bool { return l.Rank() > m.Rank() }

// Gate is one area of checks.
type Gate string

// The gates judged so far, in bench order.
const (
	Link    Gate = "link"
	Power   Gate = "power"
	Pins    Gate = "pins"
	Antenna Gate = "antenna"
	Mount   Gate = "mount"
	OSD     Gate = "osd"
	Control Gate = "control"
)

// Code names a finding for good: tests, help texts and translations hang on it.
type Code string

// Finding is one thing a gate says.
type Finding struct {
	Gate     Gate      `json:"gate"`
	Code     Code      `json:"code"`
	Level    Level     `json:"level"`
	Danger   Danger    `json:"danger,omitempty"` // absent: it fits
	Subject  string    `json:"subject"`          // the part it is about, by name
	Part     string    `json:"part,omitempty"`   // and as the fit names it; empty: the quad, or its air unit
	Says     string    `json:"says"`             // one plain sentence
	Compares []Compare `json:"compares,omitempty"`
	Missing  []Missing `json:"missing,omitempty"` // unknown: the values that are missing
	// Supposing is what of the values left open it is said for, the worst there can be:
	// "input peak of Aldine Two 12 W, stated as 8 W to 12 W". Absent: it holds for all.
	Supposing []string `json:"supposing,omitempty"`
	Fixes     []Fix    `json:"fixes,omitempty"`
	Source    string   `json:"source"`
}

// Compare is one comparison behind a finding, with units.
type Compare struct {
	What   string `json:"what"`
	Needed string `json:"needed"`
	There  string `json:"there"`
	Margin string `json:"margin,omitempty"`
}

// Missing names a value that a gate needs and nobody has stated.
type Missing struct {
	Of    string `json:"of"`    // "gear", "kit" or "quad"
	ID    string `json:"id"`    // which one
	Field string `json:"field"` // its path, as in the open formats
	Label string `json:"label"` // in words: "highest input voltage of Aldine Two"
}

// Fix is a change the engine has tried, with the verdict that results.
type Fix struct {
	Says  string      `json:"says"`            // made from the patch
	Costs string      `json:"costs,omitempty"` // "to buy", "7 g"
	Patch fleet.Patch `json:"patch"`
	Gate  Level       `json:"gate"` // this gate's verdict afterwards
	Quad  Level       `json:"quad"` // the quad's verdict afterwards
	// Danger is the greatest left on the quad afterwards.
	Danger Danger `json:"danger,omitempty"`
	// Warns is what it brings that was not there before: one-way doors, bindings
	// lost, uses given up.
	Warns []string `json:"warns,omitempty"`
}

// Candidate is a change worth trying. A gate proposes it; whether it helps is
// found out by judging the fit again with it.
type Candidate struct {
	Costs  string // beside parts: "its settings are loaded anew"
	Gains  string // what it brings, where that can be said: "+2.1 dB on 5.8 GHz"
	Effort Effort
	Patch  fleet.Patch
}

// Effort orders changes by what they ask of the builder.
type Effort int

// The efforts, least first.
const (
	Setting Effort = iota // firmware, a mode
	Other                 // other goggles or another controller that is there
	Wire                  // a wire, a jumper or a small part soldered
	Part                  // a part of the quad changed
)

// Worst is the worst level of the findings. No finding at all is unknown: a
// gate that says nothing has judged nothing.
func Worst(findings []Finding) Level {
	if len(findings) == 0 {
		return Unknown
	}
	worst := Fits
	for i := range findings {
		if findings[i].Level.WorseThan(worst) {
			worst = findings[i].Level
		}
	}
	return worst
}

// WorstOf is the worst of the levels, and unknown where there is none.
func WorstOf(levels ...Level) Level {
	if len(levels) == 0 {
		return Unknown
	}
	worst := Fits
	for _, l := range levels {
		if l.WorseThan(worst) {
			worst = l
		}
	}
	return worst
}

// CannotTell is the finding for missing values; says lists them.
func CannotTell(gate Gate, code Code, subject string, missing ...Missing) Finding {
	says := "unknown: "
	for i, m := range missing {
		if i > 0 {
			says += "; "
		}
		says += m.Label
	}
	return Finding{Gate: gate, Code: code, Level: Unknown, Subject: subject, Says: says, Missing: missing,
		Source: "nothing stated"}
}
