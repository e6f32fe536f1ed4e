// Package printing writes parts for a printer: STL in its binary form, and 3MF.
//
// Source: STL as common practice has it (80 bytes of head, a count, 50 bytes a triangle,
// little-endian); 3MF Core Specification 1.3, model, relationships and content types in a ZIP
// archive after the Open Packaging Conventions. No kept library of the registries writes them.
package printing

import (
	"archive/zip"
	"bytes"
	"encoding/binary"
	"encoding/xml"
	"fmt"
	"math"
	"strconv"

	"yokeswap/core/measure/solid"
)

// STL is a part as one mesh, its bodies one after another. Lengths are millimetres.
func STL(title string, bodies []solid.Body) []byte {
	var skin []solid.Triangle
	for _, b := range bodies {
		skin = append(skin, b.Triangles()...)
	}
	out := bytes.NewBuffer(make([]byte, 0, 84+50*len(skin)))
	head := make([]byte, 80)
	copy(head, "binary, millimetres: "+title)
	out.Write(head)
	number := func(v any) { _ = binary.Write(out, binary.LittleEndian, v) }
	number(uint32(len(skin)))
	for _, t := range skin {
		row := [12]float32{}
		n := normal(t)
		for i, p := range append([]solid.Point{n}, t[:]...) {
			row[3*i], row[3*i+1], row[3*i+2] = float32(p.X), float32(p.Y), float32(p.Z)
		}
		number(row)
		number(uint16(0))
	}
	return out.Bytes()
}

// normal is the direction a triangle looks, of length one.
func normal(t solid.Triangle) solid.Point {
	ux, uy, uz := t[1].X-t[0].X, t[1].Y-t[0].Y, t[1].Z-t[0].Z
	vx, vy, vz := t[2].X-t[0].X, t[2].Y-t[0].Y, t[2].Z-t[0].Z
	n := solid.Point{X: uy*vz - uz*vy, Y: uz*vx - ux*vz, Z: ux*vy - uy*vx}
	length := math.Sqrt(n.X*n.X + n.Y*n.Y + n.Z*n.Z)
	if length == 0 {
		return solid.Point{}
	}
	return solid.Point{X: n.X / length, Y: n.Y / length, Z: n.Z / length}
}

type model struct {
	XMLName  xml.Name   `xml:"model"`
	Unit     string     `xml:"unit,attr"`
	Lang     string     `xml:"xml:lang,attr"`
	Space    string     `xml:"xmlns,attr"`
	Metadata []metadata `xml:"metadata"`
	Objects  []object   `xml:"resources>object"`
	Items    []item     `xml:"build>item"`
}

type metadata struct {
	Name string `xml:"name,attr"`
	Text string `xml:",chardata"`
}

type object struct {
	ID         int         `xml:"id,attr"`
	Type       string      `xml:"type,attr"`
	Name       string      `xml:"name,attr,omitempty"`
	Mesh       *mesh       `xml:"mesh,omitempty"`
	Components *components `xml:"components,omitempty"` // an object has a mesh, or is of others
}

type components struct {
	List []component `xml:"component"`
}

type mesh struct {
	Vertices  []vertex   `xml:"vertices>vertex"`
	Triangles []triangle `xml:"triangles>triangle"`
}

type vertex struct {
	X string `xml:"x,attr"`
	Y string `xml:"y,attr"`
	Z string `xml:"z,attr"`
}

type triangle struct {
	V1 int `xml:"v1,attr"`
	V2 int `xml:"v2,attr"`
	V3 int `xml:"v3,attr"`
}

type component struct {
	Object int `xml:"objectid,attr"`
}

type item struct {
	Object int `xml:"objectid,attr"`
}

const (
	contentTypes = xml.Header + `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">` +
		`<Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>` +
		`<Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>`
	relationships = xml.Header + `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">` +
		`<Relationship Id="rel0" Target="/3D/3dmodel.model" ` +
		`Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`
	coreSpace = "http://schemas.microsoft.com/3dmanufacturing/core/2015/02"
)

// ThreeMF is a part as a 3MF package: each body a mesh of its own, and one object of them all.
func ThreeMF(title string, bodies []solid.Body) ([]byte, error) {
	m := model{Unit: "millimeter", Lang: "en", Space: coreSpace, Metadata: []metadata{{"Title", title}}}
	whole := object{ID: len(bodies) + 1, Type: "model", Name: title, Components: &components{}}
	for i, b := range bodies {
		m.Objects = append(m.Objects, object{ID: i + 1, Type: "model", Mesh: meshOf(b)})
		whole.Components.List = append(whole.Components.List, component{i + 1})
	}
	m.Objects = append(m.Objects, whole)
	m.Items = []item{{whole.ID}}
	body, err := xml.Marshal(m)
	if err != nil {
		return nil, fmt.Errorf("write the model of a 3MF file: %w", err)
	}
	var out bytes.Buffer
	archive := zip.NewWriter(&out)
	for _, file := range []struct{ name, text string }{
		{"[Content_Types].xml", contentTypes},
		{"_rels/.rels", relationships},
		{"3D/3dmodel.model", xml.Header + string(body)},
	} {
		w, err := archive.Create(file.name)
		if err == nil {
			_, err = w.Write([]byte(file.text))
		}
		if err != nil {
			return nil, fmt.Errorf("write %s of a 3MF file: %w", file.name, err)
		}
	}
	if err := archive.Close(); err != nil {
		return nil, fmt.Errorf("write a 3MF file: %w", err)
	}
	return out.Bytes(), nil
}

// meshOf gives each corner of a body its number, once.
func meshOf(b solid.Body) *mesh {
	var m mesh
	seen := map[solid.Point]int{}
	at := func(p solid.Point) int {
		n, ok := seen[p]
		if !ok {
			n = len(seen)
			seen[p] = n
			m.Vertices = append(m.Vertices, vertex{short(p.X), short(p.Y), short(p.Z)})
		}
		return n
	}
	for _, t := range b.Triangles() {
		m.Triangles = append(m.Triangles, triangle{at(t[0]), at(t[1]), at(t[2])})
	}
	return &m
}

func short(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }
