using TinRabbit.Bench;

// Measures speed and size: all of it, or only what is named. Figures are reported, never asserted.
var named = args.Length == 0 ? ["match", "keys", "start", "shelf"] : args;
foreach (var name in named)
    switch (name)
    {
        case "match":
            MatchBench.Report();
            break;
        case "keys":
            KeysBench.Report();
            break;
        case "start":
            StartBench.Report();
            break;
        case "shelf":
            ShelfBench.Report();
            break;
        default:
            Console.Error.WriteLine($"There is no measurement {name}; there are match, keys, start and shelf.");
            return 1;
    }

return 0;
