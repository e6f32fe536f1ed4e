package gear

import (
	"slices"
	"strconv"
	"strings"

	"yokeswap/core/measure/radio"
	"yokeswap/core/measure/unit"
)

// Band is a radio band by its name in gigahertz, such as "5.8".
type Band string

// ends are the ends of the bands video is sent in: 2.4 GHz as the ITU Radio
// Regulations have it for industry and science (5.150), 5.8 GHz as far as channels
// lie around theirs (common practice).
var ends = map[Band][2]unit.Megahertz{"2.4": {2400, 2500}, "5.8": {5645, 5945}}

// Ends are the lowest and highest frequency of a band; a band not known by name is
// taken as 2 % to each side. It is false where the name is no number.
func (b Band) Ends() (low, high unit.Megahertz, ok bool) {
	if e, known := ends[b]; known {
		return e[0], e[1], true
	}
	ghz, err := strconv.ParseFloat(string(b), 64)
	if err != nil || ghz <= 0 {
		return 0, 0, false
	}
	return unit.Megahertz(ghz * 980), unit.Megahertz(ghz * 1020), true
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
	RightAngle   *bool             `json:"rightAngle,omitempty"`
	BarrelMM     *unit.Millimetres `json:"barrelMM,omitempty"`
	LeadMM       *unit.Millimetres `json:"leadMM,omitempty"`
	LeadLossDBPM *unit.Decibels    `json:"leadLossDBPM,omitempty"` // of its lead, a metre
	MassG        *unit.Grams       `json:"massG,omitempty"`
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

// On finds what an antenna does on a band; nil where it is not made for it.
func (a *Antenna) On(b Band) *AntennaBand {
	if i := slices.IndexFunc(a.Bands, func(x AntennaBand) bool { return x.Band == b }); i >= 0 {
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

// AntennaPort is where antennas go on: their bands, how many, on which plug.
type AntennaPort struct {
	Bands    []Band `json:"bands,omitempty"`
	Antennas *int   `json:"antennas,omitempty"`
	Plug     string `json:"plug,omitempty"` // connector
	// LipMM is how far the plug lies behind the lip of its case.
	LipMM *unit.Millimetres `json:"lipMM,omitempty"`
	// SensitivityDBm is the weakest signal that still gives a picture; goggles.
	SensitivityDBm *unit.Decibels `json:"sensitivityDBm,omitempty"`
}

// BandWords names bands, such as "2.4 and 5.8 GHz".
func BandWords(bands []Band) string {
	list := make([]string, len(bands))
	for i, b := range bands {
		list[i] = string(b)
	}
	return strings.Join(list, " and ") + " GHz"
}

// Shared are the bands that both ends of a link work on, in the order of the first; none
// where those of an end are not stated.
func (p *AntennaPort) Shared(far *AntennaPort) (both []Band) {
	if p == nil || far == nil {
		return nil
	}
	for _, b := range p.Bands {
		if slices.Contains(far.Bands, b) {
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
	From   string         `json:"from,omitempty"` // connector of the antenna
	To     string         `json:"to,omitempty"`   // connector it goes onto
	LossDB *unit.Decibels `json:"lossDB,omitempty"`
	MassG  *unit.Grams    `json:"massG,omitempty"`
}

// Region holds the limits of a country, as its authority states them.
type Region struct {
	Entry
	Limits []PowerLimit `json:"limits,omitempty"`
}

// PowerLimit is the most a band may radiate.
type PowerLimit struct {
	Band      Band             `json:"band"`
	MaxEIRPMW *unit.Milliwatts `json:"maxEIRPmW,omitempty"`
	Note      string           `json:"note,omitempty"`
}

// Limit is the limit on a band; nil where the region states none.
func (r *Region) Limit(b Band) *PowerLimit {
	if i := slices.IndexFunc(r.Limits, func(l PowerLimit) bool { return l.Band == b }); i >= 0 {
		return &r.Limits[i]
	}
	return nil
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
}

// Kind of a band plan.
func (*BandPlan) Kind() Kind { return KindBandPlan }
