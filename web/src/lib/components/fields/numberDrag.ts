/** How far the pointer moves for one step, in pixels. */
const pixelsPerStep = 4;

/** A number that is dragged up and down. */
export class NumberDrag {
  /** How many steps up from where it began. */
  steps = 0;
  moved = false;
  readonly #y: number;

  constructor(
    press: PointerEvent,
    /** The number where it began. */
    readonly value: number,
  ) {
    this.#y = press.clientY;
  }

  /** Drags on to where the pointer is now, and returns whether it has moved at all. */
  move(event: PointerEvent): boolean {
    this.steps = Math.trunc((this.#y - event.clientY) / pixelsPerStep);
    this.moved ||= this.steps !== 0;
    return this.moved;
  }
}
