package web

import (
	"yokeswap/core/antenna"
	"yokeswap/core/fleet"
)

// AntennaView is what the antenna gate shows beside its findings.
type AntennaView struct {
	Picture antenna.Picture  `json:"picture"`
	Budgets []antenna.Budget `json:"budgets" doc:"the link next held against today's, band by band"`
	Sets    []antenna.Set    `json:"sets" doc:"the best of what is owned, for the goggles of this fit"`
}

func antennasOf(c fleet.Case) AntennaView {
	v := AntennaView{Picture: antenna.Draw(c), Budgets: antenna.Compare(c.Library, c.Fleet, c.Quad), Sets: []antenna.Set{}}
	if c.Fit.Goggles == nil {
		return v
	}
	for _, s := range antenna.Sets(c.Library, c.Fleet) {
		if s.Goggles == c.Fit.Goggles.Kit {
			v.Sets = append(v.Sets, s)
		}
	}
	return v
}
