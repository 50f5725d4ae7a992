<!--
@component
The order of a lane: shown as a picture of the walk, chosen from the browser's own list, which lies
unseen over the picture.
-->
<script lang="ts">
  import { getSession } from "../../state/context";

  interface Props {
    order: string;
    label: string;
    choose: (order: string) => Promise<void>;
  }
  let { order, label, choose }: Props = $props();

  const session = getSession();

  /** Heights of five steps of the walk, from which its line is drawn. */
  const walks: Record<string, number[]> = {
    forward: [9, 7, 5, 3, 1],
    backward: [1, 3, 5, 7, 9],
    "there and back": [9, 5, 1, 5, 9],
    "there and back twice": [9, 1, 1, 9, 9],
    random: [4, 9, 1, 7, 2],
    shuffle: [5, 1, 9, 3, 7],
    drift: [6, 8, 6, 4, 5],
    path: [9, 2, 6, 2, 4],
  };
  const points = $derived((walks[order] ?? []).map((y, i) => `${2 + i * 6},${y + 1}`));
</script>

<span
  class="control focus-within:border-ink relative w-[38px] px-0!"
  data-help="Order in which the steps are walked: {order}."
>
  <svg width="28" height="12" fill="none" stroke="currentColor" aria-hidden="true">
    <polyline points={points.join(" ")} stroke-opacity="0.5" />
    {#each points as point (point)}
      {@const [x, y] = point.split(",")}
      <circle cx={x} cy={y} r="1.6" fill="currentColor" stroke="none" />
    {/each}
  </svg>
  <select
    class="absolute inset-0 h-full w-full cursor-pointer opacity-0"
    aria-label={label}
    value={order}
    onchange={(event) => choose(event.currentTarget.value)}
  >
    {#each session.lists.orders as name (name)}<option>{name}</option>{/each}
  </select>
</span>
