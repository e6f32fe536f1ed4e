package bench

import (
	"fmt"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// flash puts other flight firmware on the board, where the plan has it: what is on it kept
// first, the target read off the board itself, and what it says afterwards recorded
// (common practice).
func (w *writer) flash() {
	runs, was := w.Fit.Runs, w.Quad.Now.Runs
	if runs == nil || runs.Version == "" || w.Fit.Board == "" {
		return
	}
	// Where what is on it today is not stated, nothing says that it is another.
	if !w.otherBoard() && (was == nil || was.ID == runs.ID && was.Version == runs.Version) {
		return
	}
	flies, ok := gear.Find[*gear.FlightFirmware](w.Library, runs.ID)
	if !ok {
		return
	}
	id := fmt.Sprintf("%s:%s:%s", w.Fit.Board, runs.ID, runs.Version)
	if !w.otherBoard() {
		w.keepSettings(id, was)
	}
	another := was != nil && was.ID != runs.ID
	w.flashBoard(id, flies, runs.Version, another)
	if !w.otherBoard() && !another {
		w.bringBack(id)
	}
}

// keepSettings has what is on the board kept, as text too where what it runs today is
// stated to tell its settings so.
func (w *writer) keepSettings(id string, today *fleet.Runs) {
	do := []string{
		"On the flight board's screen here: keep what is on the board now. A snapshot lies in its history then.",
		"If its own tool writes its settings as text, keep that as well: it says in words what each line does.",
	}
	if f, ok := gear.Find[*gear.FlightFirmware](w.Library, today.ID); ok && f.Text.Speaks() {
		do = []string{"On the flight board's screen here: keep what is on the board, with its text. Both lie in its " +
			"history then; the board restarts by that."}
	}
	w.add(Step{
		ID:       "keep:" + id,
		Phase:    Firmware,
		Title:    "Keep the flight board's settings",
		Do:       do,
		Tools:    []string{"USB data cable"},
		Cautions: []string{cautionCable, cautionProps},
	})
}

// flashBoard is the flashing itself; another says that it is other firmware, and not a
// release of the same.
func (w *writer) flashBoard(id string, f *gear.FlightFirmware, v firmware.Version, another bool) {
	board, _ := w.Board()
	guide := w.Guide(board.Guides)
	step := Step{
		ID:    "flash:" + id,
		Phase: Firmware,
		Title: fmt.Sprintf("Put %s %s on the flight board", f.Label(), v),
		Do: []string{
			"Read the target off the board itself, by its tool or its own marking, and take the file for that target and no " +
				"other: another target's file moves pins.",
			"USB alone, no pack.",
		},
		Tools:    []string{"USB data cable"},
		Cautions: []string{cautionProps, cautionCable},
		Reading: &Reading{Label: "what it says afterwards", Choices: []string{string(v), "another release"},
			Expected: string(v),
			Wrong: "Another release or target is on it. Do not arm: read the target again, take its file, and flash once more " +
				"with the boot button held."},
	}
	if guide.USB != "" {
		step.Do = append(step.Do, "Its USB: "+guide.USB+".")
	}
	boot := "its boot button"
	if guide.Button != "" {
		boot += " (" + guide.Button + ")"
	}
	step.Do = append(step.Do, "Where it is not seen, hold "+boot+" while it is plugged in.")
	if guide.Update != "" {
		step.Do = append(step.Do, guide.Update+".")
	}
	if another {
		step.Do = append(
			step.Do,
			"It is another firmware: none of the old settings fit, they are set anew from factory state.",
		)
	}
	if advice := f.Advice(v); advice != nil {
		step.Cautions = append(step.Cautions, fmt.Sprintf("%s %s: %s.", f.Label(), v, advice.Why))
	}
	w.add(step)
}

func (w *writer) bringBack(id string) {
	w.add(Step{
		ID:    "back:" + id,
		Phase: Firmware,
		Title: "Bring the settings back and compare",
		Do: []string{
			"On the flight board's screen here: read it, and hold it against what was kept. Set what the plan wants; a line " +
				"that has another meaning in the new release is left out and named.",
			"Failsafe and arming are read again before anything else is done.",
		},
		Tools:    []string{"USB data cable"},
		Cautions: []string{cautionFail, cautionProps},
	})
}
