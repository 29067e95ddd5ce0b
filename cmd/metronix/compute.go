package main

import (
	"fmt"
	"io"
	"strings"

	"metronix/internal/compute"
)

// maxRequest bounds what compute reads from standard input.
const maxRequest = 4 << 20

func computeHelp() string {
	return "metronix compute OPERATION < request.json > response.json\n\n" +
		"Carries out one computation. A request that cannot be right gives exit code 2 and an RFC 9457 " +
		"problem on standard error.\n" +
		"Operations: " + strings.Join(compute.Names(), ", ") + ".\n"
}

func runCompute(args []string, in io.Reader, out, errs io.Writer) int {
	if len(args) != 1 {
		fmt.Fprint(errs, computeHelp())
		return exitRequest
	}
	request, err := io.ReadAll(io.LimitReader(in, maxRequest+1))
	switch {
	case err != nil:
		fmt.Fprintf(errs, "The request cannot be read: %v.\n", err)
		return exitFailed
	case len(request) > maxRequest:
		fmt.Fprintf(errs, "The request is larger than %d bytes.\n", maxRequest)
		return exitRequest
	}
	answer, problem := compute.Run(args[0], request)
	if problem != nil {
		_, _ = errs.Write(problem.JSON())
		if problem.Status >= 500 {
			return exitFailed
		}
		return exitRequest
	}
	if _, err := out.Write(answer); err != nil {
		fmt.Fprintf(errs, "The answer cannot be written: %v.\n", err)
		return exitFailed
	}
	return exitOK
}
