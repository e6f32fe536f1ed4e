package store

import (
	"time"

	"yokeswap/core/gear"
)

// The rows. A body is an entry as JSON, in the shape of the open formats; the
// columns beside it are what the database itself has to know.

type setRow struct {
	ID       string `gorm:"primaryKey"`
	Position int
	Revision int64
	Title    string
	License  string
}

func (setRow) TableName() string { return "gear_packs" }

type gearRow struct {
	ID       string `gorm:"primaryKey"`
	Set      string `gorm:"column:gear_pack;not null;index"`
	Kind     string `gorm:"not null"`
	Position int
	Revision int64
	Body     string
}

func (gearRow) TableName() string { return "gear" }

type fleetRow struct {
	ID       int `gorm:"primaryKey"`
	Revision int64
	Body     string // the fleet's head as JSON: title, gear packs, goals
}

func (fleetRow) TableName() string { return "fleets" }

// entryRow is kit, a spare or a quad.
type entryRow struct {
	Kind     string `gorm:"primaryKey"`
	ID       string `gorm:"primaryKey"`
	Position int
	Revision int64
	Body     string
}

func (entryRow) TableName() string { return "fleet_entries" }

type benchRow struct {
	Quad  string `gorm:"primaryKey"`
	Step  string `gorm:"primaryKey"`
	Done  bool
	Value *float64
	At    time.Time
}

func (benchRow) TableName() string { return "bench_records" }

// counterRow counts the changes to everything.
type counterRow struct {
	ID       int `gorm:"primaryKey"`
	Revision int64
}

func (counterRow) TableName() string { return "counters" }

// newItem makes an empty entry of a kind.
func newItem(kind string) gear.Item {
	switch gear.Kind(kind) {
	case gear.KindAirUnit:
		return &gear.AirUnit{}
	case gear.KindGoggles:
		return &gear.Goggles{}
	case gear.KindController:
		return &gear.Controller{}
	case gear.KindReceiver:
		return &gear.Receiver{}
	case gear.KindBoard:
		return &gear.Board{}
	case gear.KindRegulator:
		return &gear.Regulator{}
	case gear.KindPack:
		return &gear.Pack{}
	case gear.KindConnector:
		return &gear.Connector{}
	case gear.KindHarness:
		return &gear.Harness{}
	case gear.KindAntenna:
		return &gear.Antenna{}
	case gear.KindAdapter:
		return &gear.Adapter{}
	case gear.KindRegion:
		return &gear.Region{}
	case gear.KindBandPlan:
		return &gear.BandPlan{}
	case gear.KindFrame:
		return &gear.Frame{}
	case gear.KindPlate:
		return &gear.Plate{}
	case gear.KindScrew:
		return &gear.Screw{}
	case gear.KindWasher:
		return &gear.Washer{}
	case gear.KindStandoff:
		return &gear.Standoff{}
	case gear.KindFlightFirmware:
		return &gear.FlightFirmware{}
	case gear.KindPairing:
		return &gear.Pairing{}
	}
	return nil
}
