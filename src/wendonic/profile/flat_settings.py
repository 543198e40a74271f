"""Every setting of a profile by its field path."""

from typing import Any


def flat_settings(content: Any, path: str = "") -> dict[str, Any]:
    """Return every value of nested tables by its field path; lists of tables are counted, other lists are values.

    >>> flat_settings({"gait": {"walk": {"accel_m_s2": 22.0}}, "paces": [{"above": 0.0}], "centre": [0.0, 0.1]})
    {'gait.walk.accel_m_s2': 22.0, 'paces[0].above': 0.0, 'centre': [0.0, 0.1]}
    """
    fields: dict[str, Any] = {}
    if isinstance(content, dict):
        for name, value in content.items():
            fields |= flat_settings(value, f"{path}.{name}" if path else str(name))
    elif isinstance(content, list | tuple) and content and isinstance(content[0], dict):
        for index, value in enumerate(content):
            fields |= flat_settings(value, f"{path}[{index}]")
    else:
        fields[path] = content
    return fields
