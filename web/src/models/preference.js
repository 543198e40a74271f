/**
 * Whether votes between two sets of numbers are settled. The same computation as wendonic.study.preference in Python.
 *
 * While voting goes on: the interval of shares p that the mixture martingale of a uniform prior does not refute,
 * B(a + 1, b + 1) / (p^a (1 - p)^b) < 1 / error. It holds after every vote at once (Ville 1939; Robbins 1970), so that
 * one may look after each and stop when it leaves one half.
 */

export const ERROR = 0.05;
const MOST_VOTES = 10000;

/** ln Γ of whole and half numbers and all above 0 (Lanczos 1964). */
function logGamma(x) {
    const g = [
        676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905,
        -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
    ];
    let sum = 0.99999999999980993;
    const shifted = x - 1;
    g.forEach((coefficient, index) => (sum += coefficient / (shifted + index + 1)));
    const t = shifted + g.length - 0.5;
    return 0.5 * Math.log(2 * Math.PI) + (shifted + 0.5) * Math.log(t) - t + Math.log(sum);
}

/** ln of the evidence of votes for a and for b against the share p of a. */
function evidence(a, b, p) {
    const mixed = logGamma(a + 1) + logGamma(b + 1) - logGamma(a + b + 2);
    const plain = (a ? a * Math.log(p) : 0) + (b ? b * Math.log(1 - p) : 0);
    return mixed - plain;
}

/** The interval of a's share, valid after each vote. */
export function shareInterval(a, b, error = ERROR) {
    const limit = Math.log(1 / error);
    const inside = (a + b ? a / (a + b) : 0.5) || 1e-12;
    const edge = (from, to) => {
        if (evidence(a, b, to) < limit) return to;
        let [kept, out] = [from, to];
        for (let step = 0; step < 60; step++) {
            const middle = (kept + out) / 2;
            if (evidence(a, b, middle) < limit) kept = middle;
            else out = middle;
        }
        return kept;
    };
    const start = Math.min(inside, 1 - 1e-12);
    const [low, high] = [edge(start, 1e-12), edge(start, 1 - 1e-12)];
    return [low <= 1e-12 ? 0 : low, high >= 1 - 1e-12 ? 1 : high];
}

/** "a" or "b" once it is settled, else null. */
export function settled(a, b, error = ERROR) {
    if (evidence(a, b, 0.5) < Math.log(1 / error)) return null;
    return a > b ? "a" : "b";
}

/** The total number of votes that would settle it if they continue in this ratio; Infinity if they are even. */
export function votesToSettle(a, b, error = ERROR) {
    if (a === b && a > 0) return Infinity;
    const share = a + b ? Math.max(a, b) / (a + b) : 1;
    for (let count = Math.max(a + b, 1); count <= MOST_VOTES; count++) {
        const more = Math.round(share * count);
        if (settled(more, count - more, error)) return count;
    }
    return Infinity;
}
