package ask

import (
	"reflect"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// answered is the world with the value stated; as it was where it cannot be.
func (q *Question) answered(c fleet.Case, value any) fleet.Case {
	switch q.Of {
	case "gear":
		item, ok := c.Library.Item(q.ID)
		if !ok {
			return c
		}
		other := reflect.New(reflect.TypeOf(item).Elem())
		other.Elem().Set(reflect.ValueOf(item).Elem())
		if gear.SetAt(other.Interface(), q.values.Path, value) != nil {
			return c
		}
		c.Library = c.Library.With(other.Interface().(gear.Item))
	case "kit":
		kit, ok := c.Fleet.Piece(q.ID)
		if !ok {
			return c
		}
		other := *kit
		if gear.SetAt(&other, q.values.Path, value) != nil {
			return c
		}
		c.Fleet = c.Fleet.WithPiece(&other)
	case "quad":
		other := *c.Quad
		if c.FitName == fleet.FitNow {
			other.Now = *c.Fit
		} else {
			other.Next = c.Fit
		}
		if gear.SetAt(&other, q.values.Path, value) != nil {
			return c
		}
		c.Quad, c.Fit = &other, other.Next
		if c.FitName == fleet.FitNow {
			c.Fit = &other.Now
		}
	}
	return c.Carrying(c.Fit)
}
