// Package formatdocs carries the published JSON Schemas and the annotated
// examples of the open formats, so that the program validates against exactly
// what is documented.
package formatdocs

import "embed"

// Files holds *.schema.json and *.example.json.
//
//go:embed *.json
var Files embed.FS
