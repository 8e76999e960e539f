<script setup lang="ts">
/** A photograph to trace over: laid under the view, and made true to size by one length that is known in it. */
import { computed, ref, watch } from "vue";
import { answered, api, asIs, wordsOf } from "@/api/client";
import { apart, boundsOf, type Corner } from "@/base/polygon";
import { within } from "@/base/round";
import { useHandbook } from "@/kitchen/handbook";
import FileButton from "@/lenses/parts/FileButton.vue";
import { useCarving } from "@/order/carving";
import MeasureField from "@/ui/MeasureField.vue";

const handbook = useHandbook();
const { order, points, seen, picture, setPicture, ends } = useCarving();
const reading = ref("");
const wrong = ref("");

async function bring(file: File): Promise<void> {
  [wrong.value, reading.value] = ["", `Reading ${file.name} …`];
  try {
    const found = await answered(
      api.POST(
        "/api/picture",
        asIs(await file.arrayBuffer(), file.type === "image/png" ? "image/png" : "image/jpeg"),
      ),
    );
    // As wide as what is drawn, and with its foot: near enough to begin with.
    const { left, right, low } = boundsOf(points.value);
    setPicture({ jpeg: found.jpeg, wide_mm: Math.max(10, right - left), left_mm: left, low_mm: low });
    ends.value = null;
  } catch (error) {
    wrong.value = wordsOf(error, "The picture could not be sent just now. Try again.");
  } finally {
    reading.value = "";
  }
}

/** Mark a length: begun across the middle of the picture, from where its ends are dragged. */
function mark(): void {
  const under = picture.value;
  if (!under) return;
  const [middle, up] = [(under.left_mm ?? 0) + under.wide_mm / 2, (under.low_mm ?? 0) + under.wide_mm / 3];
  const quarter = under.wide_mm / 4;
  ends.value = [
    [middle - quarter, up],
    [middle + quarter, up],
  ];
}

const length = computed(() => (ends.value ? apart(...ends.value) : null));

/** Size the picture so that what is marked is so long; it grows about the middle of what is marked. */
function makeTrue(mm: number | null): void {
  const [under, marked, now] = [picture.value, ends.value, length.value];
  if (!mm || !under || !marked || !now) return;
  const { low, high } = handbook.limit("picture_mm");
  const wide_mm = within(low, (under.wide_mm * mm) / now, high);
  const by = wide_mm / under.wide_mm;
  const about: Corner = [(marked[0][0] + marked[1][0]) / 2, (marked[0][1] + marked[1][1]) / 2];
  const placed = (at: number, middle: number): number => middle + (at - middle) * by;
  setPicture({
    ...under,
    wide_mm,
    left_mm: placed(under.left_mm ?? 0, about[0]),
    low_mm: placed(under.low_mm ?? 0, about[1]),
  });
  const moved = ([x, y]: Corner): Corner => [placed(x, about[0]), placed(y, about[1])];
  ends.value = [moved(marked[0]), moved(marked[1])];
}
watch([seen, () => order.tier, () => order.id], () => (ends.value = null));
</script>

<template>
  <div class="same two">
    <FileButton
      :words="picture ? 'Another photograph' : 'Lay a photograph under it'"
      accept="image/jpeg,image/png"
      @file="bring"
    />
    <button v-if="picture" class="act" @click="setPicture(null)">Take it away</button>
  </div>
  <p v-if="reading" aria-live="polite">{{ reading }}</p>
  <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  <template v-if="picture">
    <div v-if="!ends" class="same">
      <button class="act" @click="mark">Mark a length you know</button>
    </div>
    <template v-else>
      <p class="soft">Drag both ends of the line to what you have measured, then say how long that is.</p>
      <div class="rows">
        <MeasureField label="That is" limit="picture_mm" :value="length" @change="makeTrue" />
      </div>
      <div class="same">
        <button class="act" @click="ends = null">Done</button>
      </div>
    </template>
  </template>
</template>
