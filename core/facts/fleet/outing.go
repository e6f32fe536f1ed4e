package fleet

// Outing is a day's flying of a quad, or one flight, as somebody has noted it.
type Outing struct {
	On      string   `json:"on"`                // yyyy-mm-dd
	AirUnit string   `json:"airUnit,omitempty"` // the piece of kit that was on it; empty: not stated
	Minutes *float64 `json:"minutes,omitempty"` // in the air; absent: nobody has counted them
	Crash   bool     `json:"crash,omitempty"`   // it ended in one
	Looked  bool     `json:"looked,omitempty"`  // the quad was looked over after the crash
	Says    string   `json:"says,omitempty"`
}
