package sim

import (
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"math"
	"net"
	"strings"
	"sync"
	"time"

	"yokeswap/core/setup"
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
}

// rebootIn is how long the stand-in is away when it reboots.
const rebootIn = 60 * time.Millisecond

// FlightBoard is a stand-in for a flight board that speaks MSP over TCP. Like a real
// one it works on what it has in memory, and forgets what is not saved.
type FlightBoard struct {
	mu       sync.Mutex
	memory   setup.State
	saved    setup.State
	faults   Faults
	writes   int
	listener net.Listener
	conns    map[net.Conn]bool
	awayTill time.Time
	started  time.Time
}

// NewFlightBoard starts a stand-in on a port of this machine; an empty port takes a
// free one.
func NewFlightBoard(s setup.State, at string) (*FlightBoard, error) {
	if at == "" {
		at = "127.0.0.1:0"
	}
	listener, err := net.Listen("tcp", at)
	if err != nil {
		return nil, fmt.Errorf("start the stand-in for a flight board: %w", err)
	}
	b := &FlightBoard{memory: s.Clone(), saved: s.Clone(), listener: listener, conns: map[net.Conn]bool{}, started: time.Now()}
	go b.accept()
	return b, nil
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
}

// Plant changes what it has in memory and saved, for a fault to be found.
func (b *FlightBoard) Plant(change func(*setup.State)) {
	b.mu.Lock()
	defer b.mu.Unlock()
	change(&b.memory)
	change(&b.saved)
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
	buffer := make([]byte, 4096)
	for {
		n, err := conn.Read(buffer)
		var answers []byte
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
	}
	encoded := msp.AppendFrame(nil, out)
	if b.faults.WrongChecksum {
		encoded[len(encoded)-1]++
	}
	if late := time.Duration(b.faults.SlowMS) * time.Millisecond; late > 0 {
		b.mu.Unlock()
		time.Sleep(late)
		b.mu.Lock()
	}
	if writing[f.Command] {
		if b.writes++; b.faults.CutAfter > 0 && b.writes >= b.faults.CutAfter {
			b.faults.CutAfter = 0 // the cable can be put back
			b.memory = b.saved.Clone()
			b.cut()
			return nil
		}
	}
	return encoded
}

// writing are the commands that change the board.
var writing = map[uint16]bool{msp.CmdSetPorts: true, msp.CmdSetFeatures: true, msp.CmdSetReceiver: true, msp.CmdSetRXMap: true, msp.CmdSetMode: true, msp.CmdSetCanvas: true, msp.CmdSetOSD: true, msp.CmdSave: true}

// reboot forgets what was not saved and is away for a moment.
func (b *FlightBoard) reboot() {
	b.memory = b.saved.Clone()
	b.awayTill = time.Now().Add(rebootIn)
	b.cut()
}

func (b *FlightBoard) do(command uint16, in []byte) ([]byte, error) {
	m := &b.memory
	if writing[command] && b.faults.Armed {
		return nil, errUnknown
	}
	switch command {
	case msp.CmdVariant:
		if b.faults.Variant != "" {
			return []byte(b.faults.Variant), nil
		}
		return []byte(m.Variant), nil
	case msp.CmdVersion:
		return versionBytes(string(m.Version)), nil
	case msp.CmdBoard:
		return []byte(fmt.Sprintf("%-4.4s", strings.ToUpper(m.Board))), nil
	case msp.CmdName:
		return []byte(m.Name), nil
	case msp.CmdStatus:
		out := make([]byte, 11)
		if b.faults.Armed {
			out[6] = 1
		}
		return out, nil
	case msp.CmdChannels:
		return b.channels(), nil
	case msp.CmdAnalog:
		out := make([]byte, 9)
		volts := 16.2 + 0.1*math.Sin(time.Since(b.started).Seconds()/3)
		out[0] = byte(volts * 10)
		binary.LittleEndian.PutUint16(out[7:], uint16(volts*100))
		return out, nil
	case msp.CmdReboot:
		b.reboot()
		return nil, nil
	case msp.CmdSave:
		if b.faults.RefuseSave {
			return nil, errUnknown
		}
		b.saved = m.Clone()
		return nil, nil
	}
	if out, ok := msp.Answer(m, command); ok {
		return out, nil
	}
	if msp.Change(m, command, in) {
		return nil, nil
	}
	return nil, errUnknown
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
	var out []byte
	for _, v := range us {
		out = binary.LittleEndian.AppendUint16(out, uint16(v))
	}
	return out
}
