package web

// Recovered is what stands between a panic and the screen, for the tests.
var Recovered = recovered
