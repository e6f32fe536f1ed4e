package setup

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
)

// Plan is what a plan asks to be set, on the flight board and in the goggles.
type Plan struct {
	// Rows holds what is wanted of the board against how the quad flies today, as far
	// as that is said.
	Rows    []Row            `json:"rows"`
	Goggles []GogglesSetting `json:"goggles"`
	// Firmware is what to know of the flight firmware: the least release for a canvas,
	// and those to keep off.
	Firmware []string          `json:"firmware"`
	Missing  []verdict.Missing `json:"missing,omitempty"`
}

// PlanOf works out what is to be set for the next fit of a quad.
func PlanOf(c fleet.Case) Plan {
	p := Plan{Rows: []Row{}, Goggles: []GogglesSetting{}, Firmware: []string{}}
	if c.Fit.Board == "" {
		return p
	}
	today, ok := Of(fleet.NowCase(c.Library, c.Fleet, c.Quad))
	if now := c.Quad.Now.Board; now != "" && c.Fit.Board != now {
		today, ok = Factory(c) // another board: nothing of the old one's settings is on it
	}
	if !ok {
		if today, ok = Of(c); !ok {
			p.Missing = append(p.Missing, verdict.Missing{
				Of:    "quad",
				ID:    c.Quad.ID,
				Field: c.FitName + ".runs",
				Label: "flight firmware of " + c.Quad.Label(),
			})
			return p
		}
	}
	comparison := Compare(c, today)
	p.Rows, p.Missing = comparison.Rows, comparison.Missing
	p.Goggles = inGoggles(c)
	if c.Fit.Runs == nil {
		return p // what is missing is named
	}
	if runs, ok := gear.Find[*gear.FlightFirmware](c.Library, c.Fit.Runs.ID); ok {
		if runs.CanvasFrom != "" {
			p.Firmware = append(p.Firmware,
				fmt.Sprintf("%s draws a canvas from %s on (%s)", runs.Label(), runs.CanvasFrom, runs.Source))
		}
		for _, a := range runs.Avoid {
			p.Firmware = append(p.Firmware, fmt.Sprintf("keep off %s: %s (%s)", a.Firmware, a.Why, runs.Source))
		}
	}
	return p
}
