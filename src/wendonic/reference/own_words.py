"""Wendonic's own words, as used in messages, pages and names."""

from wendonic.profile.trade_words import TradeWord, plain

OWN_WORDS: dict[str, TradeWord] = {
    "control": TradeWord(
        "One physical input, by a dotted name: key.KeyW, pad.left_stick.", (), ("wendonic controls",)
    ),
    "event": TradeWord("At a time, a control has a value.", (), ("wendonic convert",)),
    "recording": TradeWord("A log of events on disk.", (), ("wendonic record", "wendonic cut", "wendonic join")),
    "source": TradeWord(
        "One entry under `bind`: some controls that together give a channel one raw value.", ("bind",)
    ),
    "channel": TradeWord(
        "A continuous quantity the player steers.",
        ("mode.move", "mode.look", "mode.rise", "mode.throttle", "mode.turn"),
    ),
    "press": TradeWord("An on/off thing the player does: it is held, it began, it ended this tick.", ("mode.press",)),
    "profile": TradeWord(
        "One TOML file with every tuned number.", (), ("wendonic new", "wendonic info", "wendonic fields")
    ),
    "mode": TradeWord(
        "A part of a profile with bindings, steering and gait of its own: on foot, in the cart.", ("mode",)
    ),
    "shaping": TradeWord(
        "What turns a raw value into the wanted one: dead zone, curve, diagonal rule, ramp, smoothing.",
        ("move.bind.stick", "mode.move"),
        ("wendonic shape",),
    ),
    "steer frame": TradeWord("What forward means.", ("mode.steer",)),
    "view": TradeWord("Where the camera looks: yaw and pitch.", ("mode.look",)),
    "intent": TradeWord("What the player wants in one tick: the result of `Helm.tick`."),
    "gait": TradeWord("What the body can do: top speed, acceleration, braking, drag, jump.", ("gait",)),
    "course": TradeWord(
        "A small piece of ground with heights, walls and blocked squares, to try a profile on.",
        ("piece", "wall", "bounds", "blocked"),
    ),
    "probe": TradeWord("An exactly known stimulus, used to measure.", (), ("wendonic measure", "wendonic compare")),
    "feel sheet": TradeWord("The table of measured feel, in ms, m, deg and ratios.", (), ("wendonic measure",)),
    "quantity": TradeWord("One row of the feel sheet.", ("budget",), ("wendonic measure",)),
    "finding": TradeWord("One thing that `wendonic check` says is wrong, why, and the fix.", (), ("wendonic check",)),
    "structure": TradeWord(
        "Everything about a profile that is not a number: another number compiles nothing, another form does.",
        (),
        ("wendonic info",),
    ),
    "tick function": TradeWord(
        "One tick of one mode as straight-line source: info --tick-function prints it.",
        (),
        ("wendonic info", "wendonic export"),
    ),
    "stand-in": TradeWord("A simulated device that ships with the library."),
    "helm": TradeWord("The object that a game holds: events in, one intent out per tick."),
}
"""Words of Wendonic, each with where it is found."""

_PLAIN = {plain(word): found for word, found in OWN_WORDS.items()}


def own_word(word: str) -> TradeWord | None:
    """Return one of Wendonic's own words, None for another word.

    >>> own_word("Probes").means
    'An exactly known stimulus, used to measure.'
    """
    return _PLAIN.get(plain(word))
