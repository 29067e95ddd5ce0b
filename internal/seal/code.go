package seal

import (
	"errors"

	"github.com/skip2/go-qrcode"
)

// Squares are the code that carries a sealed text, dark ones true, without its margin: as sturdy as the
// text's length allows. It errs where the text is longer than a code can hold (ISO/IEC 18004: 2,953 bytes).
func Squares(text string) ([][]bool, error) {
	var failed error
	for _, level := range []qrcode.RecoveryLevel{qrcode.Medium, qrcode.Low} {
		code, err := qrcode.New(text, level)
		if err == nil {
			code.DisableBorder = true
			return code.Bitmap(), nil
		}
		failed = errors.Join(failed, err)
	}
	return nil, failed
}
