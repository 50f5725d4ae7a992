<!-- @component What tracks send as the curve of a modulator goes. -->
<script lang="ts">
  import type { Modulator, ModulatorSend, Track } from "../../api/types";
  import { getSession } from "../../state/context";
  import { changed } from "../../state/movers.svelte";
  import type { ChangeOf } from "../../state/selection.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import Section from "../fields/Section.svelte";

  interface Props {
    modulator: Modulator;
    tracks: readonly Track[];
    set: (change: ChangeOf<Modulator, Partial<Modulator>>) => Promise<void>;
  }
  let { modulator, tracks, set }: Props = $props();

  const session = getSession();
  const sends = $derived(modulator.sends ?? []);
  const targets = $derived(session.lists.modTargets.filter(({ name }) => name !== "program"));
  const spec = (send: ModulatorSend) => targets.find(({ name }) => name === send.target);
  const change = (i: number, to: Partial<ModulatorSend> | undefined) =>
    set((now) => ({ sends: changed(now.sends ?? [], i, to) }));
</script>

<Section title="Sends" summary={sends.length > 0 ? String(sends.length) : "nothing"}>
  {#each sends as send, i (i)}
    <div class="border-line border-b pb-1" role="group" aria-label="Sending {i + 1}">
      <ChoiceRow
        label="by"
        name="Track of sending {i + 1}"
        help="The track whose outputs get it. A channel of voltages has it as mod lane 9, or the next ones."
        value={String(send.track)}
        choices={tracks.map(({ id, name }) => ({ value: String(id), label: name }))}
        select={(track) => change(i, { track: Number(track) })}
      />
      <ChoiceRow
        label="as"
        name="Message of sending {i + 1}"
        help="The message by which it is sent."
        value={send.target}
        choices={targets.map(({ name, label, help }) => ({ value: name, label, help }))}
        select={(target) => {
          const most = targets.find(({ name }) => name === target)?.most ?? 127;
          void change(i, { target: target as ModulatorSend["target"], number: 1, least: 0, most });
        }}
      />
      {#if spec(send)?.numbered}
        <NumberRow
          label="number"
          name="Number of sending {i + 1}"
          help="The number of the controller."
          value={send.number}
          min={0}
          max={spec(send)?.mostNumber ?? 0}
          commit={(number) => change(i, { number })}
        />
      {/if}
      {#each ["least", "most"] as const as end (end)}
        <NumberRow
          label={end === "least" ? "lowest" : "highest"}
          name="{end === 'least' ? 'Lowest' : 'Highest'} of sending {i + 1}"
          help="What it sends where the curve is {end === 'least' ? 'lowest' : 'highest'}{end ===
          'least'
            ? ', or where what drives it is at nothing'
            : ''}."
          value={send[end]}
          min={0}
          max={spec(send)?.most ?? 127}
          commit={(value) => change(i, { [end]: value })}
        />
      {/each}
      <button
        class="control"
        aria-label="Take out sending {i + 1}"
        onclick={() => change(i, undefined)}>remove</button
      >
    </div>
  {/each}
  <button
    class="control my-1"
    aria-label="Add a sending"
    disabled={sends.length >= 7}
    data-help="Have a track send the curve as a controller, the pitch bend or the pressure."
    onclick={() =>
      set((now) => ({
        sends: [
          ...(now.sends ?? []),
          {
            track: tracks[0]?.id ?? 1,
            target: "control",
            number: 74,
            least: 0,
            most: 127,
            glide: 0,
          },
        ],
      }))}>+ sending</button
  >
</Section>
