package fleet

import (
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Standoff is what stands in the place of the frame's own standoffs.
func (c Case) Standoff() (*gear.Standoff, bool) {
	return gear.Find[*gear.Standoff](c.Library, c.Fit.Standoff)
}

// WholeStandoffMM is how long the standoffs of a fit are before they are cut; nil where that is not
// stated.
func (c Case) WholeStandoffMM() *unit.Millimetres {
	if on, other := c.Standoff(); other {
		return on.LengthMM
	}
	if frame, there := c.Frame(); there {
		return frame.StandoffMM
	}
	return nil
}

// StandoffMM is how long the standoffs of a fit are as it is built; nil where that is not stated.
func (c Case) StandoffMM() *unit.Millimetres {
	if c.Fit.StandoffCutMM != nil {
		return c.Fit.StandoffCutMM
	}
	return c.WholeStandoffMM()
}

// RaisedMM is how much longer the standoffs of a fit are than the frame's own, less than none where
// they are shorter; false where that cannot be told.
func (c Case) RaisedMM() (by unit.Millimetres, known bool) {
	if c.Fit.Standoff == "" && c.Fit.StandoffCutMM == nil {
		return 0, true
	}
	frame, there := c.Frame()
	if long := c.StandoffMM(); there && long != nil && frame.StandoffMM != nil {
		return *long - *frame.StandoffMM, true
	}
	return 0, false
}

// Exchanges says whether the frame describes the standoffs that other ones go in the place of, or that
// are cut: those as long as it says of its own.
func Exchanges(frame *gear.Frame) bool {
	_, there := carries(frame)
	return there
}

// carries are the lowest tops of the standoffs that are as long as the frame says of its own; false
// where none is described.
func carries(frame *gear.Frame) (top unit.Millimetres, there bool) {
	for i := range frame.Posts {
		if p := &frame.Posts[i]; isOwn(frame, p) && (!there || *p.ToMM < top) {
			top, there = *p.ToMM, true
		}
	}
	return top, there
}

// isOwn says whether a post is one of the standoffs whose length the frame states: others, as of a
// second deck, stay.
func isOwn(frame *gear.Frame, p *gear.Post) bool {
	return p.FromMM != nil && p.ToMM != nil && frame.StandoffMM != nil &&
		!unit.Over(max(*p.ToMM-*p.FromMM-*frame.StandoffMM, *frame.StandoffMM+*p.FromMM-*p.ToMM), standoffPlay)
}

// standoffPlay is how far the drawing of a frame may be off the length of its standoffs (from memory).
const standoffPlay unit.Millimetres = 0.5

// rises says whether what begins at a height stands on the standoffs that are exchanged or cut.
func rises(frame *gear.Frame, from unit.Millimetres) bool {
	top, there := carries(frame)
	return there && !unit.Over(top, from+standoffPlay)
}

// PlatesOn are the plates of the frame that are put on, as they stand on the standoffs of the fit.
func (c Case) PlatesOn() (list []gear.FramePlate) {
	frame, there := c.Frame()
	if !there {
		return nil
	}
	by, _ := c.RaisedMM()
	for _, p := range frame.Plates {
		if c.Fit.Off(p.ID) {
			continue
		}
		if by != 0 && p.ZMM != nil && rises(frame, *p.ZMM) {
			p.ZMM = new(*p.ZMM + by)
		}
		list = append(list, p)
	}
	return list
}

// Posts are the standoffs of the frame as they stand in the fit.
func (c Case) Posts() (list []gear.Post) {
	frame, there := c.Frame()
	if !there {
		return nil
	}
	by, _ := c.RaisedMM()
	for _, p := range frame.Posts {
		if by != 0 && isOwn(frame, &p) {
			p.ToMM = new(*p.ToMM + by)
		} else if by != 0 && p.FromMM != nil && p.ToMM != nil && rises(frame, *p.FromMM) {
			p.FromMM, p.ToMM = new(*p.FromMM+by), new(*p.ToMM+by)
		}
		list = append(list, p)
	}
	return list
}

// CameraUpMM is the room over the camera, up to the plate there; nil where it is not stated. Longer
// standoffs give more where the frame says which plate that is and they carry it, shorter ones less
// unless it does not lie on them.
func (c Case) CameraUpMM() *unit.Millimetres {
	frame, there := c.Frame()
	if !there || frame.CameraUpMM == nil {
		return nil
	}
	by, _ := c.RaisedMM()
	cover, told := frame.Plate(frame.CameraCover)
	told = told && cover.ZMM != nil
	if by == 0 || told && !rises(frame, *cover.ZMM) || !told && by > 0 {
		return frame.CameraUpMM
	}
	return new(*frame.CameraUpMM + by)
}
