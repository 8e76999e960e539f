"""What people type and read, to and from millimetres, grams and degrees Celsius.

Inside the program there is only the metric unit; these functions are its edges. The browser has
the same functions in TypeScript, and both are held to one table of cases, tests/units.json.

Exact factors (published): the international inch is 25.4 mm and the avoirdupois pound is
453.59237 g (International Yard and Pound Agreement, 1959; NIST Handbook 44, Appendix C); the
US customary cup is half a US liquid pint, 236.5882365 ml (NIST Handbook 44, Appendix C).
"""

import math
import re
from datetime import date, datetime
from fractions import Fraction
from typing import Literal

from amber_spread.core.kernel.figures import Rounding

MM_PER_INCH = 25.4
G_PER_POUND = 453.59237
G_PER_OUNCE = G_PER_POUND / 16
ML_PER_US_CUP = 236.5882365

LengthUnit = Literal["in", "cm", "mm"]
WeightUnit = Literal["g", "oz"]
TemperatureUnit = Literal["degC", "degF"]

_LENGTHS = {
    "mm": 1.0, "cm": 10.0, "m": 1000.0, "in": MM_PER_INCH, "inch": MM_PER_INCH, "inches": MM_PER_INCH,
    '"': MM_PER_INCH, "″": MM_PER_INCH, "”": MM_PER_INCH, "ft": 12 * MM_PER_INCH,
}  # fmt: skip
_WEIGHTS = {
    "g": 1.0, "gram": 1.0, "grams": 1.0, "kg": 1000.0, "oz": G_PER_OUNCE, "ounce": G_PER_OUNCE,
    "ounces": G_PER_OUNCE, "lb": G_PER_POUND, "lbs": G_PER_POUND, "pound": G_PER_POUND, "pounds": G_PER_POUND,
}  # fmt: skip
_VULGAR = {
    "½": "1/2", "⅓": "1/3", "⅔": "2/3", "¼": "1/4", "¾": "3/4", "⅕": "1/5", "⅖": "2/5", "⅗": "3/5", "⅘": "4/5",
    "⅙": "1/6", "⅚": "5/6", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8",
}  # fmt: skip
_NUMBER = r"(?:\d+[\s-]+\d+\s*/\s*\d+|\d+\s*/\s*\d+|\d+(?:[.,]\d+)?|[.,]\d+)"
_TERM = re.compile(rf'\s*({_NUMBER})\s*([A-Za-z"″”]*)')
_THOUSANDS = re.compile(r"^\d+,\d{3}$")


class UnitError(ValueError):
    """Text that is not a measure; its message says what would be."""


def parse_length(text: str, unit: LengthUnit) -> float:
    """Millimetres from what a person typed: `8`, `8 1/4`, `8¼ in`, `8.25"`, `21 cm`, `1 ft 2 in`.

    A number without a unit is in `unit`. Raises UnitError when it cannot be read.
    """
    return _parse(text, _LENGTHS, unit, "a length, such as 8 1/4 in, 21 cm or 210 mm")


def parse_weight(text: str, unit: WeightUnit) -> float:
    """Grams from what a person typed: `250`, `1.5 kg`, `2 lb 4 oz`.

    A number without a unit is in `unit`. Raises UnitError when it cannot be read.
    """
    return _parse(text, _WEIGHTS, unit, "a weight, such as 250 g, 1.5 kg or 2 lb 4 oz")


def parse_temperature(text: str, unit: TemperatureUnit) -> float:
    """Degrees Celsius from `21`, `21 C`, `70 °F` or `-4 F`: C = (F - 32) / 1.8 (definition)."""
    match = re.fullmatch(r"\s*([-+−]?)\s*(\d+(?:[.,]\d+)?)\s*°?\s*([CcFf]?)\s*", text)
    if not match:
        raise UnitError("Type a temperature, such as 21 °C or 70 °F.")
    degrees = float(match[2].replace(",", ".")) * (-1 if match[1] in ("-", "−") else 1)
    scale = match[3].upper() or unit[-1]
    return degrees if scale == "C" else (degrees - 32) / 1.8


def _parse(text: str, factors: dict[str, float], unit: str, wanted: str) -> float:
    plain = text.strip().rstrip(".")
    for vulgar, fraction in _VULGAR.items():
        plain = plain.replace(vulgar, f" {fraction}")
    plain = plain.strip()
    if plain.startswith(("-", "−")):
        raise UnitError(f"This cannot be less than nothing. Type {wanted}.")
    position, value, terms, converted = 0, 0.0, 0, False
    while position < len(plain):
        match = _TERM.match(plain, position)
        name = match[2].lower() if match else ""
        if not match or (name and name not in factors) or (not name and (terms or match.end() < len(plain))):
            raise UnitError(f"Type {wanted}.")
        value += _number(match[1]) * factors[name or unit]
        converted |= factors[name or unit] != 1
        position, terms = match.end(), terms + 1
    if not terms:
        raise UnitError(f"Type {wanted}.")
    # 12 in are 304.8 mm, not 304.79999999999995.
    return round(value, 9) if converted else value


def _number(text: str) -> float:
    if _THOUSANDS.match(text):
        raise UnitError("Leave out the comma in thousands: 1000, not 1,000.")
    if "/" not in text:
        return float(text.replace(",", "."))
    match = re.fullmatch(r"(?:(\d+)[\s-]+)?(\d+)\s*/\s*(\d+)", text)
    if not match or int(match[3]) == 0:
        raise UnitError("A fraction needs a number other than 0 below the line.")
    over, under = int(match[2]), int(match[3])
    if match[1] is None and over >= under and re.search(r"\s", text):
        mixed = f"{over} 1/{under}"
        raise UnitError(
            f"Is that {mixed}, or {over} divided by {under}? Type {mixed}, or {over}/{under} without spaces."
        )
    return int(match[1] or 0) + over / under


def length_step(mm: float, unit: LengthUnit) -> float:
    """The distance between neighbouring marks that a length is read to, in mm.

    Thin things (under 50 mm) are read to 1/16 in or 0.5 mm, longer ones to 1/8 in or 1 mm: finer
    would be false precision on a cake (common practice).
    """
    if unit == "in":
        return MM_PER_INCH / (16 if abs(mm) < 50 else 8)
    return 0.5 if abs(mm) < 50 else 1.0


def weight_step(grams: float, unit: WeightUnit) -> float:
    """The step a weight is read to, in g: 5 g or 1/4 oz, ten times finer under 50 g or 2 oz."""
    if unit == "oz":
        return G_PER_OUNCE / 4
    return 1.0 if abs(grams) < 50 else 5.0


def round_to(value: float, step: float, rounding: Rounding) -> float:
    """`value` to a multiple of `step`, up, down or to the nearest; a hair over a mark is that mark."""
    steps = value / step
    if abs(steps - round(steps)) < 1e-6:
        return round(steps) * step
    if rounding == "up":
        return math.ceil(steps) * step
    if rounding == "down":
        return math.floor(steps) * step
    return math.floor(steps + 0.5) * step


def format_length(mm: float, unit: LengthUnit, rounding: Rounding = "nearest") -> str:
    """A length as read off a ruler: `19 1/8 in`, `48.6 cm`, `486 mm`."""
    rounded = round_to(mm, length_step(mm, unit), rounding)
    if unit == "in":
        return f"{_inches(rounded)} in"
    return f"{_decimal(rounded / 10, 2)} cm" if unit == "cm" else f"{_decimal(rounded, 1)} mm"


def format_weight(grams: float, unit: WeightUnit, rounding: Rounding = "nearest") -> str:
    """A weight as read off a scale: `465 g`, `1.62 kg`, `1 lb 2 1/4 oz`."""
    rounded = round_to(grams, weight_step(grams, unit), rounding)
    if unit == "g":
        return f"{_decimal(rounded / 1000, 3)} kg" if abs(rounded) >= 1000 else f"{_decimal(rounded, 0)} g"
    sign = "-" if rounded < 0 else ""
    quarters = round(abs(rounded) / G_PER_OUNCE * 4)
    pounds, rest = divmod(quarters, 64)
    ounces = _mixed(Fraction(rest, 4))
    return f"{sign}{pounds} lb {ounces} oz" if pounds else f"{sign}{ounces} oz"


def format_temperature(celsius: float, unit: TemperatureUnit) -> str:
    """A temperature to the whole degree: `21 °C`, `70 °F`."""
    degrees = celsius if unit == "degC" else celsius * 1.8 + 32
    return f"{math.floor(degrees + 0.5)} °{unit[-1]}"


def _inches(mm: float) -> str:
    sixteenths = round(abs(mm) / MM_PER_INCH * 16)
    return ("-" if mm < 0 and sixteenths else "") + _mixed(Fraction(sixteenths, 16))


def _mixed(value: Fraction) -> str:
    whole, rest = divmod(value.numerator, value.denominator)
    if not rest:
        return str(whole)
    fraction = f"{rest}/{value.denominator}"
    return f"{whole} {fraction}" if whole else fraction


def _decimal(value: float, places: int) -> str:
    text = f"{value:.{places}f}"
    return text.rstrip("0").rstrip(".") if "." in text else text


def day_words(day: date) -> str:
    """A day as people say it.

    >>> day_words(date(2026, 12, 5))
    'Saturday 5 December'
    """
    return f"{day:%A} {day.day} {day:%B}"


def hour_words(moment: datetime) -> str:
    """An hour of the day, as papers print it.

    >>> hour_words(datetime(2026, 12, 5, 9, 5))
    '09:05'
    """
    return f"{moment:%H:%M}"
