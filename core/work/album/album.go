// Package album lays photos of a quad out: by what they are of, those from before a swap beside those from
// after it, each with what is marked on it.
package album

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"
)

// Of is what a photo is of.
type Of string

// What there is.
const (
	Whole Of = "quad"
	Step  Of = "step"  // of the bench sheet
	Plug  Of = "plug"  // or a row of pads
	Fault Of = "fault" // that was looked for
)

// Order is the order they are laid out in, and all there are.
var Order = []Of{Whole, Step, Plug, Fault}

// Moment is when a photo was taken, by a swap.
type Moment string

// The moments; empty: nobody has said.
const (
	Before Moment = "before"
	After  Moment = "after"
)

// Photo is a photo of a quad.
type Photo struct {
	ID     int64       `json:"id"`
	Of     Of          `json:"of"`
	Key    string      `json:"key,omitempty"` // which step, plug or fault; empty: none by itself
	Label  string      `json:"label"`         // of that, in words
	Moment Moment      `json:"moment,omitempty"`
	Words  string      `json:"words,omitempty"`
	At     time.Time   `json:"at"`   // it was taken in
	Wide   int         `json:"wide"` // in pixels
	High   int         `json:"high"`
	Marks  []PhotoMark `json:"marks"`
	// LetGo says that it is put away: it can be taken back, until it is deleted.
	LetGo bool `json:"letGo,omitempty"`
}

// PhotoMark is a pin, a wire or whatever else is marked on a photo.
type PhotoMark struct {
	X    float64 `json:"x"` // from its left edge, a share of its width
	Y    float64 `json:"y"` // from its top edge, a share of its height
	Says string  `json:"says"`
}

// PhotoGroup is the photos of one thing, the oldest first.
type PhotoGroup struct {
	Of     Of      `json:"of"`
	Key    string  `json:"key,omitempty"`
	Label  string  `json:"label"`
	Before []Photo `json:"before"`
	After  []Photo `json:"after"`
	Others []Photo `json:"others"`
}

// Groups lays photos out.
func Groups(photos []Photo) []PhotoGroup {
	groups := []PhotoGroup{}
	sorted := slices.SortedStableFunc(slices.Values(photos), func(a, b Photo) int {
		return cmp.Or(a.At.Compare(b.At), cmp.Compare(a.ID, b.ID))
	})
	for _, p := range sorted {
		at := slices.IndexFunc(groups, func(g PhotoGroup) bool { return g.Of == p.Of && g.Key == p.Key })
		if at < 0 {
			at = len(groups)
			groups = append(groups, PhotoGroup{Of: p.Of, Key: p.Key, Before: []Photo{}, After: []Photo{}, Others: []Photo{}})
		}
		g := &groups[at]
		g.Label = p.Label // as it was called last
		switch p.Moment {
		case Before:
			g.Before = append(g.Before, p)
		case After:
			g.After = append(g.After, p)
		default:
			g.Others = append(g.Others, p)
		}
	}
	slices.SortStableFunc(groups, func(a, b PhotoGroup) int {
		return slices.Index(Order, a.Of) - slices.Index(Order, b.Of)
	})
	return groups
}

// The most that is marked on one photo, and said of a mark, in characters.
const (
	MostMarks = 40
	MostSaid  = 80
)

// CheckMarks says what is wrong with the marks of a photo.
func CheckMarks(marks []PhotoMark) error {
	if len(marks) > MostMarks {
		return fmt.Errorf("%d marks: at most %d go on a photo", len(marks), MostMarks)
	}
	for i, m := range marks {
		on := func(share float64) bool { return !math.IsNaN(share) && share >= 0 && share <= 1 }
		switch {
		case !on(m.X) || !on(m.Y):
			return fmt.Errorf("mark %d lies beside the photo", i+1)
		case strings.TrimSpace(m.Says) == "":
			return fmt.Errorf("mark %d says nothing", i+1)
		case len([]rune(m.Says)) > MostSaid:
			return fmt.Errorf("mark %d says more than %d characters", i+1, MostSaid)
		}
	}
	return nil
}
