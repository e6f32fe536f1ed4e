// Package begin makes the first entries of a fleet from as little as a person has to say:
// a quad by its name, a model by its name, what is copied from a shelf, and the answer to
// whether two devices link.
//
// Method: every entry that a thing needs is made together, and no id is asked for. A model
// of an air unit, of goggles or of a controller that somebody has is a piece of kit as
// well. Nothing is assumed that was not said: what is left open stays unknown.
//
// Source: common practice.
package begin

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
)

// ID makes an id of a name: letters a to z, digits and hyphens, none that is taken.
func ID(name string, taken func(id string) bool) string {
	var plain strings.Builder
	for _, r := range strings.ToLower(name) {
		switch {
		case r >= 'a' && r <= 'z' || r >= '0' && r <= '9':
			plain.WriteRune(r)
		case plain.Len() > 0 && !strings.HasSuffix(plain.String(), "-"):
			plain.WriteByte('-')
		}
	}
	base := strings.Trim(plain.String(), "-")
	base = strings.Trim(base[:min(len(base), 58)], "-")
	if base == "" {
		base = "entry"
	}
	id := base
	for n := 2; taken(id); n++ {
		id = fmt.Sprintf("%s-%d", base, n)
	}
	return id
}

// Quad adds a quad of that name; analog says that it carries analog video today.
func Quad(st *stock.Stock, name string, analog bool) (id string) {
	id = ID(name, func(id string) bool { _, taken := st.Fleet.Quad(id); return taken })
	q := fleet.Quad{ID: id, Name: strings.TrimSpace(name)}
	if analog {
		q.Now.Analog = "analog"
	}
	st.Fleet.Quads = append(slices.Clone(st.Fleet.Quads), q)
	return id
}

// QuadLike adds a quad like another: what is on it and what is planned, but for the air unit,
// which is another one of its model, still to be bought. Goggles and controller stay the same
// pieces; what was measured of the other is not.
func QuadLike(st *stock.Stock, name, like string) (string, error) {
	from, ok := st.Fleet.Quad(like)
	if !ok {
		return "", fmt.Errorf("there is no quad %q", like)
	}
	copied := *from
	id := Quad(st, name, false)
	q, _ := st.Fleet.Quad(id)
	q.Use, q.Now = copied.Use, another(st, copied.Now)
	if copied.Next != nil {
		q.Next = new(another(st, *copied.Next))
	}
	return id, nil
}

// another is a fit with another air unit of the same model.
func another(st *stock.Stock, f fleet.Fit) fleet.Fit {
	f = f.Clone()
	if f.AirUnit == nil {
		return f
	}
	if kit, ok := st.Fleet.Piece(f.AirUnit.Kit); ok {
		f.AirUnit = &fleet.Slot{Model: kit.Model}
	}
	return f
}

// Model adds a model under a name and gives its id. What it is like is copied, where it is
// like another: all but its name, id and price.
func Model(st *stock.Stock, kind gear.Kind, name string, like gear.Item) (string, error) {
	item := gear.New(kind)
	switch {
	case item == nil:
		return "", fmt.Errorf("%q is no kind of gear", kind)
	case like != nil && like.Kind() != kind:
		return "", fmt.Errorf("%s is no %s", like.Head().Label(), kind)
	case like != nil:
		same, err := Like(like)
		if err != nil {
			return "", err
		}
		item = same
	}
	head := item.Head()
	lib := st.Library()
	head.ID = ID(name, func(id string) bool { _, taken := lib.Item(id); return taken })
	head.Name, head.Offer = strings.TrimSpace(name), nil
	if like == nil {
		head.Source = gear.Source{Kind: gear.Measured, Text: "entered by hand"}
	}
	return head.ID, put(st, item)
}

// Like is a copy of a model that shares nothing with it.
func Like(item gear.Item) (gear.Item, error) {
	same := gear.New(item.Kind())
	text, err := json.Marshal(item)
	if err == nil {
		err = json.Unmarshal(text, same)
	}
	if err != nil {
		return nil, fmt.Errorf("copy %s: %w", item.Head().Label(), err)
	}
	return same, nil
}

// put adds a model to one's own gear.
func put(st *stock.Stock, item gear.Item) error {
	set := &gear.Set{Format: gear.SetFormat, Version: gear.SetVersion, ID: stock.OwnSet, Title: "Own gear"}
	if there, ok := st.Set(stock.OwnSet); ok {
		set.Title, set.License = there.Title, there.License
	}
	set.Add(item)
	_, err := st.MergeSet(set)
	return err
}

// Copy takes models from a shelf into one's own gear, as they are, unless they are there.
func Copy(st *stock.Stock, items ...gear.Item) error {
	lib := st.Library()
	for _, item := range items {
		if _, there := lib.Item(item.Head().ID); there {
			continue
		}
		if err := put(st, item); err != nil {
			return fmt.Errorf("take %s from the shelf: %w", item.Head().Label(), err)
		}
	}
	return nil
}

// Own makes a piece of kit of a model, named as it is, and gives its id.
func Own(st *stock.Stock, model string) string {
	f := *st.Fleet
	f.Kit = slices.Clone(f.Kit)
	id := f.Own(model)
	kit, _ := f.Piece(id)
	kit.Name = st.Library().Label(model)
	for n := 2; slices.ContainsFunc(f.Kit, func(k fleet.Kit) bool { return k.ID != id && k.Name == kit.Name }); n++ {
		kit.Name = fmt.Sprintf("%s %d", st.Library().Label(model), n)
	}
	st.Fleet = &f
	return id
}
