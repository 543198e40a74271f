// A walk by the exported beekeeper: forward, then to the right up to a fence, then no keys; on
// the way a puff of smoke.
//
//   wendonic export demo-out/beekeeper.toml --as csharp --out beekeeper_cs
//   mcs -out:walk.exe Walk.cs beekeeper_cs/Beekeeper.cs && mono walk.exe
using System;
using System.Globalization;

public static class Walk
{
    private const double FenceX = 2.0;

    public static void Main()
    {
        var body = new Beekeeper.FootBody();
        var input = new Beekeeper.Input();
        for (int tick = 1; tick <= 120; tick++) {
            // W is held for a second, D from half a second on; after a second and a half nothing is.
            input.KeyW = tick <= 60 ? 1.0 : 0.0;
            input.KeyD = tick > 30 && tick <= 90 ? 1.0 : 0.0;
            // The game says in each tick whether it is held, or only when that changes.
            Beekeeper.PressSmoke(input, tick > 45 && tick <= 55 ? 1.0 : 0.0);
            body.Tick(input, 1.0 / 60.0);
            Beekeeper.DiscardCounts(input);
            var result = body.Result;
            if (result.SmokeBegan > 0.0)
                Console.WriteLine(string.Format(CultureInfo.InvariantCulture, "{0:0.00} s: smoke", tick / 60.0));
            double x = Math.Min(result.GamePositionX, FenceX);
            if (result.GamePositionX > FenceX) {
                // The game has a fence: it says where the body is, and that its speed to the right is gone.
                body.Place(x, result.GamePositionY, result.GamePositionZ);
                body.SetVelocity(0.0, result.GameVelocityY, result.GameVelocityZ);
            }
            double speed = Math.Sqrt(Math.Pow(result.GameVelocityX, 2) + Math.Pow(result.GameVelocityZ, 2));
            if (tick % 15 == 0)
                Console.WriteLine(string.Format(CultureInfo.InvariantCulture,
                    "{0:0.00} s: at {1:0.000} {2:0.000} {3:0.000}, {4:0.000} m/s, facing {5:0.0} deg", tick / 60.0,
                    x, result.GamePositionY, result.GamePositionZ, speed, result.FaceDeg));
        }
    }
}
