<!-- @component A part of a kit: its name, which selects it, mute, and the loop of its gates. -->
<script lang="ts">
  import { gateLane } from "../../chart/gate";
  import type { Part } from "../../api/types";
  import { getSession } from "../../state/context";
  import LoopFields from "./LoopFields.svelte";

  let { part, index }: { part: Part; index: number } = $props();

  const session = getSession();
  const selected = $derived(index === session.partIndex);
  const address = $derived(session.addressOf(part));
  const mute = $derived(session.stage.muteOf(part));
  const lane = $derived(session.lane(gateLane, part));
</script>

<div
  class={[
    "border-line col-span-2 flex min-w-0 items-center gap-1 overflow-clip border-t pr-1 pl-2",
    selected ? "border-l-signal bg-paper-2 border-l-4" : "border-l-4 border-l-transparent",
  ]}
>
  <div class="min-w-0 flex-1">
    <button
      class="block w-full cursor-pointer truncate text-left text-[12px] leading-tight font-semibold"
      aria-current={selected ? "true" : undefined}
      data-help="Write this part: its other lanes are below."
      title={part.name}
      onclick={() => session.selectPart(index)}>{part.name}</button
    >
    <LoopFields
      label={part.name}
      {lane}
      set={(change) => session.edit({ setLane: { ...address, lane: gateLane, ...change } })}
    />
  </div>
  <button
    class={[
      "control h-[22px]! min-w-[22px]! self-start px-1! text-[11px]!",
      session.stage.isChanged(mute) && "font-bold underline",
      session.stage.waiting(mute) && "border-signal! border-dashed!",
    ]}
    aria-label="Mute {part.name}"
    aria-pressed={session.stage.partOn(part)}
    data-help="Mute the part: it decides all the same."
    onclick={() => session.stage.toggle(mute, part.mute)}>M</button
  >
</div>
