package format

import (
	"cmp"
	"fmt"
	"strconv"
	"strings"

	"yokeswap/core/measure/wire"
)

// Pick is where something stands that can be picked: a list, or the keys of a map, within an entry.
type Pick struct {
	Choice *Choice `json:"choice,omitempty"` // the thing itself; the rest is then empty
	From   string  `json:"from,omitempty"`   // the fields that may name the entry, by |; empty: this one
	Kind   string  `json:"kind,omitempty"`   // every entry of this kind
	List   string  `json:"list,omitempty"`
	Before string  `json:"before,omitempty"` // what stands before its id
}

// Usual is a value that many of its kind have.
type Usual struct {
	Name  string `json:"name"`
	Value any    `json:"value"`
}

// picked says whether the values of a part stand somewhere.
func picked(part map[string]any) bool { return part["x-picks"] != nil }

// picksOf says where the choices of a part stand: "frame.bays" is the list bays of the entry
// that the field frame names, ".plates" that of this entry, "flightFirmware:elements" that of
// every entry of a kind, "board.>board.pads" the pads of the board with "board." before them,
// "=pack" the word pack itself.
func picksOf(part map[string]any) (list []Pick) {
	all := textsOf(part["x-picks"])
	if one := text(part, "x-picks"); one != "" {
		all = []string{one}
	}
	words := member(part, "x-words")
	for _, at := range all {
		if value, itself := strings.CutPrefix(at, "="); itself {
			list = append(list, Pick{Choice: &Choice{Value: value, Name: cmp.Or(text(words, value), value)}})
			continue
		}
		before, rest, prefixed := strings.Cut(at, ">")
		if !prefixed {
			before, rest = "", at
		}
		if kind, in, every := strings.Cut(rest, ":"); every {
			list = append(list, Pick{Kind: kind, List: in, Before: before})
			continue
		}
		cut := strings.LastIndex(rest, ".")
		list = append(list, Pick{From: rest[:cut], List: rest[cut+1:], Before: before})
	}
	return list
}

// usualOf are the values of a part that many have: of a gauge with what it carries.
func usualOf(part map[string]any) (list []Usual) {
	of, _ := part["x-usual"].([]any)
	for _, one := range of {
		one, _ := one.(map[string]any)
		value, unit := one["value"], text(part, "x-unit")
		name := cmp.Or(text(one, "name"), strings.TrimSpace(fmt.Sprint(value, " ", unit)))
		if n, err := strconv.Atoi(fmt.Sprint(value)); err == nil && unit == "AWG" {
			name = fmt.Sprintf("%s, %s for long in free air", wire.Gauge(n), wire.Gauge(n).Carries())
		}
		list = append(list, Usual{name, value})
	}
	return list
}
