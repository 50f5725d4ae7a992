<!-- @component Where a mod lane goes: a controller and the like, between which values, and how it gets there. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { LaneName, Mod } from "../../api/types";
  import { getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  let { name }: { name: LaneName } = $props();

  const session = getSession();
  const place = $derived(session.spec(name).mod - 1);
  const mods = $derived(session.part.mods ?? []);
  const mod = $derived(mods[place]);
  const targets = $derived(session.lists.modTargets);
  const target = $derived(targets.find((t) => t.name === mod?.target));
  const most = $derived(target?.most ?? 127);
  const fresh: Mod = { target: "control", number: 74, least: 0, most: 127, glide: 0 };

  function set(change: Partial<Mod>): Promise<void> {
    const at = place;
    return session.setPart((now) => {
      // Lanes before this one that go nowhere yet need a place in the list too.
      const list = [...(now.mods ?? [])];
      const mod = { ...fresh, ...list[at], ...change };
      while (list.length <= at) list.push({ ...fresh, number: 70 + list.length });
      list[at] = mod;
      return { mods: list };
    });
  }

  function setTarget(name: string): void {
    const next = targets.find((t) => t.name === name);
    if (next) void set({ target: name as Mod["target"], least: 0, most: next.most });
  }
</script>

<ChoiceRow
  label="target"
  help="What the lane moves."
  value={mod?.target ?? ""}
  choices={[
    ...(mod ? [] : [{ value: "", label: "nowhere yet" }]),
    ...targets.map(({ name, label, help }) => ({ value: name, label, help })),
  ]}
  select={setTarget}
/>
{#if mod}
  {#if target?.numbered}
    <NumberRow
      label="controller"
      help="Number of the MIDI controller."
      value={mod.number}
      min={0}
      max={target.mostNumber}
      usual={Math.min(74, target.mostNumber)}
      commit={(number) => set({ number })}
    />
  {/if}
  <NumberRow
    label="min"
    help="What is sent at a lane value of 0; above the top it runs the other way."
    value={mod.least}
    min={0}
    max={most}
    usual={0}
    width="5ch"
    commit={(least) => set({ least })}
  />
  <NumberRow
    label="max"
    help="What is sent at a lane value of 127."
    value={mod.most}
    min={0}
    max={most}
    usual={most}
    width="5ch"
    commit={(value) => set({ most: value })}
  />
  <NumberRow
    label="glide"
    help="How long the way to a new value takes, in 16ths of a beat; 0 jumps."
    unit="/16 beat"
    value={Math.round((mod.glide * 16) / session.lists.ticksPerQuarter)}
    min={0}
    max={(bounds.Mod.glide.max * 16) / session.lists.ticksPerQuarter}
    usual={0}
    commit={(glide) => set({ glide: (glide * session.lists.ticksPerQuarter) / 16 })}
  />
{/if}
