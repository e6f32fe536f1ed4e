package swap

import (
	"fmt"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Heavy says what makes a fleet take long to answer for: how large it is, and the model
// with the most states its firmware can be in.
func Heavy(lib *gear.Library, f *fleet.Index) string {
	var says []string
	count := func(n int, one, many string) {
		switch n {
		case 0:
		case 1:
			says = append(says, "1 "+one)
		default:
			says = append(says, fmt.Sprintf("%d %s", n, many))
		}
	}
	count(len(f.Quads), "quad", "quads")
	count(len(f.Kit), "piece of kit", "pieces of kit")
	count(len(f.Wants), "wanted link", "wanted links")
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
