import type { Control, Field, FieldLayer, PartAddress } from "../api/types";
import { withLayer } from "../field/layers";
import type { Session } from "./session.svelte";

type Kind = FieldLayer["kind"];

/** What fields are given by name while they play: values, arrows, travellers and rules. */
export class FieldLayers {
  constructor(private readonly session: Session) {}

  get kinds(): { kind: Kind; help: string }[] {
    return this.session.lists.fields.layers.map(({ value, help = "" }) => ({
      kind: value as Kind,
      help,
    }));
  }

  /** The layers of a kind that the project keeps. */
  of(kind: Kind): FieldLayer[] {
    return (this.session.project.fieldLayers ?? []).filter((layer) => layer.kind === kind);
  }

  control(kind: Kind, at: PartAddress): Control {
    return { name: `field ${kind}`, ...at };
  }

  /** The id of the layer that the field of a place has; 0 is none of the project's. */
  recalled(kind: Kind, at: PartAddress, written: Field | undefined): number {
    return this.session.stage.value(this.control(kind, at), written?.recalled?.[kind] ?? 0);
  }

  /** The id of the layer that waits to be given; 0 is what is written, undefined nothing. */
  waiting(kind: Kind, at: PartAddress): number | undefined {
    const waiting = this.session.stage.waiting(this.control(kind, at));
    return waiting && (waiting.doing.value ?? 0);
  }

  /** Gives a field a layer, from the moment that “apply at” says; 0 is what is written. Where that waits already it is taken back. */
  recall(kind: Kind, at: PartAddress, written: Field | undefined, id: number): Promise<void> {
    const { stage } = this.session;
    const control = this.control(kind, at);
    const waiting = stage.waiting(control);
    if (waiting && this.waiting(kind, at) === id) return stage.takeBack(waiting);
    const own = written?.recalled?.[kind] ?? 0;
    return stage.do([stage.doing(control, id === 0 ? own : id, own)]);
  }

  /** The field of a place as it plays: what is written, with the layers in it that are recalled live. */
  asItPlays(written: Field, at: PartAddress): Field {
    let field = written;
    for (const { kind } of this.kinds) {
      const id = this.recalled(kind, at, written);
      const layer = this.of(kind).find((one) => one.id === id);
      if (layer && id !== written.recalled?.[kind]) field = withLayer(field, layer);
    }
    return field;
  }
}
