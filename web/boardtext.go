package web

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/console"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/work/settext"
	"yokeswap/msp"
)

// BoardTextAsk names two settings texts of a quad's board: one asked about, as it stands or
// as it was kept, and what it is held against, the board itself or what was kept of it.
type BoardTextAsk struct {
	Text      string `json:"text,omitempty"      maxLength:"1048576" doc:"the text; absent: that of a snapshot"`
	Snapshot  int64  `json:"snapshot,omitempty"  doc:"the snapshot whose text is asked about"`
	Against   int64  `json:"against,omitempty"   doc:"the snapshot it is held against; absent: the board"`
	Address   string `json:"address,omitempty"   maxLength:"200"`
	Confirmed bool   `json:"confirmed,omitempty" doc:"the user says that a flight board is at the address"`
}

// BoardTextView is a text held against what a board has.
type BoardTextView struct {
	settext.Compared
	Runs string `json:"runs" doc:"flight firmware and release of what it is held against"`
}

func (s *server) registerBoardText(api huma.API) {
	huma.Post(api, "/api/quads/{quad}/board/text/keep", s.keepText)
	huma.Post(api, "/api/quads/{quad}/board/text/compare", s.compareText)
	huma.Post(api, "/api/quads/{quad}/board/text/load", s.loadText)
	huma.Register(api, huma.Operation{
		Method:      http.MethodGet,
		Path:        "/api/quads/{quad}/board/snapshots/{id}/text",
		OperationID: "board-snapshot-text",
	}, s.exportText)
}

// wordsOf are the words of flight firmwares, by what they call themselves.
func wordsOf(c fleet.Case) func(variant string) *gear.SettingsText {
	return func(variant string) *gear.SettingsText { return runsOf(c, variant).Text }
}

// textBoard reads a board whole, over the line that one request at a time has.
func (s *server) textBoard(ctx context.Context, c fleet.Case, at BoardAddress) (console.Board, error) {
	end, err := s.begin(ctx, at)
	if err != nil {
		return console.Board{}, err
	}
	defer end()
	ctx, cancel := context.WithTimeout(ctx, boardTime)
	defer cancel()
	b, err := console.Read(ctx, dialer(at.Address), wordsOf(c))
	return b, textProblem(err)
}

// textProblem says what to do where a board does not tell its text.
func textProblem(err error) error {
	switch {
	case err == nil:
		return nil
	case errors.Is(err, console.ErrNoText):
		return huma.Error422UnprocessableEntity("Nobody has stated how this flight firmware is talked to in its settings " +
			"text: enter that on the Shelf, or go on over MSP as above.")
	case errors.Is(err, console.ErrMute):
		return huma.Error502BadGateway("The board does not answer in its settings text over this port. Nothing was " +
			"written: go on over MSP as above, or try its USB port. (" + err.Error() + ")")
	}
	return boardProblem(err)
}

func (s *server) keepText(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body BoardAddress
}) (*answer[[]BoardKept], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	b, err := s.textBoard(ctx, c, in.Body)
	if err != nil {
		return nil, err
	}
	if _, err := s.store.KeepBoard(in.Quad, "kept by hand, with its text", b.State, b.Text, time.Now()); err != nil {
		return nil, problem(err)
	}
	return s.kept(in.Quad, 0)
}

// asked is the text a request asks about.
func (s *server) asked(quad string, in BoardTextAsk) (string, error) {
	if in.Text != "" || in.Snapshot == 0 {
		return in.Text, nil
	}
	return s.keptText(quad, in.Snapshot)
}

func (s *server) keptText(quad string, snapshot int64) (string, error) {
	kept, err := s.keptBoard(quad, snapshot)
	if err != nil {
		return "", err
	}
	if kept.Text == "" {
		return "", huma.Error422UnprocessableEntity("These settings were kept without the board's text.")
	}
	return kept.Text, nil
}

func (s *server) compareText(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body BoardTextAsk
}) (*answer[BoardTextView], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	text, err := s.asked(in.Quad, in.Body)
	if err != nil {
		return nil, err
	}
	var board console.Board
	if in.Body.Against != 0 {
		kept, err := s.keptBoard(in.Quad, in.Body.Against)
		if err != nil {
			return nil, err
		}
		board.State = kept.State
		if board.Text, err = s.keptText(in.Quad, in.Body.Against); err != nil {
			return nil, err
		}
	} else if board, err = s.textBoard(ctx, c, BoardAddress{in.Body.Address, in.Body.Confirmed}); err != nil {
		return nil, err
	}
	comparison, _, err := compareTexts(c, board, text)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	return reply(BoardTextView{comparison, board.State.Variant + " " + string(board.State.Version)}), nil
}

// compareTexts reads both texts by the grammar of what the board runs and compares them.
func compareTexts(
	c fleet.Case, board console.Board, text string,
) (comparison settext.Compared, read settext.Text, err error) {
	words := wordsOf(c)(board.State.Variant)
	has, err := settext.Read(words, board.Text)
	if err != nil {
		return comparison, read, fmt.Errorf("what the board tells: %w", err)
	}
	if read, err = settext.Read(words, text); err != nil {
		return comparison, read, fmt.Errorf("the text: %w", err)
	}
	return settext.Compare(c, words, has, read), read, nil
}

// BoardTextLoad asks for lines of a text to be loaded into a board.
type BoardTextLoad struct {
	BoardWrite
	Text     string `json:"text,omitempty"     maxLength:"1048576"`
	Snapshot int64  `json:"snapshot,omitempty" doc:"the snapshot whose text is loaded; with text absent"`
	Lines    []int  `json:"lines,omitempty"    maxItems:"5000" doc:"the lines to load, by number; absent: all that may be"`
}

func (s *server) loadText(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body BoardTextLoad
}) (*answer[console.Loaded], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	if !in.Body.PropsOff {
		return nil, huma.Error422UnprocessableEntity("Take the props off first, and say so: a board that is being set can " +
			"start the motors.")
	}
	text, err := s.asked(in.Quad, BoardTextAsk{Text: in.Body.Text, Snapshot: in.Body.Snapshot})
	if err != nil {
		return nil, err
	}
	end, err := s.begin(ctx, in.Body.BoardAddress)
	if err != nil {
		return nil, err
	}
	defer end()
	// A browser that goes away does not break off what has begun.
	ctx, cancel := context.WithTimeout(context.WithoutCancel(ctx), boardTime)
	defer cancel()
	out := s.load(c, in.Body, text).Do(ctx)
	kept := BoardReport{Report: out.Report}
	s.tell(in.Quad, fmt.Sprintf("Settings text, %s, %d lines sent: %s", out.Outcome, len(out.Sent), out.Says), &kept)
	out.Says = kept.Says
	return reply(out), nil
}

// load is how lines of a text come into the board of a quad.
func (s *server) load(c fleet.Case, in BoardTextLoad, text string) console.Load {
	var words *gear.SettingsText
	return console.Load{
		Dial:  dialer(in.Address),
		Words: wordsOf(c),
		Want: func(b console.Board) ([]settext.Line, string) {
			words = wordsOf(c)(b.State.Variant)
			comparison, read, err := compareTexts(c, b, text)
			if err != nil {
				return nil, msp.Sentence(err) + " Nothing was loaded."
			}
			lines, ok := comparison.Picked(read, in.Lines)
			if !ok {
				return nil, cmp.Or(comparison.Refused, "What was picked is not to be loaded: it is held back, or the board has "+
					"it already. Nothing was loaded.")
			}
			return lines, ""
		},
		Keep: func(b console.Board) error {
			_, err := s.store.KeepBoard(c.Quad.ID, "before a text was loaded", b.State, b.Text, time.Now())
			return err
		},
		After: func(before, after string, sent []settext.Line) (none settext.Aftermath, err error) {
			was, err := settext.Read(words, before)
			if err != nil {
				return none, err
			}
			is, err := settext.Read(words, after)
			if err != nil {
				return none, err
			}
			return settext.After(c, words, was, is, sent), nil
		},
	}
}

func (s *server) exportText(_ context.Context, in *struct {
	Quad string `path:"quad"`
	ID   int64  `path:"id"`
}) (*download, error) {
	text, err := s.keptText(in.Quad, in.ID)
	if err != nil {
		return nil, err
	}
	return &download{
		ContentType:        "text/plain; charset=utf-8",
		ContentDisposition: fmt.Sprintf(`attachment; filename="%s-board-%d.txt"`, in.Quad, in.ID),
		Body:               []byte(text),
	}, nil
}
