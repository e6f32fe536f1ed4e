package web

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/plans/swap"
	"yokeswap/format"
	"yokeswap/store"
)

// Import is what taking a file in would do, or has done.
type Import struct {
	Format     string           `json:"format"`
	Title      string           `json:"title"`
	Difference stock.Difference `json:"difference"`
	Applied    bool             `json:"applied"`
	// Base is the state the difference was made against; give it back to apply.
	Base int64 `json:"base"`
	// Turns are the gates whose level it turns, for quads that are there: a preview alone.
	Turns []swap.Turn `json:"turns"`
	Hash  string      `json:"hash" doc:"short hash of what the file says, however it is spaced"`
}

const importPath = "/api/import"

func (s *server) registerFiles(api huma.API) {
	huma.Register(api, huma.Operation{Method: http.MethodPost, Path: importPath, OperationID: "import-file",
		MaxBodyBytes: format.MaxBytes, SkipValidateBody: true, Summary: "Preview a gear pack or fleet file, or " +
			"take it in"}, s.importFile)
	huma.Get(api, "/api/export/fleet", func(_ context.Context, _ *struct{}) (*download, error) {
		return s.export(func(snap *store.Snapshot) (any, string, error) { return snap.Fleet, "fleet.json", nil })
	})
	huma.Get(api, "/api/export/gear/{set}", func(_ context.Context, in *struct {
		Set string `path:"set"`
	}) (*download, error) {
		return s.export(func(snap *store.Snapshot) (any, string, error) {
			set, ok := snap.Set(in.Set)
			if !ok {
				return nil, "", notFound("gear pack", in.Set)
			}
			return set, in.Set + ".gear.json", nil
		})
	})
}

const restorePath = "/api/restore"

// Restored says what a backup brought.
type Restored struct {
	Rows int `json:"rows"`
}

func (s *server) registerBackup(api huma.API) {
	huma.Register(api, huma.Operation{Method: http.MethodGet, Path: "/api/backup", OperationID: "backup"}, s.backup)
	huma.Register(api, huma.Operation{
		Method:           http.MethodPost,
		Path:             restorePath,
		OperationID:      "restore",
		MaxBodyBytes:     format.MaxBytes,
		SkipValidateBody: true,
		Summary:          "Put a backup in the place of all that is kept",
	}, s.restore)
}

// backup writes all that is kept to a file beside the database, checks it, and sends it.
func (s *server) backup(context.Context, *struct{}) (*huma.StreamResponse, error) {
	dir, err := os.MkdirTemp("", "yokeswap-backup-")
	if err != nil {
		return nil, problem(err)
	}
	path := filepath.Join(dir, "backup.jsonl")
	if _, err := s.store.BackupTo(path, time.Now()); err != nil {
		_ = os.RemoveAll(dir)
		return nil, problem(err)
	}
	return &huma.StreamResponse{Body: func(ctx huma.Context) {
		defer os.RemoveAll(dir)
		f, err := os.Open(path)
		if err != nil {
			s.options.Log.Error("send the backup", "error", err)
			return
		}
		defer f.Close()
		ctx.SetHeader("Content-Type", "application/jsonl")
		ctx.SetHeader("Content-Disposition",
			`attachment; filename="yokeswap-`+time.Now().Format(time.DateOnly)+`.backup.jsonl"`)
		if _, err := io.Copy(ctx.BodyWriter(), f); err != nil {
			s.options.Log.Warn("the backup was not taken to the end", "error", err)
		}
	}}, nil
}

func (s *server) restore(ctx context.Context, in *struct {
	Replace bool   `query:"replace" doc:"what is here may go; a copy of it is kept"`
	Job     string `query:"job" maxLength:"64" doc:"names the work, to ask after it under /api/jobs"`
	RawBody []byte `contentType:"application/jsonl"`
}) (*answer[Restored], error) {
	return asJob(ctx, s, in.Job, "reading the backup", func(ctx context.Context, b *job) (*answer[Restored], error) {
		read := told{Reader: bytes.NewReader(in.RawBody), ctx: ctx, tell: func(done int) {
			b.at("taking the backup in", done, len(in.RawBody))
		}}
		rows, err := s.store.Restore(&read, in.Replace, format.CheckWhole, time.Now())
		var trouble *store.Trouble
		switch {
		case errors.Is(err, store.ErrNotEmpty):
			return nil, huma.Error409Conflict("There is something here already. " +
				"Say that the backup may take its place; a copy of " +
				"what is here stays beside the database.")
		case errors.Is(err, context.Canceled), errors.As(err, &trouble), errors.As(err, new(format.Problems)):
			return nil, err
		case err != nil:
			return nil, huma.Error422UnprocessableEntity("Nothing was changed. " + err.Error())
		}
		return reply(Restored{rows}), nil
	})
}

// told is a reader that says how far it is read, and ends with its context.
type told struct {
	io.Reader
	ctx  context.Context
	tell func(done int)
	done int
}

func (t *told) Read(into []byte) (int, error) {
	if err := t.ctx.Err(); err != nil {
		return 0, err
	}
	n, err := t.Reader.Read(into)
	t.done += n
	t.tell(t.done)
	return n, err
}

// importFile shows the difference a file would make; with apply it takes the
// file in, whole or not at all. Entries that are there already, otherwise, are
// replaced only with replace.
func (s *server) importFile(ctx context.Context, in *struct {
	Apply   bool  `query:"apply"`
	Replace bool  `query:"replace"`
	Base    int64 `query:"base" doc:"with apply: the base of the preview"`
	// File and There name entries of the file that contradict another gear pack, and who wins.
	File    []string `query:"file"    doc:"entries of the file that win over what is there"`
	There   []string `query:"there"   doc:"entries of the file that give way to what is there"`
	Job     string   `query:"job" maxLength:"64" doc:"names the work, to ask after it under /api/jobs"`
	RawBody []byte   `contentType:"application/json"`
}) (*answer[Import], error) {
	return asJob(ctx, s, in.Job, "reading the file", func(ctx context.Context, b *job) (*answer[Import], error) {
		doc, err := format.ReadTelling(in.RawBody, func(done int) error {
			b.at("reading the file", done, len(in.RawBody))
			return ctx.Err()
		})
		if err != nil {
			return nil, err
		}
		wins := map[string]string{}
		for _, id := range in.There {
			wins[id] = stock.WinsThere
		}
		for _, id := range in.File {
			wins[id] = stock.WinsFile
		}
		out := Import{Applied: in.Apply, Turns: []swap.Turn{}}
		if in.Apply {
			err = s.takeIn(ctx, b, taking{doc, wins, in.Replace, in.Base}, &out)
		} else {
			err = s.preview(ctx, b, taking{doc: doc, wins: wins}, &out)
		}
		if err != nil {
			return nil, err
		}
		if out.Hash, err = format.Hash(doc); err != nil {
			return nil, err
		}
		out.Format, out.Title = fleet.FileFormat, ""
		if doc.Set != nil {
			out.Format, out.Title = gear.SetFormat, doc.Set.Title
		} else {
			out.Title = doc.Fleet.Title
		}
		return reply(out), nil
	})
}

// taking is a file to be taken in, and what has been said about it.
type taking struct {
	doc     format.Document
	wins    map[string]string // where it contradicts another gear pack
	replace bool
	base    int64
}

// takeIn writes what a file brings, whole or not at all.
func (s *server) takeIn(ctx context.Context, b *job, t taking, out *Import) error {
	d := deed(ctx, "took in a file")
	d.Context, d.Revision = ctx, &out.Base
	d.Tell = func(done, of int) { b.at("writing", done, of) }
	b.at("comparing it with what is here", 0, 0)
	err := s.store.Update(d, func(st *stock.Stock) (err error) {
		if out.Difference, err = format.TakeOver(st, t.doc, t.wins); err != nil {
			return err
		}
		if len(out.Difference.Changed) > 0 && !t.replace {
			return huma.Error409Conflict(fmt.Sprintf("%d entries are there already, otherwise; look at the "+
				"difference and choose to replace them", len(out.Difference.Changed)))
		}
		return ctx.Err()
	}, store.Expect{Ref: store.Everything, Revision: t.base})
	if err != nil {
		return fmt.Errorf("take the file in: %w", err)
	}
	return nil
}

// preview finds what a file would change, and whose verdicts would turn.
func (s *server) preview(ctx context.Context, b *job, t taking, out *Import) error {
	snap, err := s.store.Snapshot()
	if err != nil {
		return err
	}
	out.Base = snap.Revision
	b.at("comparing it with what is here", 0, 0)
	after := snap.Fork()
	if out.Difference, err = format.TakeOver(after, t.doc, t.wins); err != nil {
		return err
	}
	if len(snap.Fleet.Quads) > mostTurned {
		return ctx.Err()
	}
	b.at("judging the quads before and after", 0, 0)
	out.Turns, err = swap.Turns(ctx, snap.Library, snap.Index, after.Library(), fleet.NewIndex(after.Fleet))
	return err
}

// mostTurned is up to how many quads a preview judges before and after.
const mostTurned = 2000

type download struct {
	ContentType        string `header:"Content-Type"`
	ContentDisposition string `header:"Content-Disposition"`
	Body               []byte
}

// export sends a file of the open formats.
func (s *server) export(pick func(*store.Snapshot) (any, string, error)) (*download, error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	value, file, err := pick(snap)
	if err != nil {
		return nil, err
	}
	text, err := format.Write(value)
	if err != nil {
		return nil, problem(err)
	}
	return &download{
		ContentType:        "application/json",
		ContentDisposition: `attachment; filename="` + file + `"`,
		Body:               text,
	}, nil
}
