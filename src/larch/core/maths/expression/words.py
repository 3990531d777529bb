"""The words of mathematics that are read: functions, constants, signs and units, in the ways in which schools write them."""

from __future__ import annotations

from fractions import Fraction

# How many numbers a function works on: the fewest and the most.
FUNCTIONS: dict[str, tuple[int, int]] = {
    "sin": (1, 1), "cos": (1, 1), "tan": (1, 1), "cot": (1, 1), "sec": (1, 1), "csc": (1, 1),
    "asin": (1, 1), "acos": (1, 1), "atan": (1, 1), "sinh": (1, 1), "cosh": (1, 1), "tanh": (1, 1),
    "sqrt": (1, 1), "cbrt": (1, 1), "root": (2, 2), "abs": (1, 1), "exp": (1, 1), "ln": (1, 1), "log": (1, 2),
    "floor": (1, 1), "ceil": (1, 1), "round": (1, 2), "sign": (1, 1), "min": (1, 9), "max": (1, 9), "mod": (2, 2),
    "gcd": (1, 9), "lcm": (1, 9), "binomial": (2, 2), "permutations": (2, 2), "factorial": (1, 1),
    "sum": (4, 4), "product": (4, 4), "integral": (2, 4), "derivative": (2, 2), "limit": (3, 4),
    "cases": (2, 19),
}  # fmt: skip

# Other ways to write them.
SAME: dict[str, str] = {
    "arcsin": "asin", "arccos": "acos", "arctan": "atan", "arctg": "atan", "lg": "log", "tg": "tan", "sen": "sin",
    "ctg": "cot", "cotan": "cot", "cosec": "csc", "sh": "sinh", "ch": "cosh", "th": "tanh", "sgn": "sign",
    "signum": "sign", "hcf": "gcd", "ggT": "gcd", "kgV": "lcm", "wurzel": "sqrt", "choose": "binomial", "nCr": "binomial",
    "nPr": "permutations", "diff": "derivative", "lim": "limit", "int": "integral", "prod": "product",
    "ceiling": "ceil", "arsinh": "asinh", "mcd": "gcd", "mcm": "lcm",
}  # fmt: skip
INVERSE = {"sin": "asin", "cos": "acos", "tan": "atan"}
CIRCULAR = frozenset({"sin", "cos", "tan", "cot", "sec", "csc", "ln", "log", "sinh", "cosh", "tanh"})
ROOTS = frozenset({"sqrt", "cbrt"})

GREEK = {
    "alpha": "α", "beta": "β", "gamma": "γ", "delta": "δ", "epsilon": "ε", "zeta": "ζ", "eta": "η", "theta": "θ",
    "iota": "ι", "kappa": "κ", "lambda": "λ", "mu": "μ", "nu": "ν", "xi": "ξ", "rho": "ρ", "sigma": "σ", "tau": "τ",
    "phi": "φ", "chi": "χ", "psi": "ψ", "omega": "ω", "pi": "π", "Delta": "Δ", "Gamma": "Γ", "Sigma": "Σ", "Omega": "Ω",
    "Phi": "Φ", "Theta": "Θ", "Lambda": "Λ", "Pi": "Π", "Psi": "Ψ", "infinity": "∞", "infty": "∞",
}  # fmt: skip
# Of these only the longer are read in plain text, where "mu" or "nu" may be two letters.
PLAIN_GREEK = {name: sign for name, sign in GREEK.items() if len(name) > 2 or name == "pi"} | {"tau": "τ"}

RELATIONS = {"=": "=", "<": "<", ">": ">", "≤": "≤", "≥": "≥", "<=": "≤", ">=": "≥", "=<": "≤", "=>": "≥", "≠": "≠",
             "!=": "≠", "==": "=", "<>": "≠", "⩽": "≤", "⩾": "≥", "＝": "="}  # fmt: skip
JOINS = {"and": "and", "or": "or", "∧": "and", "∨": "or", "und": "and", "oder": "or", "&": "and"}
TIMES = "*·×∙⋅•∗✕✖⨯"
OVER = "/÷:∕⁄∶"
MINUS = "-−–—﹣－‐‑‒"
PLUS = "+＋"
SUPERSCRIPTS = dict(zip("⁰¹²³⁴⁵⁶⁷⁸⁹⁻⁺ⁿˣ", "0123456789-+nx", strict=True))
SUBSCRIPTS = dict(zip("₀₁₂₃₄₅₆₇₈₉ₙₖᵢⱼ₊₋", "0123456789nkij+-", strict=True))
VULGAR = {
    "½": (1, 2), "⅓": (1, 3), "⅔": (2, 3), "¼": (1, 4), "¾": (3, 4), "⅕": (1, 5), "⅖": (2, 5), "⅗": (3, 5), "⅘": (4, 5),
    "⅙": (1, 6), "⅚": (5, 6), "⅐": (1, 7), "⅛": (1, 8), "⅜": (3, 8), "⅝": (5, 8), "⅞": (7, 8), "⅑": (1, 9), "⅒": (1, 10),
}  # fmt: skip

# Units: what they measure, as powers of (length, mass, time, money, temperature), and how many of the first of them.
UNITS: dict[str, tuple[tuple[int, ...], Fraction]] = {}
for _name, _factor in (("mm", Fraction(1, 1000)), ("cm", Fraction(1, 100)), ("dm", Fraction(1, 10)), ("m", Fraction(1)),
                       ("km", Fraction(1000))):  # fmt: skip
    UNITS[_name] = ((1, 0, 0, 0, 0), _factor)
    UNITS[_name + "²"] = ((2, 0, 0, 0, 0), _factor**2)
    UNITS[_name + "³"] = ((3, 0, 0, 0, 0), _factor**3)
UNITS |= {
    "ha": ((2, 0, 0, 0, 0), Fraction(10000)), "ar": ((2, 0, 0, 0, 0), Fraction(100)),
    "l": ((3, 0, 0, 0, 0), Fraction(1, 1000)), "L": ((3, 0, 0, 0, 0), Fraction(1, 1000)),
    "ml": ((3, 0, 0, 0, 0), Fraction(1, 10**6)), "mL": ((3, 0, 0, 0, 0), Fraction(1, 10**6)),
    "cl": ((3, 0, 0, 0, 0), Fraction(1, 10**5)), "dl": ((3, 0, 0, 0, 0), Fraction(1, 10**4)),
    "mg": ((0, 1, 0, 0, 0), Fraction(1, 10**6)), "g": ((0, 1, 0, 0, 0), Fraction(1, 1000)),
    "kg": ((0, 1, 0, 0, 0), Fraction(1)), "t": ((0, 1, 0, 0, 0), Fraction(1000)),
    "s": ((0, 0, 1, 0, 0), Fraction(1)), "sec": ((0, 0, 1, 0, 0), Fraction(1)), "min": ((0, 0, 1, 0, 0), Fraction(60)),
    "h": ((0, 0, 1, 0, 0), Fraction(3600)), "d": ((0, 0, 1, 0, 0), Fraction(86400)),
    "€": ((0, 0, 0, 1, 0), Fraction(1)), "ct": ((0, 0, 0, 1, 0), Fraction(1, 100)),
}  # fmt: skip
SURE_UNITS = frozenset(name for name in UNITS if len(name.rstrip("²³")) > 1 and name not in ("sec",)) | {"€"}
