"""A whole recording at once: into a DataFrame, a few numbers, and a picture (first argument: where it goes)."""

import sys

from wendonic import load_profile, shape
from wendonic.demo import PROFILE_PATH, demo_recording
from wendonic.pictures import draw_timeline, save_picture

recording = demo_recording("beekeeper_pad")
trace = shape(recording, load_profile(PROFILE_PATH), hz=60)

print(recording)
print(trace[["t", "raw_x", "raw_y", "amount", "heading_deg", "vel_x", "vel_y"]].iloc[780:785].round(3).to_string())
walking = trace[trace["amount"] > 0]
walking_s, all_s = walking["dt"].sum(), trace["dt"].sum()
print(f"walking for {walking_s:.1f} s of {all_s:.1f} s, mean amount {walking['amount'].mean():.2f}")

picture = sys.argv[1] if len(sys.argv) > 1 else "beekeeper_pad_timeline.png"
save_picture(draw_timeline(trace, recording, start_s=11.0, end_s=17.0), picture)
print(f"wrote {picture}")
