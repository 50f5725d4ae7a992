<!-- @component The scenes: each a flag with its number, which is its key, and a small picture of its music. -->
<script lang="ts">
  import type { Scene } from "../../api/types";
  import { getSession } from "../../state/context";
  import type { Perform } from "../../state/perform.svelte";
  import NoteLines from "../marks/NoteLines.svelte";

  let { perform }: { perform: Perform } = $props();

  const session = getSession();
  const stage = session.stage;
  const scenes = $derived(session.project.scenes ?? []);

  const waiting = $derived(stage.waiting({ name: "scene" })?.doing.value);
  const on = $derived(stage.value({ name: "scene" }, session.project.sceneOn ?? 0));

  function press(scene: Scene): void {
    if (perform.arranging) {
      perform.scene = scene.id;
      perform.page = "scene";
    } else void stage.scene(scene.id);
  }
</script>

<div class="flex h-[46px] min-w-0 gap-1 overflow-x-auto" role="group" aria-label="Scenes">
  {#each scenes as scene, i (scene.id)}
    {@const picture = perform.picture(scene.id)}
    <button
      class={[
        "bg-raised relative h-[44px] w-[118px] shrink-0 cursor-pointer rounded-[3px] border text-left",
        waiting === scene.id
          ? "border-signal border-dashed"
          : "border-line-strong hover:border-ink",
        on === scene.id && "border-b-ink! border-b-[3px]!",
        perform.arranging && perform.scene === scene.id && "border-ink! border-2",
      ]}
      aria-current={on === scene.id}
      aria-label="Scene {scene.name}{i < 9 ? ` ${i + 1}` : ''}"
      data-help={perform.arranging
        ? `Write the scene “${scene.name}”.`
        : `Scene “${scene.name}”: ${scene.values.length} values at once, from the moment that “apply at” says.${i < 9 ? ` Key ${i + 1}.` : ""}`}
      onclick={() => press(scene)}
    >
      <span class="absolute top-[2px] left-[6px] max-w-[88px] truncate text-[12px]"
        >{scene.name}</span
      >
      <svg width="116" height="42" class="absolute top-0 left-0 block" aria-hidden="true">
        {#if i < 9}<text
            x="109"
            y="13"
            text-anchor="end"
            font-size="11"
            class="font-mono"
            fill="var(--ink-2)">{i + 1}</text
          >{/if}
        {#if picture}
          <g transform="translate(0 16)">
            <NoteLines
              notes={picture.notes}
              x={(at) => 5 + (at / picture.length) * 104}
              height={18}
              thickness={1.6}
              minWidth={1.5}
              opacity={0.6}
            />
          </g>
        {/if}
      </svg>
    </button>
  {/each}
  {#if scenes.length === 0 && !perform.arranging}
    <p class="text-ink-2 self-center">No scenes yet: press “arrange” to keep what plays as one.</p>
  {/if}
</div>
