<script setup lang="ts">
/** The colours to mix: each by name, mixed by hand, or blended of others by parts into shades and marbles. */
import { computed } from "vue";
import type { Colour } from "@/api/types";
import { mixed, unlike } from "@/drawing/tone";
import { useHandbook } from "@/kitchen/handbook";
import { colourFields, renameColour } from "@/order/colours";
import { useOrder } from "@/order/order";
import { newId } from "@/order/partIds";
import MeasureField from "@/ui/MeasureField.vue";
import TextField from "@/ui/TextField.vue";

const order = useOrder();
const handbook = useHandbook();
const SHADES = 3;
const design = computed(() => order.document?.design);
const colours = computed(() => design.value?.colours ?? []);
const most = computed(() => handbook.limit("colours").high);
const used = computed(() => {
  const steps = (design.value?.tiers ?? []).flatMap((tier) => colourFields(tier).map((field) => field.get()));
  return new Set([...steps, ...colours.value.flatMap((one) => one.parts.map((part) => part.colour))]);
});
const made = (name: string, hex: string): Colour => ({ id: newId(), name, hex, parts: [], marbled: false });

function unused(name: string): string {
  const names = new Set(colours.value.map((colour) => colour.name));
  let number = 1;
  while (names.has(`${name} ${number}`)) number += 1;
  return `${name} ${number}`;
}

function add(): void {
  const shown = colours.value.map((one) => one.hex);
  order.edit((draft) => void draft.design.colours.push(made(unused("colour"), unlike(shown))));
}

/** A colour renamed keeps its name everywhere it is asked for. */
function rename(index: number, name: string): void {
  order.edit((draft) => {
    const colour = draft.design.colours[index];
    if (!colour || !name) return;
    renameColour(draft.design, colour.name, name);
    colour.name = name;
  });
}

function alter(index: number, how: (colour: Colour) => void): void {
  order.edit((draft) => {
    const colour = draft.design.colours[index];
    if (colour) how(colour);
  });
}

/** What may be a part of a colour: the medium as it is, and every colour that is not itself made of this one. */
function choices(name: string): (string | null)[] {
  const within = (one: string): boolean => {
    const parts = colours.value.find((colour) => colour.name === one)?.parts ?? [];
    return one === name || parts.some((part) => part.colour != null && within(part.colour));
  };
  return [null, ...colours.value.map((colour) => colour.name).filter((one) => !within(one))];
}

function blend(index: number, name: string): void {
  const [first, second] = choices(name);
  if (second === undefined) return;
  alter(index, (colour) => {
    colour.parts = [
      { colour: first, parts: 1 },
      { colour: second, parts: 1 },
    ];
  });
}

function addPart(index: number, colour: Colour): void {
  const free = choices(colour.name).find(
    (one) => !colour.parts.some((part) => (part.colour ?? null) === one),
  );
  if (free !== undefined) alter(index, (draft) => void draft.parts.push({ colour: free, parts: 1 }));
}

/** Lighter shades of a colour, each with more of the uncoloured medium in it, shown between white and the colour. */
function addShades(colour: Colour): void {
  order.edit((draft) => {
    for (let step = 1; step <= SHADES && draft.design.colours.length < most.value; step += 1) {
      const name = `${colour.name}, shade ${step}`;
      if (draft.design.colours.some((one) => one.name === name)) continue;
      draft.design.colours.push({
        ...made(name, mixed("#FFFDF7", colour.hex, step / (SHADES + 1))),
        parts: [
          { colour: null, parts: SHADES + 1 - step },
          { colour: colour.name, parts: step },
        ],
      });
    }
  });
}
</script>

<template>
  <h3>Colours to mix</h3>
  <ul>
    <li v-for="(colour, index) in colours" :key="index">
      <div class="one">
        <input
          type="color"
          :value="colour.hex"
          :aria-label="`How ${colour.name} looks`"
          @change="
            alter(index, (draft) => (draft.hex = ($event.target as HTMLInputElement).value.toUpperCase()))
          "
        />
        <TextField
          :label="`Name of colour ${index + 1}`"
          :value="colour.name"
          :most="80"
          :pointer="`#/design/colours/${index}/name`"
          @change="(text) => rename(index, text)"
        />
        <button
          class="act"
          :aria-label="`Remove ${colour.name}`"
          :disabled="used.has(colour.name)"
          :title="used.has(colour.name) ? 'A step or another colour still asks for it' : undefined"
          @click="order.edit((draft) => draft.design.colours.splice(index, 1))"
        >
          ×
        </button>
      </div>
      <details :open="colour.parts.length > 0">
        <summary>{{ colour.parts.length ? "Blended by parts" : "Shades and blends" }}</summary>
        <div v-for="(part, at) in colour.parts" :key="at" class="part">
          <select
            :aria-label="`${colour.name}, part ${at + 1}`"
            :value="part.colour ?? ''"
            @change="
              alter(index, (draft) => {
                const one = draft.parts[at];
                if (one) one.colour = ($event.target as HTMLSelectElement).value || null;
              })
            "
          >
            <option v-for="one in choices(colour.name)" :key="one ?? ''" :value="one ?? ''">
              {{ one ?? "uncoloured" }}
            </option>
          </select>
          <MeasureField
            label="parts"
            limit="parts"
            :value="part.parts"
            :pointer="`#/design/colours/${index}/parts/${at}/colour`"
            @change="
              (value) =>
                alter(index, (draft) => {
                  const one = draft.parts[at];
                  if (one && value !== null) one.parts = value;
                })
            "
          />
          <button
            class="act"
            :aria-label="`${colour.name}: take out part ${at + 1}`"
            @click="
              alter(
                index,
                (draft) =>
                  (draft.parts = draft.parts.length > 2 ? draft.parts.filter((_, i) => i !== at) : []),
              )
            "
          >
            ×
          </button>
        </div>
        <template v-if="colour.parts.length">
          <label class="marbled">
            <input
              type="checkbox"
              :checked="colour.marbled"
              @change="alter(index, (draft) => (draft.marbled = ($event.target as HTMLInputElement).checked))"
            />
            marbled: kneaded only until it is streaked
          </label>
          <button class="act" @click="addPart(index, colour)">Another part</button>
        </template>
        <div v-else class="ways">
          <button class="act" :disabled="colours.length < 2" @click="blend(index, colour.name)">
            Blend it of others
          </button>
          <button class="act" :disabled="colours.length >= most" @click="addShades(colour)">
            Lighter shades of it
          </button>
        </div>
      </details>
    </li>
  </ul>
  <button class="act wide" :disabled="colours.length >= most" @click="add">Add a colour</button>
</template>

<style scoped>
li {
  padding: 6px 8px 0;
  border-bottom: 1px solid var(--rule);
}

.one {
  display: flex;
  align-items: center;
  gap: 8px;
}

.one > :nth-child(2) {
  flex: 1;
}

.one .act,
.part .act {
  width: 40px;
  padding: 0;
}

input[type="color"] {
  width: 44px;
  height: 40px;
  padding: 0;
  border: 1px solid var(--ink);
  background: none;
  cursor: pointer;
}

input[type="color"]::-webkit-color-swatch-wrapper {
  padding: 0;
}

input[type="color"]::-webkit-color-swatch {
  border: 0;
}

summary {
  min-height: 40px;
  padding-top: 8px;
  color: var(--soft);
  cursor: pointer;
}

.part {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 40px;
  gap: 8px;
  align-items: center;
}

select {
  min-width: 0;
  font: 600 17px var(--serif);
}

.marbled {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}

.marbled input {
  width: 22px;
  height: 22px;
  accent-color: var(--amber);
}

.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding-bottom: 8px;
}

details > .act {
  margin-bottom: 8px;
}

.wide {
  width: 100%;
}
</style>
