// A walk by the exported beekeeper: forward, then to the right, then no keys.
//
//   wendonic export demo-out/beekeeper.toml --as csharp --out beekeeper_cs
//   mcs -out:walk.exe Walk.cs beekeeper_cs/Beekeeper.cs && mono walk.exe
using System;
using System.Globalization;

public static class Walk
{
    public static void Main()
    {
        var body = new Beekeeper.FootBody();
        var input = new Beekeeper.Input();
        for (int tick = 1; tick <= 120; tick++) {
            // W is held for a second, D from half a second on; after a second and a half nothing is.
            input.KeyW = tick <= 60 ? 1.0 : 0.0;
            input.KeyD = tick > 30 && tick <= 90 ? 1.0 : 0.0;
            body.Tick(input, 1.0 / 60.0);
            double speed = Math.Sqrt(Math.Pow(body.Result.GameVelocityX, 2) + Math.Pow(body.Result.GameVelocityZ, 2));
            if (tick % 15 == 0)
                Console.WriteLine(string.Format(CultureInfo.InvariantCulture,
                    "{0:0.00} s: at {1:0.000} {2:0.000} {3:0.000}, {4:0.000} m/s, facing {5:0.0} deg", tick / 60.0,
                    body.Result.GamePositionX, body.Result.GamePositionY, body.Result.GamePositionZ,
                    speed, body.Result.FaceDeg));
        }
    }
}
