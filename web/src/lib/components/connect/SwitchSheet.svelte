<!-- @component What buttons, pedals, keys and programs that come in do, all in one list. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Switch } from "../../api/types";
  import { doings, switchDoes, switchWords } from "../../input/switches";
  import { getPlaying, getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  const session = getSession();
  const playing = getPlaying();
  const all = $derived(session.project.switches ?? []);
  let what = $state<NonNullable<Switch["do"]>>("keep");
  const learning = $derived(playing.learnsDoing(what));

  /** Puts others in the place of the switch at a place of the list. */
  function put(at: number, into: (s: Switch) => Switch[]): Promise<void> {
    return session.edit(() => ({
      setProject: {
        switches: (session.project.switches ?? []).flatMap((s, i) => (i === at ? into(s) : [s])),
      },
    }));
  }
  const set = (at: number, change: Partial<Switch>) => put(at, (s) => [{ ...s, ...change }]);
</script>

<h2 class="text-[15px] font-semibold">Switches</h2>
<p class="text-ink-2 pb-2">
  Keys, buttons, pedals and programs that come in and do something. Scenes, sections and patterns
  have theirs beside them, too.
</p>
<ChoiceRow
  label="add one to"
  name="What the new switch does"
  help="What the next button, pedal, key or program that comes in is to do."
  value={what}
  choices={doings.map(({ value, words }) => ({ value, label: words }))}
  select={(value) => (what = value as typeof what)}
/>
<button
  class="control w-full"
  aria-pressed={learning}
  data-help="Press this, then the button, pedal or key, or send the program."
  onclick={() => playing.learnDoing(what, what === "keep" ? 4 : 0)}
  >{learning ? "press it …" : "learn"}</button
>
{#each all as one, i (i)}
  <div class="border-line mt-2 border-t pt-1" role="group" aria-label="Switch {switchWords(one)}">
    <div class="flex items-center gap-1">
      <b class="min-w-0 flex-1 truncate font-semibold">{switchWords(one)}</b>
      <button
        class="control px-1!"
        aria-label="Take out {switchWords(one)}"
        onclick={() => put(i, () => [])}>×</button
      >
    </div>
    <p class="text-ink-2">{switchDoes(one)}</p>
    {#if one.do === "keep"}
      <NumberRow
        label="bars"
        name="Bars that are kept"
        help="How many of the last bars are kept as a take."
        value={one.value}
        min={1}
        max={bounds.KeepRequest.bars.max}
        commit={(value) => set(i, { value })}
      />
    {/if}
    {#if one.message !== "program"}
      <ChoiceRow
        label="pressed"
        name="How {switchWords(one)} is pressed"
        help="At once, for half a second, or twice within 0.3 s. Where one button has several, the press at once waits until it is known to be none of the others."
        value={one.press ?? ""}
        choices={[
          { value: "", label: "at once" },
          { value: "long", label: "long" },
          { value: "double", label: "twice" },
        ]}
        select={(press) => set(i, { press: press as Switch["press"] })}
      />
    {/if}
    {#if !one.do}
      <ChoiceRow
        label="then"
        name="What {switchWords(one)} does when it is released"
        help="The value stays; or goes when the switch is released; or each press sets it or takes it away."
        value={one.way ?? ""}
        choices={[
          { value: "", label: "stays" },
          { value: "momentary", label: "until released" },
          { value: "latching", label: "until pressed again" },
        ]}
        select={(way) => set(i, { way: way as Switch["way"] })}
      />
    {/if}
    {#if one.message === "control"}
      <button
        class="control my-0.5 w-full justify-start!"
        aria-pressed={one.inverted ?? false}
        aria-label="Inverted: {switchWords(one)}"
        data-help="Pressed when the controller comes down below 64, as some pedals are wired."
        onclick={() => set(i, { inverted: !one.inverted })}>inverted</button
      >
    {/if}
  </div>
{/each}
