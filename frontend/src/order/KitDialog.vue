<script setup lang="ts">
/** What the kitchen owns: the sizes of its tins, discs, boards and scrapers, its mat, pin and sheets. */
import { computed, ref, watch } from "vue";
import type { Kit } from "@/api/types";
import { useKit } from "@/shared/kit";
import MeasureField from "@/shared/MeasureField.vue";
import { useSettings } from "@/shared/settings";
import { parseLength, UnitError } from "@/shared/units";
import { useHandbook } from "@/shared/handbook";
import { useOrder } from "./order";

type Sizes = "discs_mm" | "boards_mm" | "scrapers_mm";

const open = defineModel<boolean>({ required: true });
const shelf = useKit();
const order = useOrder();
const settings = useSettings();
const handbook = useHandbook();
const kit = computed(() => shelf.kit);
const typed = ref<Record<string, string>>({});
const wrong = ref<Record<string, string>>({});
const tinShape = ref<Kit["tins"][number]["shape"]>("round");
const LISTS: readonly { name: Sizes; words: string; one: string; limit: string }[] = [
  { name: "discs_mm", words: "Discs, across", one: "disc", limit: "disc_diameter_mm" },
  { name: "boards_mm", words: "Boards, across", one: "board", limit: "board_diameter_mm" },
  { name: "scrapers_mm", words: "Scrapers, tall", one: "scraper", limit: "scraper_mm" },
];
const TIN_SHAPES = ["round", "square", "rectangle", "polygon", "oval", "heart", "petal", "ball"] as const;

watch(open, (now) => {
  if (now) void shelf.open();
});

async function alter(how: (kit: Kit) => void): Promise<void> {
  if (!kit.value) return;
  const next = structuredClone(kit.value);
  how(next);
  await shelf.save(next);
  await order.replan();
}

const words = (mm: number): string => settings.words({ value: mm, unit: "mm" });

/** A size typed into the field of a list, or a sentence beside it that says what would be accepted. */
function read(list: string, limit: string, owned: readonly number[]): number | null {
  wrong.value = { ...wrong.value, [list]: "" };
  try {
    const value = Math.round(parseLength(typed.value[list] ?? "", settings.length) * 100) / 100;
    const { low, high } = handbook.limit(limit);
    if (value < low || value > high) throw new UnitError(`Type ${words(low)} to ${words(high)}.`);
    if (owned.some((one) => Math.abs(one - value) < 0.05)) throw new UnitError("That one is listed already.");
    typed.value = { ...typed.value, [list]: "" };
    return value;
  } catch (error) {
    if (!(error instanceof UnitError)) throw error;
    wrong.value = { ...wrong.value, [list]: error.message };
    return null;
  }
}

function add(list: Sizes, limit: string): void {
  const value = read(list, limit, kit.value?.[list] ?? []);
  if (value !== null) void alter((kit) => (kit[list] = [...kit[list], value].sort((a, b) => a - b)));
}

function addTin(): void {
  const shape = tinShape.value;
  const owned = (kit.value?.tins ?? []).filter((tin) => tin.shape === shape).map((tin) => tin.across_mm);
  const across_mm = read("tins", "tin_diameter_mm", owned);
  if (across_mm === null) return;
  const depth_mm = shape === "ball" ? across_mm / 2 : 50.8;
  void alter((kit) => void kit.tins.push({ shape, across_mm, depth_mm: Math.max(20, depth_mm) }));
}

function addSheet(): void {
  const width_mm = read("sheets", "sheet_side_mm", []);
  if (width_mm === null) return;
  const name = `Sheet ${(kit.value?.sheets.length ?? 0) + 1}`;
  void alter((kit) => void kit.sheets.push({ name, width_mm, height_mm: 203.2 }));
}
</script>

<template>
  <ElDialog v-model="open" title="What you own" width="640">
    <p v-if="shelf.trouble" role="alert" class="wrong">{{ shelf.trouble }}</p>
    <div v-if="kit" class="kit">
      <section>
        <h3>Tins</h3>
        <ul>
          <li v-for="(tin, index) in kit.tins" :key="index">
            {{ words(tin.across_mm) }} {{ tin.shape
            }}<button
              class="act"
              :aria-label="`Remove the ${words(tin.across_mm)} ${tin.shape} tin`"
              @click="alter((kit) => kit.tins.splice(index, 1))"
            >
              ×
            </button>
          </li>
        </ul>
        <form @submit.prevent="addTin">
          <input v-model="typed.tins" type="text" aria-label="Another tin, across" placeholder="across" />
          <select v-model="tinShape" aria-label="Another tin: shape">
            <option v-for="shape in TIN_SHAPES" :key="shape" :value="shape">{{ shape }}</option>
          </select>
          <button class="act">Add a tin</button>
        </form>
        <p v-if="wrong.tins" class="wrong" role="alert">{{ wrong.tins }}</p>
      </section>
      <section v-for="list in LISTS" :key="list.name">
        <h3>{{ list.words }}</h3>
        <ul>
          <li v-for="(one, index) in kit[list.name]" :key="one">
            {{ words(one)
            }}<button
              class="act"
              :aria-label="`Remove the ${words(one)} ${list.one}`"
              @click="alter((kit) => kit[list.name].splice(index, 1))"
            >
              ×
            </button>
          </li>
        </ul>
        <form @submit.prevent="add(list.name, list.limit)">
          <input
            v-model="typed[list.name]"
            type="text"
            :aria-label="`Another ${list.one}`"
            placeholder="size"
          />
          <button class="act">Add a {{ list.one }}</button>
        </form>
        <p v-if="wrong[list.name]" class="wrong" role="alert">{{ wrong[list.name] }}</p>
      </section>
      <section>
        <h3>Printed sheets</h3>
        <ul>
          <li v-for="(sheet, index) in kit.sheets" :key="index">
            {{ words(sheet.width_mm) }} × {{ words(sheet.height_mm)
            }}<button
              class="act"
              :aria-label="`Remove the sheet ${sheet.name}`"
              @click="alter((kit) => kit.sheets.splice(index, 1))"
            >
              ×
            </button>
          </li>
        </ul>
        <form @submit.prevent="addSheet">
          <input v-model="typed.sheets" type="text" aria-label="Another sheet, wide" placeholder="wide" />
          <button class="act">Add a sheet</button>
        </form>
        <p v-if="wrong.sheets" class="wrong" role="alert">{{ wrong.sheets }}</p>
        <div class="rows">
          <MeasureField
            v-for="(sheet, index) in kit.sheets"
            :key="index"
            :label="`${sheet.name}, high`"
            :value="sheet.height_mm"
            limit="sheet_side_mm"
            @change="(value) => value !== null && alter((kit) => (kit.sheets[index]!.height_mm = value))"
          />
        </div>
      </section>
      <section>
        <h3>Mat, pin and smoothers</h3>
        <div class="rows">
          <MeasureField
            label="Mat, wide"
            :value="kit.mat.width_mm"
            limit="mat_mm"
            @change="(value) => value !== null && alter((kit) => (kit.mat.width_mm = value))"
          />
          <MeasureField
            label="Mat, deep"
            :value="kit.mat.length_mm"
            limit="mat_mm"
            @change="(value) => value !== null && alter((kit) => (kit.mat.length_mm = value))"
          />
          <MeasureField
            label="Rolling pin, long"
            :value="kit.pin_mm"
            limit="pin_mm"
            @change="(value) => value !== null && alter((kit) => (kit.pin_mm = value))"
          />
          <MeasureField
            label="Smoothers"
            :value="kit.smoothers"
            limit="owned"
            @change="(value) => value !== null && alter((kit) => (kit.smoothers = value))"
          />
        </div>
      </section>
    </div>
  </ElDialog>
</template>

<style scoped>
.kit {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px 28px;
}

h3 {
  margin: 0 0 6px;
  font-size: 18px;
}

ul {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  align-items: center;
  padding-left: 9px;
  border: 1px solid var(--rule);
}

li .act {
  width: 40px;
  padding: 0;
  border: 0;
  background: none;
  font-size: 18px;
}

form {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}

form input,
form select {
  width: 8ch;
  height: 40px;
  padding: 0 4px;
  border: 0;
  border-bottom: 2px solid var(--amber-line);
  background: none;
  font: 600 17px var(--serif);
}

form select {
  width: auto;
}

.wrong {
  color: var(--trouble);
}
</style>
