// Package measure holds the quantities of the trade, each a type that counts its smallest unit, as
// time.Duration does.
//
// A [Length] counts nanometres and an [Angle] micro-degrees. An inch is exactly 25,400,000 nanometres
// (international yard and pound agreement, 1959), so millimetres, inches and thousandths are all whole
// numbers and limits hold to the letter: 0.20 ± 0.02 mm takes a reading of 0.18, which it does not in binary
// fractions. Text is read exactly ([ParseMillimetres], [ParseInches]); what is finer than a nanometre is
// refused rather than rounded. An angle is rounded to the nearest micro-degree as it comes in, and is exact
// from there.
//
// A [Window] is closed: both ends belong to it. Floats appear only for display and inside formulas, and a
// formula rounds once, at its exit.
//
// The zero Length and the zero Angle are quantities like any other. Where a figure may be absent, that is
// said by a pointer or by another value, never by zero.
package measure
