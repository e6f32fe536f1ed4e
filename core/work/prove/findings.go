package prove

import (
	"fmt"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// The codes.
const (
	CodeBetter   verdict.Code = "prove.better"
	CodeWorse    verdict.Code = "prove.worse"
	CodeChance   verdict.Code = "prove.chance"
	CodeUnread   verdict.Code = "prove.unread"
	CodeFreezes  verdict.Code = "prove.freezes"
	CodeTried    verdict.Code = "prove.tried"
	CodeAlike    verdict.Code = "prove.alike"
	CodeForetold verdict.Code = "prove.foretold"
	CodeCheck    verdict.Code = "prove.check"
	CodeSight    verdict.Code = "prove.sight"
)

// signTest is the source of what is said of chance.
const signTest = "the exact sign test (Dixon and Mood, 1946), over spots"

const linkBudget = "the link budget of the antenna gate"

// findings are what is said of a comparison, the main thing first.
func (c *Proof) findings(
	names book, course *fleet.Course, before, after []*fleet.TestFlight,
) []verdict.Finding {
	all := append(append([]*fleet.TestFlight{}, before...), after...)
	list := []verdict.Finding{c.rate(all), c.frozen(all), c.tried(names, all), c.alike(names, all)}
	list = append(list, c.foretold()...)
	list = append(list, unchecked(all)...)
	list = append(list, c.sight(course)...)
	for i := range list {
		if list[i].Subject == "" {
			list[i].Subject = course.Label()
		}
		if list[i].Source == "" {
			list[i].Source = verdict.Practice
		}
	}
	return list
}

// rate says which side is better by bit rate, and how sure that is.
func (c *Proof) rate(all []*fleet.TestFlight) verdict.Finding {
	t := &c.Rate
	lean, most := "better", t.Better
	if t.Worse > t.Better {
		lean, most = "worse", t.Worse
	}
	read := t.Better + t.Worse + t.Same
	f := verdict.Finding{Code: CodeChance, Level: verdict.Caution, Source: signTest}
	if read == 0 {
		f.Code, f.Level, f.Missing = CodeUnread, verdict.Unknown, c.unread(all)
		f.Says = "At no spot was the lowest bit rate read on both sides: nothing can be said."
		return f
	}
	f.Says = fmt.Sprintf("%s at %s of %s", strings.ToUpper(lean[:1])+lean[1:], number(most), spots(read))
	if t.Same > 0 {
		f.Says += fmt.Sprintf(", the same at %s", number(t.Same))
	}
	if t.Open > 0 {
		f.Says += fmt.Sprintf("; %s not read on both sides, which speaks against it", were(t.Open))
	}
	switch {
	case t.Chance > Sure:
		f.Says += fmt.Sprintf(". That happens by chance %s: %s.", Often(t.Chance), flyMore(t.More))
		if t.Open > 0 {
			f.Code, f.Level, f.Missing = CodeUnread, verdict.Unknown, c.unread(all)
		}
	case lean == "better":
		f.Code, f.Level = CodeBetter, verdict.Fits
		f.Says += fmt.Sprintf(". By chance that happens %s.", Often(t.Chance))
	default:
		f.Code, f.Level = CodeWorse, verdict.Change
		f.Says += fmt.Sprintf(". By chance that happens %s: what flew after is worse here.", Often(t.Chance))
	}
	f.Compares = []verdict.Compare{{What: "by chance alone, at most", Needed: percent(Sure), There: percent(t.Chance)}}
	return f
}

func percent(share float64) string { return fmt.Sprintf("%.1f %%", 100*share) }

func spots(n int) string {
	if n == 1 {
		return "one spot"
	}
	return number(n) + " spots"
}

func were(n int) string {
	if n == 1 {
		return "one was"
	}
	return number(n) + " were"
}

func flyMore(n int) string { return fmt.Sprintf("fly %s more", spotsMore(n)) }

func spotsMore(n int) string {
	if n == 1 {
		return "one spot"
	}
	return number(n)
}

// unread are the readings that are missing at the spots that are open.
func (c *Proof) unread(all []*fleet.TestFlight) (list []verdict.Missing) {
	for i := range c.Spots {
		s := &c.Spots[i]
		if s.Rate != Open {
			continue
		}
		for _, t := range all {
			if read([]*fleet.TestFlight{t}, s.ID).Lowest == nil && !t.Left(s.ID) {
				list = append(list, lacks("reads."+s.ID, "lowest bit rate at "+s.Label, t)...)
			}
		}
	}
	return list
}

// frozen says whether the picture froze more often.
func (c *Proof) frozen(all []*fleet.TestFlight) verdict.Finding {
	t := &c.Freezes
	f := verdict.Finding{Code: CodeFreezes, Level: verdict.Fits}
	counted := t.Better + t.Worse + t.Same
	switch {
	case counted == 0:
		f.Level = verdict.Caution
		f.Says = "Nobody counted on both sides how often the picture froze: a higher bit rate can go with more of it."
	case t.Worse > 0:
		f.Level = verdict.Caution
		f.Says = fmt.Sprintf("The picture froze more often at %s of %s", number(t.Worse), spots(counted))
		if t.Better > 0 {
			f.Says += ", and less often at " + number(t.Better)
		}
		f.Says += "."
	case t.Open > 0:
		f.Level = verdict.Caution
		f.Says = fmt.Sprintf("The picture froze no more often at %s; at %s it was not counted on both sides.",
			spots(counted), number(t.Open))
	case t.Better == 0:
		f.Says = "The picture froze as often on both sides."
	default:
		f.Says = fmt.Sprintf("The picture froze less often at %s of %s, and nowhere more often.", number(t.Better),
			spots(counted))
	}
	if f.Level != verdict.Fits && t.Open > 0 {
		for i := range c.Spots {
			for _, flight := range all {
				if s := &c.Spots[i]; s.Freezes == Open && read([]*fleet.TestFlight{flight}, s.ID).Freezes == nil {
					f.Missing = append(f.Missing, lacks("reads."+s.ID, "frozen pictures at "+s.Label, flight)...)
				}
			}
		}
	}
	return f
}

// tried says what was held against each other.
func (c *Proof) tried(names book, all []*fleet.TestFlight) verdict.Finding {
	f := verdict.Finding{Code: CodeTried, Level: verdict.Caution}
	differ, open := c.differing(true)
	switch {
	case len(open) > 0:
		f.Missing = lacking(names, open, all)
		f.Says = "What flew is not stated on both sides: " + whats(open) + "."
	case len(differ) == 0:
		f.Says = "The same flew on both sides: what differs is what the day does."
	case len(differ) == 1:
		f.Level = verdict.Fits
		f.Says = "Held against each other: " + differ[0] + "; all else that flew was the same."
	default:
		f.Says = "More than one thing differs, and the flights cannot say which of them did it: " +
			change.And(differ) + "."
	}
	return f
}

// alike says what was otherwise on the two sides, beside what is tried.
func (c *Proof) alike(names book, all []*fleet.TestFlight) verdict.Finding {
	differ, open := c.differing(false)
	if len(differ)+len(open) == 0 {
		return verdict.Finding{Code: CodeAlike, Level: verdict.Fits,
			Says: "Pack, power, channel, weather and who read were the same on both sides."}
	}
	f := verdict.Finding{Code: CodeAlike, Level: verdict.Caution, Missing: lacking(names, open, all)}
	if len(differ) > 0 {
		f.Says = "Not alike, and perhaps the reason: " + change.And(differ) + ". "
	}
	if len(open) > 0 {
		f.Says += "Not stated on both sides: " + whats(open) + "."
	}
	f.Says = strings.TrimSpace(f.Says)
	return f
}

// differing are the conditions that were not alike, in words, and those not stated on both
// sides: of what is tried, or of all else.
func (c *Proof) differing(tried bool) (differ []string, open []Condition) {
	for _, a := range c.Alike {
		switch {
		case a.Tried != tried || a.Alike || a.With:
		case !a.Stated():
			open = append(open, a)
		default:
			differ = append(differ, fmt.Sprintf("%s (%s, then %s)", a.What, a.Before, a.After))
		}
	}
	return differ, open
}

func whats(list []Condition) string {
	words := make([]string, len(list))
	for i := range list {
		words[i] = list[i].What
	}
	return change.And(words)
}

// foretold holds the link budget against what was flown.
func (c *Proof) foretold() []verdict.Finding {
	var list []verdict.Finding
	if len(c.Foretold) == 0 {
		return []verdict.Finding{{Code: CodeForetold, Level: verdict.Caution, Source: linkBudget,
			Says: "The link budget foretells nothing: what flew on one of the sides is not stated, or it differs within a " +
				"side."}}
	}
	for _, told := range c.Foretold {
		f := verdict.Finding{Code: CodeForetold, Level: verdict.Fits, Source: linkBudget}
		if told.ChangeDB == nil {
			f.Level = verdict.Caution
			f.Says = fmt.Sprintf("On %s the link budget cannot say which is better: too little is stated.", told.Band)
			list = append(list, f)
			continue
		}
		db := *told.ChangeDB
		f.Says = fmt.Sprintf("On %s the link budget foretold %+.1f dB", told.Band, float64(db))
		if len(told.LeftOut) > 0 {
			f.Level = verdict.Caution
			f.Says += ", without " + change.And(told.LeftOut) + ", for want of values"
		}
		up, down := unit.Compare(db, 0) > 0, unit.Compare(db, 0) < 0
		switch lean := c.Rate.Better - c.Rate.Worse; {
		case lean == 0:
			f.Says += "; the flights lean neither way."
		case up && lean > 0, down && lean < 0:
			f.Says += "; the flights lean the same way."
		case !up && !down:
			f.Says += ": no difference from the antennas and the power."
		default:
			f.Level = verdict.Caution
			f.Says += ", and the flights lean the other way: look at antenna plugs, what stands before the antennas, " +
				"and the power that was really set."
		}
		list = append(list, f)
	}
	return list
}

// unchecked cautions where failsafe and range were not tried before a flight.
func unchecked(all []*fleet.TestFlight) (list []verdict.Finding) {
	for _, t := range all {
		if t.Checked != nil && *t.Checked {
			continue
		}
		f := verdict.Finding{Code: CodeCheck, Level: verdict.Caution, Subject: t.Label(),
			Says: fmt.Sprintf("Before %s failsafe and range were not tried on the ground: fly spots only after that.",
				t.Label())}
		if t.Checked == nil {
			f.Says = fmt.Sprintf("Whether failsafe and range were tried on the ground before %s is not stated: fly spots "+
				"only after that.", t.Label())
			f.Missing = lacks("checked", "the check before the flight", t)
		}
		list = append(list, f)
	}
	return list
}

// sight cautions where a spot cannot be seen from where the pilot stands, or nobody says so.
func (c *Proof) sight(course *fleet.Course) []verdict.Finding {
	var out, open []string
	for i := range course.Spots {
		s := &course.Spots[i]
		if c.Spots[i].Before.Passes+c.Spots[i].After.Passes == 0 {
			continue
		}
		switch {
		case s.InSight == nil:
			open = append(open, s.Label())
		case !*s.InSight:
			out = append(out, s.Label())
		}
	}
	if len(out)+len(open) == 0 {
		return nil
	}
	f := verdict.Finding{Code: CodeSight, Level: verdict.Caution}
	if len(out) > 0 {
		f.Says = "Out of sight from where the pilot stands: " + change.And(out) + ". "
	}
	if len(open) > 0 {
		f.Says += "Whether the quad is in sight is not stated for " + change.And(open) + ". "
	}
	f.Says += "Local rules say whether it may be flown there, and with whom beside the pilot."
	return []verdict.Finding{f}
}
