// Command load prints how the whole program holds up under a large fleet, beside its
// goals: a server of its own on the loopback, fleets of demo quads cloned with new ids
// and of builds drawn at random, one client. It is run by make load.
package main

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"

	"yokeswap/core/facts/stock"
	"yokeswap/demo"
	"yokeswap/format"
	"yokeswap/internal/builds"
	"yokeswap/store"
)

func main() {
	if err := run(); err != nil {
		fmt.Fprintln(os.Stderr, "load:", err)
		os.Exit(1)
	}
}

func run() error {
	fmt.Printf("%-44s %12s %12s\n", "", "measured", "goal")
	if err := at(200, func(s *server) error { return s.reads(500, 10*time.Second) }); err != nil {
		return err
	}
	if err := at(1000, thousand); err != nil {
		return err
	}
	if err := at(5000, func(s *server) error {
		for range 5 {
			if _, err := s.get("/api/board"); err != nil {
				return err
			}
		}
		time.Sleep(4 * time.Second) // at rest
		mib, err := s.resident()
		row("resident with 5,000 quads", fmt.Sprintf("%.0f MiB", mib), "< 100 MiB")
		return err
	}); err != nil {
		return err
	}
	return at(10000, tenThousand)
}

func thousand(s *server) error {
	row("start to first board, 1,000 quads", ms(s.started), "< 250 ms")
	for _, c := range []struct{ name, path, goal string }{
		{"board, 1,000 quads", "/api/board?count=200", "< 40 ms"},
		{"shelf, 1,000 quads", "/api/shelf?count=100", "< 20 ms"},
		{"route with explanations, 1,000 quads", "/api/route", "< 400 ms"},
		{"the way back, 1,000 quads", "/api/route/back", "< 400 ms"},
	} {
		took, size, err := s.median(c.path)
		if err != nil {
			return err
		}
		row(c.name, ms(took), c.goal)
		if strings.HasPrefix(c.name, "board") {
			row("  its size before it is packed", fmt.Sprintf("%d kB", size/1000), "< 250 kB")
		}
	}
	took, err := s.picks(15)
	row("one pick (write and judge), 1,000 quads", ms(took), "< 60 ms")
	return err
}

func tenThousand(s *server) error {
	row("start to first board, 10,000 quads", ms(s.started), "")
	for _, c := range []struct{ name, path string }{
		{"board, 10,000 quads", "/api/board?count=200"},
		{"route with explanations, 10,000 quads", "/api/route"},
		{"export, 10,000 quads", "/api/export/fleet"},
	} {
		began := time.Now()
		text, err := s.get(c.path)
		if err != nil {
			return err
		}
		row(c.name, ms(time.Since(began)), "")
		if strings.HasPrefix(c.name, "export") {
			began := time.Now()
			if _, err := s.send("POST", "/api/import", text); err != nil {
				return err
			}
			row(fmt.Sprintf("  and taken in again (%d MB)", len(text)/1_000_000), ms(time.Since(began)), "")
		}
	}
	took, err := s.picks(5)
	row("one pick, 10,000 quads", ms(took), "")
	return err
}

// grow fills a stock with the demo and a fleet of so many quads.
func grow(s *stock.Stock, quads int) error {
	if err := demo.Load(s); err != nil {
		return err
	}
	builds.Grow(s, quads)
	return format.CheckStock(s)
}

func row(name, measured, goal string) { fmt.Printf("%-44s %12s %12s\n", name, measured, goal) }

func ms(d time.Duration) string { return fmt.Sprintf("%.0f ms", float64(d.Microseconds())/1000) }

// server is the program with a fleet of its own.
type server struct {
	*exec.Cmd
	url     string
	started time.Duration // to the first board
}

// at starts the program on a fleet of so many quads, and ends it after.
func at(quads int, do func(*server) error) error {
	dir, err := os.MkdirTemp("", "yokeswap-load-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	st, err := store.Open(dir)
	if err != nil {
		return err
	}
	err = st.Update(store.Deed{Does: "made a fleet"}, func(s *stock.Stock) error { return grow(s, quads) })
	if err := errors.Join(err, st.Close()); err != nil {
		return err
	}
	s := &server{Cmd: exec.Command(filepath.Join("bin", "yokeswap"), "serve", "--data", dir, "--listen", "127.0.0.1:0")}
	out, err := s.StdoutPipe()
	if err != nil {
		return err
	}
	began := time.Now()
	if err := s.Start(); err != nil {
		return err
	}
	defer func() { _ = s.Process.Kill(); _ = s.Wait() }()
	line := make([]byte, 200)
	n, err := out.Read(line)
	if err != nil {
		return err
	}
	s.url = strings.TrimSuffix(regexp.MustCompile(`http://\S+`).FindString(string(line[:n])), "/")
	if _, err := s.get("/api/board?count=200"); err != nil {
		return err
	}
	s.started = time.Since(began)
	return do(s)
}

func (s *server) send(method, path string, body []byte) ([]byte, error) {
	request, err := http.NewRequest(method, s.url+path, bytes.NewReader(body))
	if err != nil {
		return nil, err
	}
	request.Header.Set("Content-Type", "application/json")
	request.Header.Set("Accept-Encoding", "identity")
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		return nil, err
	}
	defer response.Body.Close()
	text, err := io.ReadAll(response.Body)
	if err == nil && response.StatusCode >= 300 {
		err = fmt.Errorf("%s %s: %d %s", method, path, response.StatusCode, text[:min(300, len(text))])
	}
	return text, err
}

func (s *server) get(path string) ([]byte, error) { return s.send("GET", path, nil) }

// median is the middle of nine answers, and the size of one. Before each a quad's note is
// changed, so that none is a mere repetition.
func (s *server) median(path string) (took time.Duration, size int, err error) {
	var list []time.Duration
	for range 9 {
		if err := s.touch(); err != nil {
			return 0, 0, err
		}
		began := time.Now()
		text, err := s.get(path)
		if err != nil {
			return 0, 0, err
		}
		list, size = append(list, time.Since(began)), len(text)
	}
	slices.Sort(list)
	return list[len(list)/2], size, nil
}

type quadView struct {
	Revision int64 `json:"revision"`
}

var packs = []string{"tallow-4s", "tallow-6s"}

var touched int

// touch plans another pack for one quad.
func (s *server) touch() error {
	_, err := s.pick(fmt.Sprintf("quad-%d", 20+touched%100))
	return err
}

func (s *server) pick(quad string) (time.Duration, error) {
	text, err := s.get("/api/quads/" + quad)
	if err != nil {
		return 0, err
	}
	var v quadView
	if err := json.Unmarshal(text, &v); err != nil {
		return 0, err
	}
	touched++
	body := fmt.Sprintf(`{"revision":%d,"patch":{"pack":%q}}`, v.Revision, packs[touched%2])
	began := time.Now()
	_, err = s.send("POST", "/api/quads/"+quad+"/next", []byte(body))
	return time.Since(began), err
}

func (s *server) picks(n int) (time.Duration, error) {
	var list []time.Duration
	for i := range n {
		took, err := s.pick(fmt.Sprintf("quad-%d", 100+i))
		if err != nil {
			return 0, err
		}
		list = append(list, took)
	}
	slices.Sort(list)
	return list[len(list)/2], nil
}

// reads asks for so many boards and quads a second, whether or not those before have been
// answered.
func (s *server) reads(perSecond int, during time.Duration) error {
	http.DefaultTransport.(*http.Transport).MaxIdleConnsPerHost = 200
	for i := range 180 { // judged once per revision: those who come after are served from that
		if _, err := s.get(fmt.Sprintf("/api/quads/quad-%d", 10+i)); err != nil {
			return err
		}
	}
	n := perSecond * int(during.Seconds())
	took := make([]time.Duration, n)
	failed := make([]error, n)
	var wait sync.WaitGroup
	began := time.Now()
	for i := range n {
		time.Sleep(time.Until(began.Add(time.Duration(i) * time.Second / time.Duration(perSecond))))
		wait.Go(func() {
			path := "/api/board?count=200"
			if i%4 != 0 {
				path = fmt.Sprintf("/api/quads/quad-%d", 10+i%180)
			}
			asked := time.Now()
			_, failed[i] = s.get(path)
			took[i] = time.Since(asked)
		})
	}
	wait.Wait()
	lasted := time.Since(began)
	bad := 0
	for _, err := range failed {
		if err != nil {
			bad++
		}
	}
	if bad > 0 {
		row("  not answered", fmt.Sprint(bad), "0")
	}
	slices.Sort(took)
	row("500 reads a second, 200 quads: served", fmt.Sprintf("%.0f/s", float64(n)/lasted.Seconds()), "500/s")
	row("  99 of 100 answered in", ms(took[n*99/100]), "< 50 ms")
	return nil
}

// resident is the memory the program takes, in MiB (Linux).
func (s *server) resident() (float64, error) {
	text, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", s.Process.Pid))
	if err != nil {
		return 0, err
	}
	found := regexp.MustCompile(`VmRSS:\s+(\d+) kB`).FindSubmatch(text)
	if found == nil {
		return 0, errors.New("the kernel does not say how much memory it takes")
	}
	kB, err := strconv.Atoi(string(found[1]))
	return float64(kB) / 1024, err
}
