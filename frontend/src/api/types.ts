/** Short names for the types of the API. */
import type { Schemas } from "./client";

export type Figure = Schemas["Figure"];
export type Quantity = Schemas["Quantity"];
export type Plan = Schemas["Plan"];
export type Bowl = Schemas["Bowl"];
export type Check = Schemas["Check"];
export type Part = Schemas["Part"];
export type Silhouette = Schemas["Silhouette"];
export type Card = Schemas["Card"];
export type Handbook = Schemas["Handbook"];
export type Limit = Schemas["Limit"];
export type RuleText = Schemas["RuleText"];
export type Revision = Schemas["Revision"];
export type Order = Schemas["Order"];
export type Document = Schemas["Document"];
export type Tier = Schemas["Tier"];
export type Practice = Schemas["Practice"];
export type Kit = Schemas["Kit"];
export type KitNeed = Schemas["KitNeed"];
export type Piece = Schemas["Piece"];
export type Laid = Schemas["Laid"];
export type TierPlan = Schemas["TierPlan"];
export type Stripe = Schemas["Stripe"];
