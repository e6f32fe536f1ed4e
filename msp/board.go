package msp

import (
	"bytes"
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"slices"
	"time"

	"yokeswap/core/work/setup"
)

// inquiry is one thing a board is asked for, and what takes it into a state.
type inquiry struct {
	what    string
	command uint16
	take    func(*setup.State, []byte) error
}

// askedFor is what a board is asked for, in this order; its ports come after.
var askedFor = []inquiry{
	{"which flight firmware it runs", CmdVariant, func(s *setup.State, p []byte) error {
		s.Variant = text(p[:min(len(p), 4)])
		return nil
	}},
	{"its release", CmdVersion, func(s *setup.State, p []byte) (err error) {
		s.Version, err = decodeVersion(p)
		return err
	}},
	{
		"which board it is",
		CmdBoard,
		func(s *setup.State, p []byte) error { s.Board = text(p[:min(len(p), 4)]); return nil },
	},
	{"its name", CmdName, func(s *setup.State, p []byte) error { s.Name = text(p); return nil }},
	{"its status", CmdStatus, func(s *setup.State, p []byte) error {
		status, err := decodeStatus(p)
		s.Armed = status.Armed
		return err
	}},
	{"its features", CmdFeatures, func(s *setup.State, p []byte) error {
		if len(p) < 4 {
			return short("list of features", len(p), 4)
		}
		s.Features = binary.LittleEndian.Uint32(p)
		return nil
	}},
	{"its receiver", CmdReceiver, func(s *setup.State, p []byte) error {
		if len(p) < 1 {
			return short("receiver settings", 0, 1)
		}
		s.Provider, s.Receiver = int(p[0]), append([]byte(nil), p...)
		return nil
	}},
	{"its channel order", CmdRXMap, func(s *setup.State, p []byte) (err error) {
		s.Map = append([]byte(nil), p...)
		s.RXMap, err = decodeRXMap(p)
		return err
	}},
	{"its modes", CmdModes, func(s *setup.State, p []byte) error { s.Modes = decodeModes(p); return nil }},
	{"its OSD", CmdOSD, func(s *setup.State, p []byte) (err error) { s.OSD, err = decodeOSD(p); return err }},
	{"its canvas", CmdCanvas, func(s *setup.State, p []byte) error { s.Canvas = decodeCanvas(p); return nil }},
}

// ReadBoard reads how a board is set up.
func ReadBoard(ctx context.Context, c *Client) (setup.State, error) {
	var s setup.State
	for _, part := range askedFor {
		answer, err := c.Ask(ctx, part.command, nil)
		if lacks, optional := optional[part.command]; optional && errors.Is(err, ErrRefused) {
			s.Lacks = append(s.Lacks, lacks)
			continue
		}
		if err == nil {
			err = part.take(&s, answer)
		}
		if err != nil {
			return s, fmt.Errorf("read %s: %w", part.what, err)
		}
	}
	return s, readPorts(ctx, c, &s)
}

// optional are the parts a board may not have; without them it is read and set all the
// same, and they are left out.
var optional = map[uint16]string{CmdName: setup.LacksName, CmdOSD: setup.LacksOSD, CmdCanvas: setup.LacksCanvas}

// readPorts reads the list of serial ports: the newer one, or where the board does not
// have it the older.
func readPorts(ctx context.Context, c *Client, s *setup.State) error {
	answer, err := c.Ask(ctx, CmdPorts, nil)
	if err == nil {
		s.Ports, err = decodePorts(answer)
	} else if errors.Is(err, ErrRefused) {
		s.OldPorts = true
		if answer, err = c.Ask(ctx, CmdOldPorts, nil); err == nil {
			s.Ports, err = decodeOldPorts(answer)
		}
	}
	if err != nil {
		return fmt.Errorf("read its serial ports: %w", err)
	}
	return nil
}

// modeSlots is how many ranges a board keeps (the protocol's public description,
// from memory).
const modeSlots = 20

// WriteBoard changes a board from one state to another, setting by setting, without
// saving. It writes nothing where the two are the same, and stops at the first setting
// that fails. What a board lacks is left out. Ranges that are added or changed go
// before those that are emptied: a write that breaks off leaves no mode, least of all
// arming, on less than it was.
func WriteBoard(ctx context.Context, c *Client, from, to setup.State) error {
	if len(to.Modes) > modeSlots {
		return fmt.Errorf("set the modes: the board keeps %d ranges, the plan has %d", modeSlots, len(to.Modes))
	}
	list := settings(from, to)
	list = append(list, modes(from, to)...)
	list = append(list, screen(from, to)...)
	for _, s := range list {
		if _, err := c.Ask(ctx, s.command, s.payload); err != nil {
			return fmt.Errorf("set %s: %w", s.what, err)
		}
	}
	return nil
}

// setting is one command that changes a board.
type setting struct {
	what    string
	command uint16
	payload []byte
}

// settings are those a board has once: ports, features, receiver, order of channels.
func settings(from, to setup.State) (list []setting) {
	if !samePorts(from.Ports, to.Ports) {
		if from.OldPorts {
			list = append(list, setting{"the serial ports", CmdSetOldPorts, encodeOldPorts(to.Ports)})
		} else {
			list = append(list, setting{"the serial ports", CmdSetPorts, encodePorts(to.Ports)})
		}
	}
	if from.Features != to.Features {
		list = append(list, setting{"the features", CmdSetFeatures, binary.LittleEndian.AppendUint32(nil, to.Features)})
	}
	if is := receiverOf(to); !bytes.Equal(receiverOf(from), is) {
		list = append(list, setting{"the receiver's settings", CmdSetReceiver, is})
	}
	if is := mapOf(to); !bytes.Equal(mapOf(from), is) {
		list = append(list, setting{"the channel order", CmdSetRXMap, is})
	}
	return list
}

// modes are the ranges, those that are emptied last.
func modes(from, to setup.State) (list []setting) {
	for _, emptied := range []bool{false, true} {
		for slot := range max(len(from.Modes), len(to.Modes)) {
			if was, is := slotOf(from.Modes, slot), slotOf(to.Modes, slot); was != is && is.Empty() == emptied {
				list = append(list, setting{"the modes", CmdSetMode, encodeMode(slot, is)})
			}
		}
	}
	return list
}

// screen is the canvas and the places of the OSD elements, as far as the board has them.
func screen(from, to setup.State) (list []setting) {
	if from.Canvas != to.Canvas && !from.Without(setup.LacksCanvas) {
		columns, rows, _ := to.Canvas.Size() // none is 0×0
		list = append(list, setting{"the canvas", CmdSetCanvas, []byte{byte(columns), byte(rows)}})
	}
	for i := range to.OSD {
		if i < len(from.OSD) && from.OSD[i] == to.OSD[i] || from.Without(setup.LacksOSD) {
			continue
		}
		cell := binary.LittleEndian.AppendUint16([]byte{byte(i)}, PackCell(to.OSD[i]))
		list = append(list, setting{"the OSD", CmdSetOSD, cell})
	}
	return list
}

// saveIn is how long a board may take to save: it erases and writes its flash (common
// practice is up to two seconds).
const saveIn = 6 * time.Second

// Save makes a board keep what it has in memory. Only its answer says that it has; an
// error, silence or a cut leaves that open.
func Save(ctx context.Context, c *Client) error {
	if _, err := c.Once(ctx, CmdSave, saveIn); err != nil {
		return fmt.Errorf("save: %w", err)
	}
	return nil
}

// receiverOf is the receiver's settings with the protocol of a state, every other byte
// as the board gave it.
func receiverOf(s setup.State) []byte {
	if len(s.Receiver) == 0 {
		return []byte{byte(s.Provider)}
	}
	out := append([]byte(nil), s.Receiver...)
	out[0] = byte(s.Provider)
	return out
}

// mapOf is the map of channels with the order of a state.
func mapOf(s setup.State) []byte {
	as := s.Map
	if len(as) == 0 {
		as = []byte{0, 1, 2, 3, 4, 5, 6, 7}
	}
	return encodeRXMap(s.RXMap, as)
}

// slotOf is what a slot holds; behind the end they are empty.
func slotOf(ranges []setup.Range, slot int) setup.Range {
	if slot < len(ranges) {
		return ranges[slot]
	}
	return setup.Range{FromUS: lowestUS, ToUS: lowestUS}
}

func samePorts(a, b []setup.Port) bool {
	return slices.EqualFunc(a, b, func(p, q setup.Port) bool {
		return p.ID == q.ID && p.Functions == q.Functions && slices.Equal(p.Rest, q.Rest)
	})
}

// Live is what a board says while sticks and switches are moved.
type Live struct {
	Channels []int   `json:"channels"` // in µs, the sticks first in the board's order: A, E, R, T
	Armed    bool    `json:"armed"`
	Volts    float64 `json:"volts"`
	// Held: the board has been told to hold its arming off, and has said yes.
	Held bool `json:"held"`
}

// HoldArming has the board hold its arming off, whatever its switches say, or lets go of
// it. A board that does not know how refuses: ErrRefused.
func HoldArming(ctx context.Context, c *Client, hold bool) error {
	payload := []byte{0, 0}
	if hold {
		payload[0] = 1
	}
	if _, err := c.Ask(ctx, CmdHoldArming, payload); err != nil {
		return fmt.Errorf("hold the arming: %w", err)
	}
	return nil
}

// ReadLive reads the sticks, the battery and whether it is armed.
func ReadLive(ctx context.Context, c *Client) (Live, error) {
	var live Live
	answer, err := c.Ask(ctx, CmdChannels, nil)
	if err != nil {
		return live, fmt.Errorf("read the sticks: %w", err)
	}
	live.Channels = decodeChannels(answer)
	if answer, err = c.Ask(ctx, CmdStatus, nil); err != nil {
		return live, fmt.Errorf("read the status: %w", err)
	}
	status, err := decodeStatus(answer)
	if err != nil {
		return live, err
	}
	live.Armed = status.Armed
	if answer, err = c.Ask(ctx, CmdAnalog, nil); err != nil {
		return live, fmt.Errorf("read the battery: %w", err)
	}
	live.Volts, err = decodeVolts(answer)
	return live, err
}
