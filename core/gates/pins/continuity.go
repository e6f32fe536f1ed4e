package pins

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Pair is two pins to meter against each other before power.
type Pair struct {
	A         int    `json:"a"` // pins of the air unit, from 1
	B         int    `json:"b"`
	Label     string `json:"label"`
	Connected bool   `json:"connected"` // expected
	Wrong     string `json:"wrong"`     // what it means if the meter says otherwise
	Danger    bool   `json:"-"`         // power goes where it must not if it is otherwise
}

// Continuity lists all pairs of the pins of the air unit's plug, n·(n−1)/2 of
// them, with what a meter must say: open, but for the two grounds (common
// practice). Empty slots are left out.
func Continuity(c fleet.Case) []Pair {
	l, ok := newLoom(c)
	if !ok || l.run.Plug == nil {
		return []Pair{}
	}
	return Pairs(l.run.Plug)
}

// Pairs lists the pairs of any part's plug in the same way.
func Pairs(plug *gear.Plug) []Pair {
	list := []Pair{}
	pins := plug.Pins
	for a := range pins {
		for b := a + 1; b < len(pins); b++ {
			if pins[a] == "" || pins[b] == "" || coil(pins[a], pins[b]) {
				continue
			}
			p := Pair{
				A:     a + 1,
				B:     b + 1,
				Label: fmt.Sprintf("pin %d, %s, to pin %d, %s", a+1, PinWords(pins[a]), b+1, PinWords(pins[b])),
			}
			p.Connected, p.Wrong = expect(pins[a], pins[b])
			p.Danger = pins[a] == gear.PinSupply || pins[b] == gear.PinSupply
			list = append(list, p)
		}
	}
	return list
}

// coil says whether a part lies between two pins that a meter does not tell from a short.
func coil(a, b string) bool {
	return a == gear.PinBuzzer && b == gear.PinSupply || a == gear.PinSupply && b == gear.PinBuzzer
}

// expect is what a meter must say between two functions, and what the opposite
// means.
func expect(a, b string) (connected bool, wrong string) {
	ground := func(f string) bool { return f == gear.PinGround || f == gear.PinRCGround }
	supply := a == gear.PinSupply || b == gear.PinSupply
	switch {
	case ground(a) && ground(b):
		return true, "The two grounds must be one: a ground wire is broken or not connected."
	case supply && (ground(a) || ground(b)):
		return false, "The supply is shorted to ground: look for a solder bridge or a pinched wire. Never connect a pack."
	case supply:
		return false, "The supply touches a signal: power would destroy the unit. Look for a bridge or a crimp in the " +
			"wrong slot."
	case ground(a) || ground(b):
		return false, "A signal touches ground: that function stays dead. Look for a bridge or a stray strand."
	}
	return false, "Two signals touch: neither works. Look for a solder bridge between neighbouring pads."
}
