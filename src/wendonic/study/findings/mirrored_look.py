"""A view that turns left when the hand turns right."""

from collections.abc import Iterator

from wendonic.profile.schema.look_binds import GyroBind, LookKeysBind, LookStickBind, MouseBind, TouchDragBind
from wendonic.runtime.helm import Helm
from wendonic.significant import significant
from wendonic.study.finding import Case, Found, finding

TICK_S = 0.05


@finding(60, "fault", "A player who turns to one side goes to the other, and no tuning helps.")
def mirrored_look(case: Case) -> Iterator[Found]:
    """A view that turns left when the hand turns right."""
    for where, bind in case.entries("look"):
        helm = Helm(case.looking)
        match bind:
            case MouseBind():
                helm.mouse(40.0, 0.0)
            case LookStickBind(stick=stick):
                helm.stick(stick, 1.0, 0.0)
            case LookKeysBind(keys=keys) if keys.right:
                helm.key(keys.right[0], down=True)
            case GyroBind(gyro=gyro):
                helm.sensor(gyro, 0.0, -1.0, 0.0)
            case TouchDragBind(touch_drag=name):
                zone = case.profile.window.zone_of(name)
                for x in (zone.left, zone.right):
                    helm.touch(0, x, (zone.top + zone.bottom) / 2.0)
        turned_deg = helm.tick(TICK_S).look.yaw_deg
        if turned_deg < 0.0:
            yield Found(
                f"{where}.invert_yaw",
                f"a turn of the hand to the right turns the view to the left ({significant(turned_deg, 2)} deg)",
                [{f"{where}.invert_yaw": False}],
            )
