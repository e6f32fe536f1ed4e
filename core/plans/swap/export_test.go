package swap

import "yokeswap/core/facts/fleet"

// Everywhere is Judge as it would be if each gate were judged in each world.
func Everywhere(c fleet.Case) Judgement {
	l := Lazily(c)
	var j Judgement
	for i := range Gates {
		v := l.in(c, i)
		for _, w := range l.known.of(c) {
			v.worst(l.in(w.Case, i), &w)
		}
		j.Gates = append(j.Gates, v)
	}
	return j
}
