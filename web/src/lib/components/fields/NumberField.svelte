<!--
@component
A number that can be typed, stepped with the arrow keys (Shift: by ten) and dragged up and down. It is
committed by Enter, by Space, which plays as everywhere, by leaving, and at the end of a drag; Escape takes back, and a double click brings the
usual value. Where it stands for many values, typing sets all and the rest moves all alike.
-->
<script lang="ts">
  import { numberOf } from "../../chart/numbers";
  import { NumberDrag } from "./numberDrag";
  import { oneFinger } from "../../oneFinger";
  import { getSession } from "../../state/context";

  interface Props {
    value: number;
    min: number;
    max: number;
    step?: number;
    decimals?: number;
    label: string;
    help?: string;
    width?: string;
    disabled?: boolean;
    /** The usual value, which a double click brings back. */
    usual?: number | undefined;
    /** How a value reads where it is more than a number. */
    show?: ((value: number) => string) | undefined;
    /** What a text that is more than a number stands for, or why it stands for nothing. */
    read?: ((text: string) => number | string | undefined) | undefined;
    /** Several values in words, and how to move them all; then `value` is one of them. */
    many?: { text: string; shift: (by: number) => Promise<void> } | undefined;
    /** Stores the value; until that is done the field shows it. */
    commit: (value: number) => Promise<void>;
  }
  let {
    value,
    min,
    max,
    step = 1,
    decimals = 0,
    label,
    help,
    width = "4ch",
    disabled = false,
    usual,
    show,
    read,
    many,
    commit,
  }: Props = $props();

  const session = getSession();

  let typed = $state<string>();
  /** What is on its way to be stored. */
  let committing: string | undefined;
  let drag: NumberDrag | undefined;

  const text = (value: number) => show?.(value) ?? value.toFixed(decimals);
  const shown = $derived(typed ?? many?.text ?? text(value));

  /** The number that a text stands for; undefined if it stands for none, which is said. */
  function parsed(text: string): number | undefined {
    if (text.trim() === "") return undefined;
    const number = read?.(text) ?? numberOf(text);
    if (typeof number === "number") return number;
    session.notices.add(
      typeof number === "string" ? number : `“${text}” is no number; ${label} stays as it was.`,
    );
    return undefined;
  }

  const clamp = (number: number) => Number(Math.min(max, Math.max(min, number)).toFixed(decimals));

  async function finish(): Promise<void> {
    if (typed === undefined || typed === committing) return;
    const number = parsed(typed);
    if (number === undefined || (clamp(number) === value && committing === undefined && !many)) {
      typed = undefined;
      return;
    }
    const sent = text(clamp(number));
    typed = committing = sent;
    await commit(clamp(number));
    if (typed === sent) typed = undefined;
    if (committing === sent) committing = undefined;
  }

  function onkeydown(event: KeyboardEvent & { currentTarget: HTMLInputElement }): void {
    const by = { ArrowUp: step, ArrowDown: -step }[event.key];
    if (event.key === " ") {
      event.preventDefault();
      event.currentTarget.blur(); // which finishes
      return;
    }
    if (event.key === "Enter") void finish();
    else if (event.key === "Escape" && typed !== undefined) typed = undefined;
    else if (by !== undefined) {
      event.preventDefault();
      if (many) {
        const { shift } = many;
        void session.run.press(() => shift(by * (event.shiftKey ? 10 : 1)));
        event.stopPropagation();
        return;
      }
      typed = text(clamp((parsed(shown) ?? value) + by * (event.shiftKey ? 10 : 1)));
      void session.run.press(finish);
    } else return;
    event.stopPropagation();
  }

  function onpointerdown(event: PointerEvent & { currentTarget: HTMLInputElement }): void {
    drag = new NumberDrag(event, value);
    event.currentTarget.setPointerCapture(event.pointerId);
  }

  function onpointermove(event: PointerEvent): void {
    if (!drag?.move(event)) return;
    const by = drag.steps * step;
    typed = many ? `${by < 0 ? "−" : "+"}${Math.abs(by)}` : text(clamp(drag.value + by));
  }

  function onpointerup(event: PointerEvent & { currentTarget: HTMLInputElement }): void {
    if (drag?.moved && many) {
      typed = undefined;
      void many.shift(drag.steps * step);
    } else if (drag?.moved) void finish();
    else event.currentTarget.select();
    drag = undefined;
  }
</script>

<input
  class="control touch-none"
  style:width="calc({width} + 16px)"
  inputmode={read ? "text" : "decimal"}
  data-number
  autocomplete="off"
  aria-label={label}
  data-help={help}
  {disabled}
  value={shown}
  oninput={(event) => (typed = event.currentTarget.value)}
  onblur={finish}
  ondblclick={() => usual !== undefined && void commit(usual)}
  {onkeydown}
  {@attach oneFinger}
  {onpointerdown}
  {onpointermove}
  {onpointerup}
  onpointercancel={onpointerup}
/>
