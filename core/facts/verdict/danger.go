package verdict

// Danger says what a finding threatens. It is an order of its own beside the level:
// a caution may warn of something that falls, an unfit may be a mere inconvenience.
// An unknown carries the worst danger it may hide.
type Danger string

// The dangers, least first. Their order is the builder's own: what destroys comes
// before what falls, that before what breaks the law, that before what does not work
// (common practice).
const (
	Harmless     Danger = ""
	Inconvenient Danger = "inconvenient"
	Fails        Danger = "does-not-work"
	Unlawful     Danger = "breaks-the-law"
	Falls        Danger = "falls" // or cannot be stopped
	Destroys     Danger = "destroys"
)

// dangers from least to worst.
var dangers = []Danger{Harmless, Inconvenient, Fails, Unlawful, Falls, Destroys}

// Rank orders the dangers: 0 for harmless up to 5 for what destroys. A danger that
// is none of them ranks worst.
func (d Danger) Rank() int {
	for i, known := range dangers {
		if d == known {
			return i
		}
	}
	return len(dangers)
}

// WorseThan orders two dangers.
func (d Danger) WorseThan(o Danger) bool { return d.Rank() > o.Rank() }

// Greatest is the worst danger of the findings that do not simply fit.
func Greatest(findings []Finding) Danger {
	worst := Harmless
	for i := range findings {
		if f := &findings[i]; f.Level != Fits && f.Danger.WorseThan(worst) {
			worst = f.Danger
		}
	}
	return worst
}

// Rated gives each finding its danger, where it does not say one itself: that of its
// code, else an inconvenience for a caution and a failure for what is worse.
func Rated(findings []Finding, of map[Code]Danger) []Finding {
	for i := range findings {
		f := &findings[i]
		switch danger, known := of[f.Code]; {
		case f.Level == Fits:
			f.Danger = Harmless
		case f.Danger != Harmless:
		case known:
			f.Danger = danger
		case f.Level == Caution:
			f.Danger = Inconvenient
		default:
			f.Danger = Fails
		}
	}
	return findings
}
