"""`wendonic calibrate`: what a recording shows of its devices."""

import json
from pathlib import Path
from typing import Annotated

import typer

from wendonic.cli.options import FromOption, RecordingArgument, ToOption
from wendonic.cli.say import say, say_difference


def calibrate(
    recording: RecordingArgument,
    into: Annotated[
        Path | None, typer.Option("--into", metavar="PROFILE", help="Write it into this profile; comments are kept.")
    ] = None,
    dry_run: Annotated[
        bool, typer.Option("--dry-run", help="Show what --into would change, and write nothing.")
    ] = False,
    share: Annotated[
        float, typer.Option("--share", help="Share of the samples at rest that the dead zone must cover.")
    ] = 0.999,
    swipe_cm: Annotated[
        float | None, typer.Option("--swipe-cm", help="Length of each mouse swipe in the recording (cm).")
    ] = None,
    as_json: Annotated[bool, typer.Option("--json", help="Print what was found as JSON.")] = False,
    start_s: FromOption = None,
    end_s: ToOption = None,
) -> None:
    """Find rest point, noise, dead zone and rim of sticks, the dpi of a mouse, the bias of a gyro.

    Record it like this: let the sticks lie for five seconds; go round each rim slowly three times; push each stick
    aside and release it ten times, a second apart; swipe the mouse a known distance three times, with pauses; lay the
    pad on the table for five seconds.
    """
    from wendonic.errors import ProfileError, WendonicError
    from wendonic.profile.load import profile_from_text, text_of
    from wendonic.profile.save import saved_text, write_profile_text
    from wendonic.recording.recording import Recording
    from wendonic.recording.stretches import cut
    from wendonic.study.as_json import calibration_values, document
    from wendonic.study.calibration.apply import calibrated_profile
    from wendonic.study.calibration.calibrate import calibrate as calibrate_recording

    if dry_run and into is None:
        raise typer.BadParameter("--dry-run goes with --into PROFILE")
    whole = Recording.read(recording)
    stretch = whole if start_s is None and end_s is None else cut(whole, start_s, end_s)
    found = calibrate_recording(stretch, share, swipe_cm)
    if as_json:
        say(json.dumps(document("calibrate", recording=str(recording), devices=calibration_values(found)), indent=2))
    else:
        say(found)
    if into is None:
        return
    before = text_of(into, "profile", ProfileError)
    profile = profile_from_text(before, into)
    try:
        calibrated = calibrated_profile(profile, found)
    except WendonicError as fault:
        raise WendonicError(f"{into}: {fault}") from None
    after = saved_text(calibrated.profile, before, into)
    if dry_run:
        say_difference(before, after, into, "calibrated")
        if after == before:
            say(f"{into}: nothing to change")
        return
    write_profile_text(after, into)
    say("\n  ".join([f"wrote {into}:", *(calibrated.lines() or ["nothing to change"])]))
