package mount

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// accessWords are the things a builder must reach, in the order they are needed.
var accessWords = []struct{ key, words string }{
	{"usb", "the unit's USB"},
	{"bind", "the bind button"},
	{"card", "the card slot"},
}

// checkTurned says what a turned board asks for.
func (s *seat) checkTurned() []verdict.Finding {
	turn := s.Fit.BoardTurned()
	lies, placed := s.Fit.BoardLies()
	apart := placed && math.Cos(float64(turn-lies)*math.Pi/180) < math.Sqrt2/2
	if _, there := s.Board(); turn == 0 && !apart || !there && s.Fit.BoardTurnDeg == nil {
		return nil
	}
	f := verdict.Finding{Code: CodeTurned, Level: verdict.Caution, Source: verdict.Practice}
	f.Says = fmt.Sprintf("The flight board is turned by %s: set its yaw alignment to %s before the first arming, or it "+
		"flips over.", turn, turn)
	if apart {
		f.Says = fmt.Sprintf("The flight board is said to be turned by %s, and lies turned by %s: see which one is true and "+
			"set its yaw alignment to that before the first arming, or it flips over.", turn, lies)
	}
	return []verdict.Finding{f}
}

// hidden lists what cannot be reached with the frame closed, and what it takes to
// tell where that is not stated.
func (s *seat) hidden() (list []string, missing []verdict.Missing) {
	if len(s.mount.Access) == 0 {
		missing = append(missing, s.unitValue("mount.access", "where USB, bind button and card are"))
	}
	if s.bay.Open == nil {
		missing = append(missing, s.frameValue("bays."+s.bay.ID+".open", "what can be reached of its "+s.bay.Label()))
	} else {
		for _, a := range accessWords {
			side, there := s.unitSide(a.key)
			if there && !slices.Contains(s.bay.Open, side) && !(side == "top" && s.Fit.Off(s.bay.Cover)) {
				list = append(list, a.words)
			}
		}
	}
	board, ok := s.Board()
	if !ok {
		if !s.Fit.Without(fleet.NoBoard) {
			missing = append(
				missing,
				verdict.FitValue(s.Case, "board", "flight board of "+s.Quad.Label()+", or that it has none"),
			)
		}
		return list, missing
	}
	if board.USBSide == "" {
		missing = append(missing, verdict.GearValue(&board.Entry, "usbSide", "side of its USB"))
	}
	if s.frame.BoardOpen == nil {
		missing = append(missing, s.frameValue("boardOpen", "sides on which the flight board is reached"))
	}
	if board.USBSide != "" && s.frame.BoardOpen != nil && !slices.Contains(s.frame.BoardOpen, s.boardUSB(board)) {
		list = append(list, boardUSBWords)
	}
	return list, missing
}

const boardUSBWords = "the flight board's USB"

// boardUSB is the side the board's USB points to, as the board is turned.
func (s *seat) boardUSB(board *gear.Board) gear.Side {
	return board.USBSide.Turned(s.Fit.BoardTurned())
}

// unitSide is the side of the quad something of the unit points to, as the unit lies; with its front
// to the front where nobody has said how.
func (s *seat) unitSide(key string) (gear.Side, bool) {
	side, there := s.mount.Access[key]
	place, _ := s.Fit.PlaceOf(fleet.NodeAirUnit)
	return turned(side, place.Quarters), there
}

// turned is where a side of a part comes to lie: a place turns to the left, a side to the right.
func turned(side gear.Side, quarters int) gear.Side { return side.Turned(unit.Degrees(-90 * quarters)) }

func (s *seat) checkAccess() []verdict.Finding {
	list, missing := s.hidden()
	if len(missing) > 0 {
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeUnknown, s.Quad.Label(), missing...)}
	}
	if len(list) == 0 {
		return nil
	}
	does := "update, activate, bind and put the card in before."
	if slices.Contains(list, boardUSBWords) {
		does += " The flight board can be turned for its USB, with its yaw alignment set."
		if len(list) == 1 {
			does = "set the flight board up before, or turn it and set its yaw alignment."
		}
	}
	return []verdict.Finding{{Code: CodeAccess, Level: verdict.Caution, Source: verdict.Practice,
		Says: fmt.Sprintf("With the frame closed, %s cannot be reached: %s", strings.Join(list, ", "), does)}}
}

// Hidden lists what cannot be reached once the frame is closed; nil where nothing
// is hidden or that is not stated.
func Hidden(c fleet.Case) []string {
	s := newSeat(c)
	if len(s.missing) > 0 {
		return nil
	}
	list, _ := s.hidden()
	return list
}
