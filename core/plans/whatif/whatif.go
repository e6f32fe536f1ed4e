// Package whatif shows what a device nobody owns would open on the yoke board: goggles, a controller
// or an air unit, as a column beside those that are owned.
//
// Method: goggles and controllers are held against each quad as it is planned, as they come from a
// shop; a unit is put on each quad in the place of the one that is planned, and all gates judge it with
// nothing else changed. What of it is open is counted against what is brought today.
//
// Source: common practice.
package whatif

import (
	"context"
	"fmt"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
	"yokeswap/core/plans/swap"
)

// Offered is a model nobody owns, with what one costs.
type Offered struct {
	Model string    `json:"model"`
	Name  string    `json:"name"`
	Kind  gear.Kind `json:"kind"`
	// Price is the least one costs new, Used a used one, both in Currency, in hundredths; absent:
	// no price is stated, or no rate for its currency.
	Price    *int64 `json:"price,omitempty"`
	Used     *int64 `json:"used,omitempty"`
	Currency string `json:"currency"`
}

// TriedColumn is a device as if it were there.
type TriedColumn struct {
	Offered
	Cells []TriedCell `json:"cells"` // quad by quad, as the rows of the board
	// Opens are the quads that fly with it and with nothing that is brought today.
	Opens []string `json:"opens"`
	Says  string   `json:"says"`
}

// TriedCell is one quad with the device.
type TriedCell struct {
	Quad string `json:"quad"`
	link.GogglesReach
	// Level is what all gates say of the quad with a unit in it and nothing else changed; absent where
	// the device is no unit.
	Level verdict.Level `json:"level,omitempty"`
}

// Most is how many columns are answered at once.
const Most = 8

// Devices lists what could be tried: goggles, controllers and units in the gear that nobody owns.
func Devices(lib *gear.Library, f *fleet.Index) []Offered {
	list := []Offered{}
	for _, item := range lib.Items() {
		switch item.(type) {
		case *gear.Goggles, *gear.Controller, *gear.AirUnit:
			if len(f.PiecesOf(item.Head().ID)) == 0 {
				list = append(list, deviceOf(lib, f, item))
			}
		}
	}
	order := []gear.Kind{gear.KindGoggles, gear.KindController, gear.KindAirUnit}
	slices.SortStableFunc(list, func(a, b Offered) int {
		return slices.Index(order, a.Kind) - slices.Index(order, b.Kind)
	})
	return list
}

func deviceOf(lib *gear.Library, f *fleet.Index, item gear.Item) Offered {
	terms := change.TermsOf(lib, f)
	d := Offered{Model: item.Head().ID, Name: item.Head().Label(), Kind: item.Kind(), Currency: terms.Currency}
	d.Price = change.Price(change.Cheapest(lib, f.Fleet, map[string]int{d.Model: 1}, terms))
	if used := item.Head().UsedOffer(); used != nil && used.Price != nil {
		if amount, ok := f.InCurrency(*used.Price, used.Currency, terms.Currency); ok {
			d.Used = &amount
		}
	}
	return d
}

// Columns tries models nobody owns on every quad of a board. A model that is owned, or that is no
// goggles, controller or unit of the gear, is refused.
func Columns(
	ctx context.Context, lib *gear.Library, f *fleet.Index, board swap.Board, models []string,
) ([]TriedColumn, error) {
	models = slices.Clone(models)
	slices.Sort(models) // one that is named twice is one column
	models = slices.Compact(models)
	if len(models) > Most {
		return nil, fmt.Errorf("%d devices are tried at once; at most %d go", len(models), Most)
	}
	devices := Devices(lib, f)
	columns := make([]TriedColumn, len(models))
	for i, model := range models {
		at := slices.IndexFunc(devices, func(d Offered) bool { return d.Model == model })
		if at < 0 {
			return nil, fmt.Errorf("%s is no device that could be tried: it is owned, or in no gear pack", model)
		}
		columns[i] = TriedColumn{Offered: devices[at], Opens: []string{}}
		if err := columns[i].fill(ctx, lib, f, board); err != nil {
			return nil, err
		}
	}
	return columns, nil
}

// fill tries a device on each row of the board.
func (col *TriedColumn) fill(ctx context.Context, lib *gear.Library, f *fleet.Index, board swap.Board) error {
	var goggles []string
	for _, d := range board.Devices {
		if d.Kind == gear.KindGoggles && d.Brought {
			goggles = append(goggles, d.Kit)
		}
	}
	col.Cells = make([]TriedCell, len(board.Rows))
	swap.Each(ctx, len(board.Rows), func(i int) {
		row := &board.Rows[i]
		q, ok := f.Quad(row.Quad)
		if !ok {
			return
		}
		c := fleet.NewCase(lib, f, q)
		if row.Left {
			c = c.Carrying(&q.Now)
		}
		col.Cells[i] = col.cell(c, goggles)
	})
	if err := ctx.Err(); err != nil {
		return err
	}
	for i := range board.Rows {
		if opens(&board.Rows[i], &col.Cells[i]) {
			col.Opens = append(col.Opens, board.Rows[i].Name)
		}
	}
	col.Says = col.sentence(len(board.Rows))
	return nil
}

// cell is one quad with the device; goggles are those that are brought.
func (col *TriedColumn) cell(c fleet.Case, goggles []string) TriedCell {
	cell := TriedCell{Quad: c.Quad.ID}
	switch col.Kind {
	case gear.KindGoggles:
		cell.GogglesReach = link.ReachIfBought(c, col.Model)
	case gear.KindController:
		cell.GogglesReach = best(goggles, func(kit string) link.GogglesReach { return link.ReachHolding(c, kit, col.Model) })
	default:
		c = c.With(fleet.Patch{AirUnit: &fleet.Slot{Model: col.Model}})
		cell.Level = swap.Judge(c).Level
		cell.GogglesReach = best(goggles, func(kit string) link.GogglesReach { return link.ReachOf(c, kit) })
	}
	return cell
}

// best is the best answer over the goggles that are brought.
func best(goggles []string, reach func(kit string) link.GogglesReach) link.GogglesReach {
	found := link.GogglesReach{Reach: link.ReachNever, Says: "no goggles are brought"}
	for i, kit := range goggles {
		if r := reach(kit); i == 0 || r.Reach.Better(found.Reach) {
			found = r
		}
	}
	return found
}

// opens says whether a quad flies with the device that does not with what is brought. A unit that does
// not fit opens nothing.
func opens(row *swap.Row, cell *TriedCell) bool {
	goesOn := cell.Level == "" || !cell.Level.WorseThan(verdict.Change)
	return !row.Flies.Links() && cell.Reach.Links() && goesOn
}

func (col *TriedColumn) sentence(quads int) string {
	what := "links no quad that does not link with what is brought"
	if n := len(col.Opens); n > 0 {
		what = "links " + change.Count(n, "quad") + " that nothing brought links with: " + change.And(col.Opens)
	}
	if col.Kind != gear.KindAirUnit {
		return fmt.Sprintf("%s %s.", col.Name, what)
	}
	if len(col.Opens) > 0 {
		what = "makes " + change.Count(len(col.Opens), "quad") + " link that does not today: " + change.And(col.Opens)
	}
	fit, after := 0, 0
	for i := range col.Cells {
		switch level := col.Cells[i].Level; {
		case level == verdict.Fits || level == verdict.Caution:
			fit++
		case level == verdict.Change:
			after++
		}
	}
	return fmt.Sprintf("%s %s; of %s it goes on %d as they are and on %d with changes.", col.Name, what,
		change.Count(quads, "quad"), fit, after)
}
