"""The page itself: its HTML, its style, and the bundled source of `web/`, which are committed beside this file."""

import functools
import html
import json
from importlib import resources
from typing import Any

_FOLDER = "wendonic.export.page.built"


@functools.cache
def _read(name: str) -> str:
    return resources.files(_FOLDER).joinpath(name).read_text(encoding="utf-8")


def page_js() -> str:
    """Return the bundle."""
    return _read("page.js")


def page_css() -> str:
    """Return the style."""
    return _read("page.css")


def page_html(title: str, start: dict[str, Any]) -> str:
    """Return the page that a server hands out; `start` is what it begins with."""
    head = '<link rel="stylesheet" href="page.css">'
    data = html.escape(json.dumps(start), quote=True)
    return _filled(title, head, f'<script type="module" src="page.js" id="page" data-start="{data}"></script>')


def page_in_one_file(title: str, module: str, start: dict[str, Any]) -> str:
    """Return the page with everything in it, which needs no server; `module` sets `globalThis.wendonicGiven`."""
    data = html.escape(json.dumps(start), quote=True)
    scripts = f'<script type="module">{_closed(module)}</script>\n'
    scripts += f'<script type="module" id="page" data-start="{data}">{_closed(page_js())}</script>'
    licences = f"<!--\nThis page holds:\n\n{_read('LICENCES.txt')}-->\n"
    return _filled(title, f"<style>{page_css()}</style>", licences + scripts)


def _closed(script: str) -> str:
    """Return a script in which nothing ends the element that holds it."""
    return script.replace("</script", "<\\/script").replace("<!--", "<\\!--")


def _filled(title: str, head: str, scripts: str) -> str:
    page = _read("page.html")
    for mark, content in (("<!--TITLE-->", html.escape(title)), ("<!--HEAD-->", head), ("<!--SCRIPTS-->", scripts)):
        page = page.replace(mark, content)
    return page
