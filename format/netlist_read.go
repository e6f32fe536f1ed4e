package format

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

// mostNetlist bounds a netlist: rows of a table that a person could solder.
const mostNetlist = 1000

// ReadNetlist takes the soldered wires of a netlist as Netlist writes it, and gives the
// patch that wires a fit so. What goes through a cable stays as the fit has it: a row with
// a slot of the board's plug is passed over, and a part without a row keeps its wires.
// Columns are found by their headings, in any order; unknown ones are passed over. The
// errors are Problems, each with its row.
func ReadNetlist(text []byte, c fleet.Case) (fleet.Patch, error) {
	r := csv.NewReader(bytes.NewReader(bytes.TrimPrefix(text, []byte("\ufeff"))))
	r.FieldsPerRecord = -1
	head, err := r.Read()
	if err != nil {
		return fleet.Patch{}, Problems{{Path: "row 1", Says: "expected a netlist with a heading row"}}
	}
	column := func(name string) int { return slices.Index(head, name) }
	in := netlistReader{c: c, wires: map[string][]fleet.Wire{}, part: column("part"), pin: column("from_pin"),
		slot: column("to_pin"), place: column("place"), colour: column("colour"), awg: column("awg"),
		length: column("length_mm")}
	for _, need := range []string{"part", "from_pin", "place"} {
		if column(need) < 0 {
			in.problems.add("row 1", "expected a column %q", need)
		}
	}
	for row := 2; len(in.problems) < mostProblems; row++ {
		cells, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil || row > mostNetlist {
			in.problems.add(fmt.Sprintf("row %d", row), "not a row of a netlist, or more than %d", mostNetlist)
			break
		}
		in.row(fmt.Sprintf("row %d", row), cells)
	}
	if len(in.problems) > 0 {
		return fleet.Patch{}, in.problems
	}
	return in.patch(), nil
}

// netlistReader gathers the wires of a netlist, part by part.
type netlistReader struct {
	c                                           fleet.Case
	part, pin, slot, place, colour, awg, length int // columns; -1: not there
	wires                                       map[string][]fleet.Wire
	problems                                    Problems
}

func (in *netlistReader) row(at string, cells []string) {
	cell := func(i int) string {
		if i < 0 || i >= len(cells) {
			return ""
		}
		return strings.TrimPrefix(strings.TrimSpace(cells[i]), "'")
	}
	part, place := cell(in.part), cell(in.place)
	if !in.c.Fit.Has(part) {
		in.problems.add(at, "there is no part %q on %s", part, in.c.Quad.Label())
		return
	}
	if cell(in.slot) != "" || place == "" {
		return // through a cable, or joined to nothing
	}
	w := fleet.Wire{To: place, Colour: cell(in.colour)}
	var err error
	if w.Pin, err = strconv.Atoi(cell(in.pin)); err != nil || w.Pin < 1 {
		in.problems.add(at, "expected the pin of %s from 1 on, %q is none", part, cell(in.pin))
	}
	if text := cell(in.awg); text != "" {
		gauge, err := strconv.Atoi(text)
		if err != nil || gauge < 0 || gauge > 40 {
			in.problems.add(at, "expected a wire gauge from 0 to 40, %q is none", text)
		}
		w.AWG = new(wire.Gauge(gauge))
	}
	if text := cell(in.length); text != "" {
		mm, err := strconv.ParseFloat(text, 64)
		if err != nil || !(mm > 0 && mm <= 10000) {
			in.problems.add(at, "expected a length in mm up to 10000, %q is none", text)
		}
		w.MM = new(unit.Millimetres(mm))
	}
	in.wires[part] = append(in.wires[part], w)
}

// patch wires each part that has a row as the rows say.
func (in *netlistReader) patch() (p fleet.Patch) {
	f := in.c.Fit
	if wires, ok := in.wires[fleet.NodeAirUnit]; ok {
		w := f.Wiring
		w.Wires = wires
		p.Wiring = &w
	}
	if wires, ok := in.wires[fleet.NodeReceiver]; ok {
		cable := fleet.Cable{}
		if f.ReceiverCable != nil {
			cable = *f.ReceiverCable
		}
		cable.Wires = wires
		p.ReceiverCable = &cable
	}
	for i := range f.Parts {
		if wires, ok := in.wires[f.Parts[i].ID]; ok {
			part := f.Parts[i]
			part.Wires = wires
			p.Parts = append(p.Parts, part)
		}
	}
	return p
}
