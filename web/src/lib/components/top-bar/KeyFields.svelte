<!-- @component The key: a root and a scale. -->
<script lang="ts">
  import { rootNames, scaleNames, withScale } from "../../chart/key";
  import { getSession } from "../../state/context";

  let { openKey }: { openKey: () => void } = $props();

  const session = getSession();
  const key = $derived(session.project.key);
  const roots = $derived(rootNames(key, session.lists));
  const scales = $derived(scaleNames(key, session.lists));

  const inWords = $derived(`${roots[key.root]} ${key.scale}`);
</script>

<div class="max-[1270px]:min-w-[60px] min-[1271px]:shrink-0">
  <div class="caption">key</div>
  <div class="flex gap-1">
    <select
      class="control shrink-0 max-[1270px]:hidden"
      aria-label="Root"
      data-help="Root of the key. Steps hold degrees, so the music moves along."
      value={key.root}
      onchange={({ currentTarget: { value } }) =>
        session.setKey((now) => ({ ...now, root: Number(value) }))}
    >
      {#each roots as root, i (root)}<option value={i}>{root}</option>{/each}
    </select>
    <select
      class="control w-[118px] max-[1400px]:w-[100px] max-[1300px]:w-[88px] max-[1270px]:hidden"
      aria-label="Scale"
      data-help="Scale of the key. Steps hold degrees, so another scale spells the music anew."
      value={key.scale}
      onchange={({ currentTarget: { value } }) =>
        session.setKey((now) => withScale(now, value, session.lists))}
    >
      {#each scales as scale (scale)}<option>{scale}</option>{/each}
    </select>
    <button
      class="control shrink-0 px-1.5!"
      data-help="All scales on a keyboard, allowed notes, scales of your own, and tunings."
      aria-label="keys: {inWords}"
      onclick={openKey}
      ><span class="max-[1270px]:hidden">keys</span>
      <span class="max-w-[118px] truncate min-[1271px]:hidden" title={inWords}>{inWords}</span
      ></button
    >
  </div>
</div>
