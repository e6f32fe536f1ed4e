package msp

import (
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"slices"

	"yokeswap/core/setup"
)

// ReadBoard reads how a board is set up.
func ReadBoard(ctx context.Context, c *Client) (setup.State, error) {
	var s setup.State
	for _, part := range []struct {
		what    string
		command uint16
		take    func([]byte) error
	}{
		{"which flight firmware it runs", CmdVariant, func(p []byte) error { s.Variant = text(p[:min(len(p), 4)]); return nil }},
		{"its release", CmdVersion, func(p []byte) (err error) { s.Version, err = decodeVersion(p); return err }},
		{"which board it is", CmdBoard, func(p []byte) error { s.Board = text(p[:min(len(p), 4)]); return nil }},
		{"its name", CmdName, func(p []byte) error { s.Name = text(p); return nil }},
		{"its status", CmdStatus, func(p []byte) error {
			status, err := decodeStatus(p)
			s.Armed = status.Armed
			return err
		}},
		{"its serial ports", CmdPorts, func(p []byte) (err error) { s.Ports, err = decodePorts(p); return err }},
		{"its features", CmdFeatures, func(p []byte) error {
			if len(p) < 4 {
				return short("list of features", len(p), 4)
			}
			s.Features = binary.LittleEndian.Uint32(p)
			return nil
		}},
		{"its receiver", CmdReceiver, func(p []byte) error {
			if len(p) < 1 {
				return short("receiver settings", 0, 1)
			}
			s.Provider = int(p[0])
			return nil
		}},
		{"its channel order", CmdRXMap, func(p []byte) (err error) { s.RXMap, err = decodeRXMap(p); return err }},
		{"its modes", CmdModes, func(p []byte) error { s.Modes = decodeModes(p); return nil }},
		{"its OSD", CmdOSD, func(p []byte) (err error) { s.OSD, err = decodeOSD(p); return err }},
		{"its canvas", CmdCanvas, func(p []byte) error { s.Canvas = decodeCanvas(p); return nil }},
	} {
		answer, err := c.Ask(ctx, part.command, nil)
		if errors.Is(err, ErrRefused) && part.command == CmdCanvas {
			continue // an older firmware has none
		}
		if err == nil {
			err = part.take(answer)
		}
		if err != nil {
			return s, fmt.Errorf("read %s: %w", part.what, err)
		}
	}
	return s, nil
}

// modeSlots is how many ranges a board keeps (the protocol's public description,
// from memory).
const modeSlots = 20

// WriteBoard changes a board from one state to another, setting by setting, and
// saves. It writes nothing where the two are the same, and stops at the first
// setting that fails: nothing is saved then.
func WriteBoard(ctx context.Context, c *Client, from, to setup.State) error {
	set := func(what string, command uint16, payload []byte) error {
		if _, err := c.Ask(ctx, command, payload); err != nil {
			return fmt.Errorf("set %s: %w", what, err)
		}
		return nil
	}
	if !samePorts(from.Ports, to.Ports) {
		if err := set("the serial ports", CmdSetPorts, encodePorts(to.Ports)); err != nil {
			return err
		}
	}
	if from.Features != to.Features {
		if err := set("the features", CmdSetFeatures, binary.LittleEndian.AppendUint32(nil, to.Features)); err != nil {
			return err
		}
	}
	if from.Provider != to.Provider {
		// The rest of the receiver's settings stays as it is.
		as, err := c.Ask(ctx, CmdReceiver, nil)
		if err != nil || len(as) == 0 {
			return fmt.Errorf("read the receiver's settings again: %w", errors.Join(err, errEmpty(as)))
		}
		as[0] = byte(to.Provider)
		if err := set("the receiver protocol", CmdSetReceiver, as); err != nil {
			return err
		}
	}
	if from.RXMap != to.RXMap {
		as, err := c.Ask(ctx, CmdRXMap, nil)
		if err != nil {
			return fmt.Errorf("read the channel order again: %w", err)
		}
		if err := set("the channel order", CmdSetRXMap, encodeRXMap(to.RXMap, as)); err != nil {
			return err
		}
	}
	if len(to.Modes) > modeSlots {
		return fmt.Errorf("set the modes: the board keeps %d ranges, the plan has %d", modeSlots, len(to.Modes))
	}
	for slot := range max(len(from.Modes), len(to.Modes)) {
		if was, is := slotOf(from.Modes, slot), slotOf(to.Modes, slot); was != is {
			if err := set("the modes", CmdSetMode, encodeMode(slot, is)); err != nil {
				return err
			}
		}
	}
	if from.Canvas != to.Canvas {
		columns, rows, _ := to.Canvas.Size() // none is 0×0
		if err := set("the canvas", CmdSetCanvas, []byte{byte(columns), byte(rows)}); err != nil {
			return err
		}
	}
	for i := range to.OSD {
		if i < len(from.OSD) && from.OSD[i] == to.OSD[i] {
			continue
		}
		if err := set("the OSD", CmdSetOSD, binary.LittleEndian.AppendUint16([]byte{byte(i)}, PackCell(to.OSD[i]))); err != nil {
			return err
		}
	}
	return set("everything for good (save)", CmdSave, nil)
}

// slotOf is what a slot holds; behind the end they are empty.
func slotOf(ranges []setup.Range, slot int) setup.Range {
	if slot < len(ranges) {
		return ranges[slot]
	}
	return setup.Range{FromUS: lowestUS, ToUS: lowestUS}
}

func errEmpty(p []byte) error {
	if len(p) == 0 {
		return short("receiver settings", 0, 1)
	}
	return nil
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
