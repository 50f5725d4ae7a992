<!-- @component Undo, redo, and the list of edits. -->
<script lang="ts">
  import { getSession } from "../../state/context";
  import { ListOutline, RedoOutline, UndoOutline } from "./icons";

  let { open }: { open: (dialog: "history") => void } = $props();

  const session = getSession();
</script>

<button
  class="control"
  aria-label={session.snapshot.undo ? `Undo ${session.snapshot.undo}` : "Undo"}
  data-help={session.snapshot.undo
    ? `Undo: ${session.snapshot.undo}. Ctrl+Z`
    : "There is nothing to undo."}
  disabled={!session.snapshot.undo}
  onclick={() => session.undo()}><UndoOutline class="h-4 w-4" /></button
>
<button
  class="control"
  aria-label={session.snapshot.redo ? `Redo ${session.snapshot.redo}` : "Redo"}
  data-help={session.snapshot.redo
    ? `Redo: ${session.snapshot.redo}. Ctrl+Shift+Z`
    : "There is nothing to redo."}
  disabled={!session.snapshot.redo}
  onclick={() => session.redo()}><RedoOutline class="h-4 w-4" /></button
>
<button
  class="control"
  aria-label="History"
  data-help="All edits by name; go back to any of them."
  onclick={() => open("history")}><ListOutline class="h-4 w-4" /></button
>
