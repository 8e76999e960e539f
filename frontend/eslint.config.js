import js from "@eslint/js";
import prettier from "eslint-config-prettier";
import vue from "eslint-plugin-vue";
import ts from "typescript-eslint";

/** The rooms of the frontend, from the ground up: each takes only what stands below it. */
const ROOMS = ["base", "api", "kitchen", "ui", "order", "drawing", "lenses", "views"];
const beyond = (words, group) => ({ group, message: words });
const elsewhere = {
  regex: "^\\.\\./(?!\\.\\./\\.\\./tests/)",
  message: "Another folder is named from the top: @/room/file.",
};
const boundaries = ROOMS.map((room, floor) => ({
  files: [`src/${room}/**`],
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: [
          elsewhere,
          ...ROOMS.slice(floor + 1).map((above) =>
            beyond(`${room} stands below ${above}.`, [`@/${above}`, `@/${above}/*`]),
          ),
        ],
      },
    ],
  },
}));
/** A lens knows nothing of its neighbours: what they share is in their parts. */
const neighbours = {
  files: ["src/lenses/*/*"],
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: [
          elsewhere,
          {
            regex: "^@/lenses(?!/parts/)",
            message: "A lens takes from the parts of lenses, not from its neighbours.",
          },
          beyond("lenses stands below views.", ["@/views", "@/views/*"]),
        ],
      },
    ],
  },
};

export default ts.config(
  { ignores: ["src/api/schema.d.ts"] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs["flat/recommended"],
  { files: ["**/*.vue"], languageOptions: { parserOptions: { parser: ts.parser } } },
  { rules: { "no-undef": "off", "vue/multi-word-component-names": "off" } },
  ...boundaries,
  neighbours,
  prettier,
);
