package mount

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// Block is something of the quad that takes up room, as a box from its lowest rear right
// corner, in millimetres.
type Block struct {
	Part    string              `json:"part,omitempty"` // empty: it belongs to the frame
	Label   string              `json:"label"`
	Post    bool                `json:"post,omitempty"` // it is a standoff of the frame
	Min     [3]unit.Millimetres `json:"min"`            // x forward, y to the left, z up
	Max     [3]unit.Millimetres `json:"max"`
	Place   *fleet.Spot         `json:"place,omitempty"`
	Lies    string              `json:"lies,omitempty"` // in words
	Snap    *fleet.Spot         `json:"snap,omitempty"` // where it lies on the holes that hold it; absent: none do
	Free    []Block             `json:"free,omitempty"` // what is to stay free beside it
	Clashes bool                `json:"clashes"`        // it meets another
	// Openings are where things of it come out or are reached.
	Openings []Opening `json:"openings,omitempty"`
	// Outlines of a plate, seen from above: its own, and those of its openings; absent: it is a block.
	Outlines [][]gear.Corner `json:"outlines,omitempty"`

	box  space.Box
	slab *space.Slab // of a plate
	// Of what is to stay free: the axis it lies along, and which way.
	axis int
	way  int64
}

// Room is where everything of a fit lies, as far as it is stated.
type Room struct {
	Blocks []Block `json:"blocks"`
	// Rounds are what its propellers sweep, and the ducts around them.
	Rounds []Round `json:"rounds"`
	// Rods are the antennas where they stand.
	Rods []Rod `json:"rods"`
	// Next is where the next antenna without a place could stand; absent: each has one.
	Next *fleet.StandAt `json:"next,omitempty"`
	// Plates are those of the frame.
	Plates []PlateOn `json:"plates"`
	// Standoffs are those between them; absent: the frame is not known.
	Standoffs *StandoffsOn `json:"standoffs,omitempty"`
	// Loose are parts that can be given a place: their size is stated.
	Loose []Block `json:"loose"`
	// Shot is what its camera sees of the quad; absent: that cannot be told.
	Shot *Shot `json:"shot,omitempty"`
	// Lacks says in words what of which part would have to be known.
	Lacks []string `json:"lacks"`
}

// PlateOn is a plate of the frame, which is on or left off.
type PlateOn struct {
	ID    string `json:"id"`
	Label string `json:"label"`
	Off   bool   `json:"off"`
}

// StandoffsOn are the standoffs of a fit.
type StandoffsOn struct {
	Words string `json:"words"`
	Cut   bool   `json:"cut"`
}

// room works out where everything of a fit lies. missing lists what is not stated of what
// has a place; of the frame, where something has one.
func (s *seat) room() (r Room, missing []verdict.Missing) {
	bodies := s.bodies()
	r = Room{
		Blocks: make([]Block, 0, len(bodies)),
		Rounds: []Round{},
		Rods:   []Rod{},
		Plates: []PlateOn{},
		Loose:  []Block{},
		Lacks:  []string{},
	}
	for _, part := range bodies {
		place, placed := s.Fit.PlaceOf(part.node)
		size, lacks := part.size()
		switch {
		case len(lacks) > 0 && placed:
			missing = append(missing, lacks...)
		case len(lacks) > 0:
			for _, m := range lacks {
				r.Lacks = append(r.Lacks, m.Label)
			}
		case placed:
			block, lacks := part.block(place, size)
			r.Blocks = append(r.Blocks, block)
			missing = append(missing, lacks...)
		default:
			at := fleet.Spot{Part: part.node}
			block, _ := part.block(at, size)
			r.Loose = append(r.Loose, block)
		}
	}
	frame, lacks := s.frameBlocks()
	rounds, more := s.rounds()
	r.Blocks, r.Rounds, lacks = append(r.Blocks, frame...), append(r.Rounds, rounds...), append(lacks, more...)
	if len(s.Fit.Places) > 0 || s.stands() {
		missing = append(missing, lacks...)
	} else {
		for _, m := range lacks {
			r.Lacks = append(r.Lacks, m.Label)
		}
	}
	rods, lacks := s.rods()
	r.Rods, missing = append(r.Rods, rods...), append(missing, lacks...)
	return r, missing
}

// body is a part that can lie somewhere, with what its sheet says of its size.
type body struct {
	node  string
	label string
	entry *gear.Entry
	dims  [3]dimension // long, wide, high
	free  []gear.KeepFree
}

// dimension is the sum of what a sheet states along one way.
type dimension struct {
	fields []string
	words  string
	values []*unit.Millimetres
}

// outlined is a part that is as large as its outline, seen from above with its front up, and
// as high as it says.
func outlined(node string, e *gear.Entry, o *gear.Outline, height *unit.Millimetres, field string,
	free []gear.KeepFree,
) body {
	if o == nil {
		o = &gear.Outline{}
	}
	return body{node: node, label: e.Label(), entry: e, free: free, dims: [3]dimension{
		{[]string{"outline.yMM"}, "length from front to rear", []*unit.Millimetres{o.YMM}},
		{[]string{"outline.xMM"}, "width", []*unit.Millimetres{o.XMM}},
		{[]string{field}, "height", []*unit.Millimetres{height}},
	}}
}

// bodies are the parts of the fit that can lie somewhere.
func (s *seat) bodies() (list []body) {
	if s.hasUnit {
		list = append(list, outlined(fleet.NodeAirUnit, &s.airUnit.Entry, s.airUnit.Outline, s.mount.HeightMM,
			"mount.heightMM", s.airUnit.KeepFree))
	}
	if b, ok := s.Board(); ok {
		list = append(list, outlined(fleet.NodeBoard, &b.Entry, b.Outline, b.HeightMM, "heightMM", b.KeepFree))
	}
	if r, ok := s.PlacedReceiver(); ok {
		list = append(list, outlined(fleet.NodeReceiver, &r.Entry, r.Outline, r.HeightMM, "heightMM", r.KeepFree))
	}
	for i := range s.Fit.Parts {
		placed := &s.Fit.Parts[i]
		if p, ok := gear.Find[*gear.Part](s.Library, placed.Model); ok {
			list = append(list, outlined(placed.ID, &p.Entry, p.Outline, p.HeightMM, "heightMM", p.KeepFree))
		}
	}
	if p, ok := s.Pack(); ok {
		pack := body{node: fleet.NodePack, label: p.Label(), entry: &p.Entry, free: p.KeepFree}
		pack.dims = [3]dimension{
			{[]string{"lengthMM"}, "length", []*unit.Millimetres{p.LengthMM}},
			{[]string{"widthMM"}, "width", []*unit.Millimetres{p.WidthMM}},
			{[]string{"heightMM"}, "height", []*unit.Millimetres{p.HeightMM}},
		}
		list = append(list, pack)
	}
	if cam := s.camera.Camera; cam != nil {
		list = append(list, body{node: fleet.NodeCamera, label: "the camera", entry: s.camera.Of, dims: [3]dimension{
			{
				[]string{s.camera.Field("frontMM"), s.camera.Field("backMM")},
				"how far the camera's body goes from its screws, to the front and to the back",
				[]*unit.Millimetres{cam.FrontMM, cam.BackMM},
			},
			{[]string{s.camera.Field("widthMM")}, "camera width", []*unit.Millimetres{cam.WidthMM}},
			{[]string{s.camera.Field("heightMM")}, "height of the camera", []*unit.Millimetres{cam.HeightMM}},
		}})
	}
	return list
}

// size is how long, wide and high a part is.
func (b *body) size() (size [3]unit.Millimetres, missing []verdict.Missing) {
	for axis, d := range b.dims {
		for i, value := range d.values {
			if value == nil {
				missing = append(missing, verdict.GearValue(b.entry, d.fields[i], d.words))
				continue
			}
			size[axis] += *value
		}
	}
	return size, missing
}

// sides are the directions of a part's sides, before it is turned.
var sides = map[gear.Side]struct {
	axis int
	way  int64
}{
	"front": {space.X, 1}, "rear": {space.X, -1}, "left": {space.Y, 1}, "right": {space.Y, -1},
	"top": {space.Z, 1}, "bottom": {space.Z, -1},
}

// block is a part where it lies, with what is to stay free beside it.
func (b *body) block(at fleet.Spot, size [3]unit.Millimetres) (block Block, missing []verdict.Missing) {
	box := space.Standing([3]unit.Millimetres{at.XMM, at.YMM, at.ZMM}, size, at.Quarters)
	block = framed(b.label, box)
	block.Part, block.Place = b.node, &at
	for _, free := range b.free {
		if free.MM == nil {
			missing = append(missing, verdict.GearValue(b.entry, "keepFree", "room for its "+free.What))
			continue
		}
		to := sides[turned(free.Side, at.Quarters)]
		beside := box.Beside(to.axis, to.way*space.Micro(*free.MM))
		if across := 1 - to.axis; free.WideMM != nil && across >= 0 {
			beside = beside.Narrowed(across, space.Micro(*free.WideMM))
		}
		room := framed(free.What+" of "+b.label, beside)
		room.Part, room.axis, room.way = b.node, to.axis, to.way
		block.Free = append(block.Free, room)
	}
	return block, missing
}

func framed(label string, box space.Box) Block {
	b := Block{Label: label, box: box}
	for i := range 3 {
		b.Min[i], b.Max[i] = space.MM(box.Min[i]), space.MM(box.Max[i])
	}
	return b
}

// plated is a plate of the frame where it lies.
func plated(p *gear.FramePlate, slab space.Slab) Block {
	block := framed("the "+p.Label(), slab.Box)
	block.slab = &slab
	if len(p.Outline) > 0 {
		block.Outlines = append(block.Outlines, p.Outline)
		for i := range p.Openings {
			block.Outlines = append(block.Outlines, p.Openings[i].Corners)
		}
	}
	return block
}

// meets says how far a block lies in another, as of a part, or a plate.
func (b *Block) meets(o *Block) (axis int, by int64) {
	if o.slab != nil {
		return b.box.MeetsSlab(*o.slab)
	}
	return b.box.Meets(o.box)
}

// struckBy says how far a rod reaches into a block; zero: it does not.
func (b *Block) struckBy(rod space.Rod) float64 {
	if b.slab != nil {
		return rod.InSlab(*b.slab)
	}
	return rod.In(b.box)
}

// drawn says what the outline of a plate would tell; empty: it is drawn, or it is no plate.
func (b *Block) drawn() string {
	if b.slab == nil || len(b.Outlines) > 0 {
		return ""
	}
	return fmt.Sprintf(" Of %s no outline is drawn, so it counts as a full block: with it, what is open there does.",
		b.Label)
}

// frameBlocks are the plates and posts of the frame, with what is not stated of them.
func (s *seat) frameBlocks() (list []Block, missing []verdict.Missing) {
	if s.frame == nil {
		return nil, []verdict.Missing{verdict.FitValue(s.Case, "frame", "frame of "+s.Quad.Label())}
	}
	switch by, known := s.RaisedMM(); {
	case !known:
		missing = append(missing, s.lengths(s.Case)...)
	case by != 0 && len(s.frame.Posts) > 0 && !fleet.Exchanges(s.frame):
		missing = append(missing, s.frameValue("posts",
			fmt.Sprintf("which of its standoffs are %s long", s.frame.StandoffMM)))
	}
	if len(s.frame.Plates) == 0 {
		missing = append(missing, s.frameValue("plates", "plates"))
	}
	for _, p := range s.PlatesOn() {
		slab, known := p.Slab()
		if !known {
			missing = append(missing, s.frameValue("plates."+p.ID, "width, height and thickness of its "+p.Label()))
			continue
		}
		list = append(list, plated(&p, slab))
	}
	if len(s.frame.Posts) < s.frame.StandoffCount() {
		missing = append(missing, s.frameValue("posts", "where its standoffs stand"))
	}
	for _, p := range s.Posts() {
		if p.FromMM == nil || p.ToMM == nil || p.DiameterMM == nil {
			missing = append(missing, s.frameValue("posts", "foot, top and diameter of its standoffs"))
			continue
		}
		post := framed("a standoff", space.Standing([3]unit.Millimetres{p.XMM, p.YMM, *p.FromMM},
			[3]unit.Millimetres{*p.DiameterMM, *p.DiameterMM, *p.ToMM - *p.FromMM}, 0))
		post.Post = true
		list = append(list, post)
	}
	return list, missing
}

// clash marks what meets.
func (r *Room) clash() {
	for _, m := range r.meetings() {
		if m.free != nil {
			m.free.Clashes = true
			continue
		}
		r.Blocks[m.a].Clashes, r.Blocks[m.b].Clashes = true, true
	}
	for _, h := range r.hits() {
		h.block.Clashes, h.round.Clashes = true, true
	}
	r.crossings()
}

// meeting is a block of a part that lies in another, or in what is to stay free beside it.
type meeting struct {
	a, b int
	free *Block // what is to stay free; nil: the two themselves
	axis int
	by   int64
}

func (r *Room) meetings() (list []meeting) {
	for i := range r.Blocks {
		a := &r.Blocks[i]
		if a.Part == "" {
			continue // the frame is as it is
		}
		for j := range r.Blocks {
			b := &r.Blocks[j]
			if j == i {
				continue
			}
			if axis, by := a.meets(b); by != 0 && (b.Part == "" || i < j) {
				list = append(list, meeting{a: i, b: j, axis: axis, by: by})
			}
			for k := range a.Free {
				if short := a.Free[k].short(b); short > 0 {
					list = append(list, meeting{a: i, b: j, free: &a.Free[k], by: short})
				}
			}
		}
	}
	return list
}

// short is how much of what is to stay free a block takes, from its far end.
func (b *Block) short(o *Block) int64 {
	low, high := o.box.Min[b.axis], o.box.Max[b.axis]
	if o.slab != nil {
		var there bool
		if low, high, there = o.slab.Within(b.box, b.axis); !there {
			return 0
		}
	} else if _, by := b.box.Meets(o.box); by == 0 {
		return 0
	}
	if b.way > 0 {
		return b.box.Max[b.axis] - max(low, b.box.Min[b.axis])
	}
	return min(high, b.box.Max[b.axis]) - b.box.Min[b.axis]
}

// directions are those of the axes in words, up and down each.
var directions = [3][2]string{{"forward", "back"}, {"to the left", "to the right"}, {"up", "down"}}

func (m *meeting) move() string {
	way := 0
	if m.by < 0 {
		way = 1
	}
	return fmt.Sprintf("%s %s", space.MM(max(m.by, -m.by)), directions[m.axis][way])
}

// checkRoom asks whether what has a place goes there.
func (s *seat) checkRoom() (findings []verdict.Finding) {
	if len(s.Fit.Places) == 0 && !s.stands() {
		return nil
	}
	r, missing := s.room()
	if len(missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Mount, CodeRoom, s.Quad.Label(), missing...))
	}
	findings = append(findings, r.struck()...)
	findings = append(findings, r.crossings()...)
	if s.hasUnit {
		findings = append(findings, s.checkStanding(&r)...)
		findings = append(findings, s.checkCameraLead(&r)...)
	}
	findings = append(findings, s.checkShot(&r)...)
	findings = append(findings, s.checkOnHoles()...)
	findings = append(findings, s.checkRests(&r)...)
	findings = append(findings, s.checkOpenings(&r)...)
	for _, m := range r.meetings() {
		a, b := r.Blocks[m.a], r.Blocks[m.b]
		f := verdict.Finding{Code: CodeRoom, Level: verdict.Unfit, Source: verdict.Practice, Subject: a.Label, Part: a.Part,
			Says: fmt.Sprintf("%s and %s want the same room: %s is free when it moves %s.", a.Label, b.Label, a.Label, m.move())}
		if m.free != nil {
			f.Code, f.Level = CodeBlocked, verdict.Caution
			f.Says = fmt.Sprintf("The %s has no room: %s is in the way by %s.", m.free.Label, b.Label,
				space.MM(m.by))
		}
		f.Says += b.drawn()
		findings = append(findings, f)
	}
	return findings
}

// RoomOf is where everything of a fit lies, as far as it is stated.
func RoomOf(c fleet.Case) Room {
	s := newSeat(c)
	r, missing := s.room()
	for i := range r.Blocks {
		if b := &r.Blocks[i]; b.Place != nil {
			b.Lies, b.Snap = b.Place.Words(), s.snap(b.Part, *b.Place)
		}
	}
	for i := range r.Rods {
		r.Rods[i].Lies = r.Rods[i].Stand.Words()
	}
	r.clash()
	s.openings(&r)
	if s.frame != nil {
		r.Standoffs = s.standoffsOn()
		for i := range s.frame.Plates {
			p := &s.frame.Plates[i]
			r.Plates = append(r.Plates, PlateOn{p.ID, p.Label(), s.Fit.Off(p.ID)})
		}
	}
	r.Shot, _ = s.shot(&r)
	r.Next = s.nextStand(&r)
	for _, m := range missing {
		if !slices.Contains(r.Lacks, m.Label) {
			r.Lacks = append(r.Lacks, m.Label)
		}
	}
	return r
}
