/** The bowl looked at in the Mix lens, by its key in the plan. */
import { ref } from "vue";

export const bowlInHand = ref("");
