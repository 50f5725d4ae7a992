<!-- @component What the rows below are about, and for a kit a way to add a part. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import LoopChoice from "./LoopChoice.svelte";

  const session = getSession();
  const kit = $derived(session.track.kind === "kit");

  /** Keys of General MIDI's percussion in the order in which a kit is usually built up. */
  const usual = [36, 38, 42, 46, 39, 37, 45, 50, 49, 51];

  /** The first key that the kit does not have yet. */
  function unusedNote(): number {
    const used = session.parts.map((part) => part.note);
    const others = session.lists.percussion.map(({ note }) => note);
    return [...usual, ...others].find((note) => !used.includes(note)) ?? 36;
  }

  async function addPart(): Promise<void> {
    const behind = session.partIndex;
    await session.edit({ addPart: { ...session.address, note: unusedNote() } });
    session.selectPart(behind + 1);
  }
</script>

<div
  class="bg-paper sticky top-0 z-10 col-span-2 flex items-end gap-1 overflow-hidden pr-2 pb-1 pl-3"
>
  <span class="min-w-0 flex-1 truncate text-[14px] font-semibold" title={session.track.name}>
    {session.track.name}
  </span>
  {#if session.track.loop}
    <span
      class="caption"
      data-help="The track plays a loop in place of its pattern. Clear it in the sheet, under track."
      >a loop plays</span
    >
  {/if}
  <LoopChoice />
  {#if kit}
    <button
      class="control h-[22px]! text-[11px]!"
      disabled={session.parts.length === 16}
      data-help="Add a part to the kit behind the selected one. Its note is in the sheet, under part."
      onclick={addPart}>+ part</button
    >
  {/if}
</div>
