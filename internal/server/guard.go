package server

import (
	"net/http"
	"net/url"
	"slices"
)

// guard refuses requests that a foreign page could have made this machine's browser send: those for
// a host name that is not ours, as after DNS rebinding, and those that name another page's origin.
func guard(hosts []string) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if !slices.Contains(hosts, r.Host) {
				refuse(w, http.StatusMisdirectedRequest, "this server does not answer for the host "+short(r.Host))
				return
			}
			if origin := r.Header.Get("Origin"); origin != "" {
				from, err := url.Parse(origin)
				if err != nil || from.Scheme != "http" || from.Host != r.Host {
					refuse(w, http.StatusForbidden, "a page from "+short(origin)+" may not use this server")
					return
				}
			}
			next.ServeHTTP(w, r)
		})
	}
}

func short(s string) string {
	if len(s) > 80 {
		s = s[:80] + "…"
	}
	return s
}

// contentPolicy lets the page run only what ships with it. The sound library makes its worker from a
// blob, and the interface sets styles from script.
const contentPolicy = "default-src 'self'; script-src 'self' blob:; worker-src 'self' blob:; " +
	"style-src 'self' 'unsafe-inline'; img-src 'self' data:; frame-ancestors 'none'; base-uri 'none'; form-action 'none'"

func securityHeaders(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", contentPolicy)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "no-referrer")
		// Isolated pages get clock readings 20 times finer.
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Embedder-Policy", "require-corp")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		next.ServeHTTP(w, r)
	})
}
