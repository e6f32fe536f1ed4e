package gear

import (
	"fmt"
	"reflect"
	"regexp"
	"slices"
	"strings"
	"sync"
	"unicode"

	"yokeswap/core/measure/unit"
)

// What a sheet leaves open: a range where one number is asked, and what a value is
// under a condition. Where a range stands, the library holds the middle of it, to draw
// and to count with; a fit is judged at both ends.

// Range is a value that is stated as a range where one number is asked, in the unit of its
// field.
type Range struct {
	Value string  `json:"value"` // its path in the entry, such as "input.peakW"
	Low   float64 `json:"low"`
	High  float64 `json:"high"`
}

// Variant is what a value is under a condition: on a revision of the hardware, or set to a
// region. Where both are named, both must hold. It is a number or a text, as its field is.
type Variant struct {
	Value    string   `json:"value"` // its path in the entry, such as "radio.maxMW"
	Revision string   `json:"revision,omitempty"`
	Region   string   `json:"region,omitempty"`
	Number   *float64 `json:"number,omitempty"`
	Text     string   `json:"text,omitempty"`
}

// Is is the value.
func (v *Variant) Is() any {
	if v.Number != nil {
		return *v.Number
	}
	return v.Text
}

// Middle is the middle of a range, for a field of whole numbers the next lower one.
func (r *Range) Middle() float64 { return (r.Low + r.High) / 2 }

// EitherWay is how far a value of an entry may be off to either side of what is counted with, where
// a range is stated; zero where none is.
func (e *Entry) EitherWay(path string) float64 {
	for i := range e.Ranges {
		if r := &e.Ranges[i]; r.Value == path {
			return (r.High - r.Low) / 2
		}
	}
	return 0
}

// Pin is one value set in an entry.
type Pin struct {
	Path string
	Is   any
}

// Pinned is a copy of an entry with values set; it fails where a path or value is none of
// the entry's.
func Pinned(item Item, pins ...Pin) (Item, error) {
	other := reflect.New(reflect.TypeOf(item).Elem())
	other.Elem().Set(reflect.ValueOf(item).Elem())
	for _, p := range pins {
		if err := setNumber(other.Interface(), p); err != nil {
			return nil, fmt.Errorf("%s of %s: %w", p.Path, item.Head().ID, err)
		}
	}
	return other.Interface().(Item), nil
}

// setNumber sets a value; where a field takes whole numbers only, the part after the point
// is left away.
func setNumber(entry any, p Pin) error {
	err := SetAt(entry, p.Path, p.Is)
	if number, is := p.Is.(float64); err != nil && is && number != float64(int64(number)) {
		return SetAt(entry, p.Path, int64(number))
	}
	return err
}

// A window in cells is one of lithium polymer: 4.20 V a cell charged, and 3.5 V where it is
// landed (common practice). High-voltage packs of as many cells are beyond it.
const fullCellV, landedCellV unit.Volts = 4.20, 3.5

// InVolts is the window with its ends in volts where they are stated in cells.
func (in Input) InVolts() Input {
	if in.FromCells != nil && in.MinV == nil {
		in.MinV = new(unit.Volts(*in.FromCells) * landedCellV)
	}
	if in.ToCells != nil && in.MaxV == nil {
		in.MaxV = new(unit.Volts(*in.ToCells) * fullCellV)
	}
	return in
}

// inVolts are the ends of an entry's windows that are stated in cells.
func inVolts(item Item) (pins []Pin) {
	add := func(in *Input, path string) {
		volts := in.InVolts()
		if in.MinV == nil && volts.MinV != nil {
			pins = append(pins, Pin{path + ".minV", float64(*volts.MinV)})
		}
		if in.MaxV == nil && volts.MaxV != nil {
			pins = append(pins, Pin{path + ".maxV", float64(*volts.MaxV)})
		}
	}
	if in, ok := fieldOf(reflect.ValueOf(item).Elem(), "input"); ok {
		add(in.Addr().Interface().(*Input), "input")
	}
	if b, ok := item.(*Board); ok {
		for i := range b.Pads {
			add(&b.Pads[i].Input, "pads."+b.Pads[i].ID+".input")
		}
	}
	return pins
}

func leavesOpen(item Item) bool { return len(item.Head().Ranges)+len(item.Head().Variants) > 0 }

// renamed says whether its name is left open.
func (e *Entry) renamed() bool {
	return slices.ContainsFunc(e.Variants, func(v Variant) bool { return v.Value == "name" })
}

// closed is an entry with the middle of its ranges, and its windows in volts; itself where it
// states neither.
func closed(item Item) Item {
	pins := inVolts(item)
	for i := range item.Head().Ranges {
		r := &item.Head().Ranges[i]
		pins = append(pins, Pin{r.Value, r.Middle()})
	}
	if len(pins) == 0 {
		return item
	}
	other, err := Pinned(item, pins...)
	if err != nil {
		return item // the format package refuses such an entry
	}
	return other
}

// Open are the entries that leave something open and are reached from some ids: by each of
// them, each once.
func (l *Library) Open(from func(visit func(id string))) (list []Item) {
	l.readAll()
	var reached []string
	from(func(id string) {
		for _, open := range l.leads[id] {
			if !slices.Contains(reached, open) {
				reached = append(reached, open)
			}
		}
	})
	for _, id := range l.open {
		if slices.Contains(reached, id) {
			list = append(list, l.byID[id])
		}
	}
	return list
}

// lead notes which gear leads to what is left open.
func (l *Library) lead() {
	if len(l.open) == 0 {
		return
	}
	namedBy := map[string][]string{}
	for _, item := range l.ordered {
		EachText(reflect.ValueOf(item), func(text string) {
			if _, is := l.byID[text]; is {
				namedBy[text] = append(namedBy[text], item.Head().ID)
			}
		})
	}
	for _, open := range l.open {
		reached := []string{open}
		for i := 0; i < len(reached); i++ {
			l.leads[reached[i]] = append(l.leads[reached[i]], open)
			for _, id := range namedBy[reached[i]] {
				if !slices.Contains(reached, id) {
					reached = append(reached, id)
				}
			}
		}
	}
}

// EachText visits every text in a value, as an id is one.
func EachText(v reflect.Value, visit func(string)) {
	switch v.Kind() {
	case reflect.String:
		if text := v.String(); text != "" {
			visit(text)
		}
	case reflect.Pointer, reflect.Interface:
		if !v.IsNil() {
			EachText(v.Elem(), visit)
		}
	case reflect.Slice:
		for i := range v.Len() {
			EachText(v.Index(i), visit)
		}
	case reflect.Struct:
		for i := range v.NumField() {
			EachText(v.Field(i), visit)
		}
	}
}

// LeavesOpen says whether any entry leaves something open.
func (l *Library) LeavesOpen() bool { return len(l.open) > 0 }

// Under is the library as it is for a region and for what revision each entry is of; empty:
// not stated, and what hangs on it stays open. It is the library itself where nothing does.
func (l *Library) Under(region string, revision func(id string) string) *Library {
	var key strings.Builder
	key.WriteString(region)
	for _, id := range l.open {
		key.WriteByte(0)
		key.WriteString(revision(id))
	}
	out := l.settled.of(key.String(), func() *Library { return l.unwatched().under(region, revision) })
	return out.watchedBy(l.reads) // an entry of it hangs on that entry alone
}

// settled remembers libraries by the region and the revisions they are settled for. It may be
// used by many at once.
type settled struct {
	mu    sync.Mutex
	known map[string]*Library
}

// mostSettled is how many are remembered before all are let go.
const mostSettled = 64

func (s *settled) of(key string, work func() *Library) *Library {
	s.mu.Lock()
	defer s.mu.Unlock()
	lib, known := s.known[key]
	if !known {
		if lib = work(); s.known == nil || len(s.known) >= mostSettled {
			s.known = map[string]*Library{}
		}
		if lib.settled != s { // not that of the call, which others read
			lib.settled = s // settled anew, it is what the one it is from would be
		}
		s.known[key] = lib
	}
	return lib
}

func (l *Library) under(region string, revision func(id string) string) *Library {
	out := l
	for _, id := range l.open {
		item := l.stated[id]
		if pins := item.Head().Under(region, revision(id)); len(pins) > 0 {
			if other, err := Pinned(item, pins...); err == nil {
				item = other
			}
		}
		if item != out.byID[id] {
			out = out.put(item)
		}
	}
	return out
}

// Under are the values that a region and a revision settle.
func (e *Entry) Under(region, revision string) (pins []Pin) {
	for i := range e.Variants {
		v := &e.Variants[i]
		if (v.Region == "" || v.Region == region) && (v.Revision == "" || v.Revision == revision) {
			pins = append(pins, Pin{v.Value, v.Is()})
		}
	}
	return pins
}

// Revisions are the revisions that an entry says something of, in their order.
func (e *Entry) Revisions() (list []string) {
	for i := range e.Variants {
		if r := e.Variants[i].Revision; r != "" && !slices.Contains(list, r) {
			list = append(list, r)
		}
	}
	return list
}

// Regions are the regions that an entry says something of, in their order.
func (e *Entry) Regions() (list []string) {
	for i := range e.Variants {
		if r := e.Variants[i].Region; r != "" && !slices.Contains(list, r) {
			list = append(list, r)
		}
	}
	return list
}

// TextAt is the value at a path as it is read, such as "12 W"; empty where there is none.
func TextAt(entry any, path string) string {
	v := reflect.ValueOf(entry)
	for _, step := range steps(path) {
		for v.Kind() == reflect.Pointer && !v.IsNil() {
			v = v.Elem()
		}
		switch v.Kind() {
		case reflect.Struct:
			v, _ = fieldOf(v, step)
		case reflect.Slice:
			v = listed(v, step)
		default:
			v = reflect.Value{}
		}
		if !v.IsValid() {
			return ""
		}
	}
	if v.IsZero() {
		return "" // not stated
	}
	for v.Kind() == reflect.Pointer {
		v = v.Elem()
	}
	return fmt.Sprint(v.Interface())
}

// unitEnd is the unit that the name of a value ends in.
var unitEnd = regexp.MustCompile(`(MHz|DBi|DBm|Deg|Wh|[A-Z]+)$`)

// PathWords is a path as it is read: "input.peakW" is "input peak".
func PathWords(path string) string {
	list := steps(path)
	for i, step := range list {
		if bare := unitEnd.ReplaceAllString(step, ""); bare != "" {
			step = bare
		}
		var words strings.Builder
		for _, r := range step {
			if unicode.IsUpper(r) {
				words.WriteByte(' ')
			}
			words.WriteRune(unicode.ToLower(r))
		}
		list[i] = words.String()
	}
	return strings.Join(list, " ")
}
