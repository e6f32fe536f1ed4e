package msp

import (
	"encoding/binary"

	"yokeswap/core/work/setup"
)

// Answer is what a board with a state answers to a command that reads its settings;
// false for other commands. Stand-ins for boards use it.
func Answer(s *setup.State, command uint16) ([]byte, bool) {
	switch command {
	case CmdPorts:
		return encodePorts(s.Ports), !s.OldPorts
	case CmdOldPorts:
		return encodeOldPorts(s.Ports), s.OldPorts
	case CmdFeatures:
		return binary.LittleEndian.AppendUint32(nil, s.Features), true
	case CmdReceiver:
		return receiverOf(*s), true
	case CmdRXMap:
		return mapOf(*s), true
	case CmdModes:
		var out []byte
		for slot := range modeSlots {
			out = append(out, encodeMode(slot, slotOf(s.Modes, slot))[1:]...)
		}
		return out, true
	case CmdOSD:
		out := make([]byte, osdHead)
		out[osdCount] = byte(len(s.OSD))
		for _, cell := range s.OSD {
			out = binary.LittleEndian.AppendUint16(out, PackCell(cell))
		}
		return out, true
	case CmdCanvas:
		columns, rows, _ := s.Canvas.Size()
		return []byte{byte(columns), byte(rows)}, true
	}
	return nil, false
}

// Change does to a state what a command that writes settings does to a board; false
// where it is none, or its payload is no good.
func Change(s *setup.State, command uint16, in []byte) bool {
	switch {
	case command == CmdSetPorts && !s.OldPorts:
		ports, err := decodePorts(in)
		if err == nil {
			s.Ports = ports
		}
		return err == nil
	case command == CmdSetOldPorts && s.OldPorts:
		ports, err := decodeOldPorts(in)
		if err == nil {
			s.Ports = ports
		}
		return err == nil
	case command == CmdSetFeatures && len(in) >= 4:
		s.Features = binary.LittleEndian.Uint32(in)
	case command == CmdSetReceiver && len(in) >= 1:
		s.Provider, s.Receiver = int(in[0]), append([]byte(nil), in...)
	case command == CmdSetRXMap:
		order, err := decodeRXMap(in)
		if err == nil {
			s.RXMap, s.Map = order, append([]byte(nil), in...)
		}
		return err == nil
	case command == CmdSetMode && len(in) >= 5 && int(in[0]) < modeSlots:
		s.Modes = append([]setup.Range(nil), s.Modes...)
		for len(s.Modes) <= int(in[0]) {
			s.Modes = append(s.Modes, setup.Range{FromUS: lowestUS, ToUS: lowestUS})
		}
		s.Modes[in[0]] = setup.Range{
			Mode:   int(in[1]),
			Aux:    int(in[2]),
			FromUS: lowestUS + stepUS*int(in[3]),
			ToUS:   lowestUS + stepUS*int(in[4]),
		}
	case command == CmdSetOSD && len(in) >= 3 && int(in[0]) < len(s.OSD):
		s.OSD[in[0]] = UnpackCell(binary.LittleEndian.Uint16(in[1:]))
	case command == CmdSetCanvas && len(in) >= 2:
		s.Canvas = decodeCanvas(in)
	default:
		return false
	}
	return true
}
