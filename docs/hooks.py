"""What MkDocs calls as it builds the site: the pictures are drawn then, and are not kept in the repository."""

import sys
import tempfile
from pathlib import Path
from typing import Any

from mkdocs.structure.files import File

FOLDER = Path(tempfile.mkdtemp(prefix="wendonic-site-"))


def on_files(files: Any, *, config: Any) -> Any:
    """Draw every picture of the site, and add it to its files."""
    import matplotlib as mpl
    import matplotlib.pyplot as plt

    mpl.use("Agg")
    # MkDocs takes what a hook adds to the path out again once it is loaded.
    sys.path.insert(0, str(Path(__file__).parent))
    from pictures import findings, frames, guides, symptoms

    from wendonic.pictures import save_picture

    for module in (guides, frames, findings, symptoms):
        for name, draw in module.PICTURES.items():
            path = FOLDER / f"{name}.png"
            drawn = draw()
            if hasattr(drawn, "savefig"):
                drawn.savefig(path, dpi=100)
                plt.close(drawn)
            else:
                save_picture(drawn, path)
            files.append(File.generated(config, f"pictures/{name}.png", abs_src_path=str(path)))
    return files
