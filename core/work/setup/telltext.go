package setup

import (
	"errors"
	"fmt"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/work/settext"
)

// TellsText reads a settings text as the truth of what is on a quad today: the flight
// firmware it is of, and what each serial port does that it names. A text may leave out what
// is as the release comes, so what it does not name stays as it is noted. It fails where no
// flight firmware states the words it is in, and where it is more than one text.
func TellsText(c fleet.Case, text string) ([]Tell, error) {
	read, words, err := readBy(c, text)
	if err != nil {
		return nil, err
	}
	if read.Mixed {
		return nil, errors.New("it is more than one text: it goes on after its end, or names two boards")
	}
	found := State{Variant: read.Firmware, Version: read.Version}
	runs, _ := runsOf(c, found)
	list := []Tell{tellRuns(c, found, runs)}
	if ports, ok := (telling{c, found, runs}).portsOf(words, &read); ok {
		list = append(list, ports)
	}
	return settled(list), nil
}

// readBy reads a text by the words of the flight firmware that it says it is of.
func readBy(c fleet.Case, text string) (settext.Text, *gear.SettingsText, error) {
	var fault error
	for _, f := range gear.All[*gear.FlightFirmware](c.Library) {
		if f.Text == nil {
			continue
		}
		read, err := settext.Read(f.Text, text)
		if err != nil {
			fault = err
			continue
		}
		if read.Firmware != "" && read.Firmware == f.Variant {
			return read, f.Text, nil
		}
	}
	if fault != nil {
		return settext.Text{}, nil, fault
	}
	return settext.Text{}, nil, errors.New(
		"it does not say, in the words of any flight firmware on the shelf, what it is of")
}

// portsOf are the serial ports as they are noted, with those a text names as it has them;
// false where it names none.
func (t telling) portsOf(words *gear.SettingsText, text *settext.Text) (Tell, bool) {
	told := map[int]fleet.Use{}
	unknown := map[int]bool{}
	for i := range text.Lines {
		line := &text.Lines[i]
		word, _ := words.Word(line.Key)
		uart, ok := word.UART(line.Key)
		if !ok {
			continue
		}
		delete(unknown, uart)
		delete(told, uart)
		value, _ := word.Value(line.Value)
		at := slices.IndexFunc(t.uses(), func(u use) bool { return u.function == value.Function })
		switch {
		case at >= 0:
			told[uart] = t.uses()[at].as
		case value.Function == gear.NoFunction:
			told[uart] = ""
		default:
			unknown[uart] = true
		}
	}
	var ports []fleet.Port
	for _, p := range t.Fit.Noted() {
		if _, named := told[p.UART]; !named {
			ports = append(ports, p)
		}
	}
	for uart, as := range told {
		if as != "" {
			ports = append(ports, fleet.Port{UART: uart, Use: as})
		}
	}
	slices.SortStableFunc(ports, func(a, b fleet.Port) int { return a.UART - b.UART })
	tell := Tell{Key: TellsPorts, Label: "serial ports", Noted: portWords(t.Fit.Noted()), Is: portWords(ports)}
	tell.Same = tell.Noted == tell.Is
	if len(unknown) > 0 {
		tell.Note = fmt.Sprintf("what %s does is in words nobody has stated: left out", change.Count(len(unknown), "port"))
	} else if text.Cut {
		tell.Note = "the text is cut: what is missing of it stays as it is noted"
	}
	w := t.Fit.Wiring
	w.Ports = ports
	tell.Patch = &fleet.Patch{Wiring: &w}
	return tell, len(told) > 0 || len(unknown) > 0
}
