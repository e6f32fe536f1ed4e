package web

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"crypto/subtle"
	"encoding/binary"
	"encoding/hex"
	"fmt"
	"net"
	"net/http"
	"net/netip"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/store"
)

// A server that other machines reach asks each browser once for a key, which the
// program made and printed at its start, and then knows it by a session of its own. The
// key is never part of an address. Sessions are stored as hashes; each can be ended.

// SessionCookie carries a browser's session.
const SessionCookie = "yokeswap-session"

// NewKey makes a key of 128 bits as eight words of five letters that can be spoken and
// typed: each is sixteen bits as consonant, vowel, consonant, vowel, consonant
// (D. S. Wilkerson, A Proposal for Proquints, arXiv:0901.4016).
func NewKey() string {
	const consonants, vowels = "bdfghjklmnprstvz", "aiou"
	var bits [16]byte
	_, _ = rand.Read(bits[:]) // never fails
	words := make([]string, 8)
	for i := range words {
		n := binary.BigEndian.Uint16(bits[2*i:])
		words[i] = string([]byte{consonants[n>>12], vowels[n>>10&3], consonants[n>>6&15], vowels[n>>4&3], consonants[n&15]})
	}
	return strings.Join(words, "-")
}

// plainKey is a key as it counts: small letters, whatever stands between the words.
func plainKey(typed string) string {
	return strings.Map(func(r rune) rune {
		if r >= 'a' && r <= 'z' {
			return r
		}
		return -1
	}, strings.ToLower(typed))
}

func sameKey(given, key string) bool {
	a, b := sha256.Sum256([]byte(plainKey(given))), sha256.Sum256([]byte(plainKey(key)))
	return subtle.ConstantTimeCompare(a[:], b[:]) == 1
}

func hashOf(secret string) string {
	sum := sha256.Sum256([]byte(secret))
	return hex.EncodeToString(sum[:])
}

// After wrong keys the next is waited for, longer each time.
const (
	wrongKeys   = 5
	firstWait   = 2 * time.Second
	longestWait = 5 * time.Minute
)

// door lets browsers in.
type door struct {
	key   string
	store *store.Store
	now   func() time.Time

	mu    sync.Mutex
	wrong int
	until time.Time
}

// try holds a key that was typed against the one there is; it answers how long to wait
// where too many were wrong.
func (d *door) try(given string) (ok bool, wait time.Duration) {
	d.mu.Lock()
	defer d.mu.Unlock()
	now := d.now()
	if wait := d.until.Sub(now); wait > 0 {
		return false, wait
	}
	if sameKey(given, d.key) {
		d.wrong = 0
		return true, 0
	}
	if d.wrong++; d.wrong >= wrongKeys {
		wait := min(longestWait, firstWait<<min(d.wrong-wrongKeys, 10))
		d.until = now.Add(wait)
	}
	return false, 0
}

// session finds who a request is from, by the cookie or a bearer token.
func (d *door) session(r *http.Request) (store.Session, bool) {
	secret, bearer := strings.CutPrefix(r.Header.Get("Authorization"), "Bearer ")
	if !bearer {
		cookie, err := r.Cookie(SessionCookie)
		if err != nil {
			return store.Session{}, false
		}
		secret = cookie.Value
	}
	s, ok, err := d.store.SessionOf(hashOf(secret))
	return s, ok && err == nil
}

type farKey struct{}

// far says whether a request comes from another machine.
func far(ctx context.Context) bool {
	is, _ := ctx.Value(farKey{}).(bool)
	return is
}

// admitted asks for a session where a key is set: all of the API but the door itself.
func (d *door) admitted(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if d.key == "" {
			next.ServeHTTP(w, r)
			return
		}
		ctx := context.WithValue(r.Context(), farKey{}, !fromHere(r))
		if strings.HasPrefix(pathOf(r), "/api/") && !(pathOf(r) == sessionPath && r.Method == http.MethodPost) {
			s, ok := d.session(r)
			if !ok {
				refuse(http.StatusUnauthorized, "Type the key that the program printed at its start.").ServeHTTP(w, r)
				return
			}
			ctx = context.WithValue(ctx, whoKey{}, s.Name)
		}
		next.ServeHTTP(w, r.WithContext(ctx))
	})
}

func fromHere(r *http.Request) bool {
	host, _, err := net.SplitHostPort(r.RemoteAddr)
	if err != nil {
		return false
	}
	addr, err := netip.ParseAddr(host)
	return err == nil && addr.IsLoopback()
}

const sessionPath = "/api/session"

type entered struct {
	SetCookie http.Cookie `header:"Set-Cookie"`
	Body      struct {
		Name string `json:"name"`
	}
}

func (s *server) registerSessions(api huma.API) {
	huma.Post(api, sessionPath, s.enter)
	huma.Get(api, "/api/sessions", func(context.Context, *struct{}) (*answer[[]store.Session], error) {
		list, err := s.store.Sessions()
		if err != nil {
			return nil, problem(err)
		}
		return reply(list), nil
	})
	huma.Delete(api, "/api/sessions/{id}", func(_ context.Context, in *struct {
		ID int64 `path:"id"`
	}) (*struct{}, error) {
		if err := s.store.EndSession(in.ID); err != nil {
			return nil, problem(err)
		}
		return nil, nil
	})
}

// enter gives a browser that knows the key a session.
func (s *server) enter(_ context.Context, in *struct {
	Body struct {
		Key  string `json:"key" minLength:"1" maxLength:"200"`
		Name string `json:"name,omitempty" maxLength:"60" doc:"what to call this browser in the history"`
	}
}) (*entered, error) {
	if s.door.key == "" {
		return nil, huma.Error404NotFound("no key is asked for here")
	}
	switch ok, wait := s.door.try(in.Body.Key); {
	case wait > 0:
		return nil, huma.Error429TooManyRequests(fmt.Sprintf("Too many wrong keys: try again in %d seconds.",
			int(wait.Seconds())+1))
	case !ok:
		return nil, huma.Error401Unauthorized("That is not the key the program printed at its start.")
	}
	secret := NewKey()
	name := in.Body.Name
	if name == "" {
		name = "a browser that was let in"
	}
	if err := s.store.AddSession(hashOf(secret), name, time.Now()); err != nil {
		return nil, problem(err)
	}
	out := &entered{SetCookie: http.Cookie{Name: SessionCookie, Value: secret, Path: "/", HttpOnly: true,
		SameSite: http.SameSiteStrictMode, MaxAge: int((365 * 24 * time.Hour).Seconds())}}
	out.Body.Name = name
	return out, nil
}
