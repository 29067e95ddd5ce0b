// Package thermal knows the hot and cold gates of valve clearances and how an engine cools. Temperatures are
// degrees Celsius, times minutes.
//
// Cold figures hold on an engine no warmer than their card says, 38 °C where it says nothing; stone cold is
// within 5 °C of the surroundings. Hot figures hold from 60 °C and for ten minutes after the engine was shut
// off (common practice).
//
// An engine left alone follows Newton's law of cooling,
//
//	T(t) = Ta + (T0 − Ta) · exp(−k·t)
//
// so ln(T − Ta) falls along a line, and k is found by least squares through the readings since it last fell.
// For a while after it is shut off heat soaks out of the hot parts and a reading may rise; then nothing can
// be told yet.
package thermal
