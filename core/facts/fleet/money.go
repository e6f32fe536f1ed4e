package fleet

import (
	"fmt"
	"math"
)

// Means are what there is to spend.
type Means struct {
	Currency string   `json:"currency"`        // three letters of ISO 4217
	Now      *float64 `json:"now,omitempty"`   // today; absent: not stated
	Month    *float64 `json:"month,omitempty"` // more each month; absent: none
}

// Rate is what one of a currency is worth in another, as its owner last saw it.
type Rate struct {
	Currency string  `json:"currency"`
	Worth    float64 `json:"worth"` // above zero
	In       string  `json:"in"`
	Seen     string  `json:"seen,omitempty"` // yyyy-mm-dd
}

// Pair is the two currencies of a rate, whichever way round.
func (r Rate) Pair() string { return min(r.Currency, r.In) + " " + max(r.Currency, r.In) }

// rate is the statement about two currencies, whichever way round; nil where there is none.
func (f *Fleet) rate(currency, in string) *Rate {
	for i := range f.Rates {
		r := &f.Rates[i]
		if r.Worth > 0 && (r.Currency == currency && r.In == in || r.Currency == in && r.In == currency) {
			return r
		}
	}
	return nil
}

// RateOf is what one of a currency is worth in another; false where nobody has said. A rate
// stated the other way round counts as well; rates are never chained.
func (f *Fleet) RateOf(currency, in string) (float64, bool) {
	r := f.rate(currency, in)
	switch {
	case currency == in:
		return 1, true
	case r == nil:
		return 0, false
	case r.Currency == in:
		return 1 / r.Worth, true
	}
	return r.Worth, true
}

// RateWords is the rate between two currencies as it is stated, with its day; empty where none is
// needed, or stated.
func (f *Fleet) RateWords(currency, in string) string {
	r := f.rate(currency, in)
	if currency == in || r == nil {
		return ""
	}
	words := fmt.Sprintf("1 %s = %g %s", r.Currency, r.Worth, r.In)
	if r.Seen != "" {
		words += " on " + r.Seen
	}
	return words
}

// InCurrency is an amount of one currency in hundredths of another; false where no rate is known.
func (f *Fleet) InCurrency(amount float64, currency, in string) (int64, bool) {
	rate, ok := f.RateOf(currency, in)
	return int64(math.Round(amount * rate * 100)), ok
}
