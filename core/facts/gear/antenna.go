package gear

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/measure/radio"
	"yokeswap/core/measure/unit"
)

// Band is a radio band by its name in gigahertz, such as "5.8", or by its ends in megahertz,
// such as "5725-5850".
type Band string

// named are the ends of the bands video is sent in: 2.4 GHz as the ITU Radio
// Regulations have it for industry and science (5.150), 5.8 GHz as far as channels
// lie around theirs (common practice).
var named = map[Band][2]unit.Megahertz{"2.4": {2400, 2500}, "5.8": {5645, 5945}}

// stated are the ends of a band that says them; false where it has a name.
func (b Band) stated() (low, high unit.Megahertz, ok bool) {
	from, to, ranged := strings.Cut(string(b), "-")
	if !ranged {
		return 0, 0, false
	}
	f, err1 := strconv.ParseFloat(from, 64)
	t, err2 := strconv.ParseFloat(to, 64)
	return unit.Megahertz(f), unit.Megahertz(t), err1 == nil && err2 == nil && f > 0 && t > f
}

// Ends are the lowest and highest frequency of a band; one not known by name is taken as
// 2 % to each side. It is false where the name is no number, or the ends are none.
func (b Band) Ends() (low, high unit.Megahertz, ok bool) {
	if low, high, ok = b.stated(); ok {
		return low, high, true
	}
	if e, known := named[b]; known {
		return e[0], e[1], true
	}
	ghz, err := strconv.ParseFloat(string(b), 64)
	if err != nil || ghz <= 0 {
		return 0, 0, false
	}
	return unit.Megahertz(ghz * 980), unit.Megahertz(ghz * 1020), true
}

// String is the band as it is read: "5.8 GHz", "5725 to 5850 MHz".
func (b Band) String() string {
	if low, high, ok := b.stated(); ok {
		return fmt.Sprintf("%g to %g MHz", float64(low), float64(high))
	}
	return string(b) + " GHz"
}

// Meets says whether two bands are one, or lie over each other.
func (b Band) Meets(o Band) bool {
	if b == o {
		return true
	}
	low, high, ok := b.Ends()
	from, to, known := o.Ends()
	return ok && known && low < to && from < high
}

// Holds says whether a frequency lies in a band.
func (b Band) Holds(f unit.Megahertz) bool {
	low, high, ok := b.Ends()
	return ok && f >= low && f <= high
}

// within says whether all of a band lies in another.
func (b Band) within(o Band) bool {
	if b == o {
		return true
	}
	low, high, ok := b.Ends()
	from, to, known := o.Ends()
	return ok && known && from <= low && high <= to
}

// Antenna is an antenna of an air unit or of goggles.
type Antenna struct {
	Entry
	Bands        []AntennaBand      `json:"bands,omitempty"`
	Polarisation radio.Polarisation `json:"polarisation,omitempty"`
	BeamDeg      *unit.Degrees      `json:"beamDeg,omitempty"` // 360: all round
	// Pattern is how much weaker it is away from its strongest direction, by
	// degrees off it, from 0 to 180, the same all around that direction.
	Pattern      []PatternPoint    `json:"pattern,omitempty"`
	Plug         string            `json:"plug,omitempty"` // connector
	PlugSex      Sex               `json:"plugSex,omitempty"`
	RightAngle   *bool             `json:"rightAngle,omitempty"`
	BarrelMM     *unit.Millimetres `json:"barrelMM,omitempty"`
	LeadMM       *unit.Millimetres `json:"leadMM,omitempty"`
	LeadLossDBPM *unit.Decibels    `json:"leadLossDBPM,omitempty"` // of its lead, a metre
	BendMM       *unit.Millimetres `json:"bendMM,omitempty"`       // the least radius its lead may be bent around
	// RodMM and RodDiameterMM are how far it stands out from its foot, and how thick it is.
	RodMM         *unit.Millimetres `json:"rodMM,omitempty"`
	RodDiameterMM *unit.Millimetres `json:"rodDiameterMM,omitempty"`
	// RadiatesMM is how much of it, from its tip, radiates; absent: all of it is taken to.
	RadiatesMM *unit.Millimetres `json:"radiatesMM,omitempty"`
	MassG      *unit.Grams       `json:"massG,omitempty"`
}

// PatternPoint is a point of an antenna's pattern.
type PatternPoint struct {
	OffDeg unit.Degrees  `json:"offDeg"`
	DB     unit.Decibels `json:"dB"` // over its strongest direction: 0 or less
}

// AntennaBand is a band an antenna is made for.
type AntennaBand struct {
	Band    Band            `json:"band"`
	GainDBi *unit.Decibels  `json:"gainDBi,omitempty"`
	FromMHz *unit.Megahertz `json:"fromMHz,omitempty"`
	ToMHz   *unit.Megahertz `json:"toMHz,omitempty"`
}

// Tuned says whether an antenna is tuned for a frequency.
func (a *Antenna) Tuned(f unit.Megahertz) bool {
	return slices.ContainsFunc(a.Bands, func(on AntennaBand) bool {
		return on.Band.Holds(f) && (on.FromMHz == nil || f >= *on.FromMHz) && (on.ToMHz == nil || f <= *on.ToMHz)
	})
}

// On finds what an antenna does on a band; nil where it is not made for it.
func (a *Antenna) On(b Band) *AntennaBand {
	if i := slices.IndexFunc(a.Bands, func(x AntennaBand) bool { return x.Band.Meets(b) }); i >= 0 {
		return &a.Bands[i]
	}
	return nil
}

// LeadLoss is the loss of the antenna's own lead; false where it has one whose
// loss is not stated.
func (a *Antenna) LeadLoss() (unit.Decibels, bool) {
	switch {
	case a.LeadMM == nil || *a.LeadMM == 0:
		return 0, true
	case a.LeadLossDBPM == nil:
		return 0, false
	}
	return *a.LeadLossDBPM * unit.Decibels(*a.LeadMM/1000), true
}

// Sex is the side a coax plug takes: male goes into female. The pins of a reversed
// connector are the connector's own affair, with a name of its own.
type Sex string

// The sexes.
const (
	Male   Sex = "male"
	Female Sex = "female"
)

// Other is the side that goes together with one; empty where that is not stated.
func (s Sex) Other() Sex {
	return map[Sex]Sex{Male: Female, Female: Male}[s]
}

// Sex of an antenna's plug; where it is not stated, male (common practice).
func (a *Antenna) Sex() Sex { return cmp.Or(a.PlugSex, Male) }

// Sex of the plugs of a port; where it is not stated, female (common practice).
func (p *AntennaPort) Sex() Sex { return cmp.Or(p.PlugSex, Female) }

// Onto says whether an antenna goes straight onto a port.
func (a *Antenna) Onto(p *AntennaPort) bool { return a.Plug == p.Plug && a.Sex() != p.Sex() }

// Joins says whether an adapter joins an antenna to a port; where nothing else is stated, it
// is female to the antenna and male to the port.
func (a *Adapter) Joins(antenna *Antenna, p *AntennaPort) bool {
	return a.From == antenna.Plug && a.To == p.Plug && antenna.Sex() != cmp.Or(a.FromSex, Female) &&
		cmp.Or(a.ToSex, Male) != p.Sex()
}

// AntennaPort is where antennas go on: their bands, how many, on which plug.
type AntennaPort struct {
	Bands    []Band `json:"bands,omitempty"`
	Antennas *int   `json:"antennas,omitempty"`
	Plug     string `json:"plug,omitempty"` // connector
	PlugSex  Sex    `json:"plugSex,omitempty"`
	// LipMM is how far the plug lies behind the lip of its case.
	LipMM *unit.Millimetres `json:"lipMM,omitempty"`
	// SensitivityDBm is the weakest signal that still gives a picture; goggles.
	SensitivityDBm *unit.Decibels `json:"sensitivityDBm,omitempty"`
}

// Outlet is where an antenna plug of an air unit lies, from the middle of its underside, and the
// side to which the plug comes off.
type Outlet struct {
	XMM  unit.Millimetres `json:"xMM"` // forward
	YMM  unit.Millimetres `json:"yMM"` // to the left
	ZMM  unit.Millimetres `json:"zMM"` // up
	Side Side             `json:"side"`
}

// BandWords names bands, such as "2.4 and 5.8 GHz".
func BandWords(bands []Band) string {
	list := make([]string, len(bands))
	allNamed := !slices.ContainsFunc(bands, func(b Band) bool { _, _, ok := b.stated(); return ok })
	for i, b := range bands {
		if list[i] = b.String(); allNamed {
			list[i] = string(b)
		}
	}
	words := strings.Join(list, " and ")
	if allNamed {
		words += " GHz"
	}
	return words
}

// Shared are the bands that both ends of a link work on, in the order of the first; none
// where those of an end are not stated.
func (p *AntennaPort) Shared(far *AntennaPort) (both []Band) {
	if p == nil || far == nil {
		return nil
	}
	for _, b := range p.Bands {
		if slices.ContainsFunc(far.Bands, b.Meets) {
			both = append(both, b)
		}
	}
	return both
}

// Sender is what a device other than the air unit sends with: a controller, goggles, a
// receiver that sends telemetry back.
type Sender struct {
	Band    Band             `json:"band,omitempty"`
	MaxMW   *unit.Milliwatts `json:"maxMW,omitempty"`
	GainDBi *unit.Decibels   `json:"gainDBi,omitempty"` // of its own antenna
}

// Adapter joins an antenna's plug to another.
type Adapter struct {
	Entry
	From    string `json:"from,omitempty"`    // connector of the antenna
	To      string `json:"to,omitempty"`      // connector it goes onto
	FromSex Sex    `json:"fromSex,omitempty"` // of its own end that the antenna goes onto
	ToSex   Sex    `json:"toSex,omitempty"`   // of its own end that goes onto the port
	// RightAngle: it turns the antenna by 90°; BarrelMM is how far its end reaches.
	RightAngle *bool             `json:"rightAngle,omitempty"`
	BarrelMM   *unit.Millimetres `json:"barrelMM,omitempty"`
	LossDB     *unit.Decibels    `json:"lossDB,omitempty"`
	MassG      *unit.Grams       `json:"massG,omitempty"`
}

// Region holds the limits of a country, as its authority states them.
type Region struct {
	Entry
	Limits []PowerLimit `json:"limits,omitempty"`
	// MassClasses are the masses from which on other rules hold for what flies, rising; absent:
	// not stated.
	MassClasses []MassClass `json:"massClasses,omitempty"`
}

// MassClass is a class of aircraft by what they weigh ready to fly.
type MassClass struct {
	FromG unit.Grams `json:"fromG"`
	Name  string     `json:"name"`
}

// ClassOf is the class of a mass; nil: it is under the first, or none is stated.
func (r *Region) ClassOf(mass unit.Grams) (class *MassClass) {
	for i := range r.MassClasses {
		if c := &r.MassClasses[i]; mass >= c.FromG && (class == nil || c.FromG > class.FromG) {
			class = c
		}
	}
	return class
}

// PowerLimit is the most a band may radiate.
type PowerLimit struct {
	Band      Band             `json:"band"`
	MaxEIRPMW *unit.Milliwatts `json:"maxEIRPmW,omitempty"`
	Note      string           `json:"note,omitempty"`
}

// Limit is the limit on a band: the least of those that all of the band lies in, and one that
// states no power before any; nil where the region states none.
func (r *Region) Limit(b Band) (least *PowerLimit) {
	for i := range r.Limits {
		l := &r.Limits[i]
		switch {
		case !b.within(l.Band):
		case l.MaxEIRPMW == nil:
			return l
		case least == nil || *l.MaxEIRPMW < *least.MaxEIRPMW:
			least = l
		}
	}
	return least
}

// Kind of an antenna.
func (*Antenna) Kind() Kind { return KindAntenna }

// Kind of an adapter.
func (*Adapter) Kind() Kind { return KindAdapter }

// Kind of a region.
func (*Region) Kind() Kind { return KindRegion }

// BandPlan is the channels of a system.
type BandPlan struct {
	Entry
	Channels []Channel `json:"channels,omitempty"`
}

// Channel is one channel of a band plan.
type Channel struct {
	ID       string         `json:"id"`
	MHz      unit.Megahertz `json:"mhz"`
	WidthMHz unit.Megahertz `json:"widthMHz"`
	// Firmware are the releases of the air unit that have it; absent: all.
	Firmware firmware.Range `json:"firmware,omitempty"`
}

// On are the channels there are on a release of the air unit; where it is not known, those
// that are on every release.
func (p *BandPlan) On(release firmware.Version) []Channel {
	all := !slices.ContainsFunc(p.Channels, func(c Channel) bool { return c.Firmware != "" })
	if all {
		return p.Channels
	}
	list := []Channel{}
	for _, c := range p.Channels {
		if c.Firmware == "" || release.Known() && c.Firmware.Holds(release) {
			list = append(list, c)
		}
	}
	return list
}

// Kind of a band plan.
func (*BandPlan) Kind() Kind { return KindBandPlan }
