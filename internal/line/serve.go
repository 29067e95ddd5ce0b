package line

import (
	"context"
	"net"
)

// Serve accepts clients until the context ends, and gives each a session of its own, whose connection is
// closed when it returns or the context ends.
func Serve(ctx context.Context, listener net.Listener, session func(context.Context, net.Conn)) error {
	defer context.AfterFunc(ctx, func() { listener.Close() })()
	for {
		conn, err := listener.Accept()
		if err != nil {
			if ctx.Err() != nil {
				return nil
			}
			return err
		}
		go func() {
			defer conn.Close()
			defer context.AfterFunc(ctx, func() { conn.Close() })()
			session(ctx, conn)
		}()
	}
}
