package stock

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
)

// Fly notes an outing of a quad.
func (s *Stock) Fly(quad string, o fleet.Outing) error {
	return s.outings(quad, func(list []fleet.Outing) ([]fleet.Outing, error) { return append(list, o), nil })
}

// LookOver says that a quad was looked over after the crash of one of its outings.
func (s *Stock) LookOver(quad string, at int) error {
	return s.outings(quad, func(list []fleet.Outing) ([]fleet.Outing, error) {
		if at < 0 || at >= len(list) || !list[at].Crash {
			return nil, fmt.Errorf("%s has no such crash", quad)
		}
		list[at].Looked = true
		return list, nil
	})
}

// outings changes those of a quad; the fleet it was is left as it is.
func (s *Stock) outings(quad string, change func([]fleet.Outing) ([]fleet.Outing, error)) error {
	f := *s.Fleet
	f.Quads = slices.Clone(f.Quads)
	q, ok := f.Quad(quad)
	if !ok {
		return fmt.Errorf("no quad %q", quad)
	}
	list, err := change(slices.Clone(q.Outings))
	if err != nil {
		return err
	}
	q.Outings, s.Fleet = list, &f
	return nil
}
