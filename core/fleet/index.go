package fleet

// Index is a fleet with its parts found by id in constant time. It holds for
// as long as the fleet is not changed.
type Index struct {
	*Fleet
	pieces  map[string]*Kit
	quads   map[string]*Quad
	holders map[string][]*Quad
	spares  map[string]int
	taken   map[string]map[string]int // model to quad to how many its plan takes
	takes   map[string]int            // model to how many all plans take
	owned   map[string]bool
	instead *Quad // stands for the quad of its id; nil: each for itself
}

// Planning is the fleet with a quad planned in another way, to ask what that would do;
// what the quads have a claim on is as it was.
func (x *Index) Planning(q *Quad) *Index {
	other := *x
	other.instead = q
	return &other
}

// NewIndex indexes a fleet.
func NewIndex(f *Fleet) *Index {
	x := &Index{Fleet: f, pieces: map[string]*Kit{}, quads: map[string]*Quad{}, holders: map[string][]*Quad{}, spares: map[string]int{}, taken: map[string]map[string]int{}, takes: map[string]int{}, owned: map[string]bool{}}
	for i := range f.Kit {
		x.pieces[f.Kit[i].ID] = &f.Kit[i]
		x.owned[f.Kit[i].Model] = true
	}
	for _, s := range f.Spares {
		x.spares[s.Model] += s.Count
		x.owned[s.Model] = x.owned[s.Model] || s.Count > 0
	}
	for i := range f.Quads {
		x.quads[f.Quads[i].ID] = &f.Quads[i]
		x.take(&f.Quads[i])
		if slot := f.Quads[i].plan().AirUnit; slot != nil && slot.Kit != "" {
			x.holders[slot.Kit] = append(x.holders[slot.Kit], &f.Quads[i])
		}
	}
	return x
}

// Piece looks up a piece of kit by its id.
func (x *Index) Piece(id string) (*Kit, bool) {
	kit, ok := x.pieces[id]
	return kit, ok
}

// Quad looks up a quad by its id.
func (x *Index) Quad(id string) (*Quad, bool) {
	if x.instead != nil && x.instead.ID == id {
		return x.instead, true
	}
	q, ok := x.quads[id]
	return q, ok
}

// Holder is a quad, other than the one given, whose plan has the piece of kit
// on board. Goggles and controllers serve many quads and have no holder.
func (x *Index) Holder(kitID, except string) (*Quad, bool) {
	for _, q := range x.holders[kitID] {
		if q.ID != except {
			return q, true
		}
	}
	return nil, false
}

// take notes the loose parts that a quad's plan adds to what it carries now.
func (x *Index) take(q *Quad) {
	plan := q.plan()
	if plan == &q.Now {
		return
	}
	need := plan.Parts()
	for model, n := range q.Now.Parts() {
		need[model] -= n
	}
	for model, n := range need {
		if n > 0 {
			if x.taken[model] == nil {
				x.taken[model] = map[string]int{}
			}
			x.taken[model][q.ID] = n
			x.takes[model] += n
		}
	}
}

// SpareCount is how many loose parts of a model are left for a quad, after what
// the plans of the other quads take.
func (x *Index) SpareCount(model, quad string) int {
	return max(0, x.spares[model]-x.takes[model]+x.taken[model][quad])
}

// OwnsModel says whether kit or spares hold the model.
func (x *Index) OwnsModel(model string) bool { return x.owned[model] }
