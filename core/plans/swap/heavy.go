package swap

import (
	"fmt"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Heavy says what makes a fleet take long to answer for: how large it is, and the model
// with the most states its firmware can be in.
func Heavy(lib *gear.Library, f *fleet.Index) string {
	var says []string
	for _, part := range []struct {
		n    int
		what string
	}{{len(f.Quads), "quad"}, {len(f.Kit), "device"}, {len(f.Wants), "wanted link"}} {
		if part.n > 0 {
			says = append(says, change.Count(part.n, part.what))
		}
	}
	most, name := 0, ""
	for _, item := range lib.Items() {
		device, ok := item.(gear.Linked)
		if !ok {
			continue
		}
		states, modes := len(device.AsDevice().Releases), 1
		if goggles, ok := item.(*gear.Goggles); ok {
			modes = max(1, len(goggles.Modes))
		}
		if states*modes > most {
			most, name = states*modes, fmt.Sprintf("%s with %d releases", item.Head().Label(), states)
			if modes > 1 {
				name += fmt.Sprintf(" in %d modes", modes)
			}
		}
	}
	if name != "" {
		says = append(says, name)
	}
	return strings.Join(says, ", ")
}
