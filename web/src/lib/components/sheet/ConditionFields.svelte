<!-- @component When gate steps may sound: a sentence of up to three terms. -->
<script lang="ts">
  import { openByArrows } from "../../input/openByArrows";
  import { readCondition, writeCondition, type Sentence, type Term } from "../../chart/conditions";
  import { getSession } from "../../state/context";
  import FieldRow from "../fields/FieldRow.svelte";
  import NumberField from "../fields/NumberField.svelte";

  interface Props {
    condition: string;
    /** Whether the selected steps have different ones. */
    mixed: boolean;
    /** The condition as a sentence. */
    words: string;
    /** Makes another condition of the one that there is. */
    commit: (made: (condition: string) => string) => Promise<void>;
  }
  let { condition, mixed, words, commit }: Props = $props();

  const session = getSession();
  const { terms, maxTerms } = $derived(session.lists);
  const none: Sentence = { terms: [], or: false };
  const sentence = $derived(mixed ? none : readCondition(condition, terms));
  const tracks = $derived(session.project.tracks);
  const another = $derived(tracks.find((t) => t.id !== session.track.id) ?? session.track);
  /** What a term can be about. */
  const named = $derived<Record<string, { id: number; name: string }[]>>({
    track: tracks,
    section: session.project.song ?? [],
    scene: session.project.scenes ?? [],
  });
  /** The terms that can be added: there may be no section or scene yet. */
  const offered = $derived(terms.filter(({ of }) => !of || (named[of] ?? []).length > 0));

  function newTerm(label: string): Term | undefined {
    const kind = terms.find((k) => k.label === label);
    const of = kind?.of === "track" ? another : named[kind?.of ?? ""]?.[0];
    return kind && { not: false, kind, numbers: kind.usual, of: of?.id };
  }

  function rewrite(made: (now: Sentence) => Sentence): Promise<void> {
    const [anew, kinds] = [mixed, terms];
    return commit((now) => writeCondition(made(anew ? none : readCondition(now, kinds))));
  }

  function change(at: number, made: (now: Term) => Term): Promise<void> {
    return rewrite((now) => ({
      ...now,
      terms: now.terms.map((term, i) => (i === at ? made(term) : term)),
    }));
  }

  /** Sets a number of a term; the bounds of a range stay in order. */
  function setNumber(at: number, place: number, value: number): Promise<void> {
    return change(at, (term) => ({
      ...term,
      numbers: term.numbers.map((n, i) =>
        i === place || (i < place ? n > value : n < value) ? value : n,
      ),
    }));
  }
</script>

<FieldRow label="sounds" help="When the step may sound, besides its probability.">
  {#if mixed}<span class="text-ink-2">different ones</span>
  {:else if sentence.terms.length === 0}<span class="text-ink-2">always</span>{/if}
  {#if sentence.terms.length > 1}
    <select
      class="control"
      aria-label="How the terms are joined"
      value={sentence.or ? "or" : "and"}
      onchange={({ currentTarget: { value } }) =>
        rewrite((now) => ({ ...now, or: value === "or" }))}
    >
      <option value="and">if all hold</option>
      <option value="or">if one holds</option>
    </select>
  {/if}
</FieldRow>
{#each sentence.terms as term, at (at)}
  <div
    class="flex flex-wrap items-center justify-end gap-1 pb-1"
    role="group"
    aria-label="Term {at + 1}"
  >
    <button
      class="control px-1!"
      aria-pressed={term.not}
      data-help="Turn the term around."
      onclick={() => change(at, (now) => ({ ...now, not: !term.not }))}>not</button
    >
    <select
      class="control max-w-[158px]"
      aria-label="What the term says"
      value={term.kind.label}
      onchange={(event) => {
        const next = newTerm(event.currentTarget.value);
        if (next) void change(at, ({ not }) => ({ ...next, not }));
      }}
    >
      {#each offered.includes(term.kind) ? offered : terms as { form, label } (form)}<option
          value={label}>{label}</option
        >{/each}
    </select>
    <button
      class="control px-1!"
      aria-label="Take term {at + 1} out"
      onclick={() => rewrite((now) => ({ ...now, terms: now.terms.toSpliced(at, 1) }))}>×</button
    >
    {#if term.of !== undefined && term.kind.of}
      {@const choices = named[term.kind.of] ?? []}
      <select
        class="control max-w-[110px]"
        aria-label="Which {term.kind.of}"
        value={String(term.of)}
        onchange={({ currentTarget: { value } }) =>
          change(at, (now) => ({ ...now, of: Number(value) }))}
      >
        {#if !choices.some(({ id }) => id === term.of)}
          <option value={String(term.of)}>one that is gone</option>
        {/if}
        {#each choices as { id, name } (id)}<option value={String(id)}>{name}</option>{/each}
      </select>
    {/if}
    {#each term.kind.numbers as number, place (place)}
      <NumberField
        label={number.label}
        value={term.numbers[place] ?? number.min}
        min={number.min}
        max={number.max}
        width="2ch"
        commit={(value) => setNumber(at, place, value)}
      />
    {/each}
  </div>
{/each}
{#if sentence.terms.length > 0}
  <p class="caption pb-1 text-right">{words}</p>
{/if}
{#if sentence.terms.length < maxTerms}
  <FieldRow label="" help="Add a term to the condition.">
    <select
      class="control max-w-[150px]"
      aria-label="Add a term"
      {@attach openByArrows}
      value=""
      onchange={(event) => {
        const term = newTerm(event.currentTarget.value);
        event.currentTarget.value = "";
        if (term) void rewrite((now) => ({ ...now, terms: [...now.terms, term] }));
      }}
    >
      <option value="">+ only if</option>
      {#each offered as { form, label } (form)}<option value={label}>{label}</option>{/each}
    </select>
  </FieldRow>
{/if}
