import type { FieldView } from "../state/fieldView.svelte";
import { directionTo, emptied, samePlace, type Place } from "./cells";

/** How a grid lies on its picture: how large a cell is, and how far the grid is from the edge, in pixels. */
export interface GridScale {
  size: number;
  margin: number;
}

/** The pointer on a field, which writes by the tool. What it writes is one step of undo, once it is up. */
export class FieldPointer {
  #last: Place | undefined;
  #path: Place[] = [];
  /** What the first cell decided: whether walls are drawn or taken away. */
  #draws = true;
  #drags: number | undefined;

  constructor(
    private readonly view: FieldView,
    private readonly scale: () => GridScale,
  ) {}

  #placeOf(event: PointerEvent): Place | undefined {
    const svg = event.currentTarget as SVGElement;
    const box = svg.getBoundingClientRect();
    const { size, margin } = this.scale();
    const place = {
      column: Math.floor((event.clientX - box.left - margin) / size),
      row: Math.floor((event.clientY - box.top - margin) / size),
    };
    const { columns, rows } = this.view.field;
    const inside =
      place.column >= 0 && place.row >= 0 && place.column < columns && place.row < rows;
    return inside ? place : undefined;
  }

  down = (event: PointerEvent): void => {
    const place = this.#placeOf(event);
    if (!place || event.button !== 0) return;
    const svg = event.currentTarget as SVGElement;
    svg.focus();
    svg.setPointerCapture(event.pointerId);
    const { view } = this;
    view.moveTo(place, event.shiftKey);
    this.#last = place;
    this.#path = [place];
    const cell = view.cell(place);
    this.#draws = view.tool === "walls" ? !cell?.wall : !cell?.note;
    if (view.tool === "travellers") {
      this.#drags = view.travellers.find((t) => samePlace(t, place))?.id;
      view.selectTraveller(this.#drags);
    }
    this.#paint();
  };

  move = (event: PointerEvent): void => {
    const place = this.#placeOf(event);
    if (!this.#last || !place || samePlace(place, this.#last)) return;
    if (this.view.tool === "arrows" && directionTo(this.#last, place) === undefined) return;
    this.#last = place;
    this.#path = [...this.#path, place];
    this.view.moveTo(place, this.view.tool === "select");
    this.#paint();
  };

  up = (): void => {
    const place = this.#last;
    if (!place) return;
    this.#last = undefined;
    if (this.view.tool !== "travellers") {
      void this.view.commit();
    } else if (this.#drags === undefined) {
      void this.view.dropTraveller(place);
    } else if (this.#path.length > 1) {
      void this.view.setTraveller(this.#drags, { column: place.column, row: place.row });
    }
  };

  cancel = (): void => {
    this.#last = undefined;
    this.view.drop();
  };

  /** Shows what is written along the way of the pointer. */
  #paint(): void {
    const { view } = this;
    switch (view.tool) {
      case "notes":
        if (this.#draws) view.preview(this.#path, view.withNote);
        break;
      case "walls":
        view.preview(this.#path, (cell) =>
          this.#draws ? { ...emptied(cell), wall: true } : { ...cell, wall: false },
        );
        break;
      case "arrows":
        if (this.#path.length > 1) view.previewArrows(this.#path);
    }
  }
}
