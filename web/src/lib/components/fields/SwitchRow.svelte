<!-- @component Which notes, controllers and programs that come in do something, as a scene; learned by playing them. -->
<script lang="ts">
  import type { Control, Switch } from "../../api/types";
  import { switchWords } from "../../input/switches";
  import { getPlaying, getSession } from "../../state/context";
  import FieldRow from "./FieldRow.svelte";

  interface Props {
    /** What is switched on, in a few words. */
    name: string;
    control: Control;
    value: number;
  }
  let { name, control, value }: Props = $props();

  const session = getSession();
  const playing = getPlaying();
  const moments = { now: "now", step: "step", beat: "beat", bar: "bar", pattern: "pattern end" };
  const all = $derived(session.project.switches ?? []);
  const own = $derived(all.filter(isOwn));
  const learning = $derived(playing.learnsSwitch(control, value));

  function isOwn(one: Switch): boolean {
    return (
      one.value === value &&
      one.control.name === control.name &&
      (one.control.track ?? 0) === (control.track ?? 0)
    );
  }

  function change(of: Switch, into: (s: Switch) => Switch[]): Promise<void> {
    return session.edit(() => ({
      setProject: {
        switches: (session.project.switches ?? []).flatMap((s) =>
          JSON.stringify(s) === JSON.stringify(of) ? into(s) : [s],
        ),
      },
    }));
  }
</script>

<FieldRow
  label="switched by"
  help="Notes, controllers and programs that come in and have “{name}” play: press learn, then the key, pad or pedal."
>
  <button
    class="control"
    aria-label="Learn a switch of {name}"
    aria-pressed={learning}
    disabled={all.length >= 256}
    onclick={() => playing.learnSwitch(control, value)}>{learning ? "play it …" : "learn"}</button
  >
</FieldRow>
{#each own as one, i (i)}
  <div class="flex items-center justify-end gap-1 pb-1">
    <span class="min-w-0 flex-1 truncate text-right text-[12px]">{switchWords(one)}</span>
    <select
      class="control"
      aria-label="When {switchWords(one)} counts"
      value={one.when}
      onchange={(event) => {
        const when = event.currentTarget.value as Switch["when"];
        void change(one, (s) => [{ ...s, when }]);
      }}
    >
      {#each Object.entries(moments) as [moment, words] (moment)}
        <option value={moment}>{words}</option>
      {/each}
    </select>
    <button
      class="control px-1!"
      aria-label="Take out {switchWords(one)}"
      onclick={() => change(one, () => [])}>×</button
    >
  </div>
{/each}
