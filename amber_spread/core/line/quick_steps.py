"""The steps of a bowl as the quick line has them: by the place of their tier, since nobody types an id."""

from collections.abc import Mapping

from amber_spread.core.design.design import BowlOrder, Design


def orders_by_place(design: Design) -> list[BowlOrder]:
    """What was decided of each bowl, its tiers called by their places from 1."""
    return _renamed(design, {tier.id: str(place) for place, tier in enumerate(design.tiers, 1)})


def with_orders_by_id(design: Design) -> Design:
    """A design whose bowls' steps call tiers by place, with each called by its id."""
    orders = _renamed(design, {str(place): tier.id for place, tier in enumerate(design.tiers, 1)})
    return design.model_copy(update={"orders": tuple(orders)})


def _renamed(design: Design, names: Mapping[str, str]) -> list[BowlOrder]:
    def renamed(step: str) -> str:
        _, tier, what = step.split("_", 2)
        return f"tier_{names.get(tier, tier)}_{what}"

    return [order.model_copy(update={"steps": tuple(renamed(step) for step in order.steps)}) for order in design.orders]
