/** Makes an element: its properties, listeners (`onclick`), attributes (`aria-…`, `data-…`) and children. */
export function element(tag, properties = {}, ...children) {
    const made = document.createElement(tag);
    for (const [name, value] of Object.entries(properties)) {
        if (value === undefined || value === null) continue;
        if (name in made && !name.includes("-")) made[name] = value;
        else made.setAttribute(name, value);
    }
    made.append(...children.filter((child) => child !== null && child !== undefined));
    return made;
}

/** A number in as few digits as distinguish it. */
export function shown(value, digits = 4) {
    if (typeof value !== "number" || !Number.isFinite(value)) return "–";
    return String(Number(value.toPrecision(digits)));
}

/** The colours of the page, as the style has them now. */
export function palette() {
    const style = getComputedStyle(document.documentElement);
    const names = "paper sheet ink quiet honey slate heather moss brick fog edge wash".split(" ");
    return Object.fromEntries(names.map((name) => [name, style.getPropertyValue(`--${name}`).trim()]));
}
