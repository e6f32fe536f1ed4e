package fleet

import "slices"

// Index is a fleet with its parts found by id in constant time. It holds for
// as long as the fleet is not changed.
type Index struct {
	*Fleet
	pieces  map[string]*Kit
	quads   map[string]*Quad
	holders map[string][]*Quad
	fliers  map[string][]*Quad
	spares  map[string]int
	taken   map[string]map[string]int // model to quad to how many its plan takes
	takes   map[string]int            // model to how many all plans take
	owned   map[string]bool
	instead *Quad  // stands for the quad of its id; nil: each for itself
	piece   *Kit   // stands for the piece of kit of its id; nil: each for itself
	under   *Index // what else stands for a piece; nil: nothing
	places  map[string][]int
	asked   *Asked // what is asked of the plans of other quads is noted there; nil: it is not
}

// Asked is what was asked of the plans of other quads, and what was answered.
type Asked struct {
	spares  []spareAsked
	holders []holderAsked
}

type spareAsked struct {
	model, quad string
	count       int
}

type holderAsked struct {
	kit, except, quad string
}

// Recording is the fleet with a note of what is asked of it about other quads' plans. It
// is for one goroutine.
func (x *Index) Recording() (*Index, *Asked) {
	other := *x
	other.asked = &Asked{}
	return &other, other.asked
}

// Still says whether the same would be answered now.
func (a *Asked) Still(x *Index) bool {
	for _, s := range a.spares {
		if x.SpareCount(s.model, s.quad) != s.count {
			return false
		}
	}
	for _, h := range a.holders {
		if q, _ := x.Holder(h.kit, h.except); idOf(q) != h.quad {
			return false
		}
	}
	return true
}

func idOf(q *Quad) string {
	if q == nil {
		return ""
	}
	return q.ID
}

// PiecesOf are the pieces of kit of some models, in the fleet's order.
func (x *Index) PiecesOf(models ...string) []*Kit {
	var at []int
	for _, model := range models {
		at = append(at, x.places[model]...)
	}
	slices.Sort(at)
	list := make([]*Kit, len(at))
	for i, place := range at {
		list[i] = &x.Kit[place]
	}
	return list
}

// Planning is the fleet with a quad planned in another way, to ask what that would do;
// what the quads have a claim on is as it was.
func (x *Index) Planning(q *Quad) *Index {
	other := *x
	other.instead = q
	return &other
}

// Owning is the fleet with one more piece of a model, as it comes from a shop, and its id.
func (x *Index) Owning(model string) (owning *Index, id string) {
	f := *x.Fleet
	f.Kit = slices.Clone(f.Kit)
	id = f.Own(model)
	return NewIndex(&f), id
}

// WithPiece is the fleet with a piece of kit as it might be, to ask what that would do.
func (x *Index) WithPiece(k *Kit) *Index {
	other := *x
	other.piece, other.under = k, x
	return &other
}

// NewIndex indexes a fleet.
func NewIndex(f *Fleet) *Index {
	x := &Index{
		Fleet:   f,
		pieces:  map[string]*Kit{},
		quads:   map[string]*Quad{},
		holders: map[string][]*Quad{},
		fliers:  map[string][]*Quad{},
		spares:  map[string]int{},
		taken:   map[string]map[string]int{},
		takes:   map[string]int{},
		owned:   map[string]bool{},
		places:  map[string][]int{},
	}
	for i := range f.Kit {
		x.pieces[f.Kit[i].ID] = &f.Kit[i]
		x.owned[f.Kit[i].Model] = true
		x.places[f.Kit[i].Model] = append(x.places[f.Kit[i].Model], i)
	}
	for _, s := range f.Spares {
		x.spares[s.Model] += s.Count
		x.owned[s.Model] = x.owned[s.Model] || s.Count > 0
	}
	for i := range f.Quads {
		x.quads[f.Quads[i].ID] = &f.Quads[i]
		x.take(&f.Quads[i])
		if slot := f.Quads[i].Now.AirUnit; slot != nil && slot.Kit != "" {
			x.fliers[slot.Kit] = append(x.fliers[slot.Kit], &f.Quads[i])
		}
		x.hold(&f.Quads[i])
	}
	return x
}

// Piece looks up a piece of kit by its id.
func (x *Index) Piece(id string) (*Kit, bool) {
	for at := x; at != nil; at = at.under {
		if at.piece != nil && at.piece.ID == id {
			return at.piece, true
		}
	}
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

// hold notes the air units of a quad's plan, and of the fits it carries in turn.
func (x *Index) hold(q *Quad) {
	fits := []*Fit{q.plan()}
	for i := range q.InTurn {
		fits = append(fits, &q.InTurn[i].Fit)
	}
	for _, fit := range fits {
		if slot := fit.AirUnit; slot != nil && slot.Kit != "" && !slices.Contains(x.holders[slot.Kit], q) {
			x.holders[slot.Kit] = append(x.holders[slot.Kit], q)
		}
	}
}

// Holder is a quad, other than the one given, whose plan has the piece of kit
// on board, or that carries it in turn. Goggles and controllers serve many quads and have no holder.
func (x *Index) Holder(kitID, except string) (*Quad, bool) {
	var holder *Quad
	for _, q := range x.holders[kitID] {
		if q.ID != except {
			holder = q
			break
		}
	}
	if x.asked != nil {
		x.asked.holders = append(x.asked.holders, holderAsked{kitID, except, idOf(holder)})
	}
	return holder, holder != nil
}

// Flier is a quad, other than the one given, that carries a piece of kit today.
func (x *Index) Flier(kitID, except string) (*Quad, bool) {
	for _, q := range x.fliers[kitID] {
		if q.ID != except {
			return q, true
		}
	}
	return nil, false
}

// take notes the loose parts that a quad's plan takes.
func (x *Index) take(q *Quad) {
	if q.plan() == &q.Now {
		return
	}
	for model, n := range q.Takes((*Fit).Loose) {
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
	n := max(0, x.spares[model]-x.takes[model]+x.taken[model][quad])
	if x.asked != nil {
		x.asked.spares = append(x.asked.spares, spareAsked{model, quad, n})
	}
	return n
}

// OwnsModel says whether kit or spares hold the model.
func (x *Index) OwnsModel(model string) bool { return x.owned[model] }
