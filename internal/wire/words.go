//go:build !js

package wire

import (
	"errors"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/validation"
)

// The library's words for what is wrong with a request, in the program's: they come before people. They must
// be set before any route is made.
func init() {
	validation.MsgUnexpectedProperty = "There is no field of this name here. Is it mistyped?"
	validation.MsgExpectedRequiredProperty = "The field %s is missing."
	validation.MsgExpectedBoolean = "true or false is expected here."
	validation.MsgExpectedNumber = "A number is expected here."
	validation.MsgExpectedInteger = "A whole number is expected here."
	validation.MsgExpectedString = "Text is expected here."
	validation.MsgExpectedArray = "A list is expected here."
	validation.MsgExpectedObject = "An object is expected here."
	validation.MsgExpectedOneOf = `One of these is expected here: "%s".`
	validation.MsgExpectedMinimumNumber = "%v or more is expected here."
	validation.MsgExpectedMaximumNumber = "%v or less is expected here."
	validation.MsgExpectedMinLength = "At least %d characters are expected here."
	validation.MsgExpectedMaxLength = "At most %d characters are taken here."
	validation.MsgExpectedMinItems = "At least %d entries are expected here."
	validation.MsgExpectedMaxItems = "At most %d entries are taken here."
	validation.MsgExpectedMatchPattern = "This is no name that is made here: letters, digits, - and _ (%s)."
	validation.MsgExpectedMatchExactlyOneSchema = "This is none of the forms that are taken here: look at " +
		"the names and values of its fields."
	validation.MsgExpectedRFC3339DateTime = "A date and time is expected here, as 2026-11-25T10:00:00Z."
	made := huma.NewError
	huma.NewError = func(status int, message string, errs ...error) huma.StatusError {
		var first *huma.ErrorDetail
		if message == "validation failed" && len(errs) > 0 && errors.As(errs[0], &first) {
			message = "What was sent cannot be taken. " +
				strings.TrimPrefix(strings.TrimPrefix(first.Location, "body."), "path.") + ": " +
				first.Message
		}
		return made(status, message, errs...)
	}
}
