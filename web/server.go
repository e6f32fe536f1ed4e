// Package web serves the interface and the API over HTTP: chi routes the
// requests, huma checks their shape and writes the OpenAPI description that
// the interface's types are made from. It holds no rule of the job: it decodes,
// asks core, and encodes.
package web

import (
	"io/fs"
	"log/slog"
	"net/http"
	"path"
	"reflect"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"yokeswap/core/plans/swap"
	"yokeswap/store"
)

// Options says how to serve.
type Options struct {
	Version   string
	Interface fs.FS  // the built interface; nil serves a note instead
	Key       string // that browsers are asked for, as NewKey makes it; empty: only this machine is answered
	FarBoards bool   // other machines may reach flight boards plugged into this one
	// Demo opens the place the demo is looked round in, beside one's own; nil: there is none.
	Demo func() (*store.Store, error)
	Log  *slog.Logger
}

// server answers the API from one store.
type server struct {
	store   *store.Store
	options Options
	boards  *boards
	door    *door
	answers *answers
	jobs    *jobs
	memory  swap.Memory // of what the yoke board shows of each quad
	ways    ways
	photos  sync.Mutex // one photo is unpacked at a time
}

func newServer(st *store.Store, options Options, at *door) *server {
	working := &jobs{}
	return &server{
		store: st, options: options, boards: newBoards(), door: at, answers: newAnswers(options.Log, working), jobs: working,
	}
}

// New makes the handler for the whole program.
func New(st *store.Store, options Options) http.Handler {
	router := chi.NewRouter()
	at := &door{key: options.Key, store: st, now: time.Now}
	router.Use(
		unhurried,
		logged(options.Log),
		recovered(options.Log),
		secured(options.Key == ""),
		at.admitted,
		middleware.Compress(
			5,
			"application/json",
			"application/problem+json",
			"text/html",
			"text/css",
			"text/javascript",
			"image/svg+xml",
			"text/csv",
		),
		bounded,
	)
	newAPI(router, newServer(st, options, at))
	router.Handle(demoPlace+"*", http.StripPrefix(strings.TrimSuffix(demoPlace, "/"), demoOf(options, at)))
	router.NotFound(serveInterface(options.Interface).ServeHTTP)
	return router
}

// demoPlace is where the demo is looked round in: the same program over a store of its own.
const demoPlace = "/demo/"

// pathOf is what a request asks for, in whichever place: the demo's is held to all that
// one's own is.
func pathOf(r *http.Request) string {
	if rest, ok := strings.CutPrefix(r.URL.Path, demoPlace); ok {
		return "/" + rest
	}
	return r.URL.Path
}

// demoOf serves the demo, opened when it is asked for first.
func demoOf(options Options, at *door) http.Handler {
	open := sync.OnceValues(func() (http.Handler, error) {
		st, err := options.Demo()
		if err != nil {
			return nil, err
		}
		router := chi.NewRouter()
		newAPI(router, newServer(st, options, at))
		router.NotFound(serveInterface(options.Interface).ServeHTTP)
		return router, nil
	})
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if options.Demo == nil {
			refuse(http.StatusNotFound, "this program was started without the demo beside it").ServeHTTP(w, r)
			return
		}
		demo, err := open()
		if err != nil {
			options.Log.Error("the demo cannot be opened", "error", err)
			refuse(http.StatusInternalServerError, "the demo cannot be opened: "+err.Error()).ServeHTTP(w, r)
			return
		}
		demo.ServeHTTP(w, r)
	})
}

// prefixed are the packages whose types have names that others have too: steps,
// pictures, devices.
var prefixed = map[string]string{
	"fabricate": "Make",
	"begin":     "Begin",
	"ask":       "Ask",
	"decide":    "Decide",
	"sheet":     "Sheet",
	"link":      "Link",
	"route":     "Route",
	"channels":  "Channels",
	"antenna":   "Antenna",
	"mount":     "Mount",
	"pins":      "Pins",
	"osd":       "OSD",
	"control":   "Control",
	"diagnose":  "Fault",
	"setup":     "Setup",
	"turns":     "Turns",
	"msp":       "Msp",
	"sim":       "Sim",
	"settext":   "Text",
	"console":   "Text",
}

// schemaName names a type in the description of the API.
func schemaName(t reflect.Type, hint string) string {
	name := huma.DefaultSchemaNamer(t, hint)
	for t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice {
		t = t.Elem()
	}
	return prefixed[path.Base(t.PkgPath())] + name
}

// OpenAPI describes the API without serving it.
func OpenAPI(version string) ([]byte, error) {
	api := newAPI(chi.NewRouter(), &server{options: Options{Version: version}, boards: newBoards(), door: &door{}})
	return api.OpenAPI().MarshalJSON()
}

// listsNeverNull says once for the program that a list is never null here, so that the
// interface need not ask; the library keeps it for all.
var listsNeverNull = sync.OnceFunc(func() { huma.DefaultArrayNullable = false })

func newAPI(router chi.Router, s *server) huma.API {
	config := huma.DefaultConfig("Yoke Swap", s.options.Version)
	config.DocsPath = "" // the documentation page would load scripts from elsewhere
	config.CreateHooks = nil
	// How long a body may take is the server's to say, and ends when it has been read (unhurried).
	config.OnAddOperation = append(config.OnAddOperation, func(_ *huma.OpenAPI, op *huma.Operation) {
		op.BodyReadTimeout = 0
	})
	config.Components.Schemas = huma.NewMapRegistry("#/components/schemas/", schemaName)
	listsNeverNull()
	api := humachi.New(router, config)
	s.registerHealth(api)
	s.registerFleet(api)
	s.registerWhatIf(api)
	s.registerDecide(api)
	s.registerAgainst(api)
	s.registerDay(api)
	s.registerMeans(api)
	s.registerScenarios(api)
	s.registerBench(api)
	s.registerTurns(api)
	s.registerPins(api)
	s.registerShopping(api)
	s.registerMake(api)
	s.registerTogether(api)
	s.registerRegion(api)
	s.registerAntennas(api)
	s.registerRoute(api)
	s.registerRehearsal(api)
	s.registerShelf(api)
	s.registerForms(api)
	s.registerTables(api)
	s.registerBegin(api)
	s.registerFlip(api)
	s.registerAbout(api)
	s.registerFiles(api)
	s.registerBackup(api)
	s.registerFlightBoard(api)
	s.registerFault(api)
	s.registerHistory(api)
	s.registerFlights(api)
	s.registerRecordings(api)
	s.registerPhotos(api)
	s.registerHours(api)
	s.registerFleetLog(api)
	s.registerTasks(api)
	s.registerSessions(api)
	s.registerJobs(api)
	return api
}
