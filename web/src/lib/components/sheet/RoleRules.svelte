<!-- @component Rules that change notes by what they are in their chord. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { RoleRule } from "../../api/types";
  import { getSession } from "../../state/context";
  import { changed } from "../../state/movers.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";

  interface Props {
    rules: RoleRule[];
    /** Makes other rules of those that there are. */
    set: (made: (rules: RoleRule[]) => RoleRule[]) => Promise<void>;
  }
  let { rules, set }: Props = $props();

  const session = getSession();
  const most = 8;
  const change = (i: number, to: Partial<RoleRule> | undefined) =>
    set((now) => changed(now, i, to));
</script>

{#each rules as rule, i (i)}
  <div class="border-line border-b pb-1" role="group" aria-label="Rule {i + 1}">
    <ChoiceRow
      label="every"
      name="Role of rule {i + 1}"
      help="Which notes of the chord the rule changes, by how the chord is spelled."
      value={rule.role}
      choices={session.lists.chordRoles.map((role) => ({ value: role, label: role }))}
      select={(role) => change(i, { role: role as RoleRule["role"] })}
    />
    <NumberRow
      label="moves by"
      name="Semitones of rule {i + 1}"
      help="By how many semitones it moves them."
      unit="semitones"
      value={rule.semitones}
      {...bounds.RoleRule.semitones}
      commit={(semitones) => change(i, { semitones })}
    />
    <NumberRow
      label="odds"
      name="Odds of rule {i + 1}"
      help="How often it does."
      unit="%"
      value={rule.odds}
      {...bounds.RoleRule.odds}
      commit={(odds) => change(i, { odds })}
    />
    <button class="control" aria-label="Remove rule {i + 1}" onclick={() => change(i, undefined)}
      >remove</button
    >
  </div>
{/each}
<button
  class="control my-0.5 w-full"
  data-help="Changes some notes of the chord now and then, as a fifth to a sixth."
  disabled={rules.length >= most}
  onclick={() => set((now) => [...now, { role: "fifth", semitones: 2, odds: 25 }])}>+ rule</button
>
