<!-- @component The macro that is written: its name, where it rests, and what it moves. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { MacroMove } from "../../api/types";
  import { curves, readBy, unitOf } from "../../state/movers.svelte";
  import type { Perform } from "../../state/perform.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import LearnRow from "../fields/LearnRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import TextRow from "../fields/TextRow.svelte";
  import ControlPicker from "./ControlPicker.svelte";

  let { perform }: { perform: Perform } = $props();

  const movers = $derived(perform.movers);
  const macro = $derived(movers.macros.find(({ id }) => id === perform.macro) ?? movers.macros[0]);

  /** What a move is to be that sets the control, or adds to it. */
  function made(move: MacroMove, absolute: boolean): MacroMove {
    const spec = movers.spec(move.control);
    const { control, curve } = move;
    return absolute
      ? { control, curve: curve ?? "", absolute, from: spec?.min ?? 0, to: spec?.max ?? 1 }
      : { control, curve: curve ?? "", by: Math.round(((spec?.max ?? 1) - (spec?.min ?? 0)) / 2) };
  }
</script>

{#if macro}
  {@const { id } = macro}
  <ChoiceRow
    label="macro"
    name="Macro to write"
    help="Which macro is written here."
    value={String(id)}
    choices={movers.macros.map((m) => ({ value: String(m.id), label: m.name }))}
    select={(value) => (perform.macro = Number(value))}
  />
  <TextRow
    label="name"
    name="Macro name"
    help="Name of the macro."
    value={macro.name}
    commit={(name) => movers.changeMacro(id, { name })}
  />
  <NumberRow
    label="rest"
    name="Macro rest"
    unit="%"
    help="The position in which it adds nothing: 0 at its lower end, 50 in its middle."
    value={(macro.rest ?? 0) / 10}
    min={0}
    max={bounds.Macro.rest.max / 10}
    decimals={1}
    commit={(rest) => movers.changeMacro(id, { rest: Math.round(rest * 10) })}
  />
  <LearnRow name={macro.name} control={{ name: "macro", id }} {...bounds.Macro.position} />
  {#each macro.moves as move, i (JSON.stringify(move.control))}
    {@const spec = movers.spec(move.control)}
    {@const words = movers.words(move.control)}
    {@const by = readBy(spec)}
    {@const range = (spec?.max ?? 0) - (spec?.min ?? 0)}
    <div class="border-line mt-1 border-t pt-1" role="group" aria-label="Moves {words}">
      <div class="flex items-center gap-1">
        <b class="min-w-0 flex-1 truncate font-semibold">{words}</b>
        <button
          class="control px-1!"
          aria-label="Take {words} out of the macro"
          onclick={() => movers.changeMove(id, i, undefined)}>×</button
        >
      </div>
      {#if spec && !spec.movable}<p class="text-ink-2" role="alert">No macro can move this.</p>{/if}
      <ChoiceRow
        label="it"
        name="How it moves {words}"
        help="Adds to what stands, so that several macros and the hand add up; or sets the value in its place."
        value={move.absolute ? "sets" : "adds"}
        choices={[
          { value: "adds", label: "adds to it" },
          { value: "sets", label: "sets it" },
        ]}
        select={(value) =>
          movers.changeMacro(id, (now) => ({
            moves: now.moves.map((m, at) => (at === i ? made(m, value === "sets") : m)),
          }))}
      />
      {#if move.absolute}
        {#each ["from", "to"] as const as end (end)}
          <NumberRow
            label={end}
            name="{words} {end}"
            unit={unitOf(spec)}
            help="The value at the {end === 'from' ? 'lower' : 'upper'} end of the macro."
            value={(move[end] ?? 0) / by}
            min={(spec?.min ?? 0) / by}
            max={(spec?.max ?? 0) / by}
            decimals={by > 1 ? 1 : 0}
            commit={(value) => movers.changeMove(id, i, { [end]: Math.round(value * by) })}
          />
        {/each}
      {:else}
        <NumberRow
          label="by"
          name="{words} by"
          unit={unitOf(spec)}
          help="How much the whole travel of the macro adds; below 0 it takes away."
          value={(move.by ?? 0) / by}
          min={-range / by}
          max={range / by}
          decimals={by > 1 ? 1 : 0}
          commit={(value) => movers.changeMove(id, i, { by: Math.round(value * by) })}
        />
      {/if}
      <ChoiceRow
        label="curve"
        name="Curve of {words}"
        help="How evenly it follows the macro."
        value={move.curve ?? ""}
        choices={curves}
        select={(curve) =>
          movers.changeMove(id, i, { curve: curve as NonNullable<typeof move.curve> })}
      />
    </div>
  {/each}
  <ControlPicker
    {movers}
    label="Add a control to the macro"
    want={(spec) => spec.movable ?? false}
    without={macro.moves.map(({ control }) => control)}
    select={(control) =>
      movers.changeMacro(id, (now) => ({ moves: [...now.moves, made({ control }, false)] }))}
  />
{:else}
  <p class="text-ink-2 py-1">
    A macro moves several controls with one hand: it adds to what stands, and several add up.
  </p>
{/if}
<div class="flex gap-1 py-1">
  <button
    class="control"
    aria-label="Add a macro"
    disabled={movers.macros.length >= 16}
    onclick={async () => (perform.macro = await movers.addMacro())}>+ macro</button
  >
  {#if macro}
    <button
      class="control"
      aria-label="Delete the macro"
      data-help="Delete the macro. Undo brings it back."
      onclick={() => movers.removeMacro(macro.id)}>delete</button
    >
  {/if}
</div>
