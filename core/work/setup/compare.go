package setup

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/control"
	"yokeswap/core/gates/osd"
	"yokeswap/core/gates/pins"
)

// The findings of a board that was read.
const (
	CodeIdentity   verdict.Code = "board.identity"
	CodeArmed      verdict.Code = "board.armed"
	CodeRelease    verdict.Code = "board.release"
	CodePort       verdict.Code = "board.port" // of the air unit
	CodeSticksPort verdict.Code = "board.sticks-port"
	CodeOtherPort  verdict.Code = "board.other-port"
	CodeFeature    verdict.Code = "board.feature"
	CodeOSDFeature verdict.Code = "board.osd-feature"
	CodeReceiver   verdict.Code = "board.receiver" // its protocol
	CodeOrder      verdict.Code = "board.channel-order"
	CodeModes      verdict.Code = "board.modes"
	CodeCanvas     verdict.Code = "board.canvas"
	CodeLayout     verdict.Code = "board.layout"
	CodeBlank      verdict.Code = "board.layout-blank" // no element shows at all
)

// Row is one setting, as it is wanted and as it was found.
type Row struct {
	Code    verdict.Code     `json:"code"`
	Label   string           `json:"label"`
	Wanted  string           `json:"wanted"`
	Found   string           `json:"found"`
	Same    bool             `json:"same"`
	Why     string           `json:"why"`
	Finding *verdict.Finding `json:"finding,omitempty"` // where they differ
}

// Comparison holds a board against a plan.
type Comparison struct {
	Says string `json:"says"`
	Rows []Row  `json:"rows"`
	// Blocked says why nothing may be written; empty: it may.
	Blocked string `json:"blocked,omitempty"`
	// Missing is what the plan does not say.
	Missing []verdict.Missing `json:"missing,omitempty"`
	// Target is the board as it is to be: as found, with the settings wanted.
	Target State `json:"-"`
}

// Differences counts the rows that differ.
func (c *Comparison) Differences() (n int) {
	for i := range c.Rows {
		if !c.Rows[i].Same {
			n++
		}
	}
	return n
}

// comparing is a comparison under way.
type comparing struct {
	fleet.Case
	runs *gear.FlightFirmware
	Comparison
	found State
}

// Compare holds what was read off a board against the plan of a quad.
func Compare(c fleet.Case, found State) Comparison {
	w := &comparing{Case: c, found: found}
	w.Rows, w.Target = []Row{}, found.Clone()
	if r := c.Fit.Runs; r != nil {
		w.runs, _ = gear.Find[*gear.FlightFirmware](c.Library, r.ID)
	}
	if w.runs == nil {
		w.Missing = append(w.Missing, verdict.Missing{
			Of:    "quad",
			ID:    c.Quad.ID,
			Field: c.FitName + ".runs",
			Label: "flight firmware of " + c.Quad.Label(),
		})
		w.Blocked = "The plan does not say which flight firmware this is: nothing is written."
	} else {
		w.leftOpen()
		w.identity()
		w.ports()
		w.features()
		w.receiver()
		w.modes()
		w.layout()
	}
	switch n := w.Differences(); {
	case w.Blocked != "":
		w.Says = w.Blocked
	case n == 0 && len(w.Missing) > 0:
		w.Says = "What the plan says of the board is set. It does not say all."
	case n == 0:
		w.Says = "The board is set up as planned."
	case n == 1:
		w.Says = "One setting differs from the plan."
	default:
		w.Says = fmt.Sprintf("%d settings differ from the plan.", n)
	}
	return w.Comparison
}

// leftOpen names what the plan does not say, so that it is not taken for right.
func (w *comparing) leftOpen() {
	open := func(said bool, field, label string) {
		if !said {
			w.Missing = append(w.Missing, verdict.FitValue(w.Case, field, label+" of "+w.Quad.Label()))
		}
	}
	open(w.Fit.Runs.Version.Known(), "runs.version", "release of "+w.runs.Label())
	open(w.Fit.Sticks != nil, "sticks", "channels and switches")
	_, known := pins.SticksPort(w.Case)
	open(known, "ports", "serial port of the sticks")
	if _, _, hasUnit := w.AirUnit(); hasUnit {
		open(w.Fit.OSD != nil, "osd", "OSD layout")
		_, known = pins.MSPPort(w.Case)
		open(known, "ports", "serial port of the air unit")
	}
}

// row adds a setting; change says what to set where it differs.
func (w *comparing) row(gate verdict.Gate, code verdict.Code, label, wanted, found, why, change string) {
	r := Row{Code: code, Label: label, Wanted: wanted, Found: found, Same: wanted == found, Why: why}
	if !r.Same {
		r.Finding = &verdict.Finding{
			Gate:     gate,
			Code:     code,
			Level:    verdict.Change,
			Subject:  w.Quad.Label(),
			Source:   verdict.Practice,
			Says:     fmt.Sprintf("%s: %s.", label, change),
			Compares: []verdict.Compare{{What: label, Needed: wanted, There: found}},
		}
	}
	w.Rows = append(w.Rows, r)
}

// lacks is a row for what the board does not have: it is left out, and said so.
func (w *comparing) lacks(gate verdict.Gate, code verdict.Code, label, says string) {
	w.Rows = append(w.Rows, Row{Code: code, Label: label, Wanted: "as planned", Found: "the board has none", Why: says,
		Finding: &verdict.Finding{
			Gate:    gate,
			Code:    code,
			Level:   verdict.Unfit,
			Subject: w.Quad.Label(),
			Source:  verdict.Practice,
			Says:    verdict.Capital(label) + ": " + says + ".",
		}})
}

// identity asks whether this is the board of the plan at all. A board that is armed,
// or that runs something else, is not written.
func (w *comparing) identity() {
	w.row(verdict.OSD, CodeIdentity, "flight firmware", w.runs.Variant, w.found.Variant,
		"the numbers of another firmware mean other things", "another board, or flash "+w.runs.Label()+" first")
	if w.runs.Variant == "" || w.runs.Variant != w.found.Variant {
		w.Blocked = fmt.Sprintf("This board says it runs %q, the plan is for %s (%q): nothing is written.", w.found.Variant,
			w.runs.Label(), w.runs.Variant)
	}
	if wanted := w.Fit.Runs.Version; wanted.Known() {
		found := string(w.found.Version)
		if wanted.Compare(w.found.Version) == 0 {
			found = string(wanted)
		}
		w.row(verdict.OSD, CodeRelease, "its release", string(wanted), found, "the plan was judged for it",
			"flash "+string(wanted)+", or plan with what is there")
	}
	if w.found.Armed {
		w.Blocked = "The board is armed: disarm it, take the pack and the props off. Nothing is written."
		w.row(verdict.Control, CodeArmed, "armed", "no", "yes", "what is armed can start", "disarm it")
	}
}

func onOff(on bool) string {
	if on {
		return "on"
	}
	return "off"
}

// feature is one that a fit takes, and why.
type feature struct {
	code      verdict.Code
	name, why string
}

// featuresOf are the features that a fit takes, of those its firmware has. The OSD feature is
// one although the board's own chip draws nothing: it is what makes the board send.
func featuresOf(c fleet.Case, runs *gear.FlightFirmware) (list []feature) {
	if _, _, hasUnit := c.AirUnit(); hasUnit {
		list = append(list, feature{CodeOSDFeature, gear.FeatureOSD,
			"it makes the board send, though its own chip draws nothing"})
	}
	list = append(list, feature{CodeFeature, gear.FeatureRXSerial, "the sticks come in on a serial port"})
	if runs.NeedsTelemetry != nil && *runs.NeedsTelemetry {
		list = append(list, feature{CodeFeature, gear.FeatureTelemetry, runs.Label() + " only sends back with it"})
	}
	return slices.DeleteFunc(list, func(f feature) bool {
		_, has := runs.Features[f.name]
		return !has
	})
}

// features switches on what the plan takes.
func (w *comparing) features() {
	for _, f := range featuresOf(w.Case, w.runs) {
		bit := uint32(1) << w.runs.Features[f.name]
		w.row(verdict.OSD, f.code, "feature "+f.name, "on", onOff(w.found.Features&bit != 0), f.why, "switch it on")
		w.Target.Features |= bit
	}
}

// providerOf is the receiver protocol a board is set to; empty where its sheet has no name
// for the number.
func providerOf(runs *gear.FlightFirmware, found State) string {
	for _, name := range slices.Sorted(maps.Keys(runs.Providers)) {
		if runs.Providers[name] == found.Provider {
			return name
		}
	}
	return ""
}

// receiver sets the protocol of the sticks and the channel order.
func (w *comparing) receiver() {
	if name, ok := control.Protocol(w.Case, w.runs); ok {
		number := w.runs.Providers[name]
		found := cmp.Or(providerOf(w.runs, w.found), fmt.Sprintf("number %d", w.found.Provider))
		w.row(verdict.Control, CodeReceiver, "receiver protocol", name, found, "what the sticks come as", "set it to "+name)
		w.Target.Provider = number
	}
	if s := w.Fit.Sticks; s != nil && s.Order != "" {
		w.row(verdict.Control, CodeOrder, "channel order", s.Order, w.found.RXMap, "the order the controller sends",
			"set it to "+s.Order)
		w.Target.RXMap = s.Order
	}
}

// layout sets the canvas and where each element stands.
func (w *comparing) layout() {
	pic := osd.Draw(w.Case)
	if w.Fit.OSD == nil || pic.After == nil {
		return
	}
	if w.found.Without(LacksOSD) {
		w.lacks(verdict.OSD, CodeLayout, "OSD elements",
			"the board's firmware has no OSD over this port: nothing of it is set")
		return
	}
	if pic.Screen.Canvas && w.found.Without(LacksCanvas) {
		w.lacks(verdict.OSD, CodeCanvas, "canvas", "the board's firmware has no canvas to set: it is left out")
	} else if pic.Screen.Canvas && w.runs.Dialect != "" {
		w.row(verdict.OSD, CodeCanvas, "canvas", pic.Screen.Grid.Words(), canvasWords(w.found.Canvas),
			"the grid the goggles show", "set it to "+pic.Screen.Grid.Words())
		w.Target.Canvas = pic.Screen.Grid
	}
	places := places(w.runs, w.Fit.OSD)
	code := CodeLayout
	if !slices.ContainsFunc(w.found.OSD, func(c Cell) bool { return c.Profiles != 0 }) {
		code = CodeBlank
	}
	w.row(verdict.OSD, code, "OSD elements", "as planned", w.placed(places), fmt.Sprintf("%d are placed", len(places)),
		"place them as planned")
}

// placed sets each element where it is planned, and says where it stands on the board.
func (w *comparing) placed(places map[int]Cell) string {
	var wrong, extra []string
	for i := range w.runs.Elements {
		e := &w.runs.Elements[i]
		if e.Index == nil || *e.Index >= len(w.found.OSD) {
			continue
		}
		wanted, shown := places[*e.Index]
		found := w.found.OSD[*e.Index]
		if !shown {
			wanted = Cell{X: found.X, Y: found.Y}
		}
		wanted.Rest = found.Rest
		switch {
		case wanted == found:
		case shown:
			wrong = append(wrong, e.Label())
		default:
			extra = append(extra, e.Label())
		}
		w.Target.OSD[*e.Index] = wanted
	}
	var words []string
	if len(wrong) > 0 {
		words = append(words, "elsewhere or not shown: "+strings.Join(wrong, ", "))
	}
	if len(extra) > 0 {
		words = append(words, "shown and not planned: "+strings.Join(extra, ", "))
	}
	if len(words) == 0 {
		return "as planned"
	}
	return strings.Join(words, "; ")
}

// places is where the elements of a layout stand, by their place in the board's list.
func places(runs *gear.FlightFirmware, l *fleet.Layout) map[int]Cell {
	at := map[int]Cell{}
	for _, e := range l.Elements {
		if el, ok := runs.Element(e.ID); ok && el.Index != nil {
			at[*el.Index] = Cell{X: e.X, Y: e.Y, Profiles: e.ProfileBits()}
		}
	}
	return at
}

func canvasWords(g gear.Grid) string {
	if g == "" {
		return "none"
	}
	return g.Words()
}
