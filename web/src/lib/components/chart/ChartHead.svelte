<!-- @component Which stretch of time the chart shows: home or following, and how many bars. -->
<script lang="ts">
  import { getChartView } from "../../state/context";

  const view = getChartView();
  const widest = 8;
</script>

<div class="bg-paper sticky top-0 z-10 col-span-2 flex items-end gap-1 pr-2 pb-1 pl-3">
  <button
    class="control h-[22px]! text-[11px]!"
    aria-pressed={!view.following}
    data-help="Home: every lane from its first step; each shows its own playing place."
    onclick={() => (view.following = false)}>home</button
  >
  <button
    class="control h-[22px]! text-[11px]!"
    aria-pressed={view.following}
    data-help="Follow: the bars that are playing, with one playhead."
    onclick={() => (view.following = true)}>follow</button
  >
  <span class="ml-auto flex items-center">
    <button
      class="control h-[22px]! min-w-[20px]! px-0!"
      aria-label="Show fewer bars"
      data-help="Show fewer bars, larger."
      disabled={view.bars === 1}
      onclick={() => view.bars--}>−</button
    >
    <span class="w-[16px] text-center text-[11px]" title="bars shown">{view.bars}</span>
    <button
      class="control h-[22px]! min-w-[20px]! px-0!"
      aria-label="Show more bars"
      data-help="Show more bars, smaller."
      disabled={view.bars === widest}
      onclick={() => view.bars++}>+</button
    >
  </span>
</div>
