<!-- @component The selected cells of a field, its travellers, the rules of their meetings, and its size, as numbers and names. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { getChartView, getSession } from "../../state/context";
  import NumberRow from "../fields/NumberRow.svelte";
  import Section from "../fields/Section.svelte";
  import CellFields from "./CellFields.svelte";
  import LayerFields from "./LayerFields.svelte";
  import RuleFields from "./RuleFields.svelte";
  import TravellerFields from "./TravellerFields.svelte";

  const session = getSession();
  const view = getChartView();
  const field = view.field;
  const selected = $derived(field.selected.length);
  const where = $derived(
    selected > 1
      ? `${selected} cells`
      : `column ${field.cursor.column + 1}, row ${field.cursor.row + 1}`,
  );
</script>

<Section title="cell" summary={where}><CellFields /></Section>
<Section title="travellers" summary={String(field.travellers.length)}><TravellerFields /></Section>
<Section title="meetings" summary={String(field.rules.length)}><RuleFields /></Section>
<Section title="kept by name" summary={String(session.project.fieldLayers?.length ?? 0)}
  ><LayerFields /></Section
>
<Section title="grid" summary="{field.field.columns} × {field.field.rows}">
  {#each ["columns", "rows"] as const as of (of)}
    <NumberRow
      label={of}
      name="{of} of the field"
      help="How many {of} the grid has. What lies outside is kept."
      value={field.field[of]}
      {...bounds.Field[of]}
      usual={8}
      commit={(count) => field.set({ [of]: count })}
    />
  {/each}
  {#each [{ of: "rows", at: field.cursor.row, key: "rowNotes" }, { of: "columns", at: field.cursor.column, key: "columnNotes" }] as const as { of, at, key } (of)}
    <NumberRow
      label="note of {of === 'rows' ? 'row' : 'column'} {at + 1}"
      help="The note that travellers sound which turn in this {of === 'rows'
        ? 'row, at the left or the right'
        : 'column, at the upper or the lower edge'}, and that of the layout “a note a {of === 'rows'
        ? 'row'
        : 'column'}”."
      {...view.degreeText}
      value={field.notesOf(of)[at] ?? 0}
      {...bounds.Cell.degree}
      commit={(degree) => field.set({ [key]: field.notesOf(of).with(at, degree) })}
    />
  {/each}
</Section>
