<!-- @component The rules of a field: what a traveller does when it stands to another in some way. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { MeetingRule } from "../../api/types";
  import { getChartView, getSession } from "../../state/context";
  import { changed } from "../../state/movers.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  const session = getSession();
  const field = getChartView().field;
  const lists = $derived(session.lists.fields);

  const change = (i: number, to: Partial<MeetingRule> | undefined) =>
    field.set(({ rules = [] }) => ({ rules: changed(rules, i, to) }));

  /** The travellers to select from; one that a rule names and that is gone is still shown. */
  function travellers(id: number): { value: string; label: string }[] {
    const there = field.travellers.map((t) => ({ value: String(t.id), label: String(t.id) }));
    if (field.travellers.some((t) => t.id === id)) return there;
    return [{ value: String(id), label: `${id}, gone` }, ...there];
  }

  function add(): Promise<void> {
    const [a, b] = field.travellers;
    const rule: MeetingRule = {
      a: a?.id ?? 1,
      b: b?.id ?? 2,
      when: "cell",
      do: "sounds",
      odds: 100,
    };
    return field.set(({ rules = [] }) => ({ rules: [...rules, rule] }));
  }
</script>

{#each field.rules as rule, i (i)}
  <div class="border-line border-b pb-1">
    <ChoiceRow
      label="traveller"
      name="Traveller of rule {i + 1}"
      help="The one that does something; a rule about one that is gone does nothing."
      value={String(rule.a)}
      choices={travellers(rule.a)}
      select={(a) => change(i, { a: Number(a) })}
    />
    <ChoiceRow
      label="is"
      name="How it stands, rule {i + 1}"
      help="How it stands to the other. It is judged whenever one of them moves."
      value={rule.when}
      choices={lists.whens}
      select={(when) => change(i, { when: when as MeetingRule["when"] })}
    />
    {#if rule.when === "near"}
      <NumberRow
        label="cells apart"
        name="Cells apart, rule {i + 1}"
        help="How many cells apart they are at most."
        value={rule.distance ?? 0}
        {...bounds.MeetingRule.distance}
        usual={1}
        commit={(distance) => change(i, { distance })}
      />
    {/if}
    <ChoiceRow
      label="other"
      name="Other traveller of rule {i + 1}"
      help="The other one."
      value={String(rule.b)}
      choices={travellers(rule.b)}
      select={(b) => change(i, { b: Number(b) })}
    />
    <ChoiceRow
      label="then it"
      name="What it does, rule {i + 1}"
      help="What the first one does."
      value={rule.do}
      choices={lists.dos}
      select={(what) =>
        change(i, {
          do: what as MeetingRule["do"],
          ...(what === "rate" && !rule.rate ? { rate: "1/16" } : {}),
          ...(what === "letter" && !rule.letter ? { letter: "A" } : {}),
        })}
    />
    {#if rule.do === "letter"}
      <ChoiceRow
        label="letter"
        name="Letter of rule {i + 1}"
        help="To the first cell of this letter."
        value={rule.letter ?? "A"}
        choices={Array.from("ABCDEFGHIJKLMNOPQRSTUVWXYZ")}
        select={(letter) => change(i, { letter })}
      />
    {:else if rule.do === "rate"}
      <ChoiceRow
        label="rate"
        name="Rate of rule {i + 1}"
        help="The rate at which it moves from then on."
        value={rule.rate ?? "1/16"}
        choices={session.lists.rates.map(({ name }) => name)}
        select={(rate) => change(i, { rate })}
      />
    {:else if rule.do === "clock"}
      <ChoiceRow
        label="track"
        name="Track of rule {i + 1}"
        help="The track that advances by a step. Its clock source has to be the rules of this field."
        value={String(rule.track ?? 0)}
        choices={[
          { value: "0", label: "none" },
          ...session.project.tracks.map(({ id, name }) => ({ value: String(id), label: name })),
        ]}
        select={(track) => change(i, { track: Number(track) })}
      />
    {/if}
    <NumberRow
      label="odds"
      name="Odds of rule {i + 1}"
      help="How often, in percent."
      unit="%"
      value={rule.odds}
      {...bounds.MeetingRule.odds}
      usual={100}
      commit={(odds) => change(i, { odds })}
    />
    <button class="control" aria-label="Remove rule {i + 1}" onclick={() => change(i, undefined)}
      >remove</button
    >
  </div>
{/each}
<button
  class="control my-0.5 w-full"
  disabled={field.rules.length >= 16}
  data-help="Something that a traveller does when it stands to another in some way."
  onclick={add}>+ rule</button
>
