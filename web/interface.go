package web

import (
	"fmt"
	"io/fs"
	"net/http"
	"path"
	"strings"
)

// notBuilt is shown where the program was built without its interface.
const notBuilt = `<!doctype html><html lang="en"><meta charset="utf-8"><title>Yoke Swap</title>
<p>This program was built without its interface. The API answers below /api/.
Run <code>make demo</code> to build all of it.</p></html>
`

// serveInterface serves the built interface. Names with a hash in them never
// change and may be kept; everything else is asked for anew.
func serveInterface(files fs.FS) http.Handler {
	if files == nil {
		return http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
			w.Header().Set("Content-Type", "text/html; charset=utf-8")
			fmt.Fprint(w, notBuilt)
		})
	}
	server := http.FileServerFS(files)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		if strings.HasPrefix(name, "api/") {
			refuse(http.StatusNotFound, "there is nothing at "+r.URL.Path).ServeHTTP(w, r)
			return
		}
		if name != "" && strings.HasSuffix(r.URL.Path, "/") {
			refuse(http.StatusNotFound, "there is nothing at "+r.URL.Path).ServeHTTP(w, r) // no listing of a folder
			return
		}
		w.Header().Set("Cache-Control", "no-cache")
		if strings.HasPrefix(name, "assets/") {
			w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
		}
		if info, err := fs.Stat(files, name); name != "" && err == nil && info.IsDir() {
			refuse(http.StatusNotFound, "there is nothing at "+r.URL.Path).ServeHTTP(w, r)
			return
		}
		server.ServeHTTP(w, r)
	})
}
