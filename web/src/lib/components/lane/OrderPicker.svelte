<!--
@component
The order of a lane: shown as a picture of the walk, selected from the browser's own list, which lies
unseen over the picture.
-->
<script lang="ts">
  import type { Lane } from "../../api/types";
  import { getSession } from "../../state/context";
  import OrderPicture from "./OrderPicture.svelte";

  interface Props {
    lane: Lane;
    label: string;
    select: (order: string) => Promise<void>;
  }
  let { lane, label, select }: Props = $props();

  const session = getSession();
</script>

<span
  class="control focus-within:border-ink relative w-[38px] px-0!"
  data-help="Order in which the steps play: {lane.order}."
>
  <OrderPicture order={lane.order} path={lane.path} />
  <select
    class="absolute inset-0 h-full w-full cursor-pointer opacity-0"
    aria-label={label}
    value={lane.order}
    onchange={(event) => select(event.currentTarget.value)}
  >
    {#each session.lists.orders as { name, label } (name)}<option value={name}>{label}</option
      >{/each}
  </select>
</span>
