package format

import (
	"fmt"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
)

// Take takes a document into a stock and says what that changed. Problems
// speak of the file's own paths where it points at nothing, and of the stock's
// where the file would break what is there. On an error the stock must be
// thrown away.
func Take(st *stock.Stock, doc Document) (stock.Difference, error) { return TakeOver(st, doc, nil) }

// TakeOver is Take where it has been said who wins where a gear pack contradicts another one.
func TakeOver(st *stock.Stock, doc Document, wins map[string]string) (stock.Difference, error) {
	if doc.Set != nil {
		d, err := st.MergeSetOver(doc.Set, wins)
		if err != nil {
			return d, Problems{{"", err.Error()}}
		}
		if err := checkPairings(doc.Set, st); err != nil {
			return d, err
		}
		return d, brokenStock(st)
	}
	d := st.MergeFleet(doc.Fleet)
	if err := checkModels(doc.Fleet, st); err != nil {
		return d, err
	}
	return d, brokenStock(st)
}

// brokenStock says what would no longer hold in what is there already.
func brokenStock(st *stock.Stock) error {
	ps, broken := CheckStock(st).(Problems)
	if !broken {
		return nil
	}
	for i := range ps {
		ps[i].Says = "would no longer hold in what is there already: " + ps[i].Says
	}
	return ps
}

// TakeEntry takes one entry in, under the id and kind it is said to have. Gear
// that is new goes into the gear pack "own".
func TakeEntry(st *stock.Stock, ref stock.Ref, body []byte) error {
	var set *gear.Set
	switch ref.Kind {
	case stock.KindKit, stock.KindSpare, stock.KindQuad, stock.KindCourse, stock.KindTestFlight,
		stock.KindTask:
	default:
		set = &gear.Set{ID: stock.OwnSet, Title: "Own gear"}
		if there, ok := st.SetOf(ref.ID); ok {
			set = there
		}
	}
	doc, err := ReadEntry(ref.Kind, body, set, st)
	if err != nil {
		return err
	}
	if id := doc.onlyID(); id != ref.ID {
		return Problems{{"id", fmt.Sprintf("expected the id in the address, %q, got %q", ref.ID, id)}}
	}
	if doc.Set != nil {
		if _, err := st.MergeSet(doc.Set); err != nil {
			return Problems{{"id", err.Error()}}
		}
		if ps, wrong := checkPairings(doc.Set, st).(Problems); wrong {
			return ps.below("pairings[0]")
		}
		return brokenStock(st)
	}
	head := stock.Head(st.Fleet)
	stock.WithEntries(&head, doc.Fleet)
	doc.Fleet = &head
	st.MergeFleet(doc.Fleet)
	doc.Fleet.Kit = append(doc.Fleet.Kit, st.Fleet.Kit...)
	if ps, wrong := checkModels(doc.Fleet, st).(Problems); wrong {
		return ps.below(listOf[ref.Kind] + "[0]")
	}
	if ref.Kind != stock.KindKit && ref.Kind != stock.KindCourse {
		return nil // nothing rests on a quad, a spare or a flight
	}
	return brokenStock(st)
}

// TakeHead reads the fleet's head again, with its kit and spares, as if they came in a
// file: a change of them can bring in nothing a file could not. The quads are as they
// were.
func TakeHead(st *stock.Stock) error {
	head := *st.Fleet
	head.Quads = nil
	text, err := Write(&head)
	if err != nil {
		return err
	}
	if _, err := read(text, st, nil); err != nil {
		return err
	}
	return checkModels(&head, st)
}

// CheckWhole holds a stock against all that a file is held against.
func CheckWhole(st *stock.Stock) error {
	if err := TakeHead(st); err != nil {
		return err
	}
	return CheckStock(st)
}

// onlyID is the id of the one entry of a document.
func (d Document) onlyID() string {
	if d.Set != nil {
		for _, list := range d.Set.Lists() {
			for _, item := range list.Items {
				return item.Head().ID
			}
		}
		return ""
	}
	switch f := d.Fleet; {
	case len(f.Kit) > 0:
		return f.Kit[0].ID
	case len(f.Spares) > 0:
		return f.Spares[0].Model
	case len(f.Quads) > 0:
		return f.Quads[0].ID
	case len(f.Courses) > 0:
		return f.Courses[0].ID
	case len(f.TestFlights) > 0:
		return f.TestFlights[0].ID
	case len(f.Tasks) > 0:
		return f.Tasks[0].ID
	}
	return ""
}
