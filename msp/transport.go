package msp

import (
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net"
	"strings"
	"time"

	"go.bug.st/serial"
)

// dialIn is how long a connection may take to come about.
const dialIn = 2 * time.Second

// baud is what flight boards speak over USB and UART (common practice).
const baud = 115200

// Ports lists the serial ports of this machine, as addresses.
func Ports() ([]string, error) {
	names, err := serial.GetPortsList()
	if err != nil {
		return nil, fmt.Errorf("list the serial ports: %w", err)
	}
	addresses := make([]string, len(names))
	for i, name := range names {
		addresses[i] = "serial:" + name
	}
	return addresses, nil
}

// Open connects to a board: "serial:" and the name of a port, or "tcp:" with a host
// on this machine or in its own network, and a port.
func Open(ctx context.Context, address string) (io.ReadWriteCloser, error) {
	kind, at, _ := strings.Cut(address, ":")
	switch kind {
	case "serial":
		port, err := serial.Open(at, &serial.Mode{BaudRate: baud})
		if err != nil {
			return nil, fmt.Errorf("open %s: %w", at, inWords(err))
		}
		return port, nil
	case "tcp":
		if err := near(at); err != nil {
			return nil, err
		}
		dialer := net.Dialer{Timeout: dialIn}
		conn, err := dialer.DialContext(ctx, "tcp", at)
		if err != nil {
			return nil, fmt.Errorf("connect to %s: %w", at, err)
		}
		return conn, nil
	}
	return nil, fmt.Errorf("expected serial:NAME or tcp:HOST:PORT, got %q", address)
}

// near refuses hosts beyond this machine and its own network: a board is at hand.
func near(at string) error {
	host, _, err := net.SplitHostPort(at)
	if err != nil {
		return fmt.Errorf("expected tcp:HOST:PORT: %w", err)
	}
	ip := net.ParseIP(host)
	if host == "localhost" || ip != nil && (ip.IsLoopback() || ip.IsPrivate()) {
		return nil
	}
	return fmt.Errorf("%s is not on this machine or in its own network, by its number", host)
}

// inWords says what to do about a serial port that does not open.
func inWords(err error) error {
	var port *serial.PortError
	is := func(code serial.PortErrorCode) bool { return errors.As(err, &port) && port.Code() == code }
	switch {
	case is(serial.PortBusy):
		return fmt.Errorf("another program has it open: close that first (%w)", err)
	case is(serial.PortNotFound), errors.Is(err, fs.ErrNotExist):
		return fmt.Errorf("it is not there: plug the board in with a data cable (%w)", err)
	case is(serial.PermissionDenied), errors.Is(err, fs.ErrPermission):
		return fmt.Errorf("this user may not open it: on Linux, join the group that owns it (%w)", err)
	}
	return err
}
