<!-- @component Keeps what is written, by a name: the lane of the cursor, its part, its pattern, or what is set of the key, the weights or the roll. -->
<script lang="ts">
  import { getChartView, getSession } from "../../state/context";
  import type { ListedPreset } from "../../api/types";
  import type { Presets } from "../../state/presets.svelte";

  let { presets }: { presets: Presets } = $props();

  const session = getSession();
  const view = getChartView();
  const ofFields = new Set(session.lists.fields.layers.map(({ value }) => value));
  const kit = $derived(session.track.kind === "kit");
  const kinds = $derived(
    session.lists.presetKinds.filter(
      ({ value }) =>
        value !== (kit ? "pattern" : "kit") &&
        (session.track.kind === "field" || !ofFields.has(value)),
    ),
  );
  let selected = $state("");
  const kind = $derived(
    kinds.some(({ value }) => value === selected) ? selected : kit ? "kit" : "pattern",
  );
  let name = $state("");
  const about = $derived(kinds.find(({ value }) => value === kind)?.help ?? "");
  const ofLane = $derived(["lane", "weights", "roll"].some((one) => one === kind));
  const ofProject = $derived(["scale", "tuning"].some((one) => one === kind));
  const where = $derived(
    ofProject
      ? session.project.name
      : [
          session.track.name,
          kit && kind !== "kit" && session.part.name,
          ofLane && session.spec(view.cursor.lane).label,
        ]
          .filter(Boolean)
          .join(", "),
  );

  async function keep(): Promise<void> {
    await presets.keep(kind as ListedPreset["kind"], name.trim());
    name = "";
  }
</script>

<form
  class="ml-auto flex flex-wrap items-center gap-1.5"
  onsubmit={(event) => {
    event.preventDefault();
    void keep();
  }}
>
  <select
    class="control"
    aria-label="What to keep"
    data-help={about}
    value={kind}
    onchange={(event) => (selected = event.currentTarget.value)}
  >
    {#each kinds as one (one.value)}<option value={one.value}>{one.label}</option>{/each}
  </select>
  <span class="caption max-w-[220px] truncate" title={where}>of {where} as</span>
  <input
    class="control w-[150px] justify-start! text-left!"
    aria-label="Name of the preset"
    data-help="The name by which it is kept. One of its kind that has the name is replaced."
    placeholder="name"
    maxlength="60"
    autocomplete="off"
    bind:value={name}
  />
  <button class="control" disabled={!name.trim()} data-help="Keep it for other projects."
    >keep</button
  >
</form>
