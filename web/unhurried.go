package web

import (
	"io"
	"net/http"
	"time"
)

// unhurried takes the time limit for reading a request away once its body has been read: it
// is for bodies that trickle in. It would otherwise run out while an answer is worked on
// that takes long, as a flight board's may, and would end that answer and every later one
// on the same connection.
func unhurried(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		unlimit := func() {
			// Where the line cannot tell time there is no limit to take away.
			_ = http.NewResponseController(w).SetReadDeadline(time.Time{})
		}
		if r.Body == nil || r.Body == http.NoBody {
			unlimit()
		} else {
			r.Body = &lastRead{r.Body, unlimit}
		}
		next.ServeHTTP(w, r)
	})
}

// lastRead is a body that tells when it has been read.
type lastRead struct {
	io.ReadCloser
	done func()
}

func (b *lastRead) Read(p []byte) (int, error) {
	n, err := b.ReadCloser.Read(p)
	if err != nil {
		b.done()
	}
	return n, err
}
