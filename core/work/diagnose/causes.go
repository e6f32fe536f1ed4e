package diagnose

import (
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/gates/control"
	"yokeswap/core/gates/link"
	"yokeswap/core/gates/mount"
	"yokeswap/core/gates/osd"
	"yokeswap/core/gates/pins"
	"yokeswap/core/gates/power"
	"yokeswap/core/work/setup"
)

// cause is something that can be behind a symptom, with the test that tells it
// apart. Yes to the question means it is this.
type cause struct {
	id, label string
	test      string // what to do
	question  string // what to look for
	fix       string
	caution   string
	// findings of the quad's own gates point to it.
	findings []verdict.Code
	// board are the rows of a board that was read which prove it where they differ, and
	// clear it where they do not; clears are rows that can only clear it.
	board  []verdict.Code
	clears []verdict.Code
	// light is the sign of the air unit the question is about, menu what the goggles' menu
	// is opened for, usb that the air unit's own plug is meant: what its guide says of it is
	// told.
	light gear.LightSign
	menu  string
	usb   bool
	// part is the part beside the air unit that the cause is about; empty: the air unit.
	part string
}

// symptom is what a builder sees, with what is looked at first, in order. The
// symptoms, causes and their order are common practice.
type symptom struct {
	id, label string
	causes    []cause
}

const (
	hot   = "The unit overheats without moving air: fan on it, lowest power, short runs."
	props = "Props off, and they stay off."
	pack  = "Pack unplugged while you solder or plug wires."
)

var (
	unpowered = cause{
		id:       "unpowered",
		label:    "the air unit has no power",
		test:     "Meter the voltage at the unit's supply pin, its plug pulled, pack through a smoke stopper.",
		question: "Is it outside the unit's window, or nothing at all?",
		fix:      "Feed it from where the power gate says.",
		caution:  "A short across a pack burns at once: smoke stopper first.",
		findings: []verdict.Code{power.CodeNothingFed, power.CodeUnder, power.CodeOver, power.CodeDropout,
			power.CodeJumper, pins.CodeShort, pins.CodeDead, pins.CodeDanger},
	}
	inactive = cause{
		id:       "not-activated",
		label:    "it was never activated",
		test:     "Connect the unit to its desktop tool and look for the activation.",
		question: "Does the tool ask to activate it?",
		fix:      "Activate it once, with an account and internet.",
		findings: []verdict.Code{link.CodeActivation},
	}
	wrongMode = cause{
		id:       "goggles-mode",
		label:    "the goggles are in another mode",
		test:     "Open the goggles' menu and read the mode.",
		question: "Is it another mode than the unit's generation wants?",
		fix:      "Switch the mode; bindings may be lost.",
		menu:     menuMode,
		findings: []verdict.Code{link.CodeNoMode, link.CodeModeSwitch},
	}
	firmwarePair = cause{
		id:       "firmware-pair",
		label:    "the firmware of unit and goggles does not pair",
		test:     "Read the releases off unit and goggles.",
		question: "Is the pair one the link gate says does not link?",
		fix:      "Walk the route: it says which goes where, and what it costs.",
		findings: []verdict.Code{link.CodeUpdate, link.CodeNever, link.CodeOutOfReach, link.CodeNoWay},
	}
	unbound = cause{
		id:       "unbound",
		label:    "they are not bound",
		test:     "Look at the unit's light.",
		question: "Does it search for a partner?",
		light:    gear.Searching,
		fix:      "Bind again: goggles first, then the controller.",
		caution:  hot,
	}
	plugOff = cause{
		id:       "antenna-plug",
		label:    "an antenna plug is off",
		test:     "Power off. Look at each antenna plug of the unit under a loupe, and press it.",
		question: "Was one off, or does it lift easily?",
		fix:      "Press it on straight until it seats, then clip or glue the lead.",
		caution:  "Never power a unit without its antennas.",
		findings: []verdict.Code{antenna.CodeMatings, antenna.CodePlug, antenna.CodeCount, antenna.CodeBarrel},
	}
	swapped = cause{
		id:       "swapped",
		label:    "RX and TX are swapped",
		test:     "Follow both wires from the unit's pins to the board's pads, with the meter on continuity.",
		question: "Does the unit's RX end on the board's RX?",
		fix:      "Cross them: the unit's RX to the board's TX, and the other way round.",
		caution:  pack,
		findings: []verdict.Code{pins.CodeSwapped, pins.CodeTwoPorts, pins.CodeHalf, pins.CodeNoOSD},
	}
	osdOff = cause{
		id:       "osd-off",
		label:    "the OSD feature is off",
		test:     "Look at the board's features.",
		question: "Is OSD off?",
		fix:      "Switch it on: it is what makes the board send, though its own chip draws nothing.",
		caution:  props,
		board:    []verdict.Code{setup.CodeOSDFeature},
	}
	noMSP = cause{
		id:       "msp-off",
		label:    "MSP is not on that port",
		test:     "Look at the functions of the port the unit is wired to.",
		question: "Is MSP, or the digital function, off there?",
		fix:      "Set the port as the plan has it.",
		caution:  props,
		board:    []verdict.Code{setup.CodePort},
		findings: []verdict.Code{pins.CodeSoftSerial, pins.CodePort},
	}
	dialect = cause{
		id:       "dialect",
		label:    "board and unit speak different kinds of MSP",
		test:     "Read which flight firmware the board runs.",
		question: "Is it a superset set to plain MSP, or one the unit does not understand?",
		fix:      "Use its own function for digital goggles, or other flight firmware.",
		findings: []verdict.Code{osd.CodeDialect},
	}
	unplaced = cause{
		id:       "unplaced",
		label:    "no elements are placed",
		test:     "Look at the board's OSD layout.",
		question: "Are the elements off, or outside the grid?",
		fix:      "Place them as planned.",
		caution:  props,
		board:    []verdict.Code{setup.CodeBlank},
		clears:   []verdict.Code{setup.CodeLayout},
	}
	misplaced = cause{
		id:       "misplaced",
		label:    "elements stand elsewhere than planned",
		test:     "Compare the board's OSD layout with the plan.",
		question: "Do elements stand elsewhere, or on each other?",
		fix:      "Place them as planned.",
		caution:  props,
		board:    []verdict.Code{setup.CodeLayout, setup.CodeBlank},
		findings: []verdict.Code{osd.CodeOverlap},
	}
	customOff = cause{
		id:       "custom-osd",
		label:    "custom OSD is off in the goggles",
		test:     "Open the goggles' menu, display.",
		question: "Is custom OSD, or the canvas, off?",
		fix:      "Switch it on.",
		menu:     gear.MenuOSD,
	}
	noCanvas = cause{
		id:       "no-canvas",
		label:    "a firmware without canvas",
		test:     "Read the releases off board, unit and goggles.",
		question: "Is one below the first with a canvas?",
		fix:      "Update that one, or fly with the unit's own layout.",
		findings: []verdict.Code{osd.CodeBuiltIn, osd.CodeAdvice},
	}
	gridWrong = cause{
		id:       "grid",
		label:    "the layout is for another grid",
		test:     "Compare the board's canvas with what the goggles show.",
		question: "Do the grids differ?",
		fix:      "Set the canvas and put the converted layout on the board.",
		caution:  props,
		findings: []verdict.Code{osd.CodeLayout},
		board:    []verdict.Code{setup.CodeCanvas},
	}
	boundAfter = cause{
		id:       "bound-after",
		label:    "the goggles were bound after the controller",
		test:     "Remember, or ask, which came first.",
		question: "Was the controller bound first?",
		fix:      "Bind goggles, then controller, one at a time.",
		caution:  hot,
	}
	chargeOnly = cause{
		id:       "charge-only",
		label:    "a charge-only cable",
		test:     "Take a cable that has moved files.",
		question: "Does the device show with it?",
		fix:      "Use that one. If it is C-to-C, try A-to-C.",
	}
	wrongUSB = cause{
		id:       "wrong-usb",
		label:    "the cable is in the flight board's USB",
		test:     "Follow the cable.",
		question: "Does it end in the flight board?",
		fix:      "Plug it into the air unit's own USB.",
		usb:      true,
		findings: []verdict.Code{mount.CodeAccess},
	}
	needsPack = cause{
		id:       "needs-pack",
		label:    "the unit wants its flight pack",
		test:     "Fan on, pack on through a smoke stopper, then the cable.",
		question: "Does it show now?",
		fix:      "Leave the pack on for updates, with the fan.",
		caution:  hot,
	}
	wrongTool = cause{
		id:       "wrong-tool",
		label:    "the wrong desktop tool",
		test:     "Look at the release's tools on the bench sheet.",
		question: "Is another tool running?",
		fix:      "Use the tool the sheet names.",
	}
	rxPort = cause{
		id:       "rx-port",
		label:    "the serial receiver is on another port",
		test:     "Look at the functions of the ports.",
		question: "Is the receiver on another UART than its wire?",
		fix:      "Set it as the plan has it.",
		caution:  props,
		board:    []verdict.Code{setup.CodeSticksPort},
		findings: []verdict.Code{pins.CodePort},
	}
	provider = cause{
		id:       "provider",
		label:    "another receiver protocol is set",
		test:     "Look at the receiver's protocol.",
		question: "Is it another than the sticks come as?",
		fix:      "Set it as the plan has it.",
		caution:  props,
		board:    []verdict.Code{setup.CodeReceiver},
		findings: []verdict.Code{control.CodeProtocol},
	}
	notInverted = cause{
		id:       "not-inverted",
		label:    "the signal is inverted and the port is not",
		test:     "See whether the port has an inverter, a jumper or software for it.",
		question: "Does it take no inverted signal?",
		fix:      "Another port, or its jumper.",
		caution:  pack,
		findings: []verdict.Code{pins.CodeInverted, pins.CodeJumper},
	}
	rcWires = cause{
		id:       "rc-wires",
		label:    "the RC wires are not fitted",
		test:     "Follow the RC wire from the unit.",
		question: "Is it off, or on no RX pad?",
		fix:      "Fit it to the RX of a port that takes it.",
		caution:  pack,
		findings: []verdict.Code{pins.CodeNoSticks, control.CodeNothing},
	}
	variant = cause{
		id:       "variant",
		label:    "normal against fast",
		menu:     gear.MenuRC,
		test:     "Read the RC protocol in the goggles and on the board.",
		question: "Do they differ?",
		fix:      "Set both the same.",
		findings: []verdict.Code{control.CodeVariant},
	}
	generation = cause{
		id:       "generation",
		label:    "the controller is of another generation",
		test:     "Look at the link gate.",
		question: "Does it say this controller does not link?",
		fix:      "Another controller, or a separate receiver.",
		findings: []verdict.Code{link.CodeController, link.CodeNoSticks},
	}
	heat = cause{
		id:       "heat",
		label:    "it got too hot",
		test:     "Let it cool, fan on it, lowest power, and run it again.",
		question: "Does it stay on now?",
		fix:      "On the bench always with a fan, on low power, in short runs.",
		caution:  hot,
	}
	sag = cause{
		id:       "sag",
		label:    "the voltage sags below its window",
		test:     "Read the lowest voltage in the recording, or on the board's log, at full throttle.",
		question: "Is it below the unit's window?",
		fix:      "A regulator, a better pack, or another feed: see the power gate.",
		findings: []verdict.Code{power.CodeUnder, power.CodeDropout},
	}
	rail = cause{
		id:       "rail",
		label:    "its rail is overloaded",
		test:     "Feel the regulator after a short run, and add up what hangs on it.",
		question: "Is it hot, or over its rating?",
		fix:      "Move a consumer to another rail.",
		findings: []verdict.Code{power.CodeRailOver, power.CodeRailPeak, power.CodeRailTight},
	}
	loosePlug = cause{
		id:       "loose-plug",
		label:    "the supply plug works loose",
		test:     "Pull gently at each wire of the unit's plug, and shake the quad.",
		question: "Does one move, or the picture drop?",
		fix:      "Re-crimp or tie it down.",
		caution:  pack,
	}
	antennaPair = cause{
		id:       "antenna-pair",
		label:    "band or polarisation do not match",
		test:     "Read what is on both ends off the antenna gate.",
		question: "Does it name a mismatch?",
		fix:      "Screw on what the gate says.",
		findings: []verdict.Code{antenna.CodeNoBand, antenna.CodeOneBand, antenna.CodeHands, antenna.CodeLinear,
			antenna.CodeMixed, antenna.CodeBehind, antenna.CodeHalfGain},
	}
	carbon = cause{
		id:       "carbon",
		label:    "an antenna lies against carbon",
		test:     "Measure from each antenna to the frame.",
		question: "Is it less than about 40 mm?",
		fix:      "Move it away, about 60° from the other.",
		findings: []verdict.Code{antenna.CodeCarbon, antenna.CodeAngle, antenna.CodeControl},
	}
	lowPower = cause{
		id:       "low-power",
		label:    "it stays on low power",
		test:     "Read the power in the goggles, armed in the air.",
		question: "Does it stay at the lowest?",
		fix:      "Full power comes when the board is armed: check its MSP. Keep to your region's limit.",
		findings: []verdict.Code{link.CodeLowPower},
	}
	region = cause{
		id:       "region",
		label:    "the goggles are set to another region",
		menu:     gear.MenuRegion,
		test:     "Read the region in the goggles.",
		question: "Is it another than where you fly?",
		fix:      "Set your own; its limits come first.",
		findings: []verdict.Code{antenna.CodeLimit, antenna.CodeNoRegion},
	}
	touches = cause{
		id:       "camera-touches",
		label:    "the camera touches the frame",
		test:     "Slide paper all around the camera and its cable.",
		question: "Does it catch?",
		fix:      "Less tilt, or a wider cage.",
		findings: []verdict.Code{mount.CodeTilt, mount.CodeCage, mount.CodePerSide},
	}
	hardMount = cause{
		id:       "hard-mount",
		label:    "it is mounted hard",
		test:     "Fly once with soft mounts under the unit.",
		question: "Is it better?",
		fix:      "Leave them in; count them into the screws.",
	}
	looseScrews = cause{
		id:       "loose-screws",
		label:    "screws are loose",
		test:     "Turn each screw of camera, unit and arms.",
		question: "Did one turn?",
		fix:      "Tighten, thread lock on metal.",
		findings: []verdict.Code{mount.CodeShort},
	}
	lead = cause{
		id:       "power-lead",
		label:    "the power lead slipped out",
		test:     "Move the goggles' lead while they are on.",
		question: "Do they flicker?",
		fix:      "Tie the lead to the strap.",
	}
	empty = cause{
		id:       "goggles-empty",
		label:    "the goggles' battery is empty",
		test:     "Meter it, or read it in the menu.",
		question: "Is it low?",
		fix:      "Charge it, attended, in a fire-safe place.",
	}
)

var symptoms = []symptom{
	{"no-picture", "no picture at all", []cause{unpowered, inactive, wrongMode, firmwarePair, unbound, plugOff}},
	{"no-osd", "picture, but no OSD", []cause{swapped, osdOff, noMSP, dialect, unplaced, customOff, noCanvas}},
	{"odd-osd", "the OSD shows nonsense, or in the wrong place", []cause{dialect, gridWrong, misplaced}},
	{"no-bind", "it will not bind", []cause{wrongMode, firmwarePair, inactive, boundAfter}},
	{"not-seen", "the desktop tool does not see it", []cause{chargeOnly, wrongUSB, needsPack, wrongTool}},
	{"dead-sticks", "the sticks do nothing", []cause{rxPort, provider, notInverted, rcWires, variant, generation}},
	{"off-on-bench", "it shuts down on the bench", []cause{heat, sag, rail}},
	{"off-in-flight", "it shuts down in flight", []cause{sag, rail, loosePlug}},
	{"weak-range", "the range is weak", []cause{antennaPair, plugOff, carbon, lowPower, region}},
	{"jitters", "the recording jitters", []cause{touches, hardMount, looseScrews}},
	{"dark-goggles", "the goggles go dark", []cause{lead, empty}},
}
