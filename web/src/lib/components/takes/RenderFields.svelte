<!-- @component A take of bars that nobody has to wait for: computed, not played. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { RenderProgress } from "../../api/types";
  import { getSession } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";

  const session = getSession();

  let from = $state(1);
  let bars = $state(64);
  let done = $state<number>();
  let abort = new AbortController();

  async function render(): Promise<void> {
    abort = new AbortController();
    done = 0;
    await session.shelf.render({ from, bars }, abort.signal, ({ done: now }: RenderProgress) => {
      done = now;
    });
    done = undefined;
  }
</script>

<div class="border-line border-t px-3 py-2" aria-label="Render" role="group">
  <div class="flex flex-wrap items-center gap-1">
    <span class="caption">from bar</span>
    <NumberField
      label="Render from bar"
      help="The first bar to render."
      value={from}
      {...bounds.RenderRequest.from}
      width="5ch"
      commit={async (value) => {
        from = value;
      }}
    />
    <NumberField
      label="Bars to render"
      help="How many bars to render."
      value={bars}
      {...bounds.RenderRequest.bars}
      width="4ch"
      commit={async (value) => {
        bars = value;
      }}
    />
    <span class="caption">bars</span>
  </div>
  {#if done === undefined}
    <button
      class="control mt-1 w-full"
      data-help="Render: a take of what the project plays, without playing it, under the present luck."
      onclick={render}>render a take</button
    >
  {:else}
    <div class="mt-1 flex items-center gap-2">
      <progress class="accent-ink h-2 min-w-0 flex-1" value={done} max={bars} aria-label="Rendered"
      ></progress>
      <button class="control" onclick={() => abort.abort()}>cancel</button>
    </div>
  {/if}
</div>
