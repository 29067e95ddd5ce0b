package measure

// PoundFoot is one pound-force foot in newton-metres: 0.3048 m × 0.45359237 kg × 9.80665 m/s², the exact foot
// and pound of 1959 and standard gravity. NIST SP 811 prints it rounded, 1.355 818.
const PoundFoot = 0.3048 * 0.45359237 * 9.80665

// PoundFeet turns newton-metres into pound-force feet.
func PoundFeet(newtonMetres float64) float64 { return newtonMetres / PoundFoot }
