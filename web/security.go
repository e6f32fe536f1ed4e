package web

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/netip"
	"path/filepath"
	"runtime"
	"strings"
	"time"

	"github.com/go-chi/chi/v5/middleware"

	"yokeswap/format"
	"yokeswap/format/picture"
	"yokeswap/format/recording"
)

// policy lets the page load nothing but its own files, and nothing inline.
const policy = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; " +
	"font-src 'self'; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"

// IsLoopback says whether an address to listen on can only be reached from
// this machine.
func IsLoopback(listen string) bool {
	host, _, err := net.SplitHostPort(listen)
	if err != nil {
		return false
	}
	if host == "localhost" {
		return true
	}
	addr, err := netip.ParseAddr(host)
	return err == nil && addr.IsLoopback()
}

// secured checks Host and Origin, and sets the headers that keep the page to itself.
//
// Without a key the server listens on loopback only, so a Host that is
// not a loopback name is a page elsewhere that has pointed its name at us.
func secured(local bool) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		origins := http.NewCrossOriginProtection()
		origins.SetDenyHandler(refuse(http.StatusForbidden, "the request comes from another site"))
		checked := origins.Handler(next)
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			h := w.Header()
			h.Set("Content-Security-Policy", policy)
			h.Set("X-Content-Type-Options", "nosniff")
			h.Set("Referrer-Policy", "no-referrer")
			h.Set("Cross-Origin-Opener-Policy", "same-origin")
			h.Set("Cross-Origin-Resource-Policy", "same-origin")
			if local && !loopbackHost(r.Host) {
				refuse(http.StatusMisdirectedRequest, "this server answers to localhost only").ServeHTTP(w, r)
				return
			}
			checked.ServeHTTP(w, r)
		})
	}
}

func loopbackHost(host string) bool {
	if !strings.Contains(host, ":") || strings.HasSuffix(host, "]") {
		host += ":80"
	}
	return IsLoopback(host)
}

// maxBody is the largest request body but for files taken in, in bytes.
const maxBody = 8 << 20

// bounded limits request bodies: a file to the largest that is read, anything else to
// more than an entry ever is.
func bounded(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		most := int64(maxBody)
		if pathOf(r) == importPath || pathOf(r) == restorePath {
			most = format.MaxBytes
		} else if strings.HasSuffix(pathOf(r), recordingsPath) {
			most = recording.LargestBytes
		} else if strings.HasSuffix(pathOf(r), photosPath) {
			most = picture.LargestBytes
		}
		if r.ContentLength > most {
			refuse(http.StatusRequestEntityTooLarge, fmt.Sprintf("the body is larger than %d MiB; nothing that is sent here is "+
				"ever that large", most>>20)).ServeHTTP(w, r)
			return
		}
		r.Body = http.MaxBytesReader(w, r.Body, most+1024)
		if strings.HasPrefix(pathOf(r), "/api/") {
			w.Header().Set("Cache-Control", "no-store") // it changes with every press
		}
		if most == format.MaxBytes { // a large file on a slow line takes its time, and so does its answer
			deadline := http.NewResponseController(w)
			_ = deadline.SetReadDeadline(time.Now().Add(fileTime))
			_ = deadline.SetWriteDeadline(time.Now().Add(2 * fileTime))
			next.ServeHTTP(w, r)
			return
		}
		table := strings.HasSuffix(pathOf(r), netlistPath) || strings.HasPrefix(pathOf(r), readPath) ||
			pathOf(r) == platePath || strings.HasSuffix(pathOf(r), recordingsPath) ||
			strings.HasSuffix(pathOf(r), photosPath) // no JSON
		if r.ContentLength != 0 && r.Method != http.MethodGet && strings.HasPrefix(pathOf(r), "/api/") && !table {
			body, err := io.ReadAll(r.Body)
			if err != nil {
				refuse(http.StatusRequestEntityTooLarge, "the body did not come whole").ServeHTTP(w, r)
				return
			}
			if wrong := format.CheckJSON(body); len(wrong) > 0 {
				refuse(http.StatusUnprocessableEntity, "nothing was changed: "+wrong[0].String()).ServeHTTP(w, r)
				return
			}
			r.Body = io.NopCloser(bytes.NewReader(body))
		}
		next.ServeHTTP(w, r)
	})
}

// fileTime is how long a file may take to come in.
const fileTime = 10 * time.Minute

// refuse answers with a problem as RFC 9457 has it.
func refuse(status int, detail string) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		w.Header().Set("Content-Type", "application/problem+json")
		w.WriteHeader(status)
		_ = json.NewEncoder(w).Encode(map[string]any{"status": status, "title": http.StatusText(status), "detail": detail})
	})
}

// recovered answers a panic as any other fault of the program: a problem on the screen,
// one line with the place in the log.
func recovered(log *slog.Logger) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			defer func() {
				switch why := recover(); why {
				case nil:
				case http.ErrAbortHandler:
					panic(why) // the connection is given up on purpose
				default:
					at, known := why.(fault)
					if !known {
						at = fault{why, panicPlace()}
					}
					log.Error(
						"a fault of the program",
						"method",
						r.Method,
						"path",
						r.URL.Path,
						"panic",
						fmt.Sprint(at.why),
						"at",
						at.place,
					)
					refuse(http.StatusInternalServerError, "This is a fault of the program: it stopped while it worked on the "+
						"answer. Nothing was changed by it after that. The program's log says where.").ServeHTTP(w, r)
				}
			}()
			next.ServeHTTP(w, r)
		})
	}
}

// fault is what stopped a piece of work that went on beside its request, and where.
type fault struct {
	why   any
	place string
}

// panicPlace is the line of our own that a panic came from.
func panicPlace() string {
	var callers [64]uintptr
	frames := runtime.CallersFrames(callers[:runtime.Callers(4, callers[:])])
	for {
		frame, more := frames.Next()
		if strings.HasPrefix(frame.Function, "yokeswap/") {
			return fmt.Sprintf("%s:%d", filepath.Base(frame.File), frame.Line)
		}
		if !more {
			return "an unknown place"
		}
	}
}

// logged writes a line for each request that changes something or fails.
func logged(log *slog.Logger) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			start := time.Now()
			wrapped := middleware.NewWrapResponseWriter(w, r.ProtoMajor)
			next.ServeHTTP(wrapped, r)
			level := slog.LevelDebug
			switch {
			case wrapped.Status() >= 500:
				level = slog.LevelError
			case wrapped.Status() >= 400:
				level = slog.LevelWarn
			case r.Method != http.MethodGet:
				level = slog.LevelInfo
			}
			log.Log(r.Context(), level, "request", "method", r.Method, "path", r.URL.Path, "status", wrapped.Status(),
				"took", fmt.Sprintf("%.1fms", float64(time.Since(start).Microseconds())/1000))
		})
	}
}
