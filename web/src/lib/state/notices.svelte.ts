const shownFor = 9_000;

/** How many are shown at a time: the latest. */
const most = 3;

/** Sentences for the user: some that go away by themselves, and problems that stay as long as they last. */
export class Notices {
  #problems = $state.raw<readonly string[]>([]);
  #list = $state<{ id: number; text: string }[]>([]);
  #next = 0;

  /** How many dialogs are open; what is said is shown in the last one. */
  dialogs = $state(0);

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
    this.#list = [...this.#list, { id, text }].slice(-most);
    setTimeout(() => this.remove(id), shownFor);
  }

  remove(id: number): void {
    this.#list = this.#list.filter((notice) => notice.id !== id);
  }
}
