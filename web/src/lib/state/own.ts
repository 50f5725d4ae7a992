/** Waits until no other page has something of a name, and has it until the function is called that is returned; then tells that it is had. */
export function own(name: string, had: () => void): () => void {
  const stop = new AbortController();
  let letGo = () => {};
  const hold = () =>
    new Promise<void>((resolve) => {
      letGo = resolve;
      had();
    });
  navigator.locks.request(`jettyfog ${name}`, { signal: stop.signal }, hold).catch(() => {});
  return () => {
    stop.abort();
    letGo();
  };
}
