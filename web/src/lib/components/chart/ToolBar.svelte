<!-- @component What the pointer does on the strips, the clipboard, and which stretch of time is shown. -->
<script lang="ts">
  import { counted } from "../../counted";
  import { tools } from "../../chart/tools";
  import { getChartView, getClipboard } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";
  import ToolButtons from "../fields/ToolButtons.svelte";
  import PerformButtons from "./PerformButtons.svelte";

  const view = getChartView();
  const clipboard = getClipboard();
  const widest = 8;
</script>

<div
  class="border-line flex items-center gap-1 overflow-hidden border-b px-3 text-[12px]"
  role="toolbar"
  aria-label="Tools and view"
>
  <ToolButtons {tools} value={view.tool} select={(tool) => (view.tool = tool)} />
  {#if view.tool === "random"}
    <NumberField
      label="Range of random values in percent"
      help="How far values vary at random, up or down, in percent of the lane's range."
      value={view.scatter}
      min={1}
      max={100}
      width="3ch"
      commit={async (value) => {
        view.scatter = value;
      }}
    />
    <span class="caption">%</span>
  {/if}
  <span class="ml-2 flex gap-1 max-[1150px]:hidden">
    <button
      class="control h-[24px]! text-[12px]!"
      data-help="Copy the selected steps, or the cursor's lane and what the lane page says is acted on with it. Ctrl+C"
      onclick={() => clipboard.copy()}>copy</button
    >
    <button
      class="control h-[24px]! text-[12px]!"
      disabled={clipboard.empty}
      data-help="Paste from the cursor's step on; what was copied of one lane can go into another. Ctrl+V"
      onclick={() => clipboard.paste()}>paste</button
    >
  </span>
  <PerformButtons />
  <span class="ml-auto flex items-center gap-1">
    <button
      class="control h-[24px]! text-[12px]!"
      aria-pressed={!view.following}
      data-help="Home: every lane from its first step; each shows its own playing place."
      onclick={() => (view.following = false)}>loop view</button
    >
    <button
      class="control h-[24px]! text-[12px]!"
      aria-pressed={view.following}
      data-help="Follow: the bars that are playing, with one playhead."
      onclick={() => (view.following = true)}>timeline</button
    >
    <button
      class="control h-[24px]! min-w-[22px]! px-0!"
      aria-label="Show fewer bars"
      data-help="Show fewer bars, larger."
      disabled={view.bars === 1}
      onclick={() => view.bars--}>−</button
    >
    <span class="min-w-[42px] text-center max-[1150px]:hidden">{counted(view.bars, "bar")}</span>
    <button
      class="control h-[24px]! min-w-[22px]! px-0!"
      aria-label="Show more bars"
      data-help="Show more bars, smaller."
      disabled={view.bars === widest}
      onclick={() => view.bars++}>+</button
    >
  </span>
</div>
