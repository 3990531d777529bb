"""Mathematics of school as it could be written down: a grammar of its own, from which training texts and the language model
are made. A text is a row: characters, and ("frac", a, b), ("up", a), ("down", a), ("root", a), each of rows."""

from __future__ import annotations

import random
from typing import Any

Row = list[Any]
LETTERS = "xxxxxyyyabcnkmtpqrsuvwzhdefgl"
LIKELY = "xxxxxxxxyyyyyaaabbbcccnnnkkmmtttrrhhppssvvuuzzddffgwqel"  # as often as they are met at school, roughly
CAPITALS = "ABCDEFGHKLMNPQRSTVWXYZ"
ALPHABET = "0123456789abcdefghijklmnopqrstuvwxyz" + CAPITALS + "+-=<>()[]{}/|%!.,:°×÷·±'πθαβλμΔ∞√≤≥≠→U≈€?γ;"


class School:
    def __init__(self, seed: int, letters: str = LETTERS) -> None:
        self.r, self.letters = random.Random(seed), letters

    def text(self) -> Row:
        made = self.r.choices(
            (
                self.number_line,
                self.equation,
                self.fractions,
                self.function,
                self.relation,
                self.point,
                self.units,
                self.sum_of,
                self.root_line,
                self.trig,
                self.power_line,
                self.single,
                self.interval,
                self.quadratic,
                self.sequence,
                self.angle,
                self.coordinates,
                self.expression,
                self.absolute,
                self.factorial,
                self.about,
                self.wanted,
                self.formula,
            ),
            (9, 12, 8, 7, 6, 4, 6, 8, 4, 4, 6, 7, 2, 5, 2, 2, 3, 8, 2, 0.5, 2, 1, 3),
        )[0]()
        return made if 0 < weight(made) <= 26 else self.text()

    # Parts

    def digits(self, most: int = 3) -> Row:
        n = self.r.choices(range(1, most + 1), [5, 4, 2, 1][:most])[0]
        first = self.r.choice("123456789")
        return [first, *(self.r.choice("0123456789") for _ in range(n - 1))]

    def number(self) -> Row:
        kind = self.r.random()
        if kind < 0.68:
            return self.digits()
        if kind < 0.92:
            return [
                *self.r.choice((["0"], self.digits(2))),
                self.r.choice(".,"),
                *self.r.choices("0123456789", k=self.r.randint(1, 3)),
            ]
        return [*self.digits(1), ("frac", self.digits(1), self.digits(1))]

    def letter(self) -> str:
        return self.r.choice(self.letters)

    def power(self) -> Row:
        return [
            (
                "up",
                self.r.choice(
                    (["2"], ["2"], ["2"], ["3"], ["n"], self.digits(1), ["-", *self.digits(1)], ["x"], ["n", "+", "1"])
                ),
            )
        ]

    def term(self, deep: int = 0) -> Row:
        kind = self.r.random()
        if kind < 0.2:
            return self.number()
        if kind < 0.36:
            return [self.letter()]
        if kind < 0.58:
            return [*self.digits(2), self.letter()]
        if kind < 0.72:
            return [*(self.digits(1) if self.r.random() < 0.5 else []), self.letter(), *self.power()]
        if kind < 0.82 and deep < 2:
            return [("frac", self.side(deep + 2), self.side(deep + 2))]
        if kind < 0.9 and deep < 2:
            return [
                *(self.digits(1) if self.r.random() < 0.5 else []),
                "(",
                *self.side(deep + 1),
                ")",
                *(self.power() if self.r.random() < 0.4 else []),
            ]
        if kind < 0.95 and deep < 2:
            return [("root", self.side(deep + 2))]
        return [self.letter(), ("down", [self.r.choice("0123nk")])]

    def side(self, deep: int = 0) -> Row:
        count = self.r.choices((1, 2, 3), (5, 4, 1 if deep else 2))[0] if deep < 2 else self.r.choices((1, 2), (6, 1))[0]
        made = ["-"] if self.r.random() < 0.08 else []
        made += self.term(deep)
        for _ in range(count - 1):
            made += [self.r.choice("++--·×"), *self.term(deep)]
        return made

    # Lines

    def number_line(self) -> Row:
        return [*(["-"] if self.r.random() < 0.12 else []), *self.number()]

    def expression(self) -> Row:
        return self.side()

    def equation(self) -> Row:
        return [*self.side(), "=", *self.side()]

    def sum_of(self) -> Row:
        sign = self.r.choice("++--×÷·:/")
        made = [*self.number(), sign, *self.number()]
        if self.r.random() < 0.3:
            made += [self.r.choice("+-"), *self.number()]
        return made + (["=", *(self.number() if self.r.random() < 0.8 else [])] if self.r.random() < 0.75 else [])

    def fractions(self) -> Row:
        def one() -> Row:
            whole = self.digits(1) if self.r.random() < 0.2 else []
            return (
                [*whole, ("frac", self.digits(2), self.digits(2))]
                if self.r.random() < 0.7
                else [*self.digits(1), "/", *self.digits(2)]
            )

        made = one()
        if self.r.random() < 0.65:
            made += [self.r.choice("+-×÷·:"), *one()]
            if self.r.random() < 0.6:
                made += ["=", *one()]
        return made

    def function(self) -> Row:
        left = self.r.choice((["y"], ["y"], ["f", "(", "x", ")"], ["g", "(", "x", ")"]))
        slope = self.r.choice((self.digits(1), [("frac", self.digits(1), self.digits(1))], ["-", *self.digits(1)], []))
        right = [*slope, "x", *(self.power() if self.r.random() < 0.3 else []), self.r.choice("+-"), *self.number()]
        return [*left, "=", *(right if self.r.random() < 0.65 else self.side())]

    def quadratic(self) -> Row:
        x = self.r.choice("xxxtz")
        return [
            *(self.digits(1) if self.r.random() < 0.5 else []),
            x,
            ("up", ["2"]),
            self.r.choice("+-"),
            *self.digits(1),
            x,
            self.r.choice("+-"),
            *self.digits(2),
            *(["=", "0"] if self.r.random() < 0.7 else []),
        ]

    def relation(self) -> Row:
        made = [*self.side(1), self.r.choice("<>≤≥≠"), *self.side(1)]
        return (
            [*self.number(), self.r.choice("<≤"), self.letter(), self.r.choice("<≤"), *self.number()]
            if self.r.random() < 0.2
            else made
        )

    def point(self) -> Row:
        name = [self.r.choice(CAPITALS)] if self.r.random() < 0.6 else []
        return [*name, "(", *self.number_line(), self.r.choice(",,,,,;||"), *self.number_line(), ")"]

    def coordinates(self) -> Row:
        return [self.r.choice(CAPITALS), "=", "(", *self.digits(1), ",", *self.digits(1), ")"]

    def units(self) -> Row:
        unit = self.r.choice(
            (
                "cm",
                "m",
                "km",
                "mm",
                "kg",
                "g",
                "l",
                "ml",
                "s",
                "h",
                "min",
                "t",
                "cm²",
                "m²",
                "cm³",
                "m³",
                "€",
                "km/h",
                "m/s",
                "%",
                "°",
            )
        )
        made: Row = []
        for sign in unit:
            made.append(("up", [{"²": "2", "³": "3"}[sign]]) if sign in "²³" else sign)
        left = [self.r.choice("AVdhabsr"), "="] if self.r.random() < 0.3 else []
        return [*left, *self.number(), *made]

    def root_line(self) -> Row:
        made: Row = [("root", self.side(1))]
        return [*made, "=", *self.number()] if self.r.random() < 0.5 else [*self.side(2), self.r.choice("+-="), *made]

    def trig(self) -> Row:
        inner = self.r.choice(
            (["x"], ["α"], ["θ"], ["2", "x"], [*self.digits(2), "°"], ["π"], ["(", "2", "x", "+", "1", ")"])
        )
        made = [*self.r.choice(("sin", "cos", "tan", "log", "ln")), *inner]
        return [
            *self.r.choice((["y", "="], self.digits(1), [])),
            *made,
            *(["=", *self.number()] if self.r.random() < 0.4 else []),
        ]

    def power_line(self) -> Row:
        base: Row = self.digits(1) if self.r.random() < 0.5 else [self.letter()]
        made = [*base, *self.power()]
        if self.r.random() < 0.5:
            made += [self.r.choice("·×"), *base, *self.power()]
        return [*made, "=", *self.side(2)] if self.r.random() < 0.5 else made

    def single(self) -> Row:
        return [self.r.choice(3 * "0123456789" + LETTERS + "π=+-<>≈αβγθ∞ABCPQU?€")]

    def interval(self) -> Row:
        return [self.r.choice("[("), *self.number_line(), self.r.choice(",,,;"), *self.number_line(), self.r.choice("])")]

    def sequence(self) -> Row:
        a = self.r.choice("abux")
        return [a, ("down", self.r.choice((["n"], ["1"], ["n", "+", "1"]))), "=", *self.side(1)]

    def absolute(self) -> Row:
        slope = self.digits(1) if self.r.random() < 0.4 else []
        inner = [*slope, self.letter(), self.r.choice("+-"), *self.digits(2)] if self.r.random() < 0.6 else self.side(2)
        made: Row = ["|", *inner, "|"]
        return [*made, self.r.choice("=<>≤"), *self.number()] if self.r.random() < 0.8 else ["y", "=", *made]

    def factorial(self) -> Row:
        return [*self.r.choice((self.digits(1), ["n"])), "!", *(["=", *self.digits(3)] if self.r.random() < 0.6 else [])]

    def about(self) -> Row:
        exact = self.r.choice((["π"], [("root", self.digits(2))], [("frac", self.digits(2), self.digits(2))], self.side(1)))
        return [*exact, "≈", *self.number()]

    def wanted(self) -> Row:
        """A number that is asked for."""
        made = [*self.digits(2), self.r.choice("+-·×÷:"), *self.digits(2)]
        if self.r.random() < 0.4:
            return [*made, "=", "?"]
        made[-1:] = ["?"] if self.r.random() < 0.6 else made[-1:]
        return [*made, "=", *self.digits(2)] if "?" in made else ["?", *made[1:], "=", *self.digits(2)]

    def formula(self) -> Row:
        """A magnitude by others."""
        made: Row = [self.r.choice("AAVVUUSFKPTCvsah"), "="]
        for _ in range(self.r.randint(1, 3)):
            kind = self.r.random()
            if kind < 0.3:
                made.append(self.r.choice(("π", *"2345")))
            elif kind < 0.5:
                made.append(("frac", [self.r.choice("1234smvFa")], [self.r.choice("234tsVm")]))
            made += [self.r.choice("abcghrstvmlFd"), *(self.power() if self.r.random() < 0.2 else [])]
        return made

    def angle(self) -> Row:
        return [self.r.choice("αβγθ"), "=", *self.digits(3), "°"]


def weight(row: Row) -> int:
    """How many signs it has."""
    return sum(1 if isinstance(item, str) else (item[0] in ("frac", "root")) + sum(map(weight, item[1:])) for item in row)


def shuffled(row: Row, r: random.Random, share: float) -> Row:
    """With a share of its characters replaced by any others, so that places teach more than texts."""
    return [
        (r.choice(ALPHABET) if r.random() < share else item)
        if isinstance(item, str)
        else (item[0], *(shuffled(part, r, share) for part in item[1:]))
        for item in row
    ]


def linear(row: Row) -> list[str]:
    """For the language model: what stands above, below and under roots between marks of its own."""
    found: list[str] = []
    for item in row:
        if isinstance(item, str):
            found.append(item)
        elif item[0] == "frac":
            found += ["⟨", *linear(item[1]), "⁄", *linear(item[2]), "⟩"]
        elif item[0] == "root":
            found += ["√", *linear(item[1]), "⟩"]
        else:
            found += ["↑" if item[0] == "up" else "↓", *linear(item[1]), "⟩"]
    return found
