"""Trade words for which a profile has another name, and where each is found."""

import re
from collections.abc import Iterable
from typing import NamedTuple


class TradeWord(NamedTuple):
    """A word of the trade: what it means, the fields that set it (by the ends of their paths), and other names to
    look up: quantities, findings, commands.
    """

    means: str
    fields: tuple[str, ...] = ()
    see: tuple[str, ...] = ()


TRADE_WORDS: dict[str, TradeWord] = {
    "a/b test": TradeWord(
        "Two sets of numbers, played in turn and voted on without knowing which is which.", (), ("wendonic live",)
    ),
    "acceleration": TradeWord(
        "How quickly speed rises.", ("gait.accel_m_s2", "gait.airborne.accel_m_s2"), ("reach90_s", "slow-start")
    ),
    "accessibility": TradeWord(
        "Settings for players who need other ones: other controls, a toggle instead of holding, slower turning, a "
        "larger dead zone.",
        ("press.bind", "press.style", "yaw_deg_s", "dead_zone.inner"),
    ),
    "action": TradeWord("A named on/off thing the player does: a press.", ("press",)),
    "aim assist": TradeWord(
        "Not part of Wendonic. What makes aiming easier by itself: finer curves, gains and zoom.",
        ("curve", "hand_gain", "zoom", "steady_below_deg_s"),
    ),
    "air control": TradeWord(
        "How much a body steers in the air.",
        ("airborne.accel_m_s2", "airborne.brake_m_s2"),
        ("air_reach90_s", "air_stop_time_s"),
    ),
    "analogue input": TradeWord(
        "Input that has amounts between nothing and full: a stick, a trigger.",
        ("curve", "move.diagonal", "paces"),
        ("quarter_steps_8bit", "analogue-lost"),
    ),
    "anti dead zone": TradeWord(
        "The amount at the edge of the dead zone, to get past a dead zone that the game has itself.", ("curve.floor",)
    ),
    "arm swing": TradeWord(
        "Walking by swinging the hands, in a headset.",
        ("hands", "full_swing_m_s"),
        ("swing_gain", "swing_tremor_mm", "hands-tremble"),
    ),
    "auto repeat": TradeWord(
        "A press that begins again while held, as in menus.",
        ("press.style", "repeat_delay_s", "repeat_interval_s"),
    ),
    "auto-run": TradeWord(
        "Going on without a held key: a gait that keeps its speed; or a press of style toggle; while it is on, the "
        "game holds the forward key with `Helm.key`.",
        ("press.style", "keeps_speed"),
    ),
    "axial dead zone": TradeWord("A dead zone of each axis on its own.", ("dead_zone.form",)),
    "axis snapping": TradeWord(
        "Pulling a stick's direction to the nearest of a few.",
        ("notches", "notch_pull", "dead_zone.form"),
        ("direction_error_deg",),
    ),
    "Bezier curve": TradeWord(
        "Not part of Wendonic. A curve through points needs no handles and never turns back.", ("curve.points",)
    ),
    "boat": TradeWord(
        "A vehicle that slides on where it went: less grip, and thrust against drag.",
        ("drive", "grip", "thrust_m_s2", "drag_per_s"),
    ),
    "bumper": TradeWord(
        "A button at a forefinger of a pad.", ("press.bind",), ("pad.left_bumper", "pad.right_bumper")
    ),
    "bunny hop": TradeWord("Jumping again in the tick of landing.", ("buffer_s",), ("jump_buffer_s",)),
    "calibration": TradeWord(
        "Finding the rest point, the rim and the noise of a device in a recording of it.",
        ("centre", "gate", "dead_zone.inner"),
        ("wendonic calibrate",),
    ),
    "camera lag": TradeWord(
        "A delay of the view behind the hand.",
        ("look.bind.half_life_s", "ease_s"),
        ("swipe_delay_s", "look_reach90_s"),
    ),
    "camera relative": TradeWord("Forward is where the camera looks.", ("camera",)),
    "chord": TradeWord("Controls held together: ControlLeft+KeyC.", ("press.bind", "unless")),
    "circle strafing": TradeWord(
        'Moving round something while facing it: face = "aim" faces the point that the game passes to helm.aim_at.',
        ("steer.face",),
    ),
    "charged jump": TradeWord(
        "A jump that begins when the press ends, and is higher the longer it was held: `Press.held_s` says how long, "
        "and the game sets the speed with `Helm.place`. A jump that an early release cuts short is more usual.",
        ("early_release_ratio",),
        ("body.velocity",),
    ),
    "circularity": TradeWord(
        "How close the rim of a stick comes to a circle. `wendonic calibrate` measures the rim from a recording.",
        ("gate", "rim"),
        ("speed_spread_stick", "wendonic calibrate"),
    ),
    "clamp": TradeWord("Keeping an amount within its limit.", ("move.diagonal", "curve.ceiling", "pitch_limits_deg")),
    "click to move": TradeWord("Walking to a place that was pointed at.", ("goto", "goal"), ("goal_time_s",)),
    "cm/360": TradeWord(
        "Mouse travel for a full turn.", ("cm_per_turn", "dpi"), ("mouse_deg_per_10cm", "wendonic units")
    ),
    "coasting": TradeWord("Rolling out after a release instead of braking.", ("coast_half_life_s",), ("slides-on",)),
    "collision": TradeWord(
        "Walls are the game's own: `Helm.place` and `Helm.contact` report what they did.",
        ("wall",),
        ("body.contact",),
    ),
    "combo": TradeWord(
        "Presses one after another, which the game reads tick by tick. Controls held together are a chord.",
        ("press.bind",),
    ),
    "corner correction": TradeWord(
        "Not part of Wendonic: the game moves a body that clips a corner past it with `Helm.place`.",
        (),
        ("body.place",),
    ),
    "coyote time": TradeWord(
        "How long after leaving the ground a jump still counts.", ("grace_s",), ("jump_grace_s", "grace-long")
    ),
    "crosshair": TradeWord(
        "The mark in the middle of the view. Not part of Wendonic, which draws nothing in a game.",
        ("mode.look",),
        ("view_yaw_deg",),
    ),
    "crouch": TradeWord(
        "A slower gait, or a smaller amount, while a press is on.", ("press_gaits", "press_amounts", "press.style")
    ),
    "cursor keys": TradeWord("ArrowUp, ArrowDown, ArrowLeft and ArrowRight.", ("keys",), ("key.ArrowUp",)),
    "damping": TradeWord(
        "How quickly a speed or a value dies away: a half-life, or drag.",
        ("coast_half_life_s", "drag_per_s", "move.half_life_s"),
    ),
    "dash": TradeWord("A burst of speed, which the game adds with `Helm.push`.", (), ("body.push",)),
    "debounce": TradeWord(
        "Ignoring the flicker of a switch. Devices do it themselves; a trigger or a stick has `release`.",
        ("press.bind.release",),
        ("press-trembles",),
    ),
    "deceleration": TradeWord(
        "How quickly speed falls.", ("brake_m_s2", "reverse_m_s2"), ("stop_time_s", "stop_distance_m")
    ),
    "delta time": TradeWord(
        "The seconds that a tick covers. Nothing in a profile is a factor per tick.",
        ("max_dt_s",),
        ("tick_dependence", "tap_dependence", "wendonic units"),
    ),
    "determinism": TradeWord(
        "The same events and the same ticks give the same numbers, bit for bit, on one machine. On another one, the "
        "last digit of a sine may differ: let one machine decide.",
        (),
        ("recording",),
    ),
    "diagonal speed": TradeWord(
        "Two keys together must not be 41 % faster than one.",
        ("move.diagonal", "diagonal_factor"),
        ("diagonal_ratio", "diagonal-too-fast", "diagonal-too-slow"),
    ),
    "double jump": TradeWord("A second jump before landing.", ("air_jumps",)),
    "double tap": TradeWord("Two quick presses of one control.", ("press.style", "double_s"), ("press-too-quick",)),
    "drift": TradeWord(
        "A stick at rest that moves the body: its rest point is off, or its dead zone too small.",
        ("centre", "dead_zone.inner"),
        ("rest_drift_m_per_min", "dead-zone-small", "wendonic calibrate"),
    ),
    "drifting": TradeWord("Sliding sideways in a turn.", ("grip",)),
    "easing": TradeWord("A soft start or end.", ("rise_s", "fall_s", "ease_s", "eased")),
    "edge panning": TradeWord(
        "Moving a camera over the map while the pointer is near the edge of the window: a `pointer` entry that "
        "always counts, with a wide dead zone. The dead zone is a circle; for the exact edge of the window, let the "
        "game hold a key with `Helm.key`.",
        ("move.bind.pointer", "while_held", "move.bind.dead_zone.inner"),
    ),
    "eDPI": TradeWord(
        "The mouse's counts per inch times a game's sensitivity number. Here `cm_per_turn` and `dpi` say it without "
        "such a number, so it is the same in every game.",
        ("cm_per_turn", "dpi"),
        ("mouse_deg_per_10cm", "wendonic units"),
    ),
    "eight-way": TradeWord(
        "Movement or sprites in eight directions.", ("notches", "sectors", "sector_margin_deg"), ("facing-flickers",)
    ),
    "exponential curve": TradeWord("A response curve that is finer at small tilts.", ("curve.power", "curve.expo")),
    "fall speed": TradeWord(
        "How fast a body falls.", ("gravity_m_s2", "fall.gravity_ratio", "fall.top_speed_m_s"), ("jump_airtime_s",)
    ),
    "field of view": TradeWord(
        "The angle the camera sees; zooming narrows it.", ("fov_deg", "zoom_fov_deg", "match_at")
    ),
    "fixed step": TradeWord(
        "Ticks of one length, however long the frames: `Helm.fixed_ticks(frame_dt, step_s)`.",
        (),
        ("tick_dependence", "tap_dependence"),
    ),
    "flick": TradeWord("A quick, wide turn of the view.", ("hand_gain", "rim_boost"), ("look_deg_s_rim",)),
    "flight stick": TradeWord("A joystick: `[joystick]` names its axes and buttons.", ("joystick",)),
    "floaty": TradeWord(
        "How a jump feels that hangs in the air, or a body that drifts to rest.",
        ("gravity_m_s2", "fall.gravity_ratio", "coast_half_life_s"),
        ("jump_airtime_s", "jump_apex_s", "stop_time_s"),
    ),
    "four-way": TradeWord("Movement or sprites in four directions.", ("sectors", "notches", "steer.diagonals")),
    "frame rate": TradeWord(
        "The same feel at every rate: ramps, half-lives and rates are per second.",
        ("max_dt_s",),
        ("tick_dependence", "tap_dependence", "depends-on-ticks", "wendonic units"),
    ),
    "friction": TradeWord(
        "What slows a body down: a brake, a half-life, or drag.", ("brake_m_s2", "coast_half_life_s", "drag_per_s")
    ),
    "gamepad": TradeWord(
        "Two sticks, triggers and buttons, named by their place. The first is pad, the next pad1, and so on.",
        ("move.bind.stick", "press.bind.control"),
        ("pad.left_stick", "pad.south", "wendonic calibrate"),
    ),
    "ghosting": TradeWord(
        "Keys that a keyboard fails to report while others are held.",
        (),
        ("wendonic draw",),
    ),
    "gimbal lock": TradeWord("Looking straight up or down. Forward stays where it was.", ("pitch_limits_deg",)),
    "gliding": TradeWord(
        "Falling slowly while a press is held: another gait for that press, with a low `fall.top_speed_m_s`.",
        ("press_gaits", "fall.top_speed_m_s"),
    ),
    "gravity": TradeWord("Acceleration downwards.", ("gravity_m_s2", "gravity_ratio", "apex_s")),
    "gyro aiming": TradeWord(
        "Turning the view by turning the pad, always or only while a press is held.",
        ("gyro", "turn_ratio", "while_press"),
        ("gyro_ratio",),
    ),
    "hair trigger": TradeWord(
        "A trigger that counts after a short pull.", ("press.bind.above", "press.bind.release"), ("press-trembles",)
    ),
    "hand tracking": TradeWord(
        "Hands without controllers: their poses are given like those of controllers, and the game says what "
        "counts as a squeeze.",
        ("hands",),
        ("hand.left.pose", "hand.left.squeeze"),
    ),
    "handbrake": TradeWord(
        "A press that switches to a gait with a hard brake and almost no top speed; with a harder brake alone, a "
        "held throttle would keep driving. In a vehicle steered by `move`, the press may scale `move` to 0 instead. "
        "To drift, enter a mode with less grip.",
        ("press_gaits", "gait.brake_m_s2", "gait.top_speed_m_s", "press_amounts", "grip"),
    ),
    "hang time": TradeWord(
        "How long a jump stays near its top.", ("apex_s", "fall.gravity_ratio"), ("jump_apex_s", "jump_airtime_s")
    ),
    "hat": TradeWord("The cross of a pad or of a joystick.", ("press.bind", "joystick"), ("pad.dpad_up",)),
    "head bob": TradeWord("Not part of Wendonic, whose view turns and does not sway."),
    "heavy": TradeWord(
        "How a body feels that is slow to start, to turn and to stop.",
        ("gait.accel_m_s2", "gait.brake_m_s2", "steer.turn_deg_s"),
        ("reach90_s", "stop_distance_m", "turn_round_s"),
    ),
    "hex grid": TradeWord(
        "Not part of Wendonic: squares have four neighbours, or eight with diagonals. Six notches give the "
        "directions.",
        ("notches", "grid"),
    ),
    "hitch": TradeWord("A frame that takes far too long. It is cut into equal parts.", ("max_dt_s",)),
    "hot plugging": TradeWord(
        "Pads that come and go while the game runs. Adapters number them; one that is gone releases what it held.",
        (),
        ("lost.pad",),
    ),
    "hot reload": TradeWord(
        "Numbers that change while the game runs: `wendonic.watch` follows the file, `Helm.retune` takes a profile.",
        (),
        ("wendonic live",),
    ),
    "hysteresis": TradeWord(
        "A margin before something switches back, so that it does not flicker.",
        ("release", "pace_margin", "notch_margin_deg", "sector_margin_deg"),
        ("facing-flickers", "chatters"),
    ),
    "inertia": TradeWord(
        "Speed that changes slowly, or lasts.",
        ("gait.accel_m_s2", "gait.brake_m_s2", "coast_half_life_s", "keeps_speed"),
        ("reach90_s", "stop_distance_m"),
    ),
    "input buffer": TradeWord("How long before landing a jump already counts.", ("buffer_s",), ("jump_buffer_s",)),
    "input lag": TradeWord(
        "The time from a press to the first movement, or to half of the request.",
        ("half_life_s", "rise_s", "one_euro"),
        ("first_response_s", "chain_delay_s", "smoothing_delay_s", "slow-answer"),
    ),
    "interpolation": TradeWord(
        "Drawing between two fixed steps: `Helm.leftover_ratio` is the share of a step that is left."
    ),
    "inverted look": TradeWord(
        "Up looks down, or right looks left.", ("invert_pitch", "invert_yaw"), ("mirrored-look",)
    ),
    "isometric": TradeWord(
        "A game seen from a fixed angle. Pass that angle as the view, and forward is up the screen.", ("camera",)
    ),
    "jetpack": TradeWord(
        "Rising while a key is held: a mode that flies, or speed that the game adds with `Helm.push`.",
        ("fly", "rise"),
        ("body.push",),
    ),
    "jitter": TradeWord("A trembling value.", ("one_euro", "half_life_s", "release"), ("chatters", "press-trembles")),
    "jump buffering": TradeWord("How long before landing a jump already counts.", ("buffer_s",), ("jump_buffer_s",)),
    "jump height": TradeWord("How high a jump goes.", ("jump.height_m", "apex_s"), ("jump_height_m", "jump-high")),
    "jump pad": TradeWord(
        "Ground that launches the body: the game sets the speed with `Helm.place(velocity=…)`, however fast it fell.",
        (),
        ("body.velocity",),
    ),
    "Kalman filter": TradeWord(
        "Not part of Wendonic. The one-euro filter adapts to the speed as well.", ("one_euro",)
    ),
    "key binding": TradeWord("Which controls do what.", ("bind", "press.bind"), ("wendonic controls",)),
    "key ramp": TradeWord(
        "How a key's value rises after a press and falls after a release; a gait softens both by itself.",
        ("rise_s", "fall_s", "reversal"),
        ("tap_dependence", "slow-answer", "depends-on-ticks"),
    ),
    "keyboard layout": TradeWord(
        "Keys are named by their place, so that a profile fits every layout: KeyW is the key that a French keyboard "
        "labels Z.",
        ("move.bind.keys",),
        ("wendonic controls",),
    ),
    "knockback": TradeWord("Speed that the game adds to the body with `Helm.push`.", (), ("body.push",)),
    "ladder": TradeWord(
        "Climbing: a mode of its own, entered by a press or by the game.", ("mode", "press.enter", "rise")
    ),
    "lag": TradeWord(
        "A delay of the body or the view behind the hand.",
        ("half_life_s", "rise_s", "one_euro", "ease_s"),
        ("first_response_s", "chain_delay_s", "smoothing_delay_s", "slow-answer"),
    ),
    "latency": TradeWord(
        "The time from a press to the first movement.",
        ("half_life_s", "rise_s"),
        ("first_response_s", "chain_delay_s"),
    ),
    "ledge grab": TradeWord(
        "Not part of Wendonic: the game finds the ledge and moves the body with `Helm.place`.", (), ("body.place",)
    ),
    "left-handed": TradeWord(
        "Axes that are the mirror image of the usual ones.", ("world.handed",), ("left-handed-axes",)
    ),
    "lerp": TradeWord(
        "Moving a share of the way each frame depends on the frame rate; a half-life does not.",
        ("half_life_s", "coast_half_life_s"),
        ("wendonic units",),
    ),
    "linear curve": TradeWord("Amount in proportion to tilt.", ("curve.form",), ("linear",)),
    "lock-on": TradeWord(
        'Facing a target while moving round it: face = "aim" faces the point that the game passes to helm.aim_at.',
        ("steer.face",),
    ),
    "long press": TradeWord("A press that counts once it has lasted.", ("press.style", "long_s")),
    "look limits": TradeWord("How far up and down the view may turn.", ("pitch_limits_deg",)),
    "lookup table": TradeWord("A response curve through points of one's own.", ("curve.points",)),
    "low-pass filter": TradeWord("What takes trembling out of a value.", ("half_life_s", "one_euro")),
    "macro": TradeWord(
        "Not part of Wendonic. A script can send events to a helm, and a recording plays them again.",
        (),
        ("wendonic record",),
    ),
    "menu navigation": TradeWord(
        "Moving through a menu: a mode of its own, whose presses repeat while a key or a stick is held.",
        ("press.style", "repeat_delay_s", "towards"),
    ),
    "momentum": TradeWord(
        "Speed that lasts.", ("coast_half_life_s", "keeps_speed", "turn_loss", "grip"), ("stop_distance_m",)
    ),
    "motion sickness": TradeWord(
        "What fast turns and accelerations of the view cause in a headset.", ("vignette", "snap_deg")
    ),
    "mouse acceleration": TradeWord("A gain that depends on the speed of the hand.", ("hand_gain",)),
    "mouse capture": TradeWord(
        "The window keeps the mouse, so that its motion never comes to an edge. That is the window library's part; "
        "tell the helm when the focus is lost.",
        (),
        ("mouse.move", "lost.focus"),
    ),
    "mouse sensitivity": TradeWord(
        "How far the view turns for a motion of the mouse.",
        ("cm_per_turn", "dpi", "deg_per_count"),
        ("mouse_deg_per_10cm", "mouse-turn"),
    ),
    "mouse smoothing": TradeWord(
        "A view that follows the mouse evenly, and late.",
        ("look.bind.half_life_s",),
        ("swipe_delay_s", "slow-answer"),
    ),
    "moving platform": TradeWord(
        "Ground that carries the body: the game moves it with `Helm.place` in each tick, and calls `Helm.push` once "
        "when it steps on or off.",
        (),
        ("body.place", "body.push"),
    ),
    "multi-touch": TradeWord(
        "Several fingers at once: each belongs to the zone in which it lands.",
        ("touch_stick", "touch_drag", "touch_zones"),
    ),
    "noise": TradeWord(
        "The trembling of a device, at rest or held.",
        ("dead_zone.inner", "one_euro", "half_life_s"),
        ("dead-zone-small", "hands-tremble", "wendonic calibrate"),
    ),
    "normalise": TradeWord(
        "Making every input equally long. cap only shortens what is too long, and keeps partial tilt.",
        ("move.diagonal",),
        ("diagonal_ratio",),
    ),
    "numpad": TradeWord("Numpad0 to Numpad9: keys by their place.", ("keys",), ("key.Numpad8",)),
    "octagonal gate": TradeWord(
        "A rim with eight corners, which `wendonic calibrate` measures.", ("gate", "rim"), ("wendonic calibrate",)
    ),
    "opposite keys": TradeWord("Left and right held together.", ("opposites",), ("opposites-do-not-cancel",)),
    "outer dead zone": TradeWord("The tilt that counts as full.", ("dead_zone.outer",), ("rim-out-of-reach",)),
    "overshoot": TradeWord(
        "Going past a goal before stopping at it.", ("slow_down_m", "arrival_m"), ("goal_overshoot_m",)
    ),
    "panning": TradeWord(
        "Moving a camera sideways over a map: the channel `move`, and a gait for how the camera starts and stops.",
        ("mode.move", "gait.accel_m_s2", "gait.brake_m_s2"),
    ),
    "pathfinding": TradeWord(
        "Not part of Wendonic: `goto` walks straight, to one goal after another that the game found.",
        ("goto", "retarget"),
    ),
    "pause": TradeWord(
        "A paused game does not tick its helm. `Helm.discard_counts` drops what the mouse counted meanwhile."
    ),
    "PCHIP": TradeWord("The smooth curve through given points, which never overshoots.", ("curve.points",)),
    "pinch": TradeWord(
        "Not part of Wendonic: fingers are followed one by one.", ("touch_zones", "touch_drag"), ("touch.0",)
    ),
    "pixels": TradeWord(
        "A unit of the game's own: a profile may write `_u` in place of `_m`.",
        ("world.unit", "world.units_per_m"),
        ("unit-mistaken",),
    ),
    "platformer": TradeWord("A game seen from the side.", ("steer.side_view", "gait.jump", "grace_s", "buffer_s")),
    "polling rate": TradeWord(
        "How often a device reports. The feel does not depend on it: counts add up, levels are held."
    ),
    "power curve": TradeWord("Small tilts are finer, full tilt is full.", ("curve.exponent",), ("power",)),
    "precision": TradeWord(
        "Keeping small motions small: a finer curve, slower turning while aiming, steadier hands.",
        ("curve.form", "zoom", "hand_gain", "steady_below_deg_s"),
        ("quarter_steps_8bit",),
    ),
    "prediction": TradeWord(
        "Moving on a player's machine before the server answers: `Helm.snapshot` and `Helm.restore`."
    ),
    "quantization": TradeWord(
        "The steps in which a device reports.", ("curve",), ("quarter_steps_8bit", "quarter_steps_16bit")
    ),
    "quaternion": TradeWord(
        "An orientation in four numbers, x, y, z, w: `View.from_quaternion` and `View.quaternion` convert it."
    ),
    "quick turn": TradeWord("Turning round in one go.", ("snap_deg", "rim_boost"), ("turn_round_s",)),
    "radial dead zone": TradeWord(
        "A dead zone that is round: the direction stays, and the length is rescaled.", ("dead_zone.form",)
    ),
    "ratcheting": TradeWord("Bringing a pad back without turning the view.", ("pause_press", "while_press")),
    "raw input": TradeWord(
        "What a device reports before any shaping: counts of a mouse, a stick from -1 to 1.",
        (),
        ("wendonic controls", "wendonic draw"),
    ),
    "rebinding": TradeWord(
        "Other controls, chosen by the player: `next_control` and `Profile.changed`.",
        ("bind",),
        ("wendonic controls",),
    ),
    "recoil": TradeWord(
        "A kick of the view: the game turns the view and passes it to `Helm.tick`. Looking continues there.",
        (),
        ("view",),
    ),
    "reconciliation": TradeWord(
        "Going back to what the server says, and playing the inputs since then again: `Helm.snapshot` and "
        "`Helm.restore`."
    ),
    "replay": TradeWord(
        "A recording played again tick by tick, also under another profile.", (), ("wendonic shape", "wendonic draw")
    ),
    "resizing": TradeWord(
        "A window whose shape changes, or a phone that is turned on its side. Pass the new size to `Helm.window`, "
        "and thumbs and pointers still count the same in both directions.",
        ("window.aspect_ratio",),
        ("window",),
    ),
    "respawn": TradeWord("A new life at another place: `Helm.restart`.", (), ("body.restart",)),
    "responsiveness": TradeWord(
        "How soon a body answers the hand.",
        ("gait.accel_m_s2", "half_life_s", "rise_s"),
        ("first_response_s", "reach90_s", "chain_delay_s"),
    ),
    "rewind": TradeWord("Going back to an earlier moment: `Helm.snapshot` and `Helm.restore`."),
    "roll": TradeWord(
        "Leaning to one side. A view has yaw and pitch; `View.from_quaternion` takes a full orientation."
    ),
    "rollback": TradeWord("Going back some ticks and playing them again: `Helm.snapshot` and `Helm.restore`."),
    "room scale": TradeWord(
        "Walking about in the play space: `head.pose` says where the head is, and `comfort` what happens when it "
        "gets into a wall.",
        ("comfort",),
        ("head.pose",),
    ),
    "root motion": TradeWord(
        "The animation moves the body: the game reports each tick where it is, and how fast, with `Helm.place`.",
        (),
        ("body.place", "body.velocity"),
    ),
    "rumble": TradeWord("Not part of Wendonic, which reads devices and writes to none."),
    "s-curve": TradeWord(
        'A response curve that is finer at both ends: form "s".',
        ("curve.amount",),
        ("s",),
    ),
    "saturation": TradeWord("The tilt that counts as full.", ("dead_zone.outer",)),
    "screen shake": TradeWord(
        "Not part of Wendonic. Shake the camera, but pass the helm the view without it; otherwise forward shakes "
        "as well.",
        (),
        ("view",),
    ),
    "sensitivity": TradeWord(
        "How far the view turns for a motion of the hand, or how fast for a tilt.",
        ("cm_per_turn", "yaw_deg_s", "pitch_deg_s", "turn_ratio", "deg_per_width"),
        ("mouse_deg_per_10cm", "look_deg_s_full_tilt", "finger_deg_per_width"),
    ),
    "skid": TradeWord(
        "Sliding on after a release or in a turn.", ("brake_m_s2", "grip"), ("stop_distance_m", "slides-on")
    ),
    "sliding": TradeWord(
        "Going on after a release.", ("brake_m_s2", "coast_half_life_s", "grip"), ("stop_distance_m", "slides-on")
    ),
    "slippery": TradeWord(
        "How a body feels that goes on after a release.",
        ("brake_m_s2", "reverse_m_s2", "grip"),
        ("stop_distance_m", "reversal_s", "slides-on"),
    ),
    "slope limit": TradeWord("The steepest ground that can be climbed.", ("steepest_deg", "slide_m_s")),
    "slow motion": TradeWord(
        "A game that passes less than the real time to `Helm.tick`: the body, ramps, buffers and the turning of a "
        "stick slow down with it; the mouse does not. To keep a stick's turn rate, divide it by the time scale and "
        "pass the profile to `Helm.retune`.",
        ("yaw_deg_s", "pitch_deg_s"),
    ),
    "sluggish": TradeWord(
        "How a body or a view feels that answers late.",
        ("gait.accel_m_s2", "half_life_s", "rise_s"),
        ("reach90_s", "smoothing_delay_s", "chain_delay_s", "slow-answer", "slow-start"),
    ),
    "smooth turn": TradeWord(
        "Turning at a steady rate with a stick, in a headset as well: leave `snap_deg` out.",
        ("look.bind.yaw_deg_s", "snap_deg"),
    ),
    "smoothing": TradeWord("Taking the trembling out of a value, at the cost of delay.", ("half_life_s", "one_euro")),
    "snap turn": TradeWord(
        "Turning by a fixed angle at once, for comfort in a headset.", ("snap_deg", "snap_at", "rearm_at")
    ),
    "snap-back": TradeWord(
        "A released stick swings past its middle, and for an instant requests the opposite direction.",
        ("dead_zone.inner", "dead_zone.release"),
        ("wendonic calibrate",),
    ),
    "snappy": TradeWord(
        "How a body feels that starts, stops and falls quickly.",
        ("gait.accel_m_s2", "gait.brake_m_s2", "gravity_m_s2"),
        ("reach90_s", "stop_time_s", "jump_airtime_s"),
    ),
    "SOCD": TradeWord(
        "Simultaneous opposite cardinal directions: left and right held together.",
        ("opposites",),
        ("opposites-do-not-cancel",),
    ),
    "southpaw": TradeWord(
        "Moving with the right stick and looking with the left one: swap the sticks that the entries of `move` and "
        "`look` name.",
        ("move.bind.stick", "look.bind.stick"),
        ("pad.left_stick", "pad.right_stick"),
    ),
    "spaceship": TradeWord(
        "A body that thrust speeds up and drag slows, turned by the channel turn in frame facing.",
        ("thrust_m_s2", "drag_per_s", "steer.face", "turn"),
        ("full_turn_s", "turn_circle_m"),
    ),
    "speed": TradeWord(
        "How fast a body goes at full input.", ("gait.top_speed_m_s",), ("top_speed_m_s", "speed_at_tilt_m_s")
    ),
    "spiral of death": TradeWord(
        "Fixed steps that take longer than they cover. `Helm.fixed_ticks` drops what is left."
    ),
    "split screen": TradeWord("Players who share a machine: each has a helm with a seat.", ("seat",)),
    "spring": TradeWord(
        "Not part of Wendonic. A value that follows without swinging past has a half-life.",
        ("move.half_life_s", "look.bind.half_life_s"),
    ),
    "sprint": TradeWord("A faster gait while a press is on.", ("press_gaits", "press.style"), ("jump-lost-in-gait",)),
    "square gate": TradeWord("A rim on which both axes reach 1 together.", ("gate",)),
    "stairs": TradeWord("Steps of a course, walked up and down where none is higher than step_m.", ("step_m",)),
    "steering wheel": TradeWord("A wheel whose axis turns a vehicle.", ("turn", "axis", "joystick")),
    "step height": TradeWord(
        "The height of a step that a body walks up without jumping and down without falling.", ("step_m",)
    ),
    "step size": TradeWord(
        "The square of a grid, or the height of a step that is walked up or down.", ("square_m", "step_m")
    ),
    "stick drift": TradeWord(
        "A stick at rest that moves the body: its rest point is off, or its dead zone too small.",
        ("centre", "dead_zone.inner"),
        ("rest_drift_m_per_min", "dead-zone-small", "wendonic calibrate"),
    ),
    "sticky key": TradeWord("A key that counts as held after the window lost focus.", (), ("lost.focus",)),
    "strafe": TradeWord("Moving sideways without turning.", ("facing", "steer.face")),
    "stuck key": TradeWord("A key that counts as held after the window lost focus.", (), ("lost.focus",)),
    "stun": TradeWord(
        "A time in which the player cannot move. Call `Helm.stop`, and enter a mode that binds only what still "
        "works.",
        ("held_presses", "movement"),
    ),
    "swimming": TradeWord(
        "A mode with thrust against drag, in which `rise` goes up and down.",
        ("fly", "rise", "thrust_m_s2", "drag_per_s"),
    ),
    "tank controls": TradeWord(
        "Forward is where the body faces, and left and right turn it: bind them to the channel `turn`, and say "
        'face = "turn".',
        ("facing", "steer.face", "mode.turn"),
    ),
    "telemetry": TradeWord(
        "What a game records of its players: a whole folder of recordings can be shaped and compared at once.",
        (),
        ("recording", "wendonic corpus"),
    ),
    "teleport": TradeWord("Pointing at a place to be at, in a headset.", ("teleport",)),
    "terminal velocity": TradeWord("The fastest fall.", ("fall.top_speed_m_s",)),
    "terrain": TradeWord("The ground a profile is tried on, and how bodies climb it.", ("steer.slope", "piece")),
    "third-person camera": TradeWord(
        "A camera that looks at the body from behind. The game places it by the yaw and pitch of the view; in frame "
        "camera, forward follows it.",
        ("camera", "steer.face"),
        ("view_yaw_deg",),
    ),
    "tile movement": TradeWord("One square a step.", ("grid",), ("press_to_step_s", "steps_per_s")),
    "tilt": TradeWord("How far a stick is from its rest point, 0 to 1.", ("dead_zone", "curve")),
    "toggle": TradeWord("A press that stays on until it is pressed again.", ("press.style",)),
    "top-down": TradeWord("A game seen from above. Forward is up the screen.", ("steer.frame", "steer.face")),
    "trackpad": TradeWord("A finger that drags the view.", ("touch_drag",)),
    "tremor": TradeWord(
        "A hand that trembles. A dead zone, a margin or a filter keeps it out of the game.",
        ("dead_zone.inner", "one_euro", "press.bind.release"),
        ("press-trembles", "hands-tremble"),
    ),
    "trigger": TradeWord(
        "A button of a pad with travel, 0 to 1.",
        ("press.bind.above", "press.bind.release"),
        ("pad.left_trigger", "pad.right_trigger"),
    ),
    "trigger dead zone": TradeWord(
        "How far a trigger is pulled before it counts: as a press from `above` on, as a throttle past its dead zone.",
        ("press.bind.above", "throttle.bind.dead_zone"),
        ("pad.right_trigger",),
    ),
    "turn in place": TradeWord(
        "Turning without moving: the channel `turn` turns a body, and `on_the_spot` lets a vehicle do it.",
        ("on_the_spot", "mode.turn"),
    ),
    "turn radius": TradeWord(
        "How narrow a circle a vehicle or a walker turns in.", ("turn_radius_m",), ("turn_circle_m",)
    ),
    "turn speed": TradeWord(
        "How fast a body or a view turns.", ("turn_deg_s", "yaw_deg_s"), ("turn_round_s", "turns-slowly")
    ),
    "turning circle": TradeWord("How wide a vehicle turns.", ("turn_radius_m", "turn_deg_s"), ("turn_circle_m",)),
    "turret": TradeWord(
        "What aims while the vehicle under it drives: use the view, which `look` turns.",
        ("mode.look", "drive"),
    ),
    "twin stick": TradeWord(
        'One stick moves, the other one aims: face = "aim" faces the point that the game passes to helm.aim_at.',
        ("steer.face", "move.bind.stick"),
    ),
    "twitchy": TradeWord(
        "How a stick or a view feels that makes too much of a small motion.",
        ("curve", "cm_per_turn", "yaw_deg_s"),
        ("small_tilt_slope", "quarter_steps_8bit", "look-too-fast-to-aim"),
    ),
    "up axis": TradeWord("Which of the game's axes points up.", ("world.up",)),
    "variable jump height": TradeWord(
        "A short press jumps lower.", ("early_release_ratio",), ("jump_tap_height_m", "jump_height_m")
    ),
    "vault": TradeWord(
        "Over a low wall in one motion: the game moves the body with `Helm.place`, in a mode without a gait if the "
        "player steers nothing meanwhile.",
        ("step_m",),
    ),
    "vector": TradeWord(
        "A direction with a length: `intent.velocity()`, `intent.direction()` and `intent.facing()`, in the game's "
        "own axes."
    ),
    "vehicle": TradeWord(
        "A heading steered by throttle and turn.", ("drive", "throttle", "turn"), ("turn_circle_m",)
    ),
    "vignette": TradeWord("A view that narrows while moving, for comfort in a headset.", ("vignette",)),
    "virtual cursor": TradeWord(
        "A pointer that a stick moves: a mode without a gait, whose `Intent.velocity` moves the pointer.",
        ("mode.gait",),
    ),
    "virtual stick": TradeWord(
        "A stick under the thumb on a touch screen, where it lands or in a place of its own.",
        ("touch_stick", "radius", "past_rim", "bind.middle"),
        ("thumb_travel",),
    ),
    "wall jump": TradeWord(
        "A jump off a wall: the game sets the speed with `Helm.place(velocity=…)`. A push would only be added to the "
        "fall.",
        ("air_jumps",),
        ("body.velocity",),
    ),
    "wall slide": TradeWord(
        "Going along a wall: speed along it stays, speed into it is gone. `Helm.contact` reports a wall of the game. "
        "To slide down a wall slowly, enter a mode whose gait has a low `fall.top_speed_m_s`.",
        ("movement", "fall.top_speed_m_s"),
        ("body.contact",),
    ),
    "WASD": TradeWord(
        "KeyW, KeyA, KeyS and KeyD: places on the keyboard, whatever is printed there.", ("keys",), ("key.KeyW",)
    ),
    "waypoints": TradeWord("Places that are walked to one after another.", ("goto", "queue", "goal")),
    "weight": TradeWord(
        "Slow to start, to turn and to stop; or gravity, which pulls a body down.",
        ("gait.accel_m_s2", "brake_m_s2", "turn_deg_s", "gravity_m_s2"),
        ("reach90_s", "stop_distance_m"),
    ),
    "world relative": TradeWord("Forward is the same direction of the world, wherever the camera looks.", ("map",)),
    "zoom sensitivity": TradeWord("Slower turning while zoomed.", ("zoom", "match_at", "zoom_fov_deg")),
}
"""Words of the trade, each with where it is found."""

SAME_AS: dict[str, str] = {
    "alt-tab": "stuck key",
    "window focus": "stuck key",
    "camera shake": "screen shake",
    "charge jump": "charged jump",
    "disconnected": "hot plugging",
    "extrapolation": "prediction",
    "glide": "gliding",
    "hot plug": "hot plugging",
    "jump arc": "jump height",
    "parachute": "gliding",
    "snap to grid": "tile movement",
    "stunned": "stun",
    "unplugged": "hot plugging",
    "waypoint": "waypoints",
    "bullet time": "slow motion",
    "circularity error": "circularity",
    "controller": "gamepad",
    "hit stop": "slow motion",
    "input buffering": "input buffer",
    "joypad": "gamepad",
    "lag compensation": "prediction",
    "multiplayer": "prediction",
    "network": "prediction",
    "one-handed": "accessibility",
    "online": "prediction",
    "pivot": "turn in place",
    "sens": "sensitivity",
    "swap sticks": "southpaw",
    "time scale": "slow motion",
    "4-way": "four-way",
    "8-way": "eight-way",
    "ads": "zoom sensitivity",
    "aim down sights": "zoom sensitivity",
    "aim smoothing": "smoothing",
    "analog": "analogue input",
    "arcade stick": "flight stick",
    "arrow keys": "cursor keys",
    "camera pan": "panning",
    "edge pan": "edge panning",
    "edge scrolling": "edge panning",
    "haptics": "rumble",
    "hat switch": "hat",
    "lock on": "lock-on",
    "pan": "panning",
    "player two": "split screen",
    "prone": "crouch",
    "reticle": "crosshair",
    "rubber band": "reconciliation",
    "second player": "split screen",
    "snap back": "snap-back",
    "target lock": "lock-on",
    "autorun": "auto-run",
    "axial": "axial dead zone",
    "bezier": "Bezier curve",
    "bit depth": "quantization",
    "climbing": "ladder",
    "conveyor": "moving platform",
    "couch co-op": "split screen",
    "cross dead zone": "axial dead zone",
    "dodge": "dash",
    "EMA": "lerp",
    "ESDF": "WASD",
    "exponential moving average": "lerp",
    "fight stick": "flight stick",
    "fixed timestep": "fixed step",
    "floaty jump": "floaty",
    "frame rate dependence": "frame rate",
    "frame rate dependent": "frame rate",
    "grid movement": "tile movement",
    "hot seat": "split screen",
    "HOTAS": "flight stick",
    "hotkey": "key binding",
    "ice": "slippery",
    "jittery": "jitter",
    "jump buffer": "jump buffering",
    "jump cut": "variable jump height",
    "key repeat": "auto repeat",
    "laggy": "lag",
    "local multiplayer": "split screen",
    "netcode": "prediction",
    "octagon gate": "octagonal gate",
    "pedals": "flight stick",
    "racing": "vehicle",
    "radial": "radial dead zone",
    "rebind": "rebinding",
    "rotation speed": "turn speed",
    "rubber banding": "reconciliation",
    "run": "sprint",
    "side scroller": "platformer",
    "ship": "spaceship",
    "short hop": "variable jump height",
    "slope sliding": "slope limit",
    "stutter": "hitch",
    "swipe": "trackpad",
    "touch joystick": "virtual stick",
    "virtual joystick": "virtual stick",
    "walk speed": "speed",
    "y-up": "up axis",
    "yoke": "flight stick",
    "z-up": "up axis",
    "180 turn": "quick turn",
    "auto fire": "auto repeat",
    "azerty": "keyboard layout",
    "ease in": "easing",
    "ease out": "easing",
    "fixed joystick": "virtual stick",
    "fixed stick": "virtual stick",
    "floating joystick": "virtual stick",
    "floating stick": "virtual stick",
    "hovercraft": "boat",
    "look inversion": "inverted look",
    "menu": "menu navigation",
    "modifier key": "chord",
    "motion input": "combo",
    "n-key rollover": "ghosting",
    "quarter circle": "combo",
    "qwertz": "keyboard layout",
    "remap": "rebinding",
    "remapping": "rebinding",
    "resize": "resizing",
    "resolution": "resizing",
    "fullscreen": "resizing",
    "full screen": "resizing",
    "screen orientation": "resizing",
    "landscape": "resizing",
    "portrait": "resizing",
    "letterbox": "resizing",
    "roguelike": "tile movement",
    "scope": "zoom sensitivity",
    "sneak": "crouch",
    "turbo": "auto repeat",
    "trampoline": "jump pad",
    "turn-based": "tile movement",
    "absolute movement": "world relative",
    "body relative": "tank controls",
    "boost": "sprint",
    "blind test": "a/b test",
    "camera follow": "third-person camera",
    "camera smoothing": "smoothing",
    "cardinal snapping": "axis snapping",
    "character relative": "tank controls",
    "chase camera": "third-person camera",
    "deterministic": "determinism",
    "disability": "accessibility",
    "edge turning": "edge panning",
    "focus loss": "stuck key",
    "FPS": "frame rate",
    "framerate": "frame rate",
    "gamma": "power curve",
    "hand tremor": "tremor",
    "handedness": "left-handed",
    "hold duration": "long press",
    "hold time": "long press",
    "last input wins": "opposite keys",
    "last key wins": "opposite keys",
    "lockstep": "determinism",
    "lost focus": "stuck key",
    "LUT": "lookup table",
    "micro movement": "precision",
    "motor impairment": "accessibility",
    "mouse grab": "mouse capture",
    "mouse lock": "mouse capture",
    "navigation mesh": "pathfinding",
    "navmesh": "pathfinding",
    "neutral": "opposite keys",
    "orbit camera": "third-person camera",
    "over the shoulder": "third-person camera",
    "phantom key": "ghosting",
    "pitch clamp": "look limits",
    "pitch limit": "look limits",
    "playtest": "telemetry",
    "pointer lock": "mouse capture",
    "ramp up": "key ramp",
    "refresh rate": "frame rate",
    "screen relative": "world relative",
    "step offset": "step height",
    "third person": "third-person camera",
    "tick rate": "frame rate",
    "unaccelerated": "raw input",
    "vsync": "frame rate",
    "wobble": "jitter",
    "world space": "world relative",
}
"""Other words for the same."""

TRADE_WORDS |= {word: TRADE_WORDS[same] for word, same in SAME_AS.items()}

FIELDS_MEANT: dict[str, tuple[str, ...]] = {
    "accel": ("accel_m_s2",),
    "ahead": ("forward",),
    "backward": ("back",),
    "backwards": ("back",),
    "bindings": ("bind",),
    "brake": ("brake_m_s2",),
    "buffer": ("buffer_s",),
    "buttons": ("bind",),
    "coyote": ("grace_s",),
    "counts_per_inch": ("dpi",),
    "cpi": ("dpi",),
    "deadband": ("dead_zone",),
    "decel": ("brake_m_s2",),
    "down": ("back",),
    "drag": ("drag_per_s", "coast_half_life_s"),
    "exp": ("exponent",),
    "fov": ("fov_deg",),
    "gain": ("hand_gain", "turn_ratio"),
    "grace": ("grace_s",),
    "height": ("height_m",),
    "high": ("outer",),
    "inner_deadzone": ("inner",),
    "invert": ("invert_pitch", "invert_yaw"),
    "invert_x": ("invert_yaw",),
    "invert_y": ("invert_pitch",),
    "jump_force": ("speed_m_s", "jump"),
    "jump_height": ("height_m", "jump"),
    "jump_speed": ("speed_m_s", "jump"),
    "jump_velocity": ("speed_m_s", "jump"),
    "limit_deg": ("steepest_deg",),
    "low": ("inner",),
    "max_speed": ("top_speed_m_s",),
    "name": ("title",),
    "normalize": ("diagonal",),
    "outer_deadzone": ("outer",),
    "radius": ("turn_radius_m", "inner"),
    "response_curve": ("curve",),
    "speed_m_s": ("top_speed_m_s",),
    "threshold": ("above", "inner"),
    "top_speed": ("top_speed_m_s",),
    "trigger": ("control", "axis", "triggers"),
    "turn_rate": ("turn_deg_s",),
    "turn_speed": ("turn_deg_s",),
    "type": ("style", "form", "frame"),
    "velocity": ("top_speed_m_s",),
    "up": ("forward",),
}
"""The fields that unknown keys may mean."""


def plain(word: str) -> str:
    """Return a word in a normal form, without case, dashes and plural.

    >>> plain("Coyote-Time"), plain("dead_zones"), plain("cm/360")
    ('coyote time', 'dead zone', 'cm/360')
    """
    return re.sub(r"(?<=[a-z]{3})(?<!s)s$", "", re.sub(r"[-_\s]+", " ", word.strip().lower()))


_PLAIN = {plain(word): found for word, found in TRADE_WORDS.items()}


def trade_word(word: str) -> TradeWord | None:
    """Return a word of the trade, None for a word that is not listed.

    >>> trade_word("coyote_time").fields
    ('grace_s',)
    """
    return _PLAIN.get(plain(word))


def field_meant(name: str, allowed: Iterable[str]) -> str | None:
    """Return the field of a table that was meant by a word of the trade, None where that is not known.

    >>> field_meant("coyote_time", ["bind", "grace_s"]), field_meant("max_speed", ["top_speed_m_s"])
    ('grace_s', 'top_speed_m_s')
    >>> field_meant("sprint", ["bind"])
    """
    fields = set(allowed)
    ends = [path.rpartition(".")[2] for path in found.fields] if (found := trade_word(name)) else []
    return next((field for field in (*FIELDS_MEANT.get(name.lower(), ()), *ends) if field in fields), None)
