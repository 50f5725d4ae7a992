const shownFor = 9_000;

/** Sentences for the user: some that go away by themselves, and problems that stay as long as they last. */
export class Notices {
  #problems = $state.raw<readonly string[]>([]);
  #list = $state<{ id: number; text: string }[]>([]);
  #next = 0;

  get list(): readonly { id: number; text: string }[] {
    return this.#list;
  }

  get problems(): readonly string[] {
    return this.#problems;
  }

  /** Shows problems, each a sentence without its full stop, in the place of those before. */
  setProblems(problems: readonly string[]): void {
    this.#problems = problems.map((text) => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`);
  }

  add(text: string): void {
    if (this.#list.some((notice) => notice.text === text)) return;
    const id = this.#next++;
    this.#list.push({ id, text });
    setTimeout(() => this.remove(id), shownFor);
  }

  remove(id: number): void {
    this.#list = this.#list.filter((notice) => notice.id !== id);
  }
}
