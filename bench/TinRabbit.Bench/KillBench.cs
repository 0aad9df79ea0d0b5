using TinRabbit.Server.Tests;

namespace TinRabbit.Bench;

/// <summary>Kills the program at random moments, also while it starts, and checks after each kill that nothing acknowledged is lost and nothing is half done.</summary>
internal static class KillBench
{
    internal static async Task Report(int rounds)
    {
        // Each shop is killed during its first start too, so there are several.
        const int RoundsOfShop = 20;
        var (acknowledged, starting, importing) = (0, 0, 0);
        for (var done = 0; done < rounds; done += RoundsOfShop)
        {
            var folder = Directory.CreateTempSubdirectory("tin-rabbit-kill-").FullName;
            var kills = new KillRounds(seed: done, folder);
            for (var round = 0; round < Math.Min(RoundsOfShop, rounds - done); round++)
                await kills.Round(round);
            (acknowledged, starting, importing) = (
                acknowledged + kills.Acknowledged,
                starting + kills.KilledWhileStarting,
                importing + kills.KilledWhileImporting
            );
            Console.WriteLine(
                $"  {Math.Min(rounds, done + RoundsOfShop)} rounds: {acknowledged} acknowledged saves, {starting} kills during a start, {importing} during an import; nothing lost, nothing half done"
            );
            Directory.Delete(folder, true);
        }

        Console.WriteLine(
            $"kill: {rounds} rounds, {2 * rounds} kills, of them {starting} before the server was ready and {importing} in the middle of an import; {acknowledged} acknowledged saves, none lost; no half import; every start succeeded"
        );
    }
}
