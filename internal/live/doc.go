// Package live plays a project in real time. It alone knows what time it is.
//
// A Transport renders ahead: at each pulse it renders what starts within the look-ahead, which is as long as the slowest
// port needs, and hands each port what it is to have by then, with absolute times. What has been rendered is committed. An
// edit takes effect from the first moment that is not, so it is heard within the look-ahead; what silences at once takes
// back what has been handed over and has not begun. A message counts as heard once its time has come; only what was heard
// is recorded.
//
//	transport := live.New(project, live.Options{}, recorder, wake)
//	transport.Connect(port)
//	transport.Attach(screen)
//	go transport.Run(ctx)
//	transport.Play()
//
// Times are nanoseconds on the transport's own clock, which starts at 0 and never jumps.
package live
