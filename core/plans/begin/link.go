package begin

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
)

// LinkQuestion asks whether an air unit and a pair of goggles link, and on which firmware.
type LinkQuestion struct {
	Unit    Carries `json:"unit"`
	Goggles Carries `json:"goggles"`
	// Says is what somebody states of the pair: that it links while both releases lie in
	// their ranges, on any release, or never; nothing: nobody has said.
	Says      Statement `json:"says" enum:"within,any,never,nothing"`
	From      string    `json:"from" maxLength:"400" doc:"where that is stated; empty: not said"`
	Activated bool      `json:"activated" doc:"both have been activated once, or need it not"`
}

// Carries is a device and the release on it; empty: not known.
type Carries struct {
	Name    string `json:"name" minLength:"1" maxLength:"200"`
	Release string `json:"release" maxLength:"40"`
	Works   string `json:"works" maxLength:"200" doc:"the releases on which the pair links; empty: any"`
}

// Statement is what is said of a pair.
type Statement string

// The statements.
const (
	SaysWithin  Statement = "within"
	SaysAny     Statement = "any"
	SaysNever   Statement = "never"
	SaysNothing Statement = "nothing"
)

// Link adds the two devices, what is stated of them and a quad that flies them, and gives
// the quad's id. It fails where a release or a range is none, naming it.
func Link(st *stock.Stock, q LinkQuestion) (string, error) {
	unit, err := q.device(st, gear.KindAirUnit, q.Unit)
	if err != nil {
		return "", err
	}
	goggles, err := q.device(st, gear.KindGoggles, q.Goggles)
	if err != nil {
		return "", err
	}
	said := Said{Says: q.Says, Unit: q.Unit.Works, Goggles: q.Goggles.Works, From: q.From}
	if err := State(st, unit.model, goggles.model, said); err != nil {
		return "", err
	}
	id := Quad(st, q.Unit.Name+" with "+q.Goggles.Name, false)
	quad, _ := st.Fleet.Quad(id)
	quad.Now.None = []string{fleet.NoController, fleet.NoReceiver, fleet.NoAnalog}
	next := quad.Now.Clone()
	next.AirUnit, next.Goggles = &fleet.Slot{Kit: unit.kit}, &fleet.Slot{Kit: goggles.kit}
	quad.Next = &next
	return id, nil
}

type made struct{ model, kit string }

// device is the piece of kit of that name on that release, made where there is none yet.
func (q *LinkQuestion) device(st *stock.Stock, kind gear.Kind, c Carries) (made, error) {
	name := strings.TrimSpace(c.Name)
	var release firmware.Version
	if strings.TrimSpace(c.Release) != "" {
		v, err := firmware.Parse(c.Release)
		if err != nil {
			return made{}, fmt.Errorf("the release on %s: %w", name, err)
		}
		release = v
	}
	model := ""
	for _, item := range st.Library().Items() {
		if item.Kind() == kind && strings.EqualFold(item.Head().Label(), name) {
			model = item.Head().ID
		}
	}
	if model == "" {
		id, err := Model(st, kind, name, nil)
		if err != nil {
			return made{}, err
		}
		model = id
	}
	if err := lists(st, model, release); err != nil {
		return made{}, err
	}
	kit := Own(st, model)
	piece, _ := st.Fleet.Piece(kit)
	piece.Firmware = release
	if q.Activated {
		piece.Activated = new(true)
	}
	return made{model, kit}, nil
}

// lists adds a release to those a model can carry, where it is not among them; the newest
// stands last.
func lists(st *stock.Stock, model string, release firmware.Version) error {
	item, _ := st.Library().Item(model)
	linked, ok := item.(gear.Linked)
	if !ok || !release.Known() {
		return nil
	}
	if _, listed := linked.AsDevice().Release(release); listed {
		return nil
	}
	set, ok := st.SetOf(model)
	if !ok {
		return nil
	}
	own, err := Like(item)
	if err != nil {
		return err
	}
	d := own.(gear.Linked).AsDevice()
	at := 0
	for at < len(d.Releases) && d.Releases[at].Version.Compare(release) < 0 {
		at++
	}
	d.Releases = append(d.Releases[:at:at], append([]gear.Release{{Version: release}}, d.Releases[at:]...)...)
	in := &gear.Set{Format: set.Format, Version: set.Version, ID: set.ID, Title: set.Title, License: set.License}
	in.Add(own)
	_, err = st.MergeSet(in)
	return err
}

// Said is what somebody states of a pair of models.
type Said struct {
	Says    Statement `json:"says" enum:"within,any,never,nothing"`
	Unit    string    `json:"unit" maxLength:"200" doc:"the releases of the air unit on which they link; empty: any"`
	Goggles string    `json:"goggles" maxLength:"200" doc:"the releases of the goggles"`
	From    string    `json:"from" maxLength:"400" doc:"where that is stated; empty: not said"`
	// Through is a controller that goes through the air unit on these releases.
	Through string `json:"through,omitempty" doc:"its id; empty: not said"`
}

// State adds a statement about a pair of models; nothing where nobody has said anything.
func State(st *stock.Stock, unit, goggles string, s Said) error {
	lib := st.Library()
	p := &gear.Pairing{AirUnit: unit, Goggles: goggles}
	p.Source = gear.Source{Kind: gear.Measured, Text: strings.TrimSpace(s.From)}
	switch s.Says {
	case SaysNothing:
		return nil
	case SaysNever:
		p.Never = true
	case SaysWithin:
		for _, end := range []struct {
			model, works string
			to           *firmware.Range
		}{{unit, s.Unit, &p.AirFirmware}, {goggles, s.Goggles, &p.GogglesFirmware}} {
			r, err := firmware.ParseRange(end.works)
			if err != nil {
				return fmt.Errorf("the releases of %s: %w", lib.Label(end.model), err)
			}
			if !r.IsAny() {
				*end.to = r
			}
			for _, v := range r.Named() { // whoever states them has seen them
				if err := lists(st, end.model, v); err != nil {
					return err
				}
			}
		}
	case SaysAny:
	default:
		return fmt.Errorf("%q says nothing of a pair", s.Says)
	}
	if s.Through != "" && s.Says != SaysNever {
		if _, known := gear.Find[*gear.Controller](lib, s.Through); !known {
			return fmt.Errorf("there is no controller %q", s.Through)
		}
		p.Controllers = append(p.Controllers, gear.ControllerRange{ID: s.Through})
	}
	p.ID = ID(lib.Label(unit)+" "+lib.Label(goggles), func(id string) bool { _, taken := lib.Item(id); return taken })
	return put(st, p)
}

// StateInstead puts a statement in the place of all that is stated of a pair; where nobody
// has said anything, nothing is stated of it any more.
func StateInstead(st *stock.Stock, unit, goggles string, s Said) error {
	said := slices.Clone(st.Library().Pairings(unit, goggles))
	if untested, ok := st.Library().Untested(unit, goggles); ok {
		said = append(said, untested)
	}
	for _, p := range said {
		st.Remove(stock.Ref{Kind: string(gear.KindPairing), ID: p.ID})
	}
	return State(st, unit, goggles, s)
}
