package swap_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/gear"
	"yokeswap/core/swap"
)

// Sums are exact to the hundredth, currencies stay apart, and what is not
// stated is counted, not taken for nothing.
func TestTheBillCountsWhatIsNotStated(t *testing.T) {
	offer := func(price float64, currency string, days *int) *gear.Offer {
		return &gear.Offer{Price: new(price), Currency: currency, Days: days}
	}
	bill := swap.NewBill([]swap.Item{
		{Buy: 3, Stops: true, Offer: offer(0.1, "EUR", new(4))},
		{Buy: 1, Stops: true, Offer: offer(19.99, "EUR", new(9))},
		{Buy: 2, Stops: true, Offer: offer(5, "SEK", nil)},
		{Buy: 1, Stops: true},
		{Buy: 1, Offer: offer(1, "SEK", new(90))}, // may come later
		{Buy: 0, Stops: true, Offer: offer(500, "EUR", new(300))},
	})
	assert.Equal(t, []swap.Total{{Currency: "EUR", Amount: 20.29}, {Currency: "SEK", Amount: 11}}, bill.Totals)
	assert.Equal(t, 1, bill.Unpriced)
	require.NotNil(t, bill.Days)
	assert.Equal(t, 9, *bill.Days)
	assert.Equal(t, 2, bill.Undated)
	assert.Nil(t, swap.NewBill(nil).Days)
}
