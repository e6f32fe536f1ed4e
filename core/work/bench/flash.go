package bench

import (
	"fmt"

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
	if !w.otherBoard() && was != nil && was.ID == runs.ID && was.Version == runs.Version {
		return
	}
	if !w.otherBoard() && was == nil {
		return // what is on it today is not stated: nothing says that it is another
	}
	firmware, ok := gear.Find[*gear.FlightFirmware](w.Library, runs.ID)
	if !ok {
		return
	}
	says := firmware.Label() + " " + string(runs.Version)
	id := fmt.Sprintf("%s:%s:%s", w.Fit.Board, runs.ID, runs.Version)
	kept := !w.otherBoard()
	if kept {
		w.add(Step{
			ID:    "keep:" + id,
			Phase: Firmware,
			Title: "Keep the flight board's settings",
			Do: []string{
				"On the flight board's screen here: keep what is on the board now. A snapshot lies in its history then.",
				"If its own tool writes its settings as text, keep that as well: it says in words what each line does.",
			},
			Tools:    []string{"USB data cable"},
			Cautions: []string{cautionCable, cautionProps},
		})
	}
	board, _ := w.Board()
	step := Step{
		ID:    "flash:" + id,
		Phase: Firmware,
		Title: "Put " + says + " on the flight board",
		Do: []string{
			"Read the target off the board itself, by its tool or its own marking, and take the file for that target and no " +
				"other: another target's file moves pins.",
			"USB alone, no pack.",
		},
		Tools:    []string{"USB data cable"},
		Cautions: []string{cautionProps, cautionCable},
		Reading: &Reading{Label: "what it says afterwards", Choices: []string{string(runs.Version), "another release"},
			Expected: string(runs.Version),
			Wrong: "Another release or target is on it. Do not arm: read the target again, take its file, and flash once more " +
				"with the boot button held."},
	}
	guide := w.Guide(board.Guides)
	if guide.USB != "" {
		step.Do = append(step.Do, "Its USB: "+guide.USB+".")
	}
	boot := "Where it is not seen, hold its boot button while it is plugged in."
	if guide.Button != "" {
		boot = "Where it is not seen, hold its boot button (" + guide.Button + ") while it is plugged in."
	}
	step.Do = append(step.Do, boot)
	if guide.Update != "" {
		step.Do = append(step.Do, guide.Update+".")
	}
	if was != nil && was.ID != runs.ID {
		step.Do = append(step.Do, "It is another firmware: none of the old settings fit, they are set anew from factory state.")
		kept = false
	}
	if advice := firmware.Advice(runs.Version); advice != nil {
		step.Cautions = append(step.Cautions, fmt.Sprintf("%s: %s.", says, advice.Why))
	}
	w.add(step)
	if kept {
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
}
