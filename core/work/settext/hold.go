package settext

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/measure/unit"
)

// held says why a line is not loaded, whoever asks; empty: it may be.
func (w *comparing) held(line *Line) string {
	word, known := w.grammar.Word(line.Key)
	switch {
	case w.twice(line.Key):
		return "the text sets it to more than one value"
	case !known || word.Sets == "":
		return "nobody has stated what it moves"
	case word.Sets == gear.SetsMotors:
		return "it moves motors: set it by hand, props off, and try each motor"
	case word.Sets == gear.SetsPins:
		return "it moves pins: what is wired there could be driven or fed by something else"
	}
	switch word.Sets {
	case gear.SetsPower, gear.SetsBand:
		return w.unlawful(line, word.Sets)
	case gear.SetsRegion:
		return w.otherRegion(&word, line.Value)
	}
	return ""
}

// otherRegion says why a line that sets a region is not loaded: it is not the one whose
// limits hold where the fleet flies, or nobody has stated which it is.
func (w *comparing) otherRegion(word *gear.SettingsWord, value string) string {
	is, ok := word.Value(value)
	switch {
	case !ok || is.Region == "":
		return fmt.Sprintf("nobody has stated which region %q stands for", value)
	case w.Fleet.Region == "":
		return "nobody has stated which region the fleet flies in"
	case is.Region != w.Fleet.Region:
		return "it is set for another region than the one whose limits hold here"
	}
	return ""
}

// unlawful says why a line that sets power or band is not loaded. Lines can be picked one
// by one: a power is held against every band that may then be sent on, those of the text
// and those the board has; a band against every power that may be.
func (w *comparing) unlawful(line *Line, kind gear.SettingKind) string {
	powers, why := w.may(line, kind, gear.SetsPower).powers()
	if why != "" {
		return why
	}
	bands, why := w.may(line, kind, gear.SetsBand).bands()
	if why != "" {
		return why
	}
	cases := []fleet.Case{w.Case}
	switch now := fleet.NowCase(w.Library, w.Fleet, w.Quad); { // what is on it until the swap is done
	case now.Fit.AirUnit != nil:
		cases = append(cases, now)
	case now.Fit.Analog != "":
		return "the analog video that is on it today would take it, and what that sends is not judged here"
	}
	for _, c := range cases {
		for _, band := range bands {
			for _, power := range powers {
				if f := antenna.Allowed(c, band, power); f.Level != verdict.Fits {
					return f.Says
				}
			}
		}
	}
	return ""
}

// settings are lines of one kind that may come to hold together with one that is asked
// about.
type settings struct {
	*comparing
	lines []Line
	kind  gear.SettingKind
	key   string // of the line asked about
}

// may are the lines of a kind beside one: itself where it is of that kind.
func (w *comparing) may(line *Line, own, kind gear.SettingKind) settings {
	if own == kind {
		return settings{w, []Line{*line}, kind, line.Key}
	}
	return settings{w, slices.Concat(w.text.Lines, w.board.Lines), kind, line.Key}
}

// each hands over what the lines mean, and says why where nobody has stated that.
func (s settings) each(take func(gear.SettingsValue) bool) (why string) {
	for _, line := range s.lines {
		word, ok := s.grammar.Word(line.Key)
		if line.Key == "" || !ok || word.Sets != s.kind {
			continue
		}
		if is, stated := word.Value(line.Value); !stated || !take(is) {
			return fmt.Sprintf("nobody has stated which %s %q of %s stands for", setsWords[s.kind], line.Value, line.Key)
		}
	}
	return ""
}

// powers are those that may be sent with; the highest of the unit where no line says one.
func (s settings) powers() (list []unit.Milliwatts, why string) {
	why = s.each(func(v gear.SettingsValue) bool {
		if v.MW != nil {
			list = append(list, *v.MW)
		}
		return v.MW != nil
	})
	if u, _, ok := s.AirUnit(); why == "" && len(list) == 0 && ok && u.Radio != nil && u.Radio.MaxMW != nil {
		list = append(list, *u.Radio.MaxMW)
	}
	if why == "" && len(list) == 0 {
		why = "nobody has stated which power goes out with " + s.key
	}
	return list, why
}

// bands are those that may be sent on; all of the unit where no line says one.
func (s settings) bands() (list []gear.Band, why string) {
	why = s.each(func(v gear.SettingsValue) bool {
		if v.Band != "" {
			list = append(list, v.Band)
		}
		return v.Band != ""
	})
	if u, _, ok := s.AirUnit(); why == "" && len(list) == 0 && ok && u.Radio != nil {
		list = u.Radio.Bands
	}
	if why == "" && len(list) == 0 {
		why = "nobody has stated which band is sent on with " + s.key
	}
	return list, why
}
