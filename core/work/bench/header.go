package bench

import (
	"fmt"
	"reflect"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/gates/pins"
)

// headers solders the headers of the air unit's cable and of the parts that are wired anew.
func (w *writer) headers() {
	if run, ok := netlist.AirUnit(w.Case); ok && w.hasAir && w.rewired() {
		had := w.Quad.Now.Headers
		if w.newUnit {
			had.Header = nil
		}
		if w.returns != nil {
			had.Header = w.returns.Header
		}
		w.headersOf(run, had)
	}
	for _, run := range pins.Rewired(w.Case) {
		had := fleet.Headers{}
		if was, there := w.Quad.Now.Part(run.Node); there {
			had = was.Headers
		} else if c := w.Quad.Now.ReceiverCable; c != nil && run.Node == fleet.NodeReceiver {
			had = c.Headers
		}
		w.headersOf(run, had)
	}
}

func (w *writer) headersOf(run *netlist.Run, had fleet.Headers) {
	if !reflect.DeepEqual(run.Headers.Header, had.Header) {
		w.solderHeader(run.Headers.Header, run.Row, run.Label(), pins.PinWords)
	}
	if !reflect.DeepEqual(run.BoardHeader, had.BoardHeader) || w.otherBoard() {
		of := ""
		if board, ok := w.Board(); ok && run.IntoRow != nil {
			of = run.IntoRow.Label() + " of " + board.Label()
		}
		w.solderHeader(run.BoardHeader, run.IntoRow, of, func(pin string) string { return pins.TerminalWords(w.Case, pin) })
	}
}

// solderHeader is one header onto one row of pads: which way round, one pad first, each
// pin metered through to its pad before it is closed (common practice).
func (w *writer) solderHeader(on *fleet.Header, row *gear.Plug, of string, words func(pin string) string) {
	if on == nil || row == nil {
		return
	}
	h, ok := gear.Find[*gear.Header](w.Library, on.Model)
	if !ok {
		return
	}
	pads := len(row.Pins)
	pinOn := func(pad int) int {
		if on.Turned {
			return pads + 1 - pad
		}
		return pad
	}
	step := Step{
		ID:    fmt.Sprintf("header:%s:%s:%t", of, h.ID, on.Turned),
		Phase: Feed,
		Title: fmt.Sprintf("Solder the %s onto the pads of %s", h.Label(), of),
		Do: []string{
			"Insulate what lies under and beside it: tape or heat-shrink, only the row of pads stays bare. Tin the pads thinly.",
		},
		Tools:     []string{toolIron, "loupe", "multimeter"},
		Materials: []string{h.Label(), "solder", "heat-shrink"},
		Cautions: []string{cautionIron,
			"The wrong way round it puts the supply on a signal, and that destroys the part: look twice before any solder."},
		Reading: &Reading{
			Label: "each pin through to its own pad, and no two together", Choices: []string{"yes", "no"}, Expected: "yes",
			Wrong: "Look for a bridge, a pad that was not wetted, or the header one pad off. Lift it while it is only tacked.",
		},
	}
	for pad, pin := range row.Pins {
		if pin == gear.PinSupply || pad == 0 {
			step.Do = append(step.Do, fmt.Sprintf("Lay it on: pad %d, %s, under pin %d of the header.", pad+1, words(pin),
				pinOn(pad+1)))
		}
	}
	step.Do = append(step.Do,
		fmt.Sprintf("Tack one pad alone. Look from both sides whether the other %d lie over theirs; heat it again and shift "+
			"it until they do. Then the rest.", pads-1),
		"Meter on continuity, nothing plugged in:")
	for pad, pin := range row.Pins {
		if pin != "" {
			step.Do = append(step.Do, fmt.Sprintf("pin %d to pad %d, %s: connected, and open to its neighbours but for ground "+
				"to ground.", pinOn(pad+1), pad+1, words(pin)))
		}
	}
	step.Do = append(step.Do, "Close it with heat-shrink, and meter the supply to its neighbours once more.")
	w.add(step)
}
