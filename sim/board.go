package sim

import (
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"maps"
	"math"
	"net"
	"strings"
	"sync"
	"time"

	"yokeswap/core/facts/gear"
	"yokeswap/core/work/setup"
	"yokeswap/msp"
)

// Faults are what can be wrong with a stand-in for a flight board, or with the way
// to it.
type Faults struct {
	SlowMS        int    `json:"slowMS,omitempty"`        // each answer comes so late
	CutAfter      int    `json:"cutAfter,omitempty"`      // the cable comes out after so many writes; 0: never
	WrongChecksum bool   `json:"wrongChecksum,omitempty"` // of every answer
	Variant       string `json:"variant,omitempty"`       // it says it runs something else
	RefuseSave    bool   `json:"refuseSave,omitempty"`
	Armed         bool   `json:"armed,omitempty"`
	Silent        bool   `json:"silent,omitempty"` // it answers nothing
	// SaveMS and RebootMS are how long it takes to save, and is away when it reboots;
	// 0: as usual.
	SaveMS   int `json:"saveMS,omitempty"`
	RebootMS int `json:"rebootMS,omitempty"`
	// SilentSave: it saves and does not say so. LostSave: it says so and does not.
	// CutAtSave: the cable comes out after the save command, before its answer.
	SilentSave bool `json:"silentSave,omitempty"`
	LostSave   bool `json:"lostSave,omitempty"`
	CutAtSave  bool `json:"cutAtSave,omitempty"`
	// OldPorts, NoOSD, NoCanvas: its firmware is older. V1Errors: it refuses what is
	// new in the manner of version 1.
	OldPorts bool `json:"oldPorts,omitempty"`
	NoOSD    bool `json:"noOSD,omitempty"`
	NoCanvas bool `json:"noCanvas,omitempty"`
	NoHold   bool `json:"noHold,omitempty"` // it does not know how to hold its arming off
	V1Errors bool `json:"v1Errors,omitempty"`
	// WrongLength: one frame with a wrong length comes before each answer; Chatter: one
	// nobody has asked for.
	WrongLength bool `json:"wrongLength,omitempty"`
	Chatter     bool `json:"chatter,omitempty"`
	// Flips: on USB alone, the sticks at rest, and the switch on this auxiliary channel
	// flipped every other second; 0: none.
	Flips int `json:"flips,omitempty"`
	// Drops: this command is answered and does nothing; 0: none.
	Drops uint16 `json:"drops,omitempty"`
	// NoText: it speaks only MSP. CutText: what it tells in its text breaks off in the
	// middle. Ignores: this setting of its text is answered and not taken; Moves: this one
	// changes beside whatever is sent.
	NoText  bool   `json:"noText,omitempty"`
	CutText bool   `json:"cutText,omitempty"`
	Ignores string `json:"ignores,omitempty"`
	Moves   string `json:"moves,omitempty"`
}

// How long the stand-in takes to save, and is away when it reboots, unless it is told
// otherwise: as boards do on a good day.
const (
	saveIn   = 100 * time.Millisecond
	rebootIn = 2 * time.Second
)

// usbPort is the number of the board's own USB port among its serial ports.
const usbPort = 20

// FlightBoard is a stand-in for a flight board that speaks MSP over TCP. Like a real
// one it works on what it has in memory, and forgets what is not saved.
type FlightBoard struct {
	mu       sync.Mutex
	memory   setup.State
	saved    setup.State
	faults   Faults
	writes   int
	held     bool // its arming, until let go of or it starts anew
	listener net.Listener
	conns    map[net.Conn]bool
	awayTill time.Time
	started  time.Time
	watch    func(setup.State) // called after each write with what is in memory
	text     *texts            // what it has in its settings text; nil: it speaks none
}

// NewFlightBoard starts a stand-in on a port of this machine; an empty port takes a
// free one. It speaks the settings text of its firmware as well where that is stated.
func NewFlightBoard(s setup.State, runs *gear.FlightFirmware, at string) (*FlightBoard, error) {
	if at == "" {
		at = "127.0.0.1:0"
	}
	listener, err := net.Listen("tcp", at)
	if err != nil {
		return nil, fmt.Errorf("start the stand-in for a flight board: %w", err)
	}
	s = severe(s)
	b := &FlightBoard{
		memory:   s.Clone(),
		saved:    s.Clone(),
		listener: listener,
		conns:    map[net.Conn]bool{},
		started:  time.Now(),
		text:     newTexts(runs, s),
	}
	go b.accept()
	return b, nil
}

// severe fills in what real boards have beside what is used here: a USB port in the
// list, settings behind those known, bits that are not understood.
func severe(s setup.State) setup.State {
	s = s.Clone()
	if len(s.Receiver) == 0 {
		s.Receiver = make([]byte, 23)
		for i := range s.Receiver {
			s.Receiver[i] = byte(0x40 + i)
		}
		s.Receiver[0] = byte(s.Provider)
	}
	if len(s.Map) == 0 {
		s.Map = []byte{0, 1, 3, 2, 7, 6, 5, 4}
		for at, stick := range s.RXMap {
			if i := strings.IndexRune("AERT", stick); i >= 0 {
				s.Map[i] = byte(at)
			}
		}
	}
	for _, p := range s.Ports {
		if p.ID == usbPort {
			return s
		}
	}
	s.Ports = append(s.Ports, setup.Port{ID: usbPort, Functions: 1, Rest: []byte{5, 4, 0, 5}})
	for i := range s.OSD {
		if i%5 == 4 {
			s.OSD[i].Rest = 0x4000
		}
	}
	return s
}

// Address is where it listens, as the client opens it.
func (b *FlightBoard) Address() string { return "tcp:" + b.listener.Addr().String() }

// Close ends the stand-in.
func (b *FlightBoard) Close() error {
	err := b.listener.Close()
	b.mu.Lock()
	defer b.mu.Unlock()
	b.cut()
	return err
}

// Break sets the faults.
func (b *FlightBoard) Break(f Faults) {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.faults, b.writes = f, 0
	b.memory.OldPorts, b.saved.OldPorts = f.OldPorts, f.OldPorts
}

// Plant changes what it has in memory and saved, for a fault to be found.
func (b *FlightBoard) Plant(change func(*setup.State)) {
	b.mu.Lock()
	defer b.mu.Unlock()
	change(&b.memory)
	change(&b.saved)
}

// Watch has what is in memory told after each write.
func (b *FlightBoard) Watch(tell func(setup.State)) {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.watch = tell
}

// Saved is what it would have after the power was off.
func (b *FlightBoard) Saved() setup.State {
	b.mu.Lock()
	defer b.mu.Unlock()
	return b.saved.Clone()
}

func (b *FlightBoard) accept() {
	for {
		conn, err := b.listener.Accept()
		if err != nil {
			return
		}
		b.mu.Lock()
		away := time.Now().Before(b.awayTill)
		if !away {
			b.conns[conn] = true
		}
		b.mu.Unlock()
		if away {
			conn.Close()
			continue
		}
		go b.Serve(conn)
	}
}

// cut takes the cable out: every connection ends.
func (b *FlightBoard) cut() {
	for conn := range b.conns {
		conn.Close()
	}
	clear(b.conns)
}

// Serve answers on a connection until it ends: one of its own, or a serial line.
func (b *FlightBoard) Serve(conn io.ReadWriteCloser) {
	defer conn.Close()
	var d msp.Decoder
	var talk *talk
	buffer := make([]byte, 4096)
	for {
		n, err := conn.Read(buffer)
		var answers []byte
		if talk = b.talks(talk, buffer[:n]); talk != nil {
			if _, err := conn.Write(talk.hear(buffer[:n])); err != nil {
				return
			}
			if err != nil {
				return
			}
			continue
		}
		d.Decode(buffer[:n], func(f msp.Frame) {
			if f.Direction == msp.ToBoard {
				answers = append(answers, b.answer(f)...)
			}
		})
		if len(answers) > 0 {
			if _, err := conn.Write(answers); err != nil {
				return
			}
		}
		if err != nil {
			return
		}
	}
}

var errUnknown = errors.New("unknown")

// answer is the bytes that come back for a frame; none where it keeps silent.
func (b *FlightBoard) answer(f msp.Frame) []byte {
	b.mu.Lock()
	defer b.mu.Unlock()
	if b.faults.Silent {
		return nil
	}
	payload, err := b.do(f.Command, f.Payload)
	out := msp.Frame{Version: f.Version, Direction: msp.FromBoard, Command: f.Command, Payload: payload}
	if err != nil {
		out.Direction, out.Payload = msp.Refused, nil
		if b.faults.V1Errors && f.Version == msp.V2 {
			out.Version, out.Command = msp.V1, f.Command&0xFF
		}
	}
	encoded := b.garbled(msp.AppendFrame(nil, out))
	if f.Command == msp.CmdSave && err == nil {
		b.waits(b.takes(b.faults.SaveMS, saveIn))
		switch {
		case b.faults.CutAtSave:
			b.faults.CutAtSave = false
			b.lost()
			return nil
		case b.faults.SilentSave:
			return nil
		}
	}
	b.waits(time.Duration(b.faults.SlowMS) * time.Millisecond)
	if writing[f.Command] {
		if b.writes++; b.faults.CutAfter > 0 && b.writes >= b.faults.CutAfter {
			b.faults.CutAfter = 0 // the cable can be put back
			b.lost()
			return nil
		}
	}
	return encoded
}

// garbled is an answer with the faults ordered for the line: a wrong checksum, and before
// it frames nobody asked for or whose length is wrong.
func (b *FlightBoard) garbled(encoded []byte) []byte {
	unasked := func(payload string) []byte {
		return msp.AppendFrame(nil, msp.Frame{
			Version:   msp.V1,
			Direction: msp.FromBoard,
			Command:   119,
			Payload:   []byte(payload),
		})
	}
	if b.faults.WrongChecksum {
		encoded[len(encoded)-1]++
	}
	if b.faults.Chatter {
		encoded = append(unasked("unasked"), encoded...)
	}
	if b.faults.WrongLength {
		broken := unasked("\x01\x02\x03")
		broken[3] = 5 // it says two bytes more than there are
		encoded = append(broken, encoded...)
	}
	return encoded
}

// waits lets time pass; meanwhile others may look at the board.
func (b *FlightBoard) waits(d time.Duration) {
	if d > 0 {
		b.mu.Unlock()
		time.Sleep(d)
		b.mu.Lock()
	}
}

// lost cuts the line; what was not saved is gone.
func (b *FlightBoard) lost() {
	b.memory = b.saved.Clone()
	if b.text != nil {
		b.text.memory = maps.Clone(b.text.saved)
	}
	b.cut()
}

// keepAll saves what is in memory.
func (b *FlightBoard) keepAll() {
	b.saved = b.memory.Clone()
	if b.text != nil {
		b.text.saved = maps.Clone(b.text.memory)
	}
}

// writing are the commands that change the board.
var writing = map[uint16]bool{
	msp.CmdSetPorts:    true,
	msp.CmdSetOldPorts: true,
	msp.CmdSetFeatures: true,
	msp.CmdSetReceiver: true,
	msp.CmdSetRXMap:    true,
	msp.CmdSetMode:     true,
	msp.CmdSetCanvas:   true,
	msp.CmdSetOSD:      true,
	msp.CmdSave:        true,
}

// takes is how long something takes: as ordered, or as usual.
func (b *FlightBoard) takes(ordered int, usual time.Duration) time.Duration {
	if ordered > 0 {
		return time.Duration(ordered) * time.Millisecond
	}
	return usual
}

// reboot forgets what was not saved and is away for a moment.
func (b *FlightBoard) reboot() {
	b.held = false
	b.awayTill = time.Now().Add(b.takes(b.faults.RebootMS, rebootIn))
	b.lost()
}

func (b *FlightBoard) do(command uint16, in []byte) ([]byte, error) {
	m := &b.memory
	if (writing[command] || command == msp.CmdReboot) && b.faults.Armed || b.lacks(command) {
		return nil, errUnknown
	}
	if command == b.faults.Drops && command != 0 {
		return nil, nil
	}
	if out, ok := b.tells(command); ok {
		return out, nil
	}
	switch command {
	case msp.CmdHoldArming:
		b.held = len(in) > 0 && in[0] == 1
		return nil, nil
	case msp.CmdReboot:
		b.reboot()
		return nil, nil
	case msp.CmdSave:
		if b.faults.RefuseSave {
			return nil, errUnknown
		}
		if !b.faults.LostSave {
			b.keepAll()
		}
		return nil, nil
	}
	if out, ok := msp.Answer(m, command); ok {
		return out, nil
	}
	if msp.Change(m, command, in) {
		if b.watch != nil {
			b.watch(m.Clone())
		}
		return nil, nil
	}
	return nil, errUnknown
}

// tells is what a board says of itself and of what it measures; false where the command
// asks for something else.
func (b *FlightBoard) tells(command uint16) ([]byte, bool) {
	m := &b.memory
	switch command {
	case msp.CmdAPI:
		return []byte{0, 1, 46}, true
	case msp.CmdBuild:
		return []byte("Nov 26 202612:00:00abcdef0"), true
	case msp.CmdVariant:
		if b.faults.Variant != "" {
			return []byte(b.faults.Variant), true
		}
		return []byte(m.Variant), true
	case msp.CmdVersion:
		return versionBytes(string(m.Version)), true
	case msp.CmdBoard:
		return []byte(fmt.Sprintf("%-4.4s", strings.ToUpper(m.Board))), true
	case msp.CmdName:
		return []byte(m.Name), true
	case msp.CmdStatus:
		out := make([]byte, 11)
		if len(m.OSD)%2 == 0 {
			out = make([]byte, 22) // newer firmware says more
		}
		if b.faults.Armed && !b.held {
			out[6] = 1
		}
		return out, true
	case msp.CmdChannels:
		return b.channels(), true
	case msp.CmdAnalog:
		out := make([]byte, 9)
		volts := 16.2 + 0.1*math.Sin(time.Since(b.started).Seconds()/3)
		if b.faults.Flips > 0 {
			volts = 0
		}
		out[0] = byte(volts * 10)
		binary.LittleEndian.PutUint16(out[7:], uint16(volts*100))
		return out, true
	}
	return nil, false
}

// lacks says whether the firmware is too old for a command.
func (b *FlightBoard) lacks(command uint16) bool {
	switch command {
	case msp.CmdOSD, msp.CmdSetOSD:
		return b.faults.NoOSD
	case msp.CmdCanvas, msp.CmdSetCanvas:
		return b.faults.NoCanvas
	case msp.CmdHoldArming:
		return b.faults.NoHold
	}
	return false
}

func versionBytes(v string) []byte {
	out := make([]byte, 3)
	for i, part := range strings.SplitN(v, ".", 3) {
		n := 0
		fmt.Sscanf(part, "%d", &n)
		out[i] = byte(n)
	}
	return out
}

// channels moves the four sticks from end to end, each at its own pace, with every
// switch off but the second.
func (b *FlightBoard) channels() []byte {
	at := time.Since(b.started).Seconds()
	stick := func(pace float64) int { return 1500 + int(math.Round(500*math.Sin(at*pace))) }
	us := []int{stick(1.7), stick(1.4), stick(1.1), stick(0.9), 1000, 1200, 1000, 1000}
	if n := b.faults.Flips; n > 0 && n <= 4 {
		us = []int{1500, 1500, 1500, 1000, 1000, 1000, 1000, 1000}
		if int(at)%4 >= 2 {
			us[3+n] = 2000
		}
	}
	var out []byte
	for _, v := range us {
		out = binary.LittleEndian.AppendUint16(out, uint16(v))
	}
	return out
}
