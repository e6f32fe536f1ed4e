package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"net/url"
	"os"
	"os/signal"
	"runtime/debug"
	"syscall"
	"time"

	"yokeswap/core/facts/stock"
	"yokeswap/demo"
	"yokeswap/store"
	"yokeswap/ui"
	"yokeswap/web"
)

const defaultListen = "127.0.0.1:8740"

// shutdownTime is how long running requests may take to finish at a shutdown.
const shutdownTime = 5 * time.Second

func serve(c *call) error {
	listen := c.flags.String("listen", defaultListen, "address to listen on")
	farBoards := c.flags.Bool("far-boards", false, "let other machines reach flight boards plugged into this one")
	data := c.dataFlag()
	if names, err := c.parse(); err != nil || len(names) > 0 {
		return orUnexpected(err, names)
	}
	st, err := store.Open(*data)
	if err != nil {
		return err
	}
	return listenAndServe(c, st, *listen, *farBoards)
}

// demoServe serves the demo from a folder of its own, which goes at the end
// unless --data names one.
func demoServe(c *call) error {
	listen := c.flags.String("listen", defaultListen, "address to listen on")
	data := c.flags.String("data", "", "keep the demo in this folder")
	if names, err := c.parse(); err != nil || len(names) > 0 {
		return orUnexpected(err, names)
	}
	dir := *data
	if dir == "" {
		var err error
		if dir, err = os.MkdirTemp("", "yokeswap-demo-"); err != nil {
			return fmt.Errorf("make a folder for the demo: %w", err)
		}
		defer os.RemoveAll(dir)
	}
	st, err := store.Open(dir)
	if err != nil {
		return err
	}
	snap, err := st.Snapshot()
	if err != nil {
		return err
	}
	if len(snap.Fleet.Quads) == 0 { // a folder kept from an earlier demo stays as it was left
		if err := loadDemo(st, "the command line"); err != nil {
			return err
		}
	}
	return listenAndServe(c, st, *listen, false)
}

// besideDemo is the demo beside one's own data, in a folder that goes at the end.
type besideDemo struct {
	dir   string
	store *store.Store
}

func (b *besideDemo) open() (*store.Store, error) {
	dir, err := os.MkdirTemp("", "yokeswap-demo-")
	if err != nil {
		return nil, fmt.Errorf("make a folder for the demo: %w", err)
	}
	b.dir = dir
	st, err := store.Open(dir)
	if err != nil {
		return nil, err
	}
	b.store = st
	return st, loadDemo(st, "looked round")
}

func (b *besideDemo) close() (err error) {
	if b.store != nil {
		err = b.store.Close()
	}
	if b.dir != "" {
		err = errors.Join(err, os.RemoveAll(b.dir))
	}
	return err
}

func loadDemo(st *store.Store, who string) error {
	return st.Update(store.Deed{Does: "loaded the demo", Who: who}, func(s *stock.Stock) error { return demo.Load(s) })
}

func orUnexpected(err error, names []string) error {
	if err != nil {
		return err
	}
	return fmt.Errorf("%q was not expected", names[0])
}

// rushed lets the start take its time from the collector: reading the database and judging
// for the first time is a rush that leaves much behind. What a fleet of this size holds
// for long is about twice its database; beyond that, garbage is collected as it comes.
// After the rush the rest is given back.
func rushed(st *store.Store) {
	size := st.Size()
	limit := debug.SetMemoryLimit(max(88<<20, 32<<20+2*size+2*max(0, size-32<<20)))
	debug.SetGCPercent(-1)
	go func() { _, _ = st.Snapshot() }() // read while the rest is made; who asks first is told of errors
	time.AfterFunc(3*time.Second, func() {
		debug.SetMemoryLimit(limit)
		debug.SetGCPercent(100)
		debug.FreeOSMemory()
	})
}

// listenAndServe serves until it is told to stop, then closes the store.
func listenAndServe(c *call, st *store.Store, listen string, farBoards bool) (err error) {
	defer func() { err = errors.Join(err, st.Close()) }()
	key := ""
	if !web.IsLoopback(listen) {
		key = web.NewKey()
	}
	rushed(st)
	log := slog.New(slog.NewTextHandler(c.stderr, nil))
	listener, err := net.Listen("tcp", listen)
	if err != nil {
		return fmt.Errorf("listen on %s: %w", listen, err)
	}
	aside := &besideDemo{}
	defer func() { err = errors.Join(err, aside.close()) }()
	options := web.Options{Version: version, Interface: ui.Files(), Key: key, FarBoards: farBoards, Log: log,
		Demo: aside.open}
	server := &http.Server{
		Handler:           web.New(st, options),
		ReadHeaderTimeout: 5 * time.Second,
		ReadTimeout:       30 * time.Second,
		WriteTimeout:      90 * time.Second, // a flight board alone may take 60
		IdleTimeout:       2 * time.Minute,
		ErrorLog:          slog.NewLogLogger(log.Handler(), slog.LevelWarn),
	}
	address := url.URL{Scheme: "http", Host: listener.Addr().String(), Path: "/"}
	fmt.Fprintf(c.stdout, "Yoke Swap is at %s (stop with Ctrl-C)\n", address.String())
	if key != "" {
		fmt.Fprintf(c.stdout, "Other machines reach it; each browser is asked once for this key:\n\n    %s\n\n", key)
	}

	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	failed := make(chan error, 1)
	go func() { failed <- server.Serve(listener) }()
	select {
	case err := <-failed:
		return fmt.Errorf("serve: %w", err)
	case <-ctx.Done():
	}
	log.Info("stopping")
	finish, cancel := context.WithTimeout(context.Background(), shutdownTime)
	defer cancel()
	if err := server.Shutdown(finish); err != nil {
		return fmt.Errorf("stop: %w", err)
	}
	return nil
}
