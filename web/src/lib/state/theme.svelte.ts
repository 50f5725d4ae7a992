const names = ["light", "dark", "dim"] as const;
type Name = (typeof names)[number];

const stored = "jettyfog theme";

/** Which of the themes is on: light, dark, or red on black for dark rooms. The choice stays with the browser. */
export class Theme {
  #name = $state<Name>(initial());

  constructor() {
    $effect.root(() => {
      $effect(() => {
        document.documentElement.dataset.theme = this.#name;
        localStorage.setItem(stored, this.#name);
      });
    });
  }

  get name(): Name {
    return this.#name;
  }

  /** The theme that comes after the one that is on. */
  get next(): Name {
    return names[(names.indexOf(this.#name) + 1) % names.length] ?? "light";
  }

  turn(): void {
    this.#name = this.next;
  }
}

function initial(): Name {
  return names.find((name) => name === localStorage.getItem(stored)) ?? "light";
}
