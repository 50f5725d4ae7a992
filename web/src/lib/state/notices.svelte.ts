const shownFor = 9_000;

/** Sentences for the user that go away by themselves. */
export class Notices {
  #list = $state<{ id: number; text: string }[]>([]);
  #next = 0;

  get list(): readonly { id: number; text: string }[] {
    return this.#list;
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
