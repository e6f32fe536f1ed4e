package web

import (
	"context"
	"errors"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/stock"
	"yokeswap/format"
	"yokeswap/store"
)

// Conflict is the problem for a stale write: what is there now, and how it
// differs from what was sent.
type Conflict struct {
	huma.ErrorModel
	Revision    int64               `json:"revision"`
	Differences []stock.FieldChange `json:"differences"` // before: there now; after: sent
}

// problem turns an error of the layers below into one for the API.
func problem(err error) error {
	if err == nil {
		return nil
	}
	var wrong format.Problems
	var stale store.Stale
	var trouble *store.Trouble
	var status huma.StatusError
	switch {
	case errors.As(err, &status):
		return err
	case errors.As(err, &wrong):
		return invalid(wrong)
	case errors.Is(err, context.Canceled), errors.Is(err, context.DeadlineExceeded):
		return huma.Error503ServiceUnavailable("The question was given up before it was answered: ask again.")
	case errors.As(err, &trouble):
		return huma.NewError(statusOf[trouble.Condition], trouble.Says)
	case errors.As(err, &stale):
		return &Conflict{ErrorModel: huma.ErrorModel{Status: http.StatusConflict, Title: "Changed meanwhile",
			Detail: fmt.Sprintf(
				"%s. Nothing was written.",
				stale.Error(),
			)}, Revision: stale.Have, Differences: []stock.FieldChange{}}
	}
	return huma.Error500InternalServerError("something went wrong; nothing was changed", err)
}

// statusOf is what a fault of the database or its disk is answered with.
var statusOf = map[store.Condition]int{
	store.Full:     http.StatusInsufficientStorage,
	store.ReadOnly: http.StatusServiceUnavailable,
	store.Locked:   http.StatusServiceUnavailable,
	store.Closed:   http.StatusServiceUnavailable,
	store.Damaged:  http.StatusInternalServerError,
}

func invalid(wrong format.Problems) error {
	details := make([]error, len(wrong))
	for i, p := range wrong {
		details[i] = &huma.ErrorDetail{Location: p.Path, Message: p.Says}
	}
	return huma.Error422UnprocessableEntity("the entry or file is not as expected; nothing was changed", details...)
}

func notFound(what, id string) error {
	return huma.Error404NotFound(fmt.Sprintf("there is no %s %q", what, id))
}
