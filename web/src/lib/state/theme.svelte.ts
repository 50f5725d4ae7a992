type Name = "light" | "dark";

const stored = "jettyfog theme";

/** Which of the two themes is on, light or dark. The choice stays with the browser. */
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

  get dark(): boolean {
    return this.#name === "dark";
  }

  toggle(): void {
    this.#name = this.dark ? "light" : "dark";
  }
}

function initial(): Name {
  return localStorage.getItem(stored) === "dark" ? "dark" : "light";
}
