"""The runner in C."""

from wendonic.export.build import Made
from wendonic.export.languages.c99 import CPackage
from wendonic.export.languages.words import adjustable
from wendonic.export.made_ground import grounds_of
from wendonic.export.package import Package

HEAD = """/* Replays the test vectors: reads them, ticks, and compares every number. */
#include "{stem}.h"

#include <math.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>

typedef struct {{
    size_t rows, columns, inputs;
    double *numbers;
    char *names;
}} table;

static long all_ticks = 0;
static double worst = 0.0;

static int read_table(const char *name, table *read, size_t columns, size_t inputs)
{{
    FILE *file = fopen(name, "rb");
    if (file == NULL) {{
        fprintf(stderr, "%s is missing\\n", name);
        return 0;
    }}
    fseek(file, 0L, SEEK_END);
    const size_t size = (size_t)ftell(file);
    rewind(file);
    char *text = (char *)malloc(size + 1);
    if (text == NULL || fread(text, 1, size, file) != size) {{
        fclose(file);
        free(text);
        return 0;
    }}
    fclose(file);
    text[size] = '\\0';
    char *rest = strchr(text, '\\n');
    size_t lines = 0;
    for (const char *place = text; *place != '\\0'; place++)
        lines += *place == '\\n';
    read->rows = lines > 0 ? lines - 1 : 0;
    read->columns = columns;
    read->inputs = inputs;
    read->numbers = (double *)malloc(read->rows * columns * sizeof(double));
    read->names = text;
    if (rest == NULL || read->numbers == NULL)
        return 0;
    *rest++ = '\\0';
    for (size_t k = 0; k < read->rows * columns; k++) {{
        read->numbers[k] = strtod(rest, &rest);
        if (*rest == ',' || *rest == '\\n')
            rest++;
    }}
    return 1;
}}

static void print_name(const table *read, size_t column)
{{
    const char *name = read->names;
    for (size_t k = 0; k < column; k++)
        name = strchr(name, ',') + 1;
    const char *end = strchr(name, ',');
    fprintf(stderr, "%.*s", end == NULL ? (int)strlen(name) : (int)(end - name), name);
}}

/* A column of nothing but whole numbers has to be equal; any other may differ by a hair of its largest number. */
static int compare(const table *read, const {real} *found, const char *mode)
{{
    int faults = 0;
    for (size_t column = 0; column < read->columns - read->inputs; column++) {{
        const size_t place = read->inputs + column, results = read->columns - read->inputs;
        double largest = 1.0;
        int whole = 1;
        for (size_t row = 0; row < read->rows; row++) {{
            const double wanted = read->numbers[row * read->columns + place];
            whole = whole && wanted == floor(wanted);
            largest = fabs(wanted) > largest ? fabs(wanted) : largest;
        }}
        size_t apart = 0;
        int reported = 0;
        for (size_t row = 0; row < read->rows; row++) {{
            const double wanted = read->numbers[row * read->columns + place];
            const double difference = fabs((double)found[row * results + column] - wanted) / largest;
            const int off = !(difference <= (whole ? {whole} : {limit}));
            apart += (size_t)off;
            const int counts = off && !(whole && apart <= {flips});
            if (counts && faults < 3 && !reported) {{
                reported = 1;
                fprintf(stderr, "%s, tick %lu, ", mode, (unsigned long)row + 1);
                print_name(read, place);
                fprintf(stderr, ": %.17g, wanted %.17g\\n", (double)found[row * results + column], wanted);
            }}
            if ((counts || !off) && difference > worst)
                worst = difference;
        }}
        faults += apart > (whole ? {flips} : 0);
    }}
    return faults;
}}
"""

MODE = """
static int run_{mode}(void)
{{
    table read;
    if (!read_table("{vectors}", &read, {columns}, {inputs}))
        return 1;
    {state} state;
    {input} input;
    {result} result;
    {begin}(&state, &result);
{settings}    const size_t results = read.columns - read.inputs;
    {real} *found = ({real} *)malloc(read.rows * results * sizeof({real}));
    if (found == NULL)
        return 1;
    for (size_t row = 0; row < read.rows; row++) {{
        const double *numbers = read.numbers + row * read.columns;
        if (numbers[0] > 0.0)
            {begin}(&state, &result);
{stands}        const int given_state = numbers[0] > 0.0 && (int)numbers[0] % 2 == 0;
        for (size_t k = 0; given_state && k < sizeof state / sizeof({real}); k++)
            (({real} *)&state)[k] = ({real})numbers[read.inputs + k];
        {real} *given = ({real} *)&input;
        for (size_t k = 2; k < read.inputs; k++)
            given[k - 2] = ({real})numbers[k];
        {tick}(&state, &input, {more}({real})numbers[1], &result);
        memcpy(found + row * results, &state, sizeof state);
        memcpy(found + row * results + sizeof state / sizeof({real}), &result, sizeof result);
    }}
    const int faults = compare(&read, found, "{mode}");
    all_ticks += (long)read.rows;
    free(found);
    free(read.numbers);
    free(read.names);
    return faults;
}}
"""


def c99_runner(package: Package) -> dict[str, str]:
    """Return the runner by its file's name."""
    printed = CPackage(package)
    real = printed.real
    # What happens to be whole all the time is rounded in single precision as well.
    limit, whole, flips = ("1e-4", "1e-6", 1) if package.float32 else ("1e-12", "0.0", 0)
    text = HEAD.format(stem=package.stem, real=real, limit=limit, whole=whole, flips=flips)
    if any("course" in made.program.tick.context for made in package.modes):
        grounds = grounds_of(package.course)
        for number, row in enumerate(grounds):
            numbers = ", ".join(printed.value(float(one)) for one in row)
            text += "\n" + "\n".join(printed.wrap(f"static const {real} ground_{number}[] = {{{numbers}}};")) + "\n"
        names = ", ".join(f"ground_{number}" for number in range(len(grounds)))
        text += f"static const {real} *const grounds[] = {{{names}}};\n"
    for made in package.modes:
        text += _mode(package, printed, made)
    calls = " + ".join(f"run_{package.word(made.mode)}()" for made in package.modes)
    text += f"""
int main(void)
{{
    const int faults = {calls};
    printf("%ld ticks, worst difference %.1e\\n", all_ticks, worst);
    return faults > 0;
}}
"""
    return {f"{package.stem}_runner.c": text}


def _mode(package: Package, printed: CPackage, made: Made) -> str:
    from wendonic.export.package import game_values
    from wendonic.export.vectors import vectors_name

    program = made.program
    inputs = 2 + len(program.inputs)
    columns = inputs + len(program.state) + len(program.results) + len(game_values(made, package.axes))
    settings = more = stands = ""
    if adjustable(program):
        name = printed.struct(made, "settings")
        settings = f"    {name} settings;\n    {printed.struct(made, 'settings_of_profile')}(&settings);\n"
        more = "&settings, "
    if "course" in program.tick.context:
        settings += f"    const {printed.real} *course = grounds[0];\n"
        stands = "        if (numbers[0] > 0.0)\n            course = grounds[((int)numbers[0] - 1) / 2];\n"
        more += "course, "
    return MODE.format(
        mode=package.word(made.mode),
        vectors=vectors_name(package, made),
        columns=columns,
        inputs=inputs,
        settings=settings,
        more=more,
        stands=stands,
        real=printed.real,
        **{kind: printed.struct(made, kind) for kind in ("state", "input", "result", "begin", "tick")},
    )
