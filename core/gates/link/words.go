package link

import (
	"fmt"
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
)

// describe says what a plan asks for: "updating X to 1.1 and switching Y to
// mode Second".
func (t *system) describe(m plan) string {
	var does []string
	for _, label := range m.reads {
		does = append(does, "reading the release of "+label)
	}
	if changes(t.air.Target, m.air) {
		does = append(does, fmt.Sprintf("putting %s on %s", m.air, t.air.Label))
	}
	if changes(t.gogglesState.Target, m.gogglesState) {
		does = append(does, fmt.Sprintf("putting %s on %s", m.gogglesState, t.gogglesState.Label))
	}
	if m.mode != t.gogglesState.ToMode {
		does = append(does, fmt.Sprintf("switching %s to mode %s", t.gogglesState.Label, t.modeLabel(m.mode)))
	}
	if m.controller && changes(t.controllerState.Target, m.controllerState) {
		does = append(does, fmt.Sprintf("putting %s on %s", m.controllerState, t.controllerState.Label))
	}
	if len(does) < 2 {
		return strings.Join(does, "")
	}
	return strings.Join(does[:len(does)-1], ", ") + " and " + does[len(does)-1]
}

// carried names the firmware of a device as a value that is missing.
func carried(s fleet.State) string {
	if s.Unlisted() {
		return fmt.Sprintf("firmware of %s (it carries %s, which is not among the releases its gear lists)", s.Label, s.Read)
	}
	return "firmware of " + s.Label
}

func changes(from, to firmware.Version) bool {
	return to.Known() && (!from.Known() || from.Compare(to) != 0)
}

func on(v firmware.Version) string {
	if !v.Known() {
		return "on whatever it carries"
	}
	return "on " + string(v)
}

func orUnknown(s string) string {
	if s == "" {
		return "not known"
	}
	return s
}

// orList joins names as alternatives: "A, B or C".
func orList(list []string) string {
	if len(list) < 2 {
		return strings.Join(list, "")
	}
	return strings.Join(list[:len(list)-1], ", ") + " or " + list[len(list)-1]
}
