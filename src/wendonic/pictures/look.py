"""Looking: yaw rate by tilt for sticks, angle by swipe for mice, and angle by press for keys."""

from collections import Counter
from collections.abc import Iterable, Mapping
from typing import Any, Generic, NamedTuple, TypeVar

from matplotlib.axes import Axes

from wendonic.errors import WendonicError
from wendonic.pictures.by_name import by_name
from wendonic.pictures.picture import Given, picture
from wendonic.pictures.style import FOG, LINE_STYLES, MIST, dress_axes, key_below, split_axes
from wendonic.profile.schema.look_binds import LookBind, LookKeysBind, LookStickBind, MouseBind
from wendonic.profile.schema.profile import Profile
from wendonic.study.measuring.look_response import press_deg, swipe_deg, turn_rate_deg_s

SWIPE_CM = 20.0
SLOW_CM_S = 5.0
FAST_CM_S = 60.0
TAP_S = 0.1
PRESS_S = 0.5

Bind = TypeVar("Bind")


class _Source(NamedTuple, Generic[Bind]):
    """A source of `look` to be drawn: `pen` is the number of its profile, None if there is only one."""

    name: str
    bind: Bind
    pen: int | None


class _Pens:
    """The lines of one panel: of several profiles each has its own colour in all panels."""

    def __init__(self) -> None:
        self._drawn: Counter[int | None] = Counter()

    def line(self, pen: int | None) -> tuple[str, Any]:
        """Return colour and dashes of the next line."""
        drawn = self._drawn[pen]
        self._drawn[pen] += 1
        if pen is None:
            return LINE_STYLES[drawn % len(LINE_STYLES)]
        color, dashes = LINE_STYLES[pen]
        return (color, LINE_STYLES[1 + drawn % 3][1]) if drawn else (color, dashes)


def draw_look(
    profiles: Profile | Mapping[str, Profile], mode: str | None = None, ax: Axes | None = None
) -> list[Axes]:
    """Draw how a profile looks around, or how two do, by name: yaw rate by tilt, angle by swipe, and
    angle by how long a key is held.

    A mouse whose gain follows the hand has a line for a slow and one for a fast swipe. Returns the panels that
    there is something to draw in. Raises `WendonicError` where there is no such mode, it looks by neither stick nor
    mouse nor held keys, or there are more than two profiles.

    >>> from wendonic.demo import demo_profile
    >>> [panel.get_title(loc="left") for panel in draw_look(demo_profile())]
    ['Full tilt turns 230 deg/s', 'A full turn takes 34.0 cm']
    """
    of = by_name(profiles)
    if len(of) > 2:
        raise WendonicError(f"{len(of)} profiles; allowed: one, or two to compare")
    sticks: list[_Source[LookStickBind]] = []
    mice: list[_Source[MouseBind]] = []
    keys: list[_Source[LookKeysBind]] = []
    for number, (title, profile) in enumerate(of.items()):
        look = profile.mode[profile.mode_name(mode)].look
        prefix, pen = (f"{title}, ", number) if len(of) > 1 else ("", None)
        for bind in look.bind if look else ():
            if isinstance(bind, LookStickBind) and not bind.snaps:
                sticks.append(_Source(f"{prefix}{bind.stick}", bind, pen))
            elif isinstance(bind, MouseBind) and swipe_deg(bind, [1.0], SLOW_CM_S)[0] > 0.0:
                mice.append(_Source(f"{prefix}mouse", bind, pen))
            elif isinstance(bind, LookKeysBind) and not bind.snaps:
                keys.append(_Source(f"{prefix}keys", bind, pen))
    if not sticks and not mice and not keys:
        raise WendonicError("no stick, mouse or held key turns the view at a rate here; there is nothing to draw")
    panels = split_axes(ax, widths=[1.0] * (bool(sticks) + bool(mice) + bool(keys)))
    if sticks:
        _draw_sticks(panels[0], sticks)
    if mice:
        _draw_mice(panels[int(bool(sticks))], mice)
    if keys:
        _draw_keys(panels[-1], keys)
    for panel in panels:
        key_below(panel, 1.0 if len(panels) < 3 else 1.6)
    return panels


def _up(bind: LookBind) -> str:
    return "" if bind.sideways else ", up and down"


def _directions(binds: Iterable[LookBind]) -> tuple[str, str]:
    """Return the direction in which they are pushed, and the angle that this turns."""
    sideways = {bind.sideways for bind in binds}
    if len(sideways) > 1:
        return "to the right or up", "turn"
    return ("to the right", "yaw") if sideways == {True} else ("up", "pitch")


def _draw_sticks(ax: Axes, sticks: list[_Source[LookStickBind]]) -> None:
    tilts = [step / 400.0 for step in range(401)]
    tops = " and ".join(dict.fromkeys(f"{turn_rate_deg_s(bind, [1.0])[0]:.0f}" for _, bind, _ in sticks))
    direction, axis = _directions(stick.bind for stick in sticks)
    dress_axes(ax, f"Full tilt turns {tops} deg/s", f"tilt {direction} (raw, 0 to 1)", f"{axis} rate (deg/s)")
    most = 0.0
    pens = _Pens()
    for name, bind, pen in sticks:
        color, dashes = pens.line(pen)
        rates = turn_rate_deg_s(bind, tilts)
        quarter = turn_rate_deg_s(bind, [0.25])[0]
        words = f"{name}{_up(bind)}:\n{rates[-1]:.0f} deg/s, {quarter:.0f} deg/s at a quarter tilt"
        words += f", eased in over {bind.ease_s:g} s" if bind.ease_s else ""
        ax.plot(tilts, rates, color=color, linestyle=dashes, linewidth=1.8, label=words)
        most = max(most, *rates)
        if bind.rim_boost:
            boosted = turn_rate_deg_s(bind, [1.0], boosted=True)[0]
            ax.plot([1.0], [boosted], "^", color=color, markersize=8, clip_on=False)
            ax.annotate(
                f"{boosted:.0f} deg/s\nheld at the rim",
                (1.0, boosted),
                xytext=(-10, 0),
                textcoords="offset points",
                color=color,
                fontsize=9,
                ha="right",
                va="center",
            )
            most = max(most, boosted)
    ax.set_xlim(0.0, 1.0)
    ax.set_ylim(0.0, 1.08 * most)
    ax.axvline(0.25, color=FOG, linewidth=0.8)
    ax.text(0.26, most, "a quarter tilt", color=MIST, fontsize=9, va="bottom")


def _draw_mice(ax: Axes, mice: list[_Source[MouseBind]]) -> None:
    turns = " and ".join(dict.fromkeys(f"{360.0 / swipe_deg(bind, [1.0], SLOW_CM_S)[0]:.1f}" for _, bind, _ in mice))
    direction, _ = _directions(mouse.bind for mouse in mice)
    dress_axes(ax, f"A full turn takes {turns} cm", f"swipe {direction} (cm)", "angle turned (deg)")
    swipes_cm = [SWIPE_CM * step / 100.0 for step in range(101)]
    most = 0.0
    pens = _Pens()
    for name, bind, pen in mice:
        speeds = (SLOW_CM_S, FAST_CM_S) if bind.hand_gain else (SLOW_CM_S,)
        for hand_cm_s in speeds:
            color, dashes = pens.line(pen)
            turned = swipe_deg(bind, swipes_cm, hand_cm_s)
            words = f"{name}{_up(bind)}:\n{turned[-1] / SWIPE_CM:.1f} deg per cm"
            words += f", hand at {hand_cm_s:g} cm/s" if bind.hand_gain else ""
            words += f", half-life {bind.half_life_s:g} s" if bind.half_life_s else ""
            ax.plot(swipes_cm, turned, color=color, linestyle=dashes, linewidth=1.8, label=words)
            most = max(most, *turned)
    for angle_deg in (90.0, 180.0, 360.0):
        if angle_deg < 1.08 * most:
            ax.axhline(angle_deg, color=FOG, linewidth=0.8, zorder=0)
            ax.text(0.2, angle_deg, f"{angle_deg:g} deg", color=MIST, fontsize=9, va="bottom")
    ax.set_xlim(0.0, SWIPE_CM)
    ax.set_ylim(0.0, 1.08 * most)


def _draw_keys(ax: Axes, keys: list[_Source[LookKeysBind]]) -> None:
    taps = " and ".join(dict.fromkeys(f"{press_deg(bind, [TAP_S])[0]:.1f}" for _, bind, _ in keys))
    dress_axes(ax, f"A press of {TAP_S:g} s turns {taps} deg", "key held (s)", "angle turned (deg)")
    presses_s = [PRESS_S * step / 100.0 for step in range(101)]
    most = 0.0
    pens = _Pens()
    for name, bind, pen in keys:
        color, dashes = pens.line(pen)
        turned = press_deg(bind, presses_s)
        words = f"{name}{_up(bind)}:\n{bind.yaw_deg_s if bind.sideways else bind.pitch_deg_s:g} deg/s"
        words += f", eased in over {bind.ease_s:g} s" if bind.ease_s else ""
        ax.plot(presses_s, turned, color=color, linestyle=dashes, linewidth=1.8, label=words)
        most = max(most, *turned)
    ax.set_xlim(0.0, PRESS_S)
    ax.set_ylim(0.0, 1.08 * most)
    ax.axvline(TAP_S, color=FOG, linewidth=0.8)
    ax.text(TAP_S + 0.005, most, "a short press", color=MIST, fontsize=9, va="bottom")


@picture(
    "profiles",
    "mode",
    "seat",
    example="wendonic draw look demo-out/beekeeper.toml -o look.png",
)
def look(given: Given) -> Any:
    """Yaw rate by tilt for sticks, angle by swipe for mice, by press for keys; of two profiles if two are given."""
    return draw_look(given.own_profiles, given.mode)
