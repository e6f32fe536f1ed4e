package wire

import "strings"

// What a wire is painted in where nobody has said its colour, or in a word that is not known.
const unpainted = "#8a8f94"

var paints = map[string]string{
	"red": "#c62828", "black": "#1c1c1c", "white": "#f5f5f5", "grey": unpainted, "gray": unpainted,
	"yellow": "#e6b800", "orange": "#e07b1a",
	"blue": "#2258b8", "green": "#2e8540", "brown": "#7a4a21", "purple": "#6b3fa0", "pink": "#e58fb1",
}

// Paint is what a drawing, on screen or as a file, shows a wire in: a colour as
// #rrggbb for the word people name the wire by, however written; grey for others.
func Paint(colour string) string {
	if paint, known := paints[strings.ToLower(strings.TrimSpace(colour))]; known {
		return paint
	}
	return unpainted
}
