package osd

import "slices"

// matters is what pilots miss first when it is gone (common practice), the most
// missed first. What is not in the list comes after, as it stands in the layout.
var matters = []string{
	"warnings",
	"battery-voltage",
	"cell-voltage",
	"link-quality",
	"home-arrow",
	"home-distance",
	"used-charge",
	"flight-time",
	"flight-mode",
	"altitude",
	"current",
	"satellites",
	"speed",
	"horizon",
	"crosshair",
	"video-power",
	"temperature",
	"throttle",
	"coordinates",
	"quad-name",
}

// rank orders elements by how much they are missed, 0 the most.
func rank(id string) int {
	if i := slices.Index(matters, id); i >= 0 {
		return i
	}
	return len(matters)
}
