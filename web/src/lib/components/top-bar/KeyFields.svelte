<!-- @component The key: a root and a scale. -->
<script lang="ts">
  import { getSession } from "../../state/context";

  const session = getSession();
  const key = $derived(session.project.key);
</script>

<div class="min-w-0">
  <div class="caption">key</div>
  <div class="flex gap-1">
    <select
      class="control"
      aria-label="Root"
      data-help="Root of the key. Steps hold degrees, so the music moves along."
      value={key.root}
      onchange={(event) =>
        session.edit({ setProject: { key: { ...key, root: Number(event.currentTarget.value) } } })}
    >
      {#each session.lists.roots as root, i (root)}<option value={i}>{root}</option>{/each}
    </select>
    <select
      class="control w-[118px] min-w-0 max-[1150px]:w-[84px]"
      aria-label="Scale"
      data-help="Scale of the key. Steps hold degrees, so another scale spells the music anew."
      value={key.scale}
      onchange={(event) =>
        session.edit({ setProject: { key: { ...key, scale: event.currentTarget.value } } })}
    >
      {#each session.lists.scales as scale (scale)}<option>{scale}</option>{/each}
    </select>
  </div>
</div>
