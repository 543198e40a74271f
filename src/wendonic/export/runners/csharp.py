"""The runner in C#."""

from wendonic.export.languages.csharp import CSharpPackage, pascal
from wendonic.export.languages.words import adjustable
from wendonic.export.made_ground import grounds_of
from wendonic.export.package import Package
from wendonic.export.vectors import vectors_name

TEXT = """// Replays the test vectors: reads them, ticks, and compares every number.
using System;
using System.Globalization;
using System.IO;
using System.Reflection;

public static class {name}Runner
{{
    private static int ticks, faults;
    private static double worst;

    private static FieldInfo[] FieldsOf(object of)
    {{
        return of.GetType().GetFields(BindingFlags.Public | BindingFlags.Instance);
    }}

    private static void Run(
        string mode, string file, Func<object> make, object input, Action<object, object, double> tick)
    {{
        string folder = AppDomain.CurrentDomain.BaseDirectory;
        string[] lines = File.ReadAllLines(Path.Combine(folder, file));
        string[] names = lines[0].Split(',');
        double[][] rows = new double[lines.Length - 1][];
        for (int k = 1; k < lines.Length; k++)
            rows[k - 1] = Array.ConvertAll(
                lines[k].Split(','), text => double.Parse(text, CultureInfo.InvariantCulture));
        int first = Array.FindIndex(names, name => name.StartsWith("want_"));
        FieldInfo[] inputs = FieldsOf(input);
        bool[] whole = new bool[names.Length];
        double[] largest = new double[names.Length];
        for (int column = first; column < names.Length; column++) {{
            whole[column] = true;
            largest[column] = 1.0;
            foreach (double[] row in rows) {{
                whole[column] = whole[column] && row[column] == Math.Floor(row[column]);
                largest[column] = Math.Max(largest[column], Math.Abs(row[column]));
            }}
        }}
        object body = make();
        for (int number = 0; number < rows.Length; number++) {{
            double[] row = rows[number];
            if (row[0] > 0.0)
                body = make();
{stands}            if (row[0] > 0.0 && row[0] % 2.0 == 0.0) {{
                object state = body.GetType().GetField("State").GetValue(body);
                int place = first;
                foreach (FieldInfo one in FieldsOf(state))
                    one.SetValue(state, row[place++]);
            }}
            for (int k = 2; k < first; k++)
                inputs[k - 2].SetValue(input, row[k]);
            tick(body, input, row[1]);
            int at = first;
            foreach (string part in new[] {{ "State", "Result" }}) {{
                object values = body.GetType().GetField(part).GetValue(body);
                foreach (FieldInfo one in FieldsOf(values)) {{
                    double found = (double)one.GetValue(values);
                    double difference = Math.Abs(found - row[at]) / largest[at];
                    if (difference > worst)
                        worst = difference;
                    if (whole[at] ? !(difference == 0.0) : !(difference <= 1e-12)) {{
                        faults++;
                        if (faults <= 3)
                            Console.Error.WriteLine(string.Format(CultureInfo.InvariantCulture,
                                "{{0}}, tick {{1}}, {{2}}: {{3:R}}, wanted {{4:R}}",
                                mode, number + 1, one.Name, found, row[at]));
                    }}
                    at++;
                }}
            }}
        }}
        ticks += rows.Length;
    }}

{ground}    public static int Main()
    {{
{runs}        Console.WriteLine(string.Format(
            CultureInfo.InvariantCulture, "{{0}} ticks, worst difference {{1:0.0e+00}}", ticks, worst));
        return faults > 0 ? 1 : 0;
    }}
}}
"""


def csharp_runner(package: Package) -> dict[str, str]:
    """Return the runner by its file's name."""
    printed = CSharpPackage(package)
    name = pascal(package.stem)
    runs = ground = stands = ""
    if any("course" in made.program.tick.context for made in package.modes):
        ground = "    private static readonly double[][] Grounds = {\n"
        for row in grounds_of(package.course):
            ground += f"        new[] {{ {', '.join(repr(float(one)) for one in row)} }},\n"
        ground += "    };\n    private static double[] course = Grounds[0];\n\n"
        stands = "            if (row[0] > 0.0)\n                course = Grounds[((int)row[0] - 1) / 2];\n"
    for made in package.modes:
        body, given = (printed.class_name(made, kind) for kind in ("body", "input"))
        more = f"new {name}.{printed.class_name(made, 'settings')}(), " if adjustable(made.program) else ""
        more += "course, " if "course" in made.program.tick.context else ""
        runs += (
            f'        Run("{package.word(made.mode)}", "{vectors_name(package, made)}", () => new {name}.{body}(), '
            f"new {name}.{given}(),\n"
            f"            (body, input, dt) => (({name}.{body})body).Tick(({name}.{given})input, {more}dt));\n"
        )
    return {f"{name}Runner.cs": TEXT.format(name=name, runs=runs, ground=ground, stands=stands)}
