<!-- @component Writing new random values into steps that are not locked, from a number that is seen; recipes are kept. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { counted } from "../../counted";
  import type { RollRequest } from "../../api/types";
  import { randomLuck } from "../../state/luck";
  import { getChartView, getSession } from "../../state/context";
  import type { RollSettings } from "../../state/roller.svelte";
  import ChoiceRow from "../fields/ChoiceRow.svelte";
  import NumberRow from "../fields/NumberRow.svelte";
  import Recipes from "./Recipes.svelte";

  const session = getSession();
  const view = getChartView();
  const { roller } = view;
  const name = $derived(view.cursor.lane);
  const spec = $derived(session.spec(name));
  const settings = $derived(roller.settings);
  const steps = $derived(view.selected[name] ?? []);
  const scopes = $derived([
    {
      value: "lane",
      label:
        steps.length > 0
          ? `${counted(steps.length, "step")} of ${spec.label}`
          : `lane ${spec.label}`,
    },
    { value: "part", label: "all lanes of the part" },
    { value: "track", label: "all lanes of the track" },
    { value: "all", label: "all tracks" },
  ]);

  async function set(change: Partial<RollSettings>): Promise<void> {
    roller.set(change);
  }
</script>

<p class="caption pb-1">
  New values for the steps that are not locked, as one edit. {spec.help}
</p>
<ChoiceRow
  label="what"
  name="Roll what"
  help="How far the roll goes. Beyond one lane, each lane keeps to the range that it has."
  value={roller.scope}
  choices={scopes}
  select={(value) => (roller.scope = value as RollRequest["scope"])}
/>
{#if roller.scope === "lane" && !spec.leads}
  <NumberRow
    label="min"
    name="Roll lowest"
    help="The lowest value. Pitches are allowed notes of the key."
    value={settings.lowest}
    min={spec.least}
    max={settings.highest}
    commit={(lowest) => set({ lowest })}
  />
  <NumberRow
    label="max"
    name="Roll highest"
    help="The highest value."
    value={settings.highest}
    min={settings.lowest}
    max={spec.most}
    commit={(highest) => set({ highest })}
  />
{/if}
<NumberRow
  label="density"
  name="Roll density"
  help="How many steps get a new value; in a gate lane, how many are on."
  unit="%"
  value={settings.density}
  {...bounds.RollRequest.density}
  commit={(density) => set({ density })}
/>
<NumberRow
  label="lean"
  name="Roll lean"
  help="Where in the range the values tend to land: −100 the lowest, 100 the highest."
  value={settings.lean}
  {...bounds.RollRequest.lean}
  usual={0}
  commit={(lean) => set({ lean })}
/>
<NumberRow
  label="luck of the roll"
  help="The number from which the values follow: the same rolls the same."
  value={roller.luck}
  {...bounds.RollRequest.luck}
  width="7ch"
  commit={async (number) => {
    roller.luck = number;
  }}
/>
<div class="flex gap-1 py-1">
  <button
    class="control bg-ink! text-paper! flex-1 font-semibold"
    data-help="Roll with a new luck."
    onclick={() => roller.roll(randomLuck())}>roll</button
  >
  <button
    class="control"
    data-help="Roll again with the luck above, on the steps as they are."
    onclick={() => roller.roll(roller.luck)}>with this luck</button
  >
</div>
<Recipes />
