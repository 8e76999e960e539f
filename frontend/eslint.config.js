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
  ...ts.configs.strictTypeChecked,
  ...vue.configs["flat/recommended"],
  {
    files: ["**/*.vue", "**/*.ts"],
    languageOptions: {
      parserOptions: { parser: ts.parser, projectService: true, extraFileExtensions: [".vue"] },
    },
  },
  {
    rules: {
      "no-undef": "off",
      "vue/multi-word-component-names": "off",
      // A number in a sentence or a path is what it looks like; a handler of one line may give back nothing.
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: true }],
      "@typescript-eslint/no-confusing-void-expression": ["error", { ignoreArrowShorthand: true }],
      // What a list of choices holds is said where it is asked for.
      "@typescript-eslint/no-unnecessary-type-parameters": "off",
      // The client's tuples are arrays, and what is awaited may have changed meanwhile: neither is seen by these.
      "@typescript-eslint/no-unnecessary-type-assertion": "off",
      "@typescript-eslint/no-unnecessary-condition": "off",
      "@typescript-eslint/no-useless-default-assignment": "off",
    },
  },
  // To anyone but vue-tsc a component is of no known type; vue-tsc holds these. Tests read made-up answers.
  {
    files: ["src/lenses/*/index.ts", "src/router.ts", "src/main.ts", "**/*.vue", "**/*.test.ts"],
    rules: {
      "@typescript-eslint/no-unsafe-assignment": "off",
      "@typescript-eslint/no-unsafe-argument": "off",
      "@typescript-eslint/no-unsafe-member-access": "off",
    },
  },
  ...boundaries,
  neighbours,
  prettier,
);
