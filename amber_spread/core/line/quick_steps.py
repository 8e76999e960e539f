"""The steps of a bowl in the quick line: it numbers tiers by their place, since nobody types an id."""

from collections.abc import Mapping

from amber_spread.core.design.design import BowlOrder, Design


def orders_by_place(design: Design) -> list[BowlOrder]:
    """The order of work of each bowl, with tiers numbered by their place from 1."""
    return _renamed(design, {tier.id: str(place) for place, tier in enumerate(design.tiers, 1)})


def with_orders_by_id(design: Design) -> Design:
    """A design whose bowls number tiers by place, changed to their ids."""
    orders = _renamed(design, {str(place): tier.id for place, tier in enumerate(design.tiers, 1)})
    return design.model_copy(update={"orders": tuple(orders)})


def _renamed(design: Design, names: Mapping[str, str]) -> list[BowlOrder]:
    def renamed(step: str) -> str:
        _, tier, what = step.split("_", 2)
        return f"tier_{names.get(tier, tier)}_{what}"

    return [order.model_copy(update={"steps": tuple(renamed(step) for step in order.steps)}) for order in design.orders]
