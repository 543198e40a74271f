"""The page of the recording format."""

import json

from pages.markdown import written_by
from wendonic.reference.json_schema import json_schema

HEAD = """# Recordings

A recording is a log of events: at time `t`, control `c` has value `v`. It is JSON Lines, UTF-8, one event a line, so
that a crash loses at most the last line:

```json
{"format": "wendonic-recording", "version": 1, "title": "Down the terraces", "devices": ["keys", "pad"]}
{"t": 0.016667, "c": "key.KeyW", "v": 1}
{"t": 0.02, "c": "pad.left_stick", "v": [0.12, -0.94]}
{"t": 0.02, "c": "mouse.move", "v": [14, -3]}
```

- The first line says what the file is. `title` and `devices` are for people.
- `t` is in seconds, from a monotonic clock, and never falls.
- `c` is one of the [controls](controls.md), and `v` its value in the standard of its device.
- A last line that a crash cut off is dropped with a warning. Anything else that is wrong is an error with its line.

`wendonic convert` writes the same events as CSV or Parquet and back, and reads other logs: a capture of
`/dev/input/event*` (`--format linux-input`) and a web page's log of a pad (`--format gamepad-api`). `wendonic info`
says what a recording holds, `wendonic draw devices` shows it, `wendonic cut` and `join` edit it.

From Python: `Recording.read(path)`, `recording.write(path)`; a recording iterates over its events.

## JSON Schema of a line

`wendonic schema --of recording` writes it whole; shortened to one kind of control:

"""


def page() -> str:
    """Return the page."""
    schema = json_schema("recording")
    event = schema["oneOf"][1]
    event["properties"]["c"]["enum"] = [*event["properties"]["c"]["enum"][:3], "…"]
    rules = event["allOf"]
    event["allOf"] = [rule for rule in rules if "pad.left_stick" in rule["if"]["properties"]["c"]["enum"]]
    event["allOf"][0]["if"]["properties"]["c"]["enum"] = ["pad.left_stick", "…"]
    return f"{written_by()}{HEAD}```json\n{json.dumps(schema, indent=2, ensure_ascii=False)}\n```\n"
