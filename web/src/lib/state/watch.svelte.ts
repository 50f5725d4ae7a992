type Name = "day" | "night";

const stored = "jettyfog watch";

/** Which of the two looks is on: day or night watch. The choice stays with the browser. */
export class Watch {
  #name = $state<Name>(initial());

  constructor() {
    $effect.root(() => {
      $effect(() => {
        document.documentElement.dataset.watch = this.#name;
        localStorage.setItem(stored, this.#name);
      });
    });
  }

  get night(): boolean {
    return this.#name === "night";
  }

  toggle(): void {
    this.#name = this.night ? "day" : "night";
  }
}

function initial(): Name {
  return localStorage.getItem(stored) === "night" ? "night" : "day";
}
