package firmware

// Step is one permitted move of a device from one release to another.
type Step struct {
	From   Version
	To     Version
	OneWay bool // the old release cannot be put back afterwards
	Back   bool // a rollback to an older release
}

// Move is one release a device offers, as the way finder needs it.
type Move struct {
	Version    Version
	From       Range     // releases it may be installed over
	OneWay     bool      // no way back to what was there before
	RollbackTo []Version // older releases it may be replaced by
}

// Path finds the fewest steps that bring a device from one release to a
// target, by breadth-first search over the releases it offers. Among ways of
// equal length it takes the one with the fewest one-way steps, and then the
// one listed first. It answers false where no way exists. From a release that
// is unknown (from is empty) only the newest release can be reached, and only
// if it installs over everything: any other could turn out to be a downgrade.
func Path(moves []Move, from, to Version) ([]Step, bool) {
	if from.Known() && from.Compare(to) == 0 {
		return nil, true
	}
	for _, m := range moves { // most ways are one update long
		if from.Known() && m.Version.Compare(to) == 0 && m.Version.Compare(from) > 0 && m.From.Holds(from) {
			return []Step{{From: from, To: m.Version, OneWay: m.OneWay}}, true
		}
	}
	type way struct {
		at     Version
		steps  []Step
		oneWay int
	}
	frontier := []way{{at: from}}
	seen := []Version{from}
	for len(frontier) > 0 {
		var next []way
		var found *way
		for _, w := range frontier {
			for _, s := range stepsFrom(moves, w.at) {
				n := way{at: s.To, steps: append(append([]Step(nil), w.steps...), s), oneWay: w.oneWay}
				if s.OneWay {
					n.oneWay++
				}
				if s.To.Compare(to) == 0 {
					if found == nil || n.oneWay < found.oneWay {
						found = &n
					}
					continue
				}
				if holds(seen, s.To) {
					continue
				}
				seen = append(seen, s.To)
				next = append(next, n)
			}
		}
		if found != nil {
			return found.steps, true
		}
		frontier = next
	}
	return nil, false
}

func stepsFrom(moves []Move, at Version) []Step {
	var steps []Step
	for _, m := range moves {
		newer := m.Version.Compare(at) > 0
		if !at.Known() {
			newer = isNewest(moves, m.Version)
		}
		if newer && m.From.Holds(at) {
			steps = append(steps, Step{From: at, To: m.Version, OneWay: m.OneWay})
		}
	}
	for _, m := range moves {
		if !at.Known() || m.Version.Compare(at) != 0 {
			continue
		}
		for _, back := range m.RollbackTo {
			steps = append(steps, Step{From: at, To: back, Back: true})
		}
	}
	return steps
}

func isNewest(moves []Move, v Version) bool {
	for _, m := range moves {
		if m.Version.Compare(v) > 0 {
			return false
		}
	}
	return true
}

func holds(list []Version, v Version) bool {
	for _, w := range list {
		if w.Known() == v.Known() && w.Compare(v) == 0 {
			return true
		}
	}
	return false
}
