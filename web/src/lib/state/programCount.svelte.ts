/** Where the browser keeps from which number programs count. */
const key = "jettyfog programs from 0";

/** What stands for no program where programs count from 0. */
const none = "–";

/** From which number programs and banks are counted on the screen; they are kept from 1, and 0 is none. */
export class ProgramCount {
  #fromZero = $state(localStorage.getItem(key) === "yes");

  get fromZero(): boolean {
    return this.#fromZero;
  }

  toggle(): void {
    this.#fromZero = !this.#fromZero;
    localStorage.setItem(key, this.#fromZero ? "yes" : "no");
  }

  /** What reads as none. */
  get none(): string {
    return this.#fromZero ? none : "0";
  }

  readonly show = (value: number): string => {
    if (!this.#fromZero) return String(value);
    return value === 0 ? none : String(value - 1);
  };

  readonly read = (text: string): number | undefined => {
    if (this.#fromZero && text.trim() === none) return 0;
    return this.#fromZero && /^\d+$/.test(text.trim()) ? Number(text) + 1 : undefined;
  };
}
