/** The numbers of the tier in hand that stand on the screen, so that a working can ask what if one of them were another. */
import { onBeforeUnmount, onMounted, shallowReactive } from "vue";

export interface WhatIf {
  /** The tier and the path of the field below it. */
  key: string;
  label: string;
  limit: string;
  percent: boolean;
  value: number | null;
  usual: number | undefined;
  attempt: (value: number) => void;
  keep: (value: number | null) => void;
}

const offered = shallowReactive(new Map<string, () => WhatIf>());

export const whatIfs = (): WhatIf[] => [...offered.values()].map((one) => one());

/** Offer a field for as long as it stands there. */
export function useOffered(key: string, one: () => WhatIf): void {
  onMounted(() => offered.set(key, one));
  onBeforeUnmount(() => {
    if (offered.get(key) === one) offered.delete(key);
  });
}
