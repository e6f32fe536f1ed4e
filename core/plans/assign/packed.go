package assign

import "math/bits"

// packed is what groups draw on of that of which there is no more, many things to a word, so that two
// groups are held against each other at once: each thing has a field with a bit above it that is
// borrowed from where one draws on more (SIMD within a register; Lamport 1975).
type packed struct {
	words int
	of    []uint64 // words of each group
	guard []uint64
	// things are those that are packed, by the place of the bit above their field.
	things []int
}

// pack packs what groups draw on.
func (p *Problem) pack(order []string) *packed {
	type field struct{ thing, word, shift int }
	var fields []field
	out := &packed{words: 1, guard: []uint64{0}, things: make([]int, 64)}
	shift := 0
	for t := range p.Things {
		if p.Things[t].Price >= 0 {
			continue
		}
		wide := bits.Len(uint(p.Things[t].Have)) + 1
		if shift+wide > 64 {
			out.words, out.guard, shift = out.words+1, append(out.guard, 0), 0
			out.things = append(out.things, make([]int, 64)...)
		}
		fields = append(fields, field{t, out.words - 1, shift})
		shift += wide
		out.guard[out.words-1] |= 1 << (shift - 1)
		out.things[(out.words-1)*64+shift-1] = t
	}
	out.of = make([]uint64, len(order)*out.words)
	for i, used := range order {
		for _, f := range fields {
			out.of[i*out.words+f.word] |= uint64(used[f.thing]) << f.shift
		}
	}
	return out
}

// within says whether a group draws on no more of anything than another.
func (p *packed) within(one, other int) bool {
	for w := range p.words {
		if p.over(w, one, other) != 0 {
			return false
		}
	}
	return true
}

// over is what a group draws on more of than another, of the things in a word, by the bits above their
// fields.
func (p *packed) over(w, one, other int) uint64 {
	guard := p.guard[w]
	return ^((p.of[other*p.words+w] | guard) - p.of[one*p.words+w]) & guard
}
