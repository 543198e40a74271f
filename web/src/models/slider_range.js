/** The ends and the step of a slider: values worth trying, within the allowed range. */
export function rangeOf(field, value) {
    const size = Math.max(Math.abs(value ?? 0), Math.abs(field.default ?? 0));
    const small = { s: 0.5, share: 1, ratio: 1, amount: 1, tilt: 1, deg: 45, "deg/s": 360, "m/s": 5, "m/s²": 30, m: 1 };
    const most = size > 0 ? 3 * size : (small[field.unit] ?? 1);
    let high = field.high !== null && field.high <= 5 * most ? field.high : most;
    let low = field.low !== null && field.low >= -5 * most ? field.low : -most;
    if (high < low) [low, high] = [high, low];
    if (field.whole) return [low, Math.ceil(high), 1];
    const step = 10 ** Math.floor(Math.log10((high - low) / 200));
    return [low, high, step];
}
