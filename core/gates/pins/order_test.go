package pins_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
	"yokeswap/core/internal/sample"
)

// An order that rests on common practice is a caution until it has been held against a
// drawing: at the unit's plug, at the board's, and where the whole sheet is from practice.
func TestAUsualOrderCountsOnceItIsConfirmed(t *testing.T) {
	usual := gear.Source{Kind: gear.Practice, Text: "a usual order"}
	held := gear.Source{Kind: gear.Measured, Text: "held against its drawing"}
	for name, c := range map[string]struct {
		change func(unit *gear.AirUnit, board *gear.Board)
		of     []string
	}{
		"stated": {func(*gear.AirUnit, *gear.Board) {}, nil},
		"unit": {func(u *gear.AirUnit, _ *gear.Board) {
			u.ValueSources = map[string]gear.Source{"plug.pins": usual}
		}, []string{"second"}},
		"board": {func(_ *gear.AirUnit, b *gear.Board) {
			b.ValueSources = map[string]gear.Source{"plugs.hd.pins": usual}
		}, []string{"the hd of board"}},
		"both, by their sheets": {func(u *gear.AirUnit, b *gear.Board) { u.Source, b.Source = usual, usual },
			[]string{"second", "the hd of board"}},
		"held": {func(u *gear.AirUnit, _ *gear.Board) {
			u.Source, u.ValueSources = usual, map[string]gear.Source{"plug.pins": held}
		}, nil},
	} {
		set := sample.Set()
		plan := caseOf(set, plugged("straight"))
		unit, _, _ := plan.AirUnit()
		board, _ := plan.Board()
		c.change(unit, board)
		var of []string
		for _, f := range pins.Check(plan) {
			if f.Code == pins.CodeOrder {
				of = append(of, f.Subject)
				assert.Equal(t, verdict.Caution, f.Level)
				assert.Contains(t, f.Says, "against the drawing")
			}
		}
		assert.Equal(t, c.of, of, name)
	}
}
