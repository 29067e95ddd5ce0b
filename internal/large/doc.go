// Package large holds what is tested of large workshops, in processes of their own: it is nothing but tests.
package large
