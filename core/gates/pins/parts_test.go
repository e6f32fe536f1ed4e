package pins_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
	"yokeswap/core/internal/sample"
)

// placed is a part whose pins are soldered to the terminals given in order.
func placed(model string, to ...string) fleet.PlacedPart {
	return fleet.PlacedPart{ID: "the-" + model, Model: model, Cable: fleet.Cable{Wires: wires(to...)}}
}

func wires(to ...string) (list []fleet.Wire) {
	for i, t := range to {
		if t != "" {
			list = append(list, fleet.Wire{Pin: i + 1, To: t})
		}
	}
	return list
}

// withParts is a build that fits, with parts on it.
func withParts(parts ...fleet.PlacedPart) fleet.Fit {
	f := soldered("10v", "ground", "tx1", "rx1", "ground", "rx3")
	f.Parts = parts
	return f
}

// Each wired part by the usual mistakes (common practice): supply on a signal and two
// supplies joined destroy, no ground does, crossed lines and lines on a wrong pad stay
// silent, a motor that is not wired brings it down.
func TestEveryWiredPartByTheUsualMistakes(t *testing.T) {
	for _, c := range []struct {
		name   string
		part   fleet.PlacedPart
		code   verdict.Code
		level  verdict.Level
		danger verdict.Danger
	}{
		{"gps as it should be", placed("gps", "5v", "ground", "tx4", "rx4", "sda", "scl"), pins.CodeFits, verdict.Fits, ""},
		{"gps not crossed", placed("gps", "5v", "ground", "rx4", "tx4", "sda", "scl"),
			pins.CodeSwapped, verdict.Change, verdict.Fails},
		{"gps on two ports", placed("gps", "5v", "ground", "tx2", "rx4", "sda", "scl"),
			pins.CodeTwoPorts, verdict.Unfit, verdict.Fails},
		{"power on its TX", placed("gps", "5v", "ground", "tx4", "5v", "sda", "scl"),
			pins.CodeDanger, verdict.Unfit, verdict.Destroys},
		{"its supply on ground", placed("gps", "ground", "ground", "tx4", "rx4", "sda", "scl"),
			pins.CodeShort, verdict.Unfit, verdict.Destroys},
		{"its ground on power", placed("gps", "5v", "5v", "tx4", "rx4", "sda", "scl"),
			pins.CodeShort, verdict.Unfit, verdict.Destroys},
		{"no ground", placed("gps", "5v", "", "tx4", "rx4", "sda", "scl"),
			pins.CodeNoGround, verdict.Unfit, verdict.Destroys},
		{"its supply on a signal", placed("gps", "tx2", "ground", "tx4", "rx4", "sda", "scl"),
			pins.CodeDead, verdict.Unfit, verdict.Fails},
		{"nothing feeds it", placed("gps", "", "ground", "tx4", "rx4", "sda", "scl"),
			pins.CodeOtherFeed, verdict.Unknown, verdict.Fails},
		{"gps with its RX off", placed("gps", "5v", "ground", "", "rx4", "sda", "scl"),
			pins.CodeOpen, verdict.Caution, verdict.Inconvenient},
		{"gps with its TX off", placed("gps", "5v", "ground", "tx4", "", "sda", "scl"),
			pins.CodeOpen, verdict.Unfit, verdict.Fails},
		{"its TX on a sender", placed("gps", "5v", "ground", "", "tx4", "sda", "scl"),
			pins.CodeHalf, verdict.Unfit, verdict.Fails},
		{"where no inverter is off", placed("gps", "5v", "ground", "tx3", "rx3", "sda", "scl"),
			pins.CodeInverted, verdict.Unfit, verdict.Fails},
		{"compass lines exchanged", placed("gps", "5v", "ground", "tx4", "rx4", "scl", "sda"),
			pins.CodeDead, verdict.Unfit, verdict.Fails},
		{"nothing said of it", placed("gps"), pins.CodeUnknown, verdict.Unknown, verdict.Destroys},
		{"buzzer", placed("buzzer", "5v", "buzzer"), pins.CodeFits, verdict.Fits, ""},
		{"a buzzer on the LED pad", placed("buzzer", "5v", "led"), pins.CodeDead, verdict.Unfit, verdict.Fails},
		{"a buzzer left open", placed("buzzer", "5v"), pins.CodeOpen, verdict.Unfit, verdict.Fails},
		{"lights", placed("lights", "5v", "ground", "led"), pins.CodeFits, verdict.Fits, ""},
		{"camera", placed("camera", "5v", "ground", "video-in"), pins.CodeFits, verdict.Fits, ""},
		{"a camera into the output", placed("camera", "5v", "ground", "video-out"),
			pins.CodeDead, verdict.Unfit, verdict.Fails},
		{"transmitter", placed("transmitter", "10v", "ground", "video-out", "tx2"), pins.CodeFits, verdict.Fits, ""},
		{"a transmitter whose control wire listens", placed("transmitter", "10v", "ground", "video-out", "rx4"),
			pins.CodeHalf, verdict.Unfit, verdict.Fails},
		{"a transmitter without its control wire", placed("transmitter", "10v", "ground", "video-out"),
			pins.CodeOpen, verdict.Caution, verdict.Inconvenient},
		{"camera switch, a spare pin open", placed("switcher", "5v", "ground", "switch"), pins.CodeFits, verdict.Fits, ""},
		{"power on a spare pin", placed("switcher", "5v", "ground", "switch", "5v"), pins.CodeFits, verdict.Fits, ""},
		{"esc", placed("esc", "batt", "ground", "motor1", "motor2", "motor3", "motor4", "rx4", "current"),
			pins.CodeFits, verdict.Fits, ""},
		{"two motors exchanged", placed("esc", "batt", "ground", "motor2", "motor1", "motor3", "motor4", "rx4", "current"),
			pins.CodeMotor, verdict.Unfit, verdict.Falls},
		{"a motor left open", placed("esc", "batt", "ground", "motor1", "motor2", "motor3", "", "rx4", "current"),
			pins.CodeOpen, verdict.Unfit, verdict.Falls},
	} {
		t.Run(c.name, func(t *testing.T) {
			findings := pins.Check(caseOf(sample.Set(), withParts(c.part)))
			assert.Contains(t, codes(findings), c.code)
			assert.Equal(t, c.level, verdict.Worst(findings), "%+v", findings)
			for _, f := range findings {
				if f.Code == c.code && c.level != verdict.Fits {
					assert.Equal(t, c.danger, f.Danger, f.Says)
				}
			}
		})
	}
}

// What no single wire shows: two parts on one pad, two supplies through one pin, a port
// that waits for telemetry the ESC does not send.
func TestWhatNoSingleWireShows(t *testing.T) {
	gps := placed("gps", "5v", "ground", "tx4", "rx4", "sda", "scl")
	for name, c := range map[string]struct {
		change func(*fleet.Fit, *gear.Set)
		code   verdict.Code
		danger verdict.Danger
	}{
		"two GPS on one RX": {func(f *fleet.Fit, _ *gear.Set) {
			f.Parts = append(f.Parts, fleet.PlacedPart{ID: "other", Model: "gps", Cable: gps.Cable})
		}, pins.CodeDrivers, verdict.Fails},
		"the unit and a GPS on one RX": {func(f *fleet.Fit, _ *gear.Set) {
			f.Parts[0].Wires = wires("5v", "ground", "tx1", "rx1", "sda", "scl")
		}, pins.CodeDrivers, verdict.Fails},
		"a part fed twice": {func(f *fleet.Fit, set *gear.Set) {
			f.Parts[0].Harness, f.Parts[0].HarnessTo = "straight", "hd"
			set.Parts[0].Plug.None, set.Parts[0].Plug.Connector = nil, "sh-6"
		}, pins.CodeShort, verdict.Destroys},
		"two senders of one part on a pad": {func(f *fleet.Fit, set *gear.Set) {
			set.Parts[0].Plug.Pins[4] = gear.PinTelemetry
			f.Parts[0].Wires[4].To = "rx4"
		}, pins.CodeDrivers, verdict.Fails},
		"two cables in one plug": {func(f *fleet.Fit, set *gear.Set) {
			f.Wires, f.Harness, f.HarnessTo = nil, "straight", "hd"
			f.Parts[0].Wires, f.Parts[0].Harness, f.Parts[0].HarnessTo = nil, "straight", "hd"
			set.Parts[0].Plug.None, set.Parts[0].Plug.Connector = nil, "sh-6"
		}, pins.CodeConnector, verdict.Fails},
		"fed twice, from the pack and by its wire": {func(f *fleet.Fit, _ *gear.Set) {
			f.Feeds = append(f.Feeds, fleet.Feed{To: "the-gps", From: fleet.NodePack})
		}, pins.CodeShort, verdict.Destroys},
		"the unit fed twice, from the pack and by its wire": {func(f *fleet.Fit, _ *gear.Set) {
			f.Feeds = []fleet.Feed{{To: fleet.NodeAirUnit, From: fleet.NodePack}}
		}, pins.CodeShort, verdict.Destroys},
		"telemetry wired to nothing": {func(f *fleet.Fit, _ *gear.Set) {
			f.Parts = []fleet.PlacedPart{placed("esc", "batt", "ground", "motor1", "motor2", "motor3", "motor4", "", "current")}
			f.Ports = []fleet.Port{{UART: 4, Use: fleet.UseTelemetry}}
		}, pins.CodeOpen, verdict.Fails},
		"no telemetry to send": {func(f *fleet.Fit, set *gear.Set) {
			f.Parts = []fleet.PlacedPart{placed("esc", "batt", "ground", "motor1", "motor2", "motor3", "motor4", "", "current")}
			set.Parts[1].Plug.Pins[6] = ""
			f.Ports = []fleet.Port{{UART: 4, Use: fleet.UseTelemetry}}
		}, pins.CodeOpen, verdict.Fails},
	} {
		t.Run(name, func(t *testing.T) {
			set, f := sample.Set(), withParts(gps)
			c.change(&f, set)
			findings := pins.Check(caseOf(set, f))
			require.Contains(t, codes(findings), c.code, "%+v", findings)
			for _, found := range findings {
				if found.Code == c.code {
					assert.Equal(t, c.danger, found.Danger, found.Says)
				}
			}
		})
	}
}

// A port that waits for telemetry where no ESC is noted says so, and can be freed; one whose
// ESC is noted, or a part that may be one, is judged with the part.
func TestTelemetryThatNobodySends(t *testing.T) {
	buzzer := placed("buzzer", "5v", "buzzer")
	esc := placed("esc", "batt", "ground", "motor1", "motor2", "motor3", "motor4", "rx4", "current")
	f := withParts(buzzer)
	f.Ports = []fleet.Port{{UART: 4, Use: fleet.UseTelemetry}}
	findings := pins.Check(caseOf(sample.Set(), f))
	require.Contains(t, codes(findings), pins.CodeWaiting)
	assert.Equal(t, verdict.Caution, verdict.Worst(findings), "%+v", findings)
	assert.Contains(t, findings[0].Says, "UART 4 waits for ESC telemetry, and no ESC is noted")
	assert.True(t, slices.ContainsFunc(pins.Candidates(caseOf(sample.Set(), f)), func(c verdict.Candidate) bool {
		return c.Patch.Wiring != nil && len(c.Patch.Wiring.Ports) == 0
	}), "the port is freed")
	f.Parts = append(f.Parts, esc)
	assert.Equal(t, verdict.Fits, verdict.Worst(pins.Check(caseOf(sample.Set(), f))))
	f.Parts = f.Parts[:1]
	own := f
	own.Receiver, own.ReceiverCable = "receiver", &fleet.Cable{Wires: wires("5v", "ground", "tx2", "rx2")}
	assert.Contains(t, codes(pins.Check(caseOf(sample.Set(), own))), pins.CodeWaiting, "a receiver is no ESC")
	f.Ports = nil
	assert.Equal(t, verdict.Fits, verdict.Worst(pins.Check(caseOf(sample.Set(), f))), "none is asked for")
}

// A receiver with its own wires: they say the port, and are judged; where nobody states
// them, the port that is stated counts.
func TestTheReceiversOwnWires(t *testing.T) {
	f := soldered("10v", "ground", "tx4", "rx4")
	f.Controller, f.Receiver, f.Depth = nil, "receiver", fleet.PictureAndData
	set := sample.Set()
	set.Boards[0].UARTs[3].Hardware = new(true)
	check := func(to ...string) []verdict.Finding {
		f.ReceiverCable = &fleet.Cable{Wires: wires(to...)}
		return pins.Check(caseOf(set, f))
	}
	assert.Equal(t, verdict.Fits, verdict.Worst(check("5v", "ground", "tx1", "rx1")))
	port, ok := pins.SticksPort(caseOf(set, f))
	assert.True(t, ok)
	assert.Equal(t, 1, port)
	assert.Contains(t, codes(check("5v", "ground", "rx1", "tx1")), pins.CodeSwapped)
	assert.Contains(t, codes(check("5v", "ground", "", "rx1")), pins.CodeHalf, "it needs both pads")
	assert.Contains(t, codes(check("5v", "ground", "tx1", "rx3")), pins.CodeTwoPorts)
	assert.Contains(t, codes(check("5v", "ground", "tx3", "rx3")), pins.CodeInverted)
	assert.Contains(t, codes(check("5v", "5v", "tx1", "rx1")), pins.CodeShort)
	set.Boards[0].UARTs[0].Hardware = new(false)
	assert.Contains(t, codes(check("5v", "ground", "tx1", "rx1")), pins.CodeSoftSerial)
	set.Receivers[0].Plug = nil
	assert.Equal(t, verdict.Unknown, verdict.Worst(check("5v", "ground", "tx1", "rx1")), "its pins are not stated")
}

// The serial ports are planned with the parts that hang on them.
func TestPortsArePlannedForPartsAsTheirPinsHaveIt(t *testing.T) {
	f := withParts(
		placed("gps", "5v", "ground", "tx4", "rx4", "sda", "scl"),
		placed("transmitter", "10v", "ground", "video-out", "tx2"),
		placed("buzzer", "5v", "buzzer"),
	)
	f.Ports = []fleet.Port{{UART: 4, Use: fleet.UseGPS}}
	plan, ok := pins.Ports(caseOf(sample.Set(), f))
	require.True(t, ok)
	at := map[fleet.Use]int{}
	for _, p := range plan.Ports {
		at[p.Use] = p.UART
	}
	assert.Equal(t, map[fleet.Use]int{fleet.UseRC: 3, fleet.UseMSP: 1, fleet.UseGPS: 4, fleet.UseVTXControl: 2}, at)
	assert.Zero(t, plan.Moves, "the port that is stated is the part's own")
	f.Ports[0].UART = 2
	assert.Contains(t, codes(pins.Check(caseOf(sample.Set(), f))), pins.CodePort, "stated on another port")
	assert.ElementsMatch(t, []fleet.Port{{UART: 4, Use: fleet.UseGPS}, {UART: 2, Use: fleet.UseVTXControl}},
		pins.Uses(caseOf(sample.Set(), f)), "as it is wired")
	f.Ports[0].UART = 4
	f.Parts = append(f.Parts, fleet.PlacedPart{ID: "other", Model: "gps", Cable: fleet.Cable{
		Wires: wires("5v", "ground", "tx3", "rx3", "sda", "scl"),
	}})
	assert.ElementsMatch(t, []fleet.Port{
		{UART: 4, Use: fleet.UseGPS}, {UART: 3, Use: fleet.UseGPS}, {UART: 2, Use: fleet.UseVTXControl},
	}, pins.Uses(caseOf(sample.Set(), f)), "the second GPS does not take the place of the first")
	for _, found := range pins.Check(caseOf(sample.Set(), f)) {
		assert.NotContains(t, found.Says, "the plan has GPS", "the one that is stated is the first's")
	}
	f.Parts = f.Parts[:3]
	one := sample.Set()
	one.Boards[0].UARTs = one.Boards[0].UARTs[:1]
	_, ok = pins.Ports(caseOf(one, f))
	assert.True(t, ok, "one port is planned as well")
	one.Boards[0].UARTs = nil
	_, ok = pins.Ports(caseOf(one, f))
	assert.False(t, ok, "without ports there is nothing to plan")
}

// The ports that are stated for the air unit are held against its wires, as those of a part.
func TestPortsOfTheAirUnitThatItsWiresContradict(t *testing.T) {
	f := withParts()
	f.Ports = []fleet.Port{{UART: 1, Use: fleet.UseMSP}, {UART: 3, Use: fleet.UseRC}}
	assert.Equal(t, verdict.Fits, verdict.Worst(pins.Check(caseOf(sample.Set(), f))))
	for i, says := range []string{
		"is wired to UART 1; the plan has MSP to the air unit on UART 4",
		"is wired to UART 3; the plan has the sticks from the air unit on UART 4",
	} {
		g := f
		g.Ports = append([]fleet.Port{}, f.Ports...)
		g.Ports[i].UART = 4
		found := find(t, caseOf(sample.Set(), g), pins.CodePort)
		assert.Equal(t, verdict.Change, found.Level)
		assert.Contains(t, found.Says, says)
	}
}

// What a board takes on one port is not put on two, and either may be given up.
func TestAUseThatIsPutOnTwoPorts(t *testing.T) {
	set := sample.Set()
	for _, id := range []int{5, 6} {
		set.Boards[0].UARTs = append(set.Boards[0].UARTs,
			gear.UART{ID: id, TX: true, RX: true, Hardware: new(true), Invert: gear.InvertNone})
	}
	f := withParts()
	f.Ports = []fleet.Port{{UART: 1, Use: fleet.UseMSP}, {UART: 6, Use: fleet.UseGPS}, {UART: 6, Use: fleet.UseGPS}}
	assert.Equal(t, verdict.Fits, verdict.Worst(pins.Check(caseOf(set, f))), "noted twice is noted")
	f.Ports[2].UART = 5
	c := caseOf(set, f)
	found := find(t, c, pins.CodePort)
	assert.Equal(t, verdict.Unfit, found.Level)
	assert.Contains(t, found.Says, "is put on UART 6 and on UART 5")
	var ways []string
	for _, cand := range pins.Candidates(c) {
		if verdict.Worst(pins.Check(c.With(cand.Patch))) == verdict.Fits {
			ways = append(ways, change.Words(c, cand.Patch))
		}
	}
	assert.Contains(t, ways, "leave UART 6 free")
	assert.Contains(t, ways, "leave UART 5 free")
	f.Ports = []fleet.Port{{UART: 1, Use: fleet.UseMSP}, {UART: 5, Use: fleet.UseMSP}}
	assert.NotEqual(t, verdict.Unfit, verdict.Worst(pins.Check(caseOf(set, f))), "MSP may be on several")
}

// The picture marks the wire that brings a second supply.
func TestTheSecondSupplyIsDrawn(t *testing.T) {
	f := soldered("10v", "ground", "tx1", "rx1", "ground", "rx3")
	assert.Equal(t, verdict.Fits, pins.Draw(caseOf(sample.Set(), f)).Wires[0].Level)
	f.Feeds = []fleet.Feed{{To: fleet.NodeAirUnit, From: fleet.NodePack}}
	assert.Equal(t, verdict.Unfit, pins.Draw(caseOf(sample.Set(), f)).Wires[0].Level)
}

// A way out of two supplies is to take the wire off, and every cable offered to a unit that
// hangs on the pack leaves its supply off the board.
func TestNoCableJoinsTwoSupplies(t *testing.T) {
	for _, f := range []fleet.Fit{
		soldered("10v", "ground", "tx1", "rx1", "ground", "rx3"), soldered("", "ground", "tx1", "rx1", "ground", "rx3"),
		plugged("straight"),
	} {
		f.Feeds = []fleet.Feed{{To: fleet.NodeAirUnit, From: fleet.NodePack}}
		c := caseOf(sample.Set(), f)
		mended := 0
		for _, cand := range pins.Candidates(c) {
			joined := slices.Contains(codes(pins.Check(c.With(cand.Patch))), pins.CodeShort)
			if w := cand.Patch.Wiring; w != nil && w.Harness != f.Harness {
				assert.False(t, joined, "%s into %s", w.Harness, w.HarnessTo)
			}
			if !joined {
				mended++
			}
		}
		assert.NotZero(t, mended)
	}
}

// The supply wire on the battery pad, and the plan that feeds from the pack: two ways to one
// supply, which burn nothing.
func TestTwoWaysToOneSupplyAreNotTwoSupplies(t *testing.T) {
	f := soldered("batt", "ground", "tx1", "rx1", "ground", "rx3")
	f.Feeds = []fleet.Feed{{To: fleet.NodeAirUnit, From: fleet.NodePack}}
	assert.NotContains(t, codes(pins.Check(caseOf(sample.Set(), f))), pins.CodeShort)
}

// Today's wiring against the next: what comes off, what that frees, what stays, and which
// ends are insulated.
func TestWhatComesOffAndWhatThatFrees(t *testing.T) {
	next := withParts(placed("buzzer", "5v", "buzzer"))
	c := caseOf(sample.Set(), next)
	now := fleet.Fit{
		Analog: "analog",
		Board:  "board",
		Parts: []fleet.PlacedPart{
			placed("transmitter", "cam", "ground", "video-out", "tx2"),
			placed("camera", "5v", "ground", "video-in"),
			placed("buzzer", "5v", "buzzer"),
		},
	}
	c.Quad.Now = now
	off := pins.TakeOff(c.Library, c.Fleet, c.Quad)
	assert.Equal(t, []string{"buzzer"}, off.Stays)
	assert.Equal(t, []string{"UART 2", "cam"}, off.Frees, "the buzzer keeps the 5 V pad")
	assert.Len(t, off.Wires, 7)
	assert.Equal(t, pins.OffWire{Part: "transmitter", Wire: "control wire", From: "TX 2"}, off.Wires[3])
	assert.Empty(t, off.Unplug)

	set := sample.Set()
	next = plugged("straight")
	next.Moved = []fleet.CrimpMove{{End: fleet.UnitEnd, From: 1, To: 0}}
	c = caseOf(set, next)
	c.Quad.Now = soldered("10v", "ground", "tx1", "rx1", "ground", "rx3")
	off = pins.TakeOff(c.Library, c.Fleet, c.Quad)
	assert.Len(t, off.Wires, 6, "the cable takes their place")
	assert.Equal(t, []string{"the free end of the red wire of straight, 10v: it is live"}, off.Insulate)
	back := caseOf(set, soldered("10v", "ground", "tx1", "rx1", "ground", "rx3"))
	back.Quad.Now = plugged("straight")
	assert.Equal(t, []string{"the straight of second out of the hd"},
		pins.TakeOff(back.Library, back.Fleet, back.Quad).Unplug)

	on := soldered("10v", "ground", "tx1", "rx1", "ground", "rx3")
	on.Feeds[0].From, on.Harness = "pack", "straight"
	on.Wires = on.Wires[1:]
	set.Harnesses[0].To = ""
	fed := caseOf(set, on)
	assert.Empty(t, pins.TakeOff(fed.Library, fed.Fleet, fed.Quad).Insulate, "its supply wire ends at the pack")
}

// Wire is cut where a part has no cable of its own; with a pigtail, or where nothing is
// soldered, none is needed.
func TestWireIsListedWhereItIsCut(t *testing.T) {
	materials := func(f fleet.Fit) []string { return pins.Soldering(caseOf(sample.Set(), f)).Materials }
	bare := soldered("10v", "ground", "tx1", "rx1", "ground", "rx3")
	assert.Contains(t, materials(bare), "silicone wire")
	one := soldered("", "ground")
	one.Feeds, one.Depth = nil, fleet.PictureOnly
	assert.Contains(t, materials(one), "silicone wire", "one wire is cut as well")
	assert.Empty(t, materials(plugged("straight")))
	pigtail := bare
	pigtail.Harness = "straight"
	assert.NotContains(t, materials(pigtail), "silicone wire")
	pigtail.Parts = []fleet.PlacedPart{placed("buzzer", "5v", "buzzer")}
	assert.Contains(t, materials(pigtail), "silicone wire", "the buzzer has no cable")
}

// What nobody states of a part is asked, never taken for fine: its pins, and what it is
// where a port waits for telemetry.
func TestWhatIsNotStatedOfAPart(t *testing.T) {
	set := sample.Set()
	f := withParts(placed("gps", "5v", "ground", "tx4", "rx4", "sda", "scl"))
	set.Parts[0].Plug.Pins, f.Parts[0].Wires = nil, nil
	f.Parts[0].Harness, f.Parts[0].HarnessTo = "straight", "hd"
	assert.Equal(t, verdict.Unknown, verdict.Worst(pins.Check(caseOf(set, f))), "a plug without pins")

	set = sample.Set()
	esc := placed("esc", "batt", "ground", "motor1", "motor2", "motor3", "motor4", "", "current")
	set.Parts[1].Plug.Pins[6], set.Parts[1].Sort = "", ""
	f = withParts(esc)
	assert.Equal(t, verdict.Fits, verdict.Worst(pins.Check(caseOf(set, f))), "nothing turns on what it is")
	f.Ports = []fleet.Port{{UART: 4, Use: fleet.UseTelemetry}}
	findings := pins.Check(caseOf(set, f))
	assert.Equal(t, verdict.Unknown, verdict.Worst(findings))
	assert.NotContains(t, codes(findings), pins.CodeWaiting, "it may be the ESC")
}

// A receiver whose wires nobody states stands in the table all the same, with its pins and
// that they are not stated; one whose wires are stated stands there once.
func TestAReceiverInTheTable(t *testing.T) {
	f := fleet.Fit{Board: "board", Receiver: "receiver"}
	rows := func() (list []pins.TablePart) {
		for _, p := range pins.NewTable(caseOf(sample.Set(), f)).Parts {
			if p.Node == fleet.NodeReceiver {
				list = append(list, p)
			}
		}
		return list
	}
	require.Len(t, rows(), 1)
	assert.Contains(t, rows()[0].Note, "Its wires are not stated")
	f.ReceiverCable = &fleet.Cable{Wires: wires("5v", "ground")}
	require.Len(t, rows(), 1)
	assert.Empty(t, rows()[0].Note)
}

// A part is joined wire by wire, or by a cable that goes into its plug and into one of the
// board; choosing one gives what it says, and what stands there now is one of them.
func TestWaysToJoinAPart(t *testing.T) {
	set := sample.Set()
	set.Receivers[0].Plug = &gear.Plug{Connector: "sh-6", Pins: []string{"supply", "ground", "uart-rx", "uart-tx"}}
	set.Harnesses = append(set.Harnesses,
		gear.Harness{Entry: gear.Entry{ID: "tails", Name: "tails"}, From: "sh-6", Wires: sample.Wires(0, 0, 0, 0)},
		gear.Harness{Entry: gear.Entry{ID: "other", Name: "other"}, From: "gh-4", To: "sh-6"})
	ways := func(f fleet.Fit) []pins.Joining {
		for _, p := range pins.NewTable(caseOf(set, f)).Parts {
			if p.Node == fleet.NodeReceiver {
				return p.Joined
			}
		}
		return nil
	}
	f := fleet.Fit{Board: "board", Receiver: "receiver"}
	list := ways(f)
	require.Len(t, list, 3, "wire by wire, the tails, the straight cable into the one plug it goes into")
	for i, way := range list {
		assert.False(t, way.Chosen, "nobody has said how")
		after := f
		after.ReceiverCable = way.Patch.ReceiverCable
		require.NotNil(t, after.ReceiverCable, way.Label)
		again := ways(after)
		require.Len(t, again, 3)
		for k := range again {
			assert.Equal(t, i == k, again[k].Chosen, "%s after %s", again[k].Label, way.Label)
		}
	}
	f.ReceiverCable = &fleet.Cable{Harness: "other"}
	list = ways(f)
	require.Len(t, list, 4)
	assert.True(t, list[3].Chosen, "what is there and is none of them stays as it is")
}
