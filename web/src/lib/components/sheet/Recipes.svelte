<!-- @component How lanes were rolled, kept under names. -->
<script lang="ts">
  import type { Recipe } from "../../api/types";
  import { getChartView, getSession } from "../../state/context";
  import Section from "../fields/Section.svelte";

  const session = getSession();
  const view = getChartView();
  const { roller } = view;
  const recipes = $derived(session.project.recipes ?? []);
  let recipeName = $state("");

  function keep(): Promise<void> {
    const recipe: Recipe = { name: recipeName.trim(), lane: view.cursor.lane, ...roller.settings };
    recipeName = "";
    const others = recipes.filter((r) => r.name !== recipe.name);
    return session.edit({ setProject: { recipes: [...others, recipe] } });
  }
</script>

<Section title="recipes" summary={`${recipes.length}`}>
  {#each recipes as recipe (recipe.name)}
    <div class="flex items-center gap-1 py-0.5">
      <button
        class="control min-w-0 flex-1 justify-start! truncate"
        data-help="Roll {recipe.lane} from {recipe.lowest} to {recipe.highest}, density {recipe.density} %, lean {recipe.lean}."
        onclick={() => roller.use(recipe)}>{recipe.name}</button
      >
      <span class="caption">{recipe.lane}</span>
      <button
        class="control min-w-[22px]! px-0!"
        aria-label="Forget {recipe.name}"
        data-help="Forget the recipe. Undo brings it back."
        onclick={() =>
          session.edit({ setProject: { recipes: recipes.filter((r) => r !== recipe) } })}>×</button
      >
    </div>
  {/each}
  <form
    class="flex gap-1 py-1"
    onsubmit={(event) => {
      event.preventDefault();
      if (recipeName.trim()) void keep();
    }}
  >
    <input
      class="control min-w-0 flex-1"
      maxlength="60"
      autocomplete="off"
      placeholder="name"
      aria-label="Name of the recipe"
      bind:value={recipeName}
    />
    <button
      class="control"
      disabled={!recipeName.trim()}
      data-help="Keep the range, density and lean under this name.">keep</button
    >
  </form>
</Section>
