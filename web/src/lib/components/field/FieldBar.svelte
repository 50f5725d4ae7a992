<!-- @component What the pointer does on a field, its layout, ways to lay it out anew, and after how long it repeats. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { getChartView, getSession } from "../../state/context";
  import type { FieldTool } from "../../state/fieldView.svelte";
  import type { Moments } from "../../state/moments.svelte";
  import NumberField from "../fields/NumberField.svelte";
  import ToolButtons from "../fields/ToolButtons.svelte";

  let { moments }: { moments: Moments } = $props();

  const session = getSession();
  const field = getChartView().field;
  const tools: { tool: FieldTool; help: string }[] = [
    { tool: "notes", help: "Press an empty cell to write the note of the layout; Enter does too." },
    {
      tool: "arrows",
      help: "Drag along cells to draw arrows; a second way out of a cell is a fork. Alt and an arrow key do too.",
    },
    {
      tool: "travellers",
      help: "Press a cell to have a traveller start there; drag one to start elsewhere.",
    },
    { tool: "walls", help: "Draw walls, or take them away." },
    { tool: "select", help: "Drag over cells to select them; Shift and the arrow keys do too." },
  ];
  const marks: Record<string, string> = {
    "turn right": "turn",
    mirror: "mirror",
    "shift left": "←",
    "shift right": "→",
    "shift up": "↑",
    "shift down": "↓",
  };
</script>

<div
  class="border-line flex items-center gap-1 overflow-hidden border-b px-3 text-[12px]"
  role="toolbar"
  aria-label="Tools of the field"
>
  <ToolButtons {tools} value={field.tool} select={(tool) => (field.tool = tool)} />
  <span class="ml-2 flex items-center gap-1 max-[1150px]:hidden">
    {#each session.lists.fields.changes as { value: change } (change)}
      <button
        class="control h-[24px]! min-w-[22px]! px-1! text-[12px]!"
        aria-label="{change}, {marks[change] ?? change}"
        data-help="The whole field with its travellers: {change}."
        onclick={() => field.turn(change)}>{marks[change] ?? change}</button
      >
    {/each}
  </span>
  <span class="ml-2 flex items-center gap-1">
    <button
      class="control h-[24px]! text-[12px]!"
      data-help="Give the selected cells the notes of the layout; a new note has that of its place too."
      onclick={() => field.layOut()}>layout</button
    >
    <select
      class="control h-[24px]! w-[86px] py-0! text-[12px]!"
      aria-label="Layout"
      data-help="What the layout is: so many degrees from column to column and from row to row upwards, or a note a row, or a note a column, as the sheet has them under “grid”."
      bind:value={field.layout}
    >
      <option value="degrees">degrees</option>
      <option value="rows">a note a row</option>
      <option value="columns">a note a column</option>
    </select>
    {#each field.layout === "degrees" ? (["perColumn", "perRow"] as const) : [] as of (of)}
      <NumberField
        label="Degrees from {of === 'perColumn' ? 'column to column' : 'row to row'}"
        help="By how many degrees the layout goes up from {of === 'perColumn'
          ? 'one column to the next'
          : 'one row to the one above'}."
        value={field[of]}
        {...bounds.Cell.degree}
        width="3ch"
        commit={async (value) => {
          field[of] = value;
        }}
      />
    {/each}
  </span>
  <span class="text-ink-2 ml-auto min-w-0 truncate" data-repeats title={moments.repeats}
    >{moments.unstarted > 0 ? "too many waves: some do not start" : moments.repeats}</span
  >
</div>
