<!-- @component When gate steps may sound, how long they last, and whether rolls pass them by. -->
<script lang="ts">
  import type { EditJSON, StepDetail } from "../../api/types";
  import { conditionWords, namedConditions, passesOf, trackOf } from "../../chart/conditions";
  import { getSession } from "../../state/context";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import FieldRow from "../fields/FieldRow.svelte";
  import NumberField from "../fields/NumberField.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  let { steps }: { steps: number[] } = $props();

  const session = getSession();
  const details = $derived(steps.map((step) => session.part.details?.[step] ?? {}));
  const detail: StepDetail = $derived(details[0] ?? {});
  const mixed = $derived(details.some((d) => (d.condition ?? "") !== (detail.condition ?? "")));
  const passes = $derived(passesOf(detail.condition ?? ""));
  const kind = $derived(
    mixed
      ? "mixed"
      : passes
        ? "passes"
        : trackOf(detail.condition ?? "")
          ? "track"
          : (detail.condition ?? ""),
  );
  const others = $derived(session.project.tracks.filter((t) => t.id !== session.track.id));
  const choices = $derived([
    ...(mixed ? [{ value: "mixed", words: "different ones" }] : []),
    ...namedConditions.map((value) => ({ value, words: conditionWords(value, []) })),
    { value: "passes", words: "on some passes" },
    ...others.map((t) => ({ value: `track ${t.id}`, words: `if ${t.name} sounded last` })),
  ]);

  function set(change: Partial<StepDetail>): Promise<void> {
    const edits: EditJSON[] = steps.map((step) => ({
      setDetail: {
        ...session.address,
        step,
        detail: { ...session.part.details?.[step], ...change },
      },
    }));
    return session.editAll("steps", edits);
  }

  function setKind(value: string): void {
    if (value !== "mixed") void set({ condition: value === "passes" ? "1:2" : value });
  }
</script>

<ChoiceRow
  label="sounds"
  name="Condition"
  help="When the step may sound, besides its probability."
  value={kind === "track" ? (detail.condition ?? "") : kind}
  {choices}
  choose={setKind}
/>
{#if passes && !mixed}
  <FieldRow
    label="on pass"
    help="Which pass of every so many: {conditionWords(detail.condition ?? '', [])}."
  >
    <NumberField
      label="Pass"
      value={passes.pass}
      min={1}
      max={passes.of}
      width="2ch"
      commit={(pass) => set({ condition: `${pass}:${passes.of}` })}
    />
    <span class="caption">of every</span>
    <NumberField
      label="Of every so many passes"
      value={passes.of}
      min={passes.pass}
      max={64}
      width="2ch"
      commit={(of) => set({ condition: `${passes.pass}:${of}` })}
    />
  </FieldRow>
  <p class="caption text-right">{conditionWords(detail.condition ?? "", [])}</p>
{/if}
<NumberRow
  label="stretch"
  help="How many step lengths the step lasts, 1 to 8."
  value={detail.stretch || 1}
  min={1}
  max={8}
  usual={1}
  commit={(stretch) => set({ stretch: stretch === 1 ? 0 : stretch })}
/>
{#if (detail.stretch ?? 0) > 1}
  <ChoiceRow
    label="struck"
    help="How a stretched step sounds: once and then rest, on each step length, or as one long note."
    value={detail.strike || "once"}
    choices={session.lists.strikes}
    choose={(strike) => set({ strike: strike as StepDetail["strike"] })}
  />
{/if}
<button
  class="control my-1 w-full"
  aria-pressed={detail.skip ?? false}
  data-help="Skip: the step is passed over in no time, and the loop is that much shorter."
  onclick={() => set({ skip: !detail.skip })}>skip</button
>
